import { admit, misfits, pitchUmOf, pitchName, writeMm, type Entry, type EntryOf, type HouseRules, type NewEntry } from '@undercliff/core'
import type { FieldProblem } from '@undercliff/contract'
import { and, eq, inArray, sql } from 'drizzle-orm'
import type { Database, Transaction } from '../database/connect'
import { duplicateKey } from '../database/errors'
import { crews, entries, loops, people, saws, type snapshots } from '../database/schema'
import { Refusal } from './refusal'
import { entryOf, fingerprint, rowOf } from './rows'
import { readLog, snapshotRow, writeSnapshots } from './snapshot'

const notAdmitted = (problems: readonly FieldProblem[]): Refusal =>
  new Refusal('not-admitted', problems[0]?.message ?? 'The entry cannot join the log.', problems)

/** Locks the crew for writing, so that its entries are written one request after another. */
async function lockCrew(tx: Transaction, crewId: string): Promise<HouseRules> {
  await tx.update(crews).set({ revision: sql`revision + 1` }).where(eq(crews.id, crewId))
  const [crew] = await tx.select({ rules: crews.rules }).from(crews).where(eq(crews.id, crewId))
  if (crew === undefined) throw new Error('the crew of a request has to exist')
  return crew.rules
}

/** Entries of this request that were written before, by id. */
async function writtenBefore(tx: Transaction, crewId: string, sent: readonly NewEntry[]): Promise<Map<string, Entry>> {
  const ids = sent.map(({ id }) => id)
  const rows = await tx
    .select()
    .from(entries)
    .where(and(eq(entries.crewId, crewId), inArray(entries.id, ids)))
  return new Map(rows.map((row) => [row.id, entryOf(row)]))
}

async function checkPeople(tx: Transaction, crewId: string, sent: readonly NewEntry[]): Promise<void> {
  const known = new Set(
    (await tx.select({ id: people.id }).from(people).where(eq(people.crewId, crewId))).map(({ id }) => id),
  )
  sent.forEach(({ personId }, i) => {
    if (personId === null || known.has(personId)) return
    const message = 'Nobody on the crew has this id.'
    throw new Refusal('no-such-person', message, [{ field: `entries[${i}].personId`, message }])
  })
}

async function checkFit(tx: Transaction, crewId: string, entry: EntryOf<'fitted'>, log: readonly Entry[], i: number): Promise<void> {
  const field = `entries[${i}].sawId`
  const [saw] = await tx
    .select()
    .from(saws)
    .where(and(eq(saws.crewId, crewId), eq(saws.id, entry.sawId)))
  if (saw === undefined) throw new Refusal('no-such-saw', 'There is no such saw.', [{ field, message: 'There is no such saw.' }])
  const registered = log.find(({ kind }) => kind === 'registered')
  if (registered?.kind !== 'registered') return
  const { spec, tag } = registered
  const said = {
    pitch: `pitch is ${pitchName(pitchUmOf(spec))}, the saw takes ${pitchName(pitchUmOf(saw))}`,
    gauge: `gauge is ${writeMm(spec.gaugeUm, 1)}, the groove takes ${writeMm(saw.gaugeUm, 1)}`,
    driveLinks: `it has ${spec.driveLinks} drive links, the bar takes ${saw.driveLinks}`,
  }
  const found = misfits(spec, saw)
  if (found.length === 0) return
  const message = `Loop ${tag} must not go on ${saw.nickname}: ${found.map((one) => said[one]).join('; ')}.`
  throw new Refusal('does-not-fit', message, [{ field, message }])
}

async function registerLoop(tx: Transaction, crewId: string, { loopId, tag }: EntryOf<'registered'>): Promise<void> {
  try {
    await tx.insert(loops).values({ crewId, id: loopId, tag })
  } catch (error) {
    if (duplicateKey(error) === 'loops_tag') throw new Refusal('tag-taken', `Another loop has the tag ${tag}.`)
    throw error
  }
}

/** Rethrows a clash over a saw as a sentence. */
function sawClash(error: unknown): never {
  if (duplicateKey(error) === 'snapshots_one_loop_a_saw') {
    throw new Refusal('saw-occupied', 'There is another loop on that saw. Take it off first.')
  }
  throw error
}

/** Puts one entry into the log, once everything that can be said against it has been. */
async function appendOne(
  tx: Transaction,
  crewId: string,
  entry: NewEntry,
  log: Entry[],
  i: number,
  now: Date,
): Promise<Entry> {
  const problems = admit(entry, log, now.getTime())
  const [first] = problems
  if (first?.code === 'not-registered') throw new Refusal('no-such-loop', first.message)
  if (first !== undefined) {
    throw notAdmitted(problems.map(({ field, ...rest }) => ({ field: `entries[${i}].${field}`, ...rest })))
  }
  const written: Entry = { ...entry, writtenAt: now.toISOString() }
  if (written.kind === 'registered') await registerLoop(tx, crewId, written)
  if (written.kind === 'fitted') await checkFit(tx, crewId, written, log, i)
  await tx.insert(entries).values(rowOf(crewId, entry, written.writtenAt))
  log.push(written)
  return written
}

/**
 * Writes entries and the snapshots they make in one transaction: all of them or none.
 *
 * An entry that was written before is not written again and answers as it did then, so a device
 * may send as often as it likes.
 *
 * @throws Refusal when an entry cannot join its log
 */
export async function appendEntries(
  db: Database,
  crewId: string,
  sent: readonly NewEntry[],
  clock: () => Date,
): Promise<Entry[]> {
  return db.transaction(async (tx) => {
    const rules = await lockCrew(tx, crewId)
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
      const written = await appendOne(tx, crewId, entry, log, i, clock())
      before.set(written.id, written)
      answers.push(written)
    }

    const rows: (typeof snapshots.$inferInsert)[] = []
    for (const log of logs.values()) {
      const row = snapshotRow(crewId, log, rules)
      if (row !== null) rows.push(row)
    }
    await writeSnapshots(tx, crewId, rows).catch(sawClash)
    return answers
  })
}
