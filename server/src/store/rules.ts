import type { HouseRulesChange } from '@undercliff/contract'
import {
  cardOf,
  partedRules,
  rulesConflicts,
  shedEffect,
  STORED_VERSION,
  type HouseRules,
  type LoopCard,
  type ShedEffect,
} from '@undercliff/core'
import { and, eq, gt, inArray, max, sql } from 'drizzle-orm'
import { atOneMoment } from '../database/atOneMoment'
import type { Database, Transaction } from '../database/connect'
import { inChunks } from '../database/inChunks'
import { crews, entries, snapshots } from '../database/schema'
import { lockCrew, readRules } from './crewLock'
import { Refusal } from './refusal'

/** @throws Refusal when rules contradict one another */
function refuseConflicts(rules: HouseRules): void {
  const conflicts = rulesConflicts(rules)
  const [first] = conflicts
  if (first === undefined) return
  const problems = conflicts.flatMap(({ fields, message }) => fields.map((field) => ({ field, message })))
  throw new Refusal('rules-conflict', first.message, problems)
}

/** Cards by loop, under some rules. */
type Cards = Map<string, LoopCard>

/** The last entry that a crew wrote, by its arrival; 0 when there is none. */
async function lastArrival(tx: Transaction, crewId: string): Promise<number> {
  const [row] = await tx
    .select({ last: max(entries.arrival) })
    .from(entries)
    .where(eq(entries.crewId, crewId))
  return row?.last ?? 0
}

/** Works out the cards of some loops, all when none are named, from what this version stored. */
async function addCards(tx: Transaction, crewId: string, rules: HouseRules, cards: Cards, loopIds?: readonly string[]) {
  if (loopIds?.length === 0) return
  const ofThisVersion = and(eq(snapshots.crewId, crewId), eq(snapshots.storedVersion, STORED_VERSION))
  const wanted = await tx
    .select({ loopId: snapshots.loopId })
    .from(snapshots)
    .where(and(ofThisVersion, loopIds === undefined ? undefined : inArray(snapshots.loopId, [...loopIds])))
  await inChunks(wanted, async (some) => {
    const ids = some.map(({ loopId }) => loopId)
    const rows = await tx
      .select({ loopId: snapshots.loopId, state: snapshots.state })
      .from(snapshots)
      .where(and(ofThisVersion, inArray(snapshots.loopId, ids)))
    for (const { loopId, state } of rows) cards.set(loopId, cardOf(state, rules))
  })
}

/** Writes cards, many in a statement; none is added where there is no snapshot. */
const writeCards = (tx: Transaction, crewId: string, cards: Cards): Promise<void> =>
  inChunks([...cards], async (some) => {
    const cases = (pick: (card: LoopCard) => string) =>
      sql.join(
        some.map(([loopId, card]) => sql`when ${loopId} then ${pick(card)}`),
        sql` `,
      )
    await tx
      .update(snapshots)
      .set({
        card: sql`case ${snapshots.loopId} ${cases((card) => JSON.stringify(card))} end`,
        action: sql`case ${snapshots.loopId} ${cases(({ action }) => action)} end`,
      })
      .where(
        and(
          eq(snapshots.crewId, crewId),
          inArray(
            snapshots.loopId,
            some.map(([loopId]) => loopId),
          ),
        ),
      )
  })

/** What a change makes of the rules as they are; it refuses those that somebody else changed meanwhile. */
type Change = (before: HouseRules) => HouseRules

/** The rules as they would be, with the cards under them and the last entry that these know of. */
async function workOut(tx: Transaction, crewId: string, change: Change) {
  const before = await readRules(tx, crewId)
  const rules = change(before)
  refuseConflicts(rules)
  const known = await lastArrival(tx, crewId)
  const cards: Cards = new Map()
  await addCards(tx, crewId, rules, cards)
  return { before, rules, cards, known }
}

