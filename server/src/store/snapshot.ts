import { cardOf, fold, FOLD_VERSION, type Entry, type HouseRules } from '@undercliff/core'
import { and, asc, eq, inArray, sql } from 'drizzle-orm'
import type { Database, Transaction } from '../database/connect'
import { entries, snapshots } from '../database/schema'
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

/** What a log comes to; a log without a registration comes to nothing. */
export function snapshotRow(crewId: string, log: readonly Entry[], rules: HouseRules): typeof snapshots.$inferInsert | null {
  const state = fold(log)
  if (state === null) return null
  const card = cardOf(state, rules)
  return {
    crewId,
    loopId: state.loopId,
    sawId: state.sawId,
    action: card.action,
    foldVersion: FOLD_VERSION,
    state,
    card,
  }
}

/** Writes the snapshots of several loops; those that leave a saw leave it before others come. */
export async function writeSnapshots(
  tx: Transaction,
  crewId: string,
  rows: readonly (typeof snapshots.$inferInsert)[],
): Promise<void> {
  if (rows.length === 0) return
  if (rows.length > 1) {
    const loopIds = rows.map(({ loopId }) => loopId)
    await tx
      .update(snapshots)
      .set({ sawId: null })
      .where(and(eq(snapshots.crewId, crewId), inArray(snapshots.loopId, loopIds)))
  }
  for (const row of rows) {
    const { sawId, action, foldVersion, state, card } = row
    // Not VALUES(…): that would keep a duplicate of the saw's key from being refused.
    await tx
      .insert(snapshots)
      .values({ ...row, sawId: null })
      .onDuplicateKeyUpdate({ set: { loopId: sql`loop_id` } })
    await tx
      .update(snapshots)
      .set({ sawId: sawId ?? null, action, foldVersion, state, card })
      .where(and(eq(snapshots.crewId, crewId), eq(snapshots.loopId, row.loopId)))
  }
}
