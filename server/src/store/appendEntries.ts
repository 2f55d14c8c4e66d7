import {
  admit,
  decide,
  fitCheck,
  fold,
  mayOverrule,
  sayFit,
  sayReason,
  type Entry,
  type EntryKind,
  type EntryOf,
  type HouseRules,
  type NewEntry,
} from '@undercliff/core'
import type { FieldProblem } from '@undercliff/contract'
import { and, eq, inArray } from 'drizzle-orm'
import type { Database, Transaction } from '../database/connect'
import { duplicateKey } from '../database/errors'
import { entries, loops } from '../database/schema'
import type { Caller } from './caller'
import { checkPeople, lockCrew } from './crewLock'
import { Refusal } from './refusal'
import { entryOf, fingerprint, rowOf } from './rows'
import { readSawState } from './saws'
import { readLog, snapshotRow, writeSnapshots, type SnapshotRow } from './snapshot'

const notAdmitted = (problems: readonly FieldProblem[]): Refusal =>
  new Refusal('not-admitted', problems[0]?.message ?? 'The entry cannot join the log.', problems)

/** Kinds of entries that are a lead's to write: what a loop is, and what goes for good. */
const LEAD_KINDS: readonly EntryKind[] = ['registered', 'specChanged', 'retagged', 'retired', 'dutyChanged']

/** Entries of this request that were written before, by id. */
async function writtenBefore(tx: Transaction, crewId: string, sent: readonly NewEntry[]): Promise<Map<string, Entry>> {
  const ids = sent.map(({ id }) => id)
  const rows = await tx
    .select()
    .from(entries)
    .where(and(eq(entries.crewId, crewId), inArray(entries.id, ids)))
  return new Map(rows.map((row) => [row.id, entryOf(row)]))
}

function checkRole(role: Caller['role'], entry: NewEntry, log: readonly Entry[]): void {
  if (role === 'lead') return
  const target = entry.kind === 'corrected' ? log.find(({ id }) => id === entry.strikes) : entry
  if (target === undefined) return
  const money = target.kind === 'cameBack' && target.costMinor !== undefined
  if (target.kind === 'decided' && target.overruled !== undefined)
    throw new Refusal('lead-only', 'Going against a verdict is for a lead to settle.')
  if (!money && !LEAD_KINDS.includes(target.kind)) return
  throw new Refusal(
    'lead-only',
    money ? 'What a shop took is for a lead to write.' : 'Specs, tags, duty and retiring are a lead’s to change.',
  )
}

async function checkFit(
  tx: Transaction,
  crewId: string,
  entry: EntryOf<'fitted'>,
  log: readonly Entry[],
  i: number,
  rules: HouseRules,
): Promise<void> {
  const found = await readSawState(tx, crewId, entry.sawId)
  const field = `entries[${i}].sawId`
  if (found === null)
    throw new Refusal('no-such-saw', 'There is no such saw.', [{ field, message: 'There is no such saw.' }])
  const state = fold(log)
  if (state === null) return
  const { saw, state: sawNow } = found
  const wear = { grooveWidthUm: sawNow.bar.grooveWidthUm, due: sawNow.due }
  const check = fitCheck(state.spec, sawNow.fit, wear, decide(state, rules).fitForUse)
  const message = sayFit(state.tag, saw.nickname, check)
  if (check.level === 'mustNot') throw new Refusal('does-not-fit', message, [{ field, message }])
  if (check.level === 'but' && entry.overruled === undefined) {
    throw new Refusal('overrule-needed', `${message} Say why it goes on all the same.`, [
      { field: `entries[${i}].overruled`, message },
    ])
  }
}

/** A correction that puts a loop back on a saw meets the same check as a fitting. */
async function checkReturn(
  tx: Transaction,
  crewId: string,
  log: readonly Entry[],
  corrected: Entry,
  i: number,
  rules: HouseRules,
): Promise<void> {
  const before = fold(log)
  const after = fold([...log, corrected])
  if (after === null || after.sawId === null || after.sawId === before?.sawId) return
  const found = await readSawState(tx, crewId, after.sawId)
  if (found === null) return
  const { saw, state } = found
  const check = fitCheck(
    after.spec,
    state.fit,
    { grooveWidthUm: state.bar.grooveWidthUm, due: state.due },
    decide(after, rules).fitForUse,
  )
  if (check.level !== 'mustNot') return
  const message = `That would put it back on the saw, and ${sayFit(after.tag, saw.nickname, check)} Strike out the fitting first.`
  throw new Refusal('does-not-fit', message, [{ field: `entries[${i}].strikes`, message }])
}

