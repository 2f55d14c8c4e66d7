import type { Entry, NewEntry } from '@undercliff/core'
import type { entries } from '../database/schema'

type EntryRow = typeof entries.$inferSelect
type NewEntryRow = typeof entries.$inferInsert

const BASE: ReadonlySet<string> = new Set([
  'id',
  'loopId',
  'kind',
  'happenedAt',
  'writtenAt',
  'writtenBy',
  'personId',
  'note',
  'strikes',
])

/** An entry as its row in the log. */
export function rowOf(crewId: string, entry: NewEntry, writtenAt: string, writtenBy: string | null): NewEntryRow {
  const body = Object.fromEntries(Object.entries(entry).filter(([key]) => !BASE.has(key)))
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
    body,
  }
}

/** A row of the log as the entry it was. */
export function entryOf({
  id,
  loopId,
  kind,
  happenedAt,
  writtenAt,
  writtenBy,
  personId,
  strikes,
  note,
  body,
}: EntryRow): Entry {
  // The row was checked by the contract and the core before it was written.
  return {
    ...body,
    id,
    loopId,
    kind,
    happenedAt,
    writtenAt,
    writtenBy,
    personId,
    ...(note === null ? {} : { note }),
    ...(strikes === null ? {} : { strikes }),
  } as unknown as Entry
}

/** Text that is the same for equal entries, whatever the order of their fields. */
export function fingerprint(entry: NewEntry): string {
  const sorted = (_key: string, value: unknown): unknown =>
    typeof value === 'object' && value !== null && !Array.isArray(value)
      ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
      : value
  return JSON.stringify({ ...entry, writtenAt: undefined, writtenBy: undefined }, sorted)
}
