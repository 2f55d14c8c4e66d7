import {
  isOfSaw,
  type AnyNewEntry,
  type EntriesAnswer,
  type FieldProblem,
  type NewSaw,
  type ProblemCode,
} from '@undercliff/contract'
import {
  admitSaw,
  asWritten,
  believeClock,
  decide,
  fittingRefusal,
  fold,
  leadsOnly,
  leadsOnlyOfSaw,
  mayOverrule,
  OpenLog,
  sayFit,
  sawName,
  sayReason,
  withHousePlate,
  type AdmitProblem,
  type Asking,
  type Entry,
  type EntryOf,
  type HouseRules,
  type KnownBite,
  type LoopState,
  type NewEntry,
  type NewSawEntry,
  type SawEntry,
} from '@undercliff/core'
import { and, eq, inArray } from 'drizzle-orm'
import type { Database, Transaction } from '../database/connect'
import { duplicateKey } from '../database/errors'
import { inChunks } from '../database/inChunks'
import { entries, loops, sawEntries, saws, snapshots } from '../database/schema'
import { AlikeNames } from './alikeNames'
import type { Caller } from './caller'
import { checkPeople, lockCrew } from './crewLock'
import { breathe } from './breathe'
import { Refusal } from './refusal'
import { entryOf, fingerprint, rowOf, sawEntryOf, sawRowOf } from './rows'
import { readSaws, readSawState } from './saws'
import { readCards, readLogs, snapshotRow, writeSnapshots, type SnapshotRow } from './snapshot'
import { readKnownBite, withKnownBite } from './wear'

/** Where in a request an entry stands, for naming what is wrong with it. */
const placed = (i: number, field: string): string => `entries[${i}].${field}`

const refuse = (code: ProblemCode, i: number, field: string, message: string): Refusal =>
  new Refusal(code, message, [{ field: placed(i, field), message }])

const notAdmitted = (problems: readonly AdmitProblem[], i: number): Refusal => {
  const fields: FieldProblem[] = problems.map(({ field, ...rest }) => ({ field: placed(i, field), ...rest }))
  return new Refusal('not-admitted', problems[0]?.message ?? 'The entry cannot join the log.', fields)
}

/** Entries of this request that were written before, by id. */
async function writtenBefore(
  tx: Transaction,
  crewId: string,
  sent: readonly AnyNewEntry[],
): Promise<Map<string, Entry | SawEntry>> {
  const ids = sent.map(({ id }) => id)
  const ofLoops = await tx
    .select()
    .from(entries)
    .where(and(eq(entries.crewId, crewId), inArray(entries.id, ids)))
  const ofSaws = await tx
    .select()
    .from(sawEntries)
    .where(and(eq(sawEntries.crewId, crewId), inArray(sawEntries.id, ids)))
  return new Map([...ofLoops.map(entryOf), ...ofSaws.map(sawEntryOf)].map((entry) => [entry.id, entry]))
}

/** The saw that a loop is to be on as it stands, or a refusal. */
async function sawFor(tx: Transaction, crewId: string, sawId: string, i: number) {
  const found = await readSawState(tx, crewId, sawId)
  if (found === null) throw refuse('no-such-saw', i, 'sawId', 'There is no such saw.')
  const { bar, due, fit, gone } = found.state
  return { nickname: found.saw.nickname, as: { ...fit, grooveWidthUm: bar.grooveWidthUm, due, gone } }
}

/** What is done within one transaction: who asks, under which rules, and the present. */
interface Writing {
  readonly tx: Transaction
  readonly caller: Caller
  readonly rules: HouseRules
  /** What the crew's files are known to take off, for loops that come. */
  readonly known: KnownBite | undefined
  readonly now: Date
  readonly names: AlikeNames
  /** Entries of loops that are to be written, in their order: all in one go, once each has been admitted. */
  readonly admitted: (typeof entries.$inferInsert)[]
}

const askingOf = ({ caller, now }: Writing): Asking => ({ personId: caller.personId, nowMs: now.getTime() })

async function checkFit(
  { tx, caller, rules }: Writing,
  { sawId, overruled }: EntryOf<'fitted'>,
  log: readonly Entry[],
  i: number,
): Promise<void> {
  const saw = await sawFor(tx, caller.crewId, sawId, i)
  const state = fold(log)
  const refusal = state === null ? null : fittingRefusal(state, saw.as, rules, overruled !== undefined)
  if (state === null || refusal === null) return
  const message = sayFit(state.tag, saw.nickname, refusal.check)
  if (refusal.why === 'mustNot') throw refuse('does-not-fit', i, 'sawId', message)
  throw new Refusal('overrule-needed', `${message} Say why it goes on all the same.`, [
    { field: placed(i, 'overruled'), message },
  ])
}

