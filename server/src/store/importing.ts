import type { Import, ImportAnswer, NewSaw, Saw } from '@undercliff/contract'
import {
  admitAll,
  asWritten,
  believeClock,
  fittingRefusal,
  sayFit,
  type Entry,
  type HouseRules,
  type LoopState,
} from '@undercliff/core'
import { and, eq, inArray, isNotNull, sql } from 'drizzle-orm'
import type { Database, Transaction } from '../database/connect'
import { duplicateKey } from '../database/errors'
import { inChunks } from '../database/inChunks'
import { entries, loops, saws, snapshots } from '../database/schema'
import { AlikeNames } from './alikeNames'
import type { Caller } from './caller'
import { checkEntries } from './checkEntries'
import { checkPeople, lockCrew, readRules } from './crewLock'
import { Refusal } from './refusal'
import { rowOf } from './rows'
import { readSaws } from './saws'
import { insertSnapshots, snapshotRow, type SnapshotRow } from './snapshot'
import { readKnownBite, withKnownBite } from './wear'

/** Logs of new loops, each entry admitted to the log before it. */
function newLogs(sent: readonly Entry[], nowMs: number): ReadonlyMap<string, readonly Entry[]> {
  const { logs, problems } = admitAll(sent, nowMs)
  const [first] = problems
  if (first !== undefined) {
    const fields = problems.map(({ at, field, ...rest }) => ({ ...rest, field: `entries[${at}].${field}` }))
    throw new Refusal('not-admitted', first.message, fields)
  }
  return logs
}

/**
 * Writes what takes long, the logs and what they come to, before the crew is locked. The loops that they
 * belong to follow in the same transaction, so for that long nothing is asked of them.
 */
async function insertLogs(tx: Transaction, crewId: string, sent: readonly Entry[], rows: readonly SnapshotRow[]) {
  await tx.execute(sql`set foreign_key_checks = 0`)
  try {
    await inChunks(sent, (some) =>
      tx.insert(entries).values(some.map((entry) => rowOf(crewId, entry, entry.writtenAt, entry.writtenBy))),
    )
    await insertSnapshots(tx, rows)
  } catch (error) {
    throw taken(error)
  } finally {
    await tx.execute(sql`set foreign_key_checks = 1`)
  }
}

async function insertLoops(
  tx: Transaction,
  crewId: string,
  newSaws: readonly NewSaw[],
  sent: readonly Entry[],
): Promise<void> {
  const registered = sent.filter((entry) => entry.kind === 'registered')
  const names = new AlikeNames(tx, crewId)
  for (const { id, nickname } of newSaws) await names.take('saw', id, nickname)
  for (const { loopId, tag } of registered) await names.take('tag', loopId, tag)
  try {
    await inChunks(newSaws, (some) => tx.insert(saws).values(some.map((saw) => ({ crewId, ...saw }))))
    await inChunks(registered, (some) =>
      tx.insert(loops).values(some.map(({ loopId, tag }) => ({ crewId, id: loopId, tag }))),
    )
  } catch (error) {
    throw taken(error)
  }
}

/** A clash with what is there already, as a refusal; the error itself when it is none. */
function taken(error: unknown): unknown {
  const key = duplicateKey(error)
  if (key === null) return error
  return new Refusal(
    key === 'loops_tag' ? 'tag-taken' : 'name-taken',
    'Something in it has a tag or a name that is taken by now. Look at the preview again.',
  )
}

/** Saws that have a loop on them. */
const occupiedSaws = async (tx: Transaction, crewId: string): Promise<Set<string | null>> =>
  new Set(
    (
      await tx
        .select({ sawId: snapshots.sawId })
        .from(snapshots)
        .where(and(eq(snapshots.crewId, crewId), isNotNull(snapshots.sawId)))
    ).map(({ sawId }) => sawId),
  )

/** @throws Refusal when a loop is said to be on a saw that it must not go on */
function checkFittings(
  state: LoopState,
  log: readonly Entry[],
  bySaw: ReadonlyMap<string, Saw>,
  rules: HouseRules,
): void {
  for (const entry of log) {
    if (entry.kind !== 'fitted') continue
    const saw = bySaw.get(entry.sawId)
    if (saw === undefined) throw new Refusal('no-such-saw', `There is no such saw for ${state.tag}.`)
    const refusal = fittingRefusal(state, saw, rules, entry.overruled !== undefined)
    if (refusal === null) continue
    const code = refusal.why === 'mustNot' ? 'does-not-fit' : 'overrule-needed'
    throw new Refusal(code, sayFit(state.tag, saw.nickname, refusal.check))
  }
}

/**
 * Writes everything that a spreadsheet brought, new loops and new saws only: all of it or nothing.
 *
 * @param deviceMs what the clock of the device showed when it sent it; null when it did not say
 * @throws Refusal that names the entry, when any of it cannot be
 */
export async function runImport(
  db: Database,
  caller: Caller,
  body: Import,
  now: Date,
  deviceMs: number | null = null,
): Promise<ImportAnswer> {
  const { crewId, personId } = caller
  const writtenAt = now.toISOString()
  const checked = believeClock(checkEntries(body.entries, 'entries'), now.getTime(), deviceMs)
  const known = await readKnownBite(db, crewId)
  const sent = checked.map((entry) => asWritten(withKnownBite(entry, known), writtenAt, personId))
  const logs = newLogs(sent, now.getTime())
  // Folded before the crew is locked, so that nobody waits for it.
  const expected = await readRules(db, crewId)
  const folded = foldAll(crewId, logs, expected)
  const namedSaws = sent.flatMap((entry) => (entry.kind === 'fitted' ? [entry.sawId] : []))
  return db.transaction(async (tx) => {
    const occupied = await occupiedSaws(tx, crewId)
    await insertLogs(tx, crewId, sent, folded)
    const rules = await lockCrew(tx, crewId)
    await checkPeople(tx, crewId, sent)
    await insertLoops(tx, crewId, body.saws, sent)
    const bySaw = new Map((await readSaws(tx, crewId, [...new Set(namedSaws)])).map((saw) => [saw.id, saw]))
    for (const { loopId, sawId, state } of folded) {
      checkFittings(state, logs.get(loopId) ?? [], bySaw, rules)
      if (sawId != null && occupied.has(sawId))
        throw new Refusal('saw-occupied', `There is another loop on the saw that ${state.tag} is to be on.`)
    }
    // Under other rules than they were worked out by, they are worked out again as they are read.
    if (rules.version !== expected.version) await markOutdated(tx, crewId, [...logs.keys()])
    return { loops: logs.size, saws: body.saws.length, entries: sent.length }
  })
}

/** Has snapshots worked out again by whoever reads them, and by the renewal of the next start. */
const markOutdated = (tx: Transaction, crewId: string, loopIds: readonly string[]): Promise<void> =>
  inChunks(loopIds, (some) =>
    tx
      .update(snapshots)
      .set({ storedVersion: 0 })
      .where(and(eq(snapshots.crewId, crewId), inArray(snapshots.loopId, some))),
  )

/** What the logs come to, each folded once. */
const foldAll = (crewId: string, logs: ReadonlyMap<string, readonly Entry[]>, rules: HouseRules): SnapshotRow[] =>
  [...logs.values()].map((log) => {
    const row = snapshotRow(crewId, log, rules)
    if (row === null) throw new Refusal('not-admitted', 'A loop has entries and is not registered.')
    return row
  })
