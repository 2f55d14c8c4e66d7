import type { AnyNewEntry } from '@undercliff/contract'
import type { Entry, NewEntry, SawEntry } from '@undercliff/core'
import type { entries, sawEntries } from '../database/schema'

type EntryRow = typeof entries.$inferSelect
type NewEntryRow = typeof entries.$inferInsert
type SawEntryRow = typeof sawEntries.$inferSelect
type NewSawEntryRow = typeof sawEntries.$inferInsert

/** What has a column of its own; everything else is in the body. */
const COLUMNS: ReadonlySet<string> = new Set([
  'id',
  'loopId',
  'sawId',
  'kind',
  'happenedAt',
  'writtenAt',
  'writtenBy',
  'personId',
  'note',
])

const bodyOf = (entry: object, columns: ReadonlySet<string>): Record<string, unknown> =>
  Object.fromEntries(Object.entries(entry).filter(([key]) => !columns.has(key)))

/** In a loop's log the saw is part of what an entry says, and what it strikes out has a column. */
const LOOP_COLUMNS: ReadonlySet<string> = new Set([...COLUMNS, 'strikes'].filter((key) => key !== 'sawId'))

/** What an entry carries beyond what every entry has. */
export const detailsOf = (entry: Entry | SawEntry): Record<string, unknown> =>
  bodyOf(entry, 'loopId' in entry ? new Set([...COLUMNS].filter((key) => key !== 'sawId')) : COLUMNS)

/** An entry as its row in the log of its loop. */
export function rowOf(crewId: string, entry: NewEntry, writtenAt: string, writtenBy: string | null): NewEntryRow {
  return {
    crewId,
    id: entry.id,
    loopId: entry.loopId,
    kind: entry.kind,
    happenedAt: entry.happenedAt,
    writtenAt,
    writtenBy,
    personId: entry.personId,
    strikes: entry.kind === 'corrected' ? entry.strikes : null,
    note: entry.note ?? null,
    body: bodyOf(entry, LOOP_COLUMNS),
  }
}

/** A row of the log as the entry it was. */
export function entryOf({ body, note, strikes, crewId: _crew, arrival: _arrival, ...row }: EntryRow): Entry {
  // The row was checked by the contract and the core before it was written.
  return {
    ...body,
    ...row,
    ...(note === null ? {} : { note }),
    ...(strikes === null ? {} : { strikes }),
  } as unknown as Entry
}

/** An entry as its row in the log of its saw. */
export function sawRowOf(crewId: string, entry: SawEntry): NewSawEntryRow {
  const { id, sawId, kind, happenedAt, writtenAt, writtenBy, personId, note } = entry
  const body = bodyOf(entry, COLUMNS)
  return { crewId, id, sawId, kind, happenedAt, writtenAt, writtenBy, personId, note: note ?? null, body }
}

/** A row of a saw's log as the entry it was. */
export const sawEntryOf = ({ body, note, crewId: _crew, arrival: _arrival, ...row }: SawEntryRow): SawEntry =>
  // The row was checked by the contract and the core before it was written.
  ({ ...body, ...row, ...(note === null ? {} : { note }) }) as unknown as SawEntry

/** What the server adds to what was sent, or says in its stead. */
const ADDED = {
  writtenAt: undefined,
  writtenBy: undefined,
  saidAt: undefined,
  knownBite: undefined,
  plate: undefined,
  advised: undefined,
  rulesVersion: undefined,
} as const

/** Text that is the same for entries that were sent alike, whatever the order of their fields and what was added. */
export function fingerprint(entry: AnyNewEntry): string {
  const sorted = (_key: string, value: unknown): unknown =>
    typeof value === 'object' && value !== null && !Array.isArray(value)
      ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
      : value
  const said = (entry as { readonly saidAt?: string }).saidAt ?? entry.happenedAt
  return JSON.stringify({ ...entry, ...ADDED, happenedAt: said }, sorted)
}
