import { cardOf, fold, STORED_VERSION, type Entry, type HouseRules, type LoopCard } from '@undercliff/core'
import { and, asc, eq, inArray } from 'drizzle-orm'
import type { Database, Transaction } from '../database/connect'
import { duplicateKey } from '../database/errors'
import { inChunks } from '../database/inChunks'
import { entries, loops, snapshots } from '../database/schema'
import { breathe } from './breathe'
import { Refusal } from './refusal'
import { entryOf } from './rows'

/** The whole log of a loop, in order of arrival. */
export async function readLog(db: Database | Transaction, crewId: string, loopId: string): Promise<Entry[]> {
  const rows = await db
    .select()
    .from(entries)
    .where(and(eq(entries.crewId, crewId), eq(entries.loopId, loopId)))
    .orderBy(asc(entries.arrival))
  return rows.map(entryOf)
}

/** The logs of several loops at once, by loop. */
export async function readLogs(
  db: Database | Transaction,
  crewId: string,
  loopIds: readonly string[],
): Promise<Map<string, Entry[]>> {
  const logs = new Map<string, Entry[]>()
  if (loopIds.length === 0) return logs
  const rows = await db
    .select()
    .from(entries)
    .where(and(eq(entries.crewId, crewId), inArray(entries.loopId, [...loopIds])))
    .orderBy(asc(entries.arrival))
  for (const row of rows) {
    const log = logs.get(row.loopId)
    if (log === undefined) logs.set(row.loopId, [entryOf(row)])
    else log.push(entryOf(row))
  }
  return logs
}

/**
 * Cards of a crew's loops: all of them, or some by their ids. One that an older version wrote is
 * worked out anew, so that no list ever shows a verdict of a model that is gone.
 */
export async function readCards(
  db: Database | Transaction,
  crewId: string,
  rules: HouseRules,
  loopIds?: readonly string[],
): Promise<LoopCard[]> {
  if (loopIds?.length === 0) return []
  const { loopId, card, storedVersion } = snapshots
  const named = loopIds === undefined ? undefined : inArray(loopId, [...loopIds])
  const rows = await db
    .select({ loopId, card, storedVersion })
    .from(snapshots)
    .where(and(eq(snapshots.crewId, crewId), named))
  const outdated = rows.filter((row) => row.storedVersion !== STORED_VERSION).map((row) => row.loopId)
  const fresh = new Map<string, LoopCard>()
  for (const [id, log] of await readLogs(db, crewId, outdated)) {
    const row = snapshotRow(crewId, log, rules)
    if (row !== null) fresh.set(id, row.card)
    await breathe()
  }
  return rows.map((row) => fresh.get(row.loopId) ?? row.card)
}

export type SnapshotRow = typeof snapshots.$inferInsert

/** What a log comes to; a log without a registration comes to nothing. */
export function snapshotRow(crewId: string, log: readonly Entry[], rules: HouseRules): SnapshotRow | null {
  const state = fold(log)
  if (state === null) return null
  const card = cardOf(state, rules)
  return {
    crewId,
    loopId: state.loopId,
    sawId: state.sawId,
    place: state.place.at,
    stints: state.stints,
    action: card.action,
    storedVersion: STORED_VERSION,
    state,
    card,
  }
}

/** Rethrows a clash over a saw or a tag as a sentence. */
function clash(error: unknown): never {
  const key = duplicateKey(error)
  if (key === 'snapshots_one_loop_a_saw') {
    throw new Refusal('saw-occupied', 'There is another loop on that saw. Take it off first.')
  }
  if (key === 'loops_tag') throw new Refusal('tag-taken', 'Another loop has that tag.')
  throw error
}

async function writeAll(tx: Transaction, crewId: string, rows: readonly SnapshotRow[]): Promise<void> {
  if (rows.length > 1) {
    const leaving = rows.map(({ loopId }) => loopId)
    await tx
      .update(snapshots)
      .set({ sawId: null, place: 'bench' })
      .where(and(eq(snapshots.crewId, crewId), inArray(snapshots.loopId, leaving)))
  }
  const loopIds = rows.map(({ loopId }) => loopId)
  const tags = await tx
    .select({ loopId: loops.id, tag: loops.tag, kept: snapshots.loopId })
    .from(loops)
    .leftJoin(snapshots, and(eq(snapshots.crewId, loops.crewId), eq(snapshots.loopId, loops.id)))
    .where(and(eq(loops.crewId, crewId), inArray(loops.id, loopIds)))
  const before = new Map(tags.map((one) => [one.loopId, one]))
  for (const row of rows) {
    const { sawId, place, stints, action, storedVersion, state, card } = row
    if (before.get(row.loopId)?.kept == null) await tx.insert(snapshots).values({ ...row, sawId: null, place: 'bench' })
    await tx
      .update(snapshots)
      .set({ sawId: sawId ?? null, place, stints, action, storedVersion, state, card })
      .where(and(eq(snapshots.crewId, crewId), eq(snapshots.loopId, row.loopId)))
    if (before.get(row.loopId)?.tag !== state.tag)
      await tx
        .update(loops)
        .set({ tag: state.tag })
        .where(and(eq(loops.crewId, crewId), eq(loops.id, row.loopId)))
  }
}

/**
 * Writes the snapshots of several loops; those that leave a saw leave it before others come.
 *
 * @throws Refusal when two loops come to be on one saw, or under one tag
 */
export async function writeSnapshots(tx: Transaction, crewId: string, rows: readonly SnapshotRow[]): Promise<void> {
  if (rows.length === 0) return
  await writeAll(tx, crewId, rows).catch(clash)
}

/** Writes the snapshots of loops that have none yet; many at once. */
export const insertSnapshots = (tx: Transaction, rows: readonly SnapshotRow[]): Promise<void> =>
  inChunks(rows, (some) => tx.insert(snapshots).values(some).catch(clash))