/** A correction that puts a loop back on a saw meets the same check as a fitting. */
async function checkReturn(
  { tx, caller, rules }: Writing,
  log: readonly Entry[],
  corrected: Entry,
  i: number,
): Promise<void> {
  const before = fold(log)
  const after = fold([...log, corrected])
  if (after === null || after.sawId === null || after.sawId === before?.sawId) return
  const saw = await sawFor(tx, caller.crewId, after.sawId, i)
  // What it was overruled with when it went on still holds.
  const refusal = fittingRefusal(after, saw.as, rules, true)
  if (refusal === null) return
  const why = sayFit(after.tag, saw.nickname, refusal.check)
  const message = `That would put it back on the saw, and ${why} Strike out the fitting first.`
  throw refuse('does-not-fit', i, 'strikes', message)
}

type NewEntryOf<K extends NewEntry['kind']> = Extract<NewEntry, { kind: K }>

/**
 * What was settled on, with the advice as the log and the rules have it now, whatever the device said of
 * it. It may go against the verdict, but puts no unfit loop to work.
 */
function withAdvice(
  { rules }: Writing,
  entry: NewEntryOf<'decided'>,
  log: readonly Entry[],
  i: number,
): NewEntryOf<'decided'> {
  const state = fold(log)
  if (state === null) return entry
  const verdict = decide(state, rules)
  const advised = { ...entry, advised: verdict.advised, rulesVersion: rules.version }
  // A loop that is retired is told so by the log.
  if (state.retired !== null || mayOverrule(verdict, entry.action)) return advised
  const [reason] = verdict.reasons
  const why = reason === undefined ? '' : ` ${sayReason(reason, { lengths: 'mm', currency: rules.currency })}`
  throw refuse('unfit-stays-out', i, 'action', `Loop ${state.tag} is not fit for use.${why}`)
}

async function registerLoop(
  { tx, caller: { crewId }, names }: Writing,
  { loopId, tag }: EntryOf<'registered'>,
): Promise<void> {
  await names.take('tag', loopId, tag)
  try {
    await tx.insert(loops).values({ crewId, id: loopId, tag })
  } catch (error) {
    if (duplicateKey(error) === 'loops_tag') throw new Refusal('tag-taken', `Another loop has the tag ${tag}.`)
    throw error
  }
}

/** Admits one entry into the log of its loop, once everything that can be said against it has been. */
async function appendOne(writing: Writing, sent: NewEntry, open: OpenLog, i: number): Promise<Entry> {
  const { caller, now } = writing
  const { crewId } = caller
  const log = open.entries
  const said = sent.kind === 'decided' ? withAdvice(writing, sent, log, i) : withKnownBite(sent, writing.known)
  const entry = withHousePlate(said, writing.rules)
  const problems = open.problemsOf(entry, now.getTime())
  const [first] = problems
  if (first?.code === 'not-registered') throw new Refusal('no-such-loop', first.message)
  if (first !== undefined) throw notAdmitted(problems, i)
  const why = caller.role === 'lead' ? null : leadsOnly(entry, log, askingOf(writing))
  if (why !== null) throw new Refusal('lead-only', why)
  const written = asWritten(entry, now.toISOString(), caller.personId)
  if (written.kind === 'registered') await registerLoop(writing, written)
  if (written.kind === 'retagged') await writing.names.take('tag', written.loopId, written.tag)
  if (written.kind === 'corrected') await checkReturn(writing, log, written, i)
  if (written.kind === 'fitted') await checkFit(writing, written, log, i)
  writing.admitted.push(rowOf(crewId, entry, written.writtenAt, caller.personId))
  open.add(written)
  return written
}

/** What was read of a saw: what it took when it was added, and its log. */
interface SawLog {
  readonly saw: NewSaw
  readonly entries: SawEntry[]
}

/** A saw that is done with has no loop on it any more. */
async function checkEmpty(tx: Transaction, crewId: string, { id, nickname }: NewSaw, i: number): Promise<void> {
  const [on] = await tx
    .select({ loopId: snapshots.loopId })
    .from(snapshots)
    .where(and(eq(snapshots.crewId, crewId), eq(snapshots.sawId, id)))
  if (on !== undefined) throw refuse('not-admitted', i, 'how', `Take the loop off ${nickname} first.`)
}

/** What its log calls a saw is kept beside it, where no two of a crew can have the same. */
async function keepName(
  { tx, caller: { crewId }, names }: Writing,
  { id, nickname }: NewSaw,
  log: SawEntry[],
): Promise<void> {
  const called = sawName(nickname, log)
  await names.take('saw', id, called)
  try {
    await tx
      .update(saws)
      .set({ nickname: called })
      .where(and(eq(saws.crewId, crewId), eq(saws.id, id)))
  } catch (error) {
    if (duplicateKey(error) === 'saws_nickname') throw new Refusal('name-taken', `Another saw is called ${called}.`)
    throw error
  }
}