/** What a lead wants, against the version that was read. What was learned is nobody's to type. */
const wantedBy =
  (wanted: HouseRulesChange): Change =>
  (before) => {
    if (wanted.version !== before.version) throw changedMeanwhile()
    return { ...before, ...wanted, ...partedRules(before).learned, version: before.version + 1 }
  }

/**
 * What a change of the rules would do to the whole shed; nothing is written.
 *
 * @throws Refusal when somebody else changed them meanwhile, or they cannot hold together
 */
export async function effectOfRules(db: Database, crewId: string, wanted: HouseRulesChange): Promise<ShedEffect> {
  const { cards } = await atOneMoment(db, (tx) => workOut(tx, crewId, wantedBy(wanted)))
  const stored = await db
    .select({ card: snapshots.card })
    .from(snapshots)
    .where(and(eq(snapshots.crewId, crewId), eq(snapshots.storedVersion, STORED_VERSION)))
  return shedEffect(
    stored.map(({ card }) => card),
    [...cards.values()],
  )
}

const changedMeanwhile = (): Refusal =>
  new Refusal(
    'rules-changed',
    'Somebody changed the house rules meanwhile. Look at them as they are now, and change them again.',
  )

/**
 * Changes what a crew works by, and with it every verdict: the cards are worked out before the crew is
 * locked, so that nobody waits for them, and written in the same transaction as the rules with those of
 * loops that were written to meanwhile. Those that an older version wrote are worked out by the renewal,
 * under the rules that hold then.
 *
 * @param wanted what is to hold from now on, with the version that was read when it was changed; the rest stays
 * @returns the rules as they hold now, under a version of their own
 * @throws Refusal when somebody else changed them meanwhile, or they cannot hold together
 */
export const changeRules = (db: Database, crewId: string, wanted: HouseRulesChange): Promise<HouseRules> =>
  writeRules(db, crewId, wantedBy(wanted))

/**
 * Has verdicts reckon with what was learned from the logs. Nobody decided anything: the rules of the house keep their
 * version, and whoever has them open saves against it.
 */
export const changeLearned = (
  db: Database,
  crewId: string,
  learned: Pick<HouseRules, 'pace' | 'signCounts'>,
): Promise<HouseRules> =>
  writeRules(db, crewId, (before) => ({ ...before, ...learned, learnedVersion: before.learnedVersion + 1 }))

const sameRules = (one: HouseRules, other: HouseRules): boolean =>
  one.version === other.version && one.learnedVersion === other.learnedVersion

/** So often the cards are worked out before the crew is locked; the last time while it is. */
const TRIES = 3

async function writeRules(db: Database, crewId: string, change: Change): Promise<HouseRules> {
  for (let tries = 1; ; tries += 1) {
    const beforehand = await atOneMoment(db, (tx) => workOut(tx, crewId, change))
    const written = await db.transaction(async (tx) => {
      const now = await lockCrew(tx, crewId)
      // What is learned and what a lead decides may meet: neither is refused, and neither undoes the other.
      if (sameRules(now, beforehand.before)) return keepRules(tx, crewId, beforehand)
      return tries === TRIES ? keepRules(tx, crewId, await workOut(tx, crewId, change)) : null
    })
    if (written !== null) return written
  }
}

async function keepRules(
  tx: Transaction,
  crewId: string,
  { rules, cards, known }: Awaited<ReturnType<typeof workOut>>,
): Promise<HouseRules> {
  const { decided, learned } = partedRules(rules)
  await tx.update(crews).set({ rules: decided, learned }).where(eq(crews.id, crewId))
  const since = await tx
    .selectDistinct({ loopId: entries.loopId })
    .from(entries)
    .where(and(eq(entries.crewId, crewId), gt(entries.arrival, known)))
  await addCards(
    tx,
    crewId,
    rules,
    cards,
    since.map(({ loopId }) => loopId),
  )
  await writeCards(tx, crewId, cards)
  return rules
}