/** What was settled on may go against the verdict, but puts no unfit loop to work. */
function checkDecided(entry: EntryOf<'decided'>, log: readonly Entry[], i: number, rules: HouseRules): void {
  const state = fold(log)
  if (state === null) return
  const verdict = decide(state, rules)
  if (mayOverrule(verdict, entry.action)) return
  const [reason] = verdict.reasons
  const why = reason === undefined ? '' : ` ${sayReason(reason, { lengths: 'mm', currency: rules.currency })}`
  const message = `Loop ${state.tag} is not fit for use.${why}`
  throw new Refusal('unfit-stays-out', message, [{ field: `entries[${i}].action`, message }])
}

async function registerLoop(tx: Transaction, crewId: string, { loopId, tag }: EntryOf<'registered'>): Promise<void> {
  try {
    await tx.insert(loops).values({ crewId, id: loopId, tag })
  } catch (error) {
    if (duplicateKey(error) === 'loops_tag') throw new Refusal('tag-taken', `Another loop has the tag ${tag}.`)
    throw error
  }
}

/** Puts one entry into the log, once everything that can be said against it has been. */
async function appendOne(
  tx: Transaction,
  caller: Caller,
  rules: HouseRules,
  entry: NewEntry,
  log: Entry[],
  i: number,
  now: Date,
): Promise<Entry> {
  const { crewId } = caller
  const problems = admit(entry, log, now.getTime())
  const [first] = problems
  if (first?.code === 'not-registered') throw new Refusal('no-such-loop', first.message)
  if (first !== undefined) {
    throw notAdmitted(problems.map(({ field, ...rest }) => ({ field: `entries[${i}].${field}`, ...rest })))
  }
  checkRole(caller.role, entry, log)
  const written: Entry = { ...entry, writtenAt: now.toISOString(), writtenBy: caller.personId }
  if (written.kind === 'registered') await registerLoop(tx, crewId, written)
  if (written.kind === 'corrected') await checkReturn(tx, crewId, log, written, i, rules)
  if (written.kind === 'decided') checkDecided(written, log, i, rules)
  if (written.kind === 'fitted') await checkFit(tx, crewId, written, log, i, rules)
  await tx.insert(entries).values(rowOf(crewId, entry, written.writtenAt, caller.personId))
  log.push(written)
  return written
}

/** Writes entries within a transaction that has locked the crew; see {@link appendEntries}. */
export async function appendWithin(
  tx: Transaction,
  caller: Caller,
  rules: HouseRules,
  sent: readonly NewEntry[],
  clock: () => Date,
): Promise<Entry[]> {
  const { crewId } = caller
  const before = await writtenBefore(tx, crewId, sent)
  const logs = new Map<string, Entry[]>()
  const answers: Entry[] = []
  await checkPeople(tx, crewId, sent)

  for (const [i, entry] of sent.entries()) {
    const same = before.get(entry.id)
    if (same !== undefined) {
      if (fingerprint(same) !== fingerprint(entry)) {
        const message = 'Another entry was written under this id.'
        throw new Refusal('id-taken', message, [{ field: `entries[${i}].id`, message }])
      }
      answers.push(same)
      continue
    }
    const log = logs.get(entry.loopId) ?? (await readLog(tx, crewId, entry.loopId))
    logs.set(entry.loopId, log)
    const written = await appendOne(tx, caller, rules, entry, log, i, clock())
    before.set(written.id, written)
    answers.push(written)
  }

  const rows: SnapshotRow[] = []
  for (const log of logs.values()) {
    const row = snapshotRow(crewId, log, rules)
    if (row !== null) rows.push(row)
  }
  await writeSnapshots(tx, crewId, rows)
  return answers
}

/**
 * Writes entries and the snapshots they make in one transaction: all of them or none.
 *
 * An entry that was written before is not written again and answers as it did then, so a device
 * may send as often as it likes.
 *
 * @throws Refusal when an entry cannot join its log, or is not this person's to write
 */
export const appendEntries = (
  db: Database,
  caller: Caller,
  sent: readonly NewEntry[],
  clock: () => Date,
): Promise<Entry[]> =>
  db.transaction(async (tx) => appendWithin(tx, caller, await lockCrew(tx, caller.crewId), sent, clock))
