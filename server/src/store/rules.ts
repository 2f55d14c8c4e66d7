import { cardOf, type HouseRules } from '@undercliff/core'
import { and, eq } from 'drizzle-orm'
import type { Database } from '../database/connect'
import { crews, snapshots } from '../database/schema'
import { lockCrew } from './crewLock'

/**
 * Changes what a crew works by, and with it every verdict: the cards are worked out again in the
 * same transaction.
 *
 * @returns the rules as they hold now, under a version of their own
 */
export const changeRules = (db: Database, crewId: string, wanted: HouseRules): Promise<HouseRules> =>
  db.transaction(async (tx) => {
    const before = await lockCrew(tx, crewId)
    const rules: HouseRules = { ...wanted, version: before.version + 1 }
    await tx.update(crews).set({ rules }).where(eq(crews.id, crewId))
    const rows = await tx
      .select({ loopId: snapshots.loopId, state: snapshots.state })
      .from(snapshots)
      .where(eq(snapshots.crewId, crewId))
    for (const { loopId, state } of rows) {
      const card = cardOf(state, rules)
      await tx
        .update(snapshots)
        .set({ card, action: card.action })
        .where(and(eq(snapshots.crewId, crewId), eq(snapshots.loopId, loopId)))
    }
    return rules
  })
