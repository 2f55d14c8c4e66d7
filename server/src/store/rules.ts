import type { HouseRulesChange } from '@undercliff/contract'
import { cardOf, rulesConflicts, STORED_VERSION, type HouseRules } from '@undercliff/core'
import { and, eq } from 'drizzle-orm'
import type { Database } from '../database/connect'
import { crews, snapshots } from '../database/schema'
import { lockCrew } from './crewLock'
import { Refusal } from './refusal'

/** @throws Refusal when rules contradict one another */
function refuseConflicts(rules: HouseRules): void {
  const conflicts = rulesConflicts(rules)
  const [first] = conflicts
  if (first === undefined) return
  const problems = conflicts.flatMap(({ fields, message }) => fields.map((field) => ({ field, message })))
  throw new Refusal('rules-conflict', first.message, problems)
}

/**
 * Changes what a crew works by, and with it every verdict: the cards are worked out again in the
 * same transaction. Those that an older version wrote are worked out by the renewal, under the rules
 * that hold then.
 *
 * @param wanted what is to hold from now on, with the version that was read when it was changed; the rest stays
 * @returns the rules as they hold now, under a version of their own
 * @throws Refusal when somebody else changed them meanwhile, or they cannot hold together
 */
export const changeRules = (db: Database, crewId: string, wanted: HouseRulesChange): Promise<HouseRules> =>
  db.transaction(async (tx) => {
    const before = await lockCrew(tx, crewId)
    if (wanted.version !== before.version) {
      throw new Refusal(
        'rules-changed',
        'Somebody changed the house rules meanwhile. Look at them as they are now, and change them again.',
      )
    }
    const rules: HouseRules = { ...before, ...wanted, version: before.version + 1 }
    refuseConflicts(rules)
    await tx.update(crews).set({ rules }).where(eq(crews.id, crewId))
    const rows = await tx
      .select({ loopId: snapshots.loopId, state: snapshots.state })
      .from(snapshots)
      .where(and(eq(snapshots.crewId, crewId), eq(snapshots.storedVersion, STORED_VERSION)))
    for (const { loopId, state } of rows) {
      const card = cardOf(state, rules)
      await tx
        .update(snapshots)
        .set({ card, action: card.action })
        .where(and(eq(snapshots.crewId, crewId), eq(snapshots.loopId, loopId)))
    }
    return rules
  })
