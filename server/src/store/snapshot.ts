import { cardOf, fold, FOLD_VERSION, type Entry, type HouseRules } from '@undercliff/core'
import { and, asc, eq, inArray, sql } from 'drizzle-orm'
import type { Database, Transaction } from '../database/connect'
import { duplicateKey } from '../database/errors'
import { entries, loops, snapshots } from '../database/schema'
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
    foldVersion: FOLD_VERSION,
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
    const loopIds = rows.map(({ loopId }) => loopId)
    await tx
      .update(snapshots)
      .set({ sawId: null, place: 'bench' })
      .where(and(eq(snapshots.crewId, crewId), inArray(snapshots.loopId, loopIds)))
  }
  for (const row of rows) {
    const { sawId, place, stints, action, foldVersion, state, card } = row
    // Not VALUES(…): that would keep a duplicate of the saw's key from being refused.
    await tx
      .insert(snapshots)
      .values({ ...row, sawId: null, place: 'bench' })
      .onDuplicateKeyUpdate({ set: { loopId: sql`loop_id` } })
    await tx
      .update(snapshots)
      .set({ sawId: sawId ?? null, place, stints, action, foldVersion, state, card })
      .where(and(eq(snapshots.crewId, crewId), eq(snapshots.loopId, row.loopId)))
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

const CHUNK = 200

/** Writes the snapshots of loops that have none yet; many at once. */
export async function insertSnapshots(tx: Transaction, rows: readonly SnapshotRow[]): Promise<void> {
  for (let from = 0; from < rows.length; from += CHUNK) {
    await tx
      .insert(snapshots)
      .values(rows.slice(from, from + CHUNK))
      .catch(clash)
  }
}
