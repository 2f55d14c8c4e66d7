import type { NewSaw, Saw } from '@undercliff/contract'
import { sawState, type LoopStint, type NewSawEntry, type SawEntry, type SawState } from '@undercliff/core'
import { and, asc, eq, sql } from 'drizzle-orm'
import type { Database, Transaction } from '../database/connect'
import { sawEntries, saws, snapshots } from '../database/schema'
import type { Caller } from './caller'
import { checkPeople, lockCrew } from './crewLock'
import { Refusal } from './refusal'

type SawRow = typeof saws.$inferSelect
type SawEntryRow = typeof sawEntries.$inferSelect

export const sawOf = ({ id, nickname, pitchClass, gaugeUm, driveLinks, nosePitchClass }: SawRow): NewSaw => ({
  id,
  nickname,
  pitchClass,
  gaugeUm,
  driveLinks,
  nosePitchClass,
})

export const sawEntryOf = ({ body, note, crewId: _crew, arrival: _arrival, ...row }: SawEntryRow): SawEntry =>
  // The row was checked by the contract before it was written.
  ({ ...body, ...row, ...(note === null ? {} : { note }) }) as unknown as SawEntry

const BASE: ReadonlySet<string> = new Set([
  'id',
  'sawId',
  'kind',
  'happenedAt',
  'writtenAt',
  'writtenBy',
  'personId',
  'note',
])

export const sawEntryRow = (crewId: string, entry: SawEntry): typeof sawEntries.$inferInsert => {
  const { id, sawId, kind, happenedAt, writtenAt, writtenBy, personId, note } = entry
  const body = Object.fromEntries(Object.entries(entry).filter(([key]) => !BASE.has(key)))
  return { crewId, id, sawId, kind, happenedAt, writtenAt, writtenBy, personId, note: note ?? null, body }
}

/** Times that loops of the crew spent on saws, by saw. */
export async function readStints(
  db: Database | Transaction,
  crewId: string,
  sawId?: string,
): Promise<Map<string, LoopStint[]>> {
  const ofSaw = sawId === undefined ? undefined : sql`${snapshots.stints} like ${`%"${sawId}"%`}`
  const rows = await db
    .select({ loopId: snapshots.loopId, stints: snapshots.stints })
    .from(snapshots)
    .where(and(eq(snapshots.crewId, crewId), ofSaw))
  const bySaw = new Map<string, LoopStint[]>()
  for (const { loopId, stints } of rows) {
    for (const stint of stints) {
      const some = bySaw.get(stint.sawId)
      if (some === undefined) bySaw.set(stint.sawId, [{ ...stint, loopId }])
      else some.push({ ...stint, loopId })
    }
  }
  return bySaw
}

/** Every saw of a crew as it stands. */
export async function readSaws(db: Database | Transaction, crewId: string): Promise<Saw[]> {
  const rows = await db.select().from(saws).where(eq(saws.crewId, crewId)).orderBy(asc(saws.nickname))
  const log = (await db.select().from(sawEntries).where(eq(sawEntries.crewId, crewId))).map(sawEntryOf)
  const stints = await readStints(db, crewId)
  return rows.map((row) => {
    const { fit, bar, due } = sawState(
      sawOf(row),
      log.filter(({ sawId }) => sawId === row.id),
      stints.get(row.id) ?? [],
    )
    const { pitchClass, gaugeUm, driveLinks, nosePitchClass = null } = fit
    return {
      id: row.id,
      nickname: row.nickname,
      pitchClass,
      gaugeUm,
      driveLinks,
      nosePitchClass,
      due,
      grooveWidthUm: bar.grooveWidthUm,
    }
  })
}

/** One saw, its state and its log; null when the crew has no such saw. */
export async function readSawState(
  db: Database | Transaction,
  crewId: string,
  sawId: string,
): Promise<{ saw: NewSaw; state: SawState; entries: SawEntry[] } | null> {
  const [row] = await db
    .select()
    .from(saws)
    .where(and(eq(saws.crewId, crewId), eq(saws.id, sawId)))
  if (row === undefined) return null
  const log = await db
    .select()
    .from(sawEntries)
    .where(and(eq(sawEntries.crewId, crewId), eq(sawEntries.sawId, sawId)))
    .orderBy(asc(sawEntries.arrival))
  const entries = log.map(sawEntryOf)
  const saw = sawOf(row)
  return { saw, entries, state: sawState(saw, entries, (await readStints(db, crewId, sawId)).get(sawId) ?? []) }
}

const wrong = (field: string, message: string): Refusal =>
  new Refusal('not-admitted', message, [{ field: `entry.${field}`, message }])

/**
 * Writes an entry into a saw's log. One that was written before answers as it did then.
 *
 * @throws Refusal when it cannot join the log, or is not this person's to write
 */
export const appendSawEntry = (
  db: Database,
  caller: Caller,
  entry: NewSawEntry,
  clock: () => Date,
): Promise<SawEntry> =>
  db.transaction(async (tx) => {
    const { crewId } = caller
    await lockCrew(tx, crewId)
    const found = await readSawState(tx, crewId, entry.sawId)
    if (found === null) throw new Refusal('no-such-saw', 'There is no such saw.')
    const before = found.entries.find(({ id }) => id === entry.id)
    if (before !== undefined) return before
    await checkPeople(tx, crewId, [entry])
    const now = clock()
    if (Date.parse(entry.happenedAt) > now.getTime() + 5 * 60_000)
      throw wrong('happenedAt', 'That is in the future. Check the date and time.')
    // Another bar or sprocket changes what fits: that is the saw's spec.
    if (caller.role !== 'lead' && (entry.kind === 'barFitted' || entry.kind === 'sprocketRenewed')) {
      throw new Refusal('lead-only', 'Another bar or sprocket is a lead’s to write: it changes what fits.')
    }
    if (entry.kind === 'sawCorrected') {
      const target = found.entries.find(({ id }) => id === entry.strikes)
      if (target === undefined || target.kind === 'sawCorrected')
        throw wrong('strikes', 'The entry to strike out is not in this log.')
      if (found.entries.some((one) => one.kind === 'sawCorrected' && one.strikes === entry.strikes))
        throw wrong('strikes', 'That entry has been struck out already.')
      if (caller.role !== 'lead' && (target.kind === 'barFitted' || target.kind === 'sprocketRenewed')) {
        throw new Refusal('lead-only', 'Another bar or sprocket is a lead’s to write: it changes what fits.')
      }
    }
    if (
      entry.kind === 'barChecked' &&
      entry.grooveWidthUm !== undefined &&
      entry.grooveWidthUm < found.state.fit.gaugeUm - 100
    ) {
      throw wrong('grooveWidthUm', 'A groove does not get narrower than it was made. Is it the width, not the depth?')
    }
    const written = { ...entry, writtenAt: now.toISOString(), writtenBy: caller.personId } as SawEntry
    await tx.insert(sawEntries).values(sawEntryRow(crewId, written))
    return written
  })
