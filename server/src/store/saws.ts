import type { NewSaw, Saw } from '@undercliff/contract'
import { sawState, type LoopStint, type SawEntry, type SawState } from '@undercliff/core'
import { and, asc, eq, inArray, like, or } from 'drizzle-orm'
import type { Database, Transaction } from '../database/connect'
import { sawEntries, saws, snapshots } from '../database/schema'
import { sawEntryOf } from './rows'

type SawRow = typeof saws.$inferSelect
export const sawOf = ({ id, nickname, pitchClass, gaugeUm, driveLinks, nosePitchClass, barStamp }: SawRow): NewSaw => ({
  id,
  nickname,
  pitchClass,
  gaugeUm,
  driveLinks,
  nosePitchClass,
  ...(barStamp === null ? {} : { barStamp }),
})

/** Times that loops of the crew spent on saws, by saw; of some saws only, where they are named. */
async function readStints(
  db: Database | Transaction,
  crewId: string,
  sawIds?: readonly string[],
): Promise<Map<string, LoopStint[]>> {
  const ofSaws = sawIds === undefined ? undefined : or(...sawIds.map((id) => like(snapshots.stints, `%"${id}"%`)))
  const rows = await db
    .select({ loopId: snapshots.loopId, stints: snapshots.stints })
    .from(snapshots)
    .where(and(eq(snapshots.crewId, crewId), ofSaws))
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

/** Saws of a crew as they stand: all of them, or some by their ids. */
export async function readSaws(db: Database | Transaction, crewId: string, sawIds?: readonly string[]): Promise<Saw[]> {
  if (sawIds?.length === 0) return []
  const named = sawIds === undefined ? undefined : inArray(saws.id, [...sawIds])
  const logged = sawIds === undefined ? undefined : inArray(sawEntries.sawId, [...sawIds])
  const rows = await db
    .select()
    .from(saws)
    .where(and(eq(saws.crewId, crewId), named))
    .orderBy(asc(saws.nickname))
  const log = await db
    .select()
    .from(sawEntries)
    .where(and(eq(sawEntries.crewId, crewId), logged))
  const logs = new Map<string, SawEntry[]>()
  for (const entry of log.map(sawEntryOf)) {
    const ofSaw = logs.get(entry.sawId)
    if (ofSaw === undefined) logs.set(entry.sawId, [entry])
    else ofSaw.push(entry)
  }
  const stints = await readStints(db, crewId, sawIds)
  return rows.map((row) => {
    const { fit, bar, due, gone, tension, tankHours } = sawState(
      sawOf(row),
      logs.get(row.id) ?? [],
      stints.get(row.id) ?? [],
    )
    const { pitchClass, gaugeUm, driveLinks, nosePitchClass = null, barStamp } = fit
    const { grooveWidthUm } = bar
    return {
      id: row.id,
      nickname: row.nickname,
      pitchClass,
      gaugeUm,
      driveLinks,
      nosePitchClass,
      ...(barStamp === undefined ? {} : { barStamp }),
      due,
      grooveWidthUm,
      gone,
      tension,
      tankHours,
      unturned: bar.changesUnturned,
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
  return { saw, entries, state: sawState(saw, entries, (await readStints(db, crewId, [sawId])).get(sawId) ?? []) }
}