/** The same for the log of a saw. */
async function appendOneOfSaw(
  writing: Writing,
  entry: NewSawEntry,
  { saw, entries: log }: SawLog,
  i: number,
): Promise<SawEntry> {
  const { tx, caller, now } = writing
  const problems = admitSaw(entry, log, saw, now.getTime())
  if (problems.length > 0) throw notAdmitted(problems, i)
  const why = caller.role === 'lead' ? null : leadsOnlyOfSaw(entry, log, askingOf(writing))
  if (why !== null) throw new Refusal('lead-only', why)
  const written: SawEntry = { ...entry, writtenAt: now.toISOString(), writtenBy: caller.personId }
  if (written.kind === 'sawGone' && written.how === 'retired') await checkEmpty(tx, caller.crewId, saw, i)
  await tx.insert(sawEntries).values(sawRowOf(caller.crewId, written))
  log.push(written)
  if (written.kind === 'sawRenamed' || written.kind === 'sawCorrected') await keepName(writing, saw, log)
  return written
}

/** What has been read and written so far of the logs that a request is about. */
class Logs {
  readonly ofLoops = new Map<string, OpenLog>()
  readonly ofSaws = new Map<string, SawLog>()

  constructor(
    private readonly tx: Transaction,
    private readonly crewId: string,
    private readonly kept: ReadonlyMap<string, readonly Entry[]>,
  ) {}

  loop(loopId: string): OpenLog {
    const log = this.ofLoops.get(loopId) ?? new OpenLog(this.kept.get(loopId))
    this.ofLoops.set(loopId, log)
    return log
  }

  async saw(sawId: string, i: number): Promise<SawLog> {
    const found = this.ofSaws.get(sawId) ?? (await readSawState(this.tx, this.crewId, sawId))
    if (found === null) throw refuse('no-such-saw', i, 'sawId', 'There is no such saw.')
    this.ofSaws.set(sawId, found)
    return found
  }
}

/** Saws on which a loop's log may have changed something: those that it has been on. */
const sawsOf = ({ stints }: Pick<LoopState, 'stints'>): string[] => stints.map(({ sawId }) => sawId)

/** Writes entries within a transaction that has locked the crew; see {@link appendEntries}. */
export async function appendWithin(
  tx: Transaction,
  caller: Caller,
  rules: HouseRules,
  sent: readonly AnyNewEntry[],
  clock: () => Date,
  known: KnownBite | undefined,
): Promise<EntriesAnswer> {
  const { crewId } = caller
  const before = await writtenBefore(tx, crewId, sent)
  const loopsOf = sent.flatMap((entry) => (isOfSaw(entry) ? [] : [entry.loopId]))
  const logs = new Logs(tx, crewId, await readLogs(tx, crewId, [...new Set(loopsOf)]))
  const answers: (Entry | SawEntry)[] = []
  await checkPeople(tx, crewId, sent)
  const admitted: Writing['admitted'] = []
  const names = new AlikeNames(tx, crewId)

  for (const [i, entry] of sent.entries()) {
    const same = before.get(entry.id)
    if (same !== undefined) {
      if (fingerprint(same) !== fingerprint(entry))
        throw refuse('id-taken', i, 'id', 'Another entry was written under this id.')
      answers.push(same)
      continue
    }
    const writing: Writing = { tx, caller, rules, known, now: clock(), names, admitted }
    const written = isOfSaw(entry)
      ? await appendOneOfSaw(writing, entry, await logs.saw(entry.sawId, i), i)
      : await appendOne(writing, entry, logs.loop(entry.loopId), i)
    before.set(written.id, written)
    answers.push(written)
  }
  await inChunks(admitted, (some) => tx.insert(entries).values(some))

  const rows: SnapshotRow[] = []
  for (const { entries: log } of logs.ofLoops.values()) {
    const row = snapshotRow(crewId, log, rules)
    if (row !== null) rows.push(row)
    await breathe()
  }
  await writeSnapshots(tx, crewId, rows)
  const loopIds = answers.flatMap((entry) => ('loopId' in entry ? [entry.loopId] : []))
  const touched = [...rows.flatMap(({ state }) => sawsOf(state)), ...sent.filter(isOfSaw).map(({ sawId }) => sawId)]
  return {
    entries: answers,
    cards: await readCards(tx, crewId, rules, [...new Set(loopIds)]),
    saws: await readSaws(tx, crewId, [...new Set(touched)]),
  }
}

/**
 * Writes entries of loops and saws, and the snapshots they make, in one transaction: all of them or
 * none.
 *
 * An entry that was written before is not written again and answers as it did then, so a device
 * may send as often as it likes.
 *
 * @param deviceMs what the clock of the device showed when it sent them; null when it did not say
 * @throws Refusal when an entry cannot join its log, or is not this person's to write
 */
export const appendEntries = async (
  db: Database,
  caller: Caller,
  sent: readonly AnyNewEntry[],
  clock: () => Date,
  deviceMs: number | null = null,
): Promise<EntriesAnswer> => {
  const believed = believeClock(sent, clock().getTime(), deviceMs)
  // Read before the crew is locked: it goes through all of the crew's loops, and may be a moment old.
  const known = sent.some(({ kind }) => kind === 'registered') ? await readKnownBite(db, caller.crewId) : undefined
  return db.transaction(async (tx) =>
    appendWithin(tx, caller, await lockCrew(tx, caller.crewId), believed, clock, known),
  )
}
