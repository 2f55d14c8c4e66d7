import type { Import, ImportAnswer } from '@undercliff/contract'
import { admit, decide, fitCheck, fold, sayFit, type Entry } from '@undercliff/core'
import { and, eq, isNotNull } from 'drizzle-orm'
import type { Database, Transaction } from '../database/connect'
import { duplicateKey } from '../database/errors'
import { entries, loops, saws, snapshots } from '../database/schema'
import type { Caller } from './caller'
import { checkEntries } from './checkEntries'
import { checkPeople, lockCrew } from './crewLock'
import { Refusal } from './refusal'
import { rowOf } from './rows'
import { readSaws } from './saws'
import { insertSnapshots, snapshotRow, type SnapshotRow } from './snapshot'

const CHUNK = 500

const refused = (i: number, field: string, message: string): Refusal =>
  new Refusal('not-admitted', message, [{ field: `entries[${i}].${field}`, message }])

/** Logs of new loops, each entry admitted to the log before it. */
function newLogs(sent: readonly Entry[], nowMs: number): Map<string, Entry[]> {
  const logs = new Map<string, Entry[]>()
  sent.forEach((entry, i) => {
    const log = logs.get(entry.loopId) ?? []
    logs.set(entry.loopId, log)
    const [problem] = admit(entry, log, nowMs)
    if (problem !== undefined) throw refused(i, problem.field, problem.message)
    log.push(entry)
  })
  return logs
}

async function insertLoops(tx: Transaction, crewId: string, sent: readonly Entry[]): Promise<void> {
  const rows = sent
    .filter((entry) => entry.kind === 'registered')
    .map(({ loopId, tag }) => ({ crewId, id: loopId, tag }))
  for (let from = 0; from < rows.length; from += CHUNK) await tx.insert(loops).values(rows.slice(from, from + CHUNK))
  for (let from = 0; from < sent.length; from += CHUNK) {
    await tx
      .insert(entries)
      .values(sent.slice(from, from + CHUNK).map((entry) => rowOf(crewId, entry, entry.writtenAt, entry.writtenBy)))
  }
}

/**
 * Writes everything that a spreadsheet brought, new loops and new saws only: all of it or nothing.
 *
 * @throws Refusal that names the entry, when any of it cannot be
 */
export async function runImport(db: Database, caller: Caller, body: Import, now: Date): Promise<ImportAnswer> {
  const { crewId, personId } = caller
  const writtenAt = now.toISOString()
  const sent = checkEntries(body.entries, 'entries').map(
    (entry) => ({ ...entry, writtenAt, writtenBy: personId }) as Entry,
  )
  const logs = newLogs(sent, now.getTime())
  return db.transaction(async (tx) => {
    const rules = await lockCrew(tx, crewId)
    await checkPeople(tx, crewId, sent)
    try {
      if (body.saws.length > 0) await tx.insert(saws).values(body.saws.map((saw) => ({ crewId, ...saw })))
      await insertLoops(tx, crewId, sent)
    } catch (error) {
      const key = duplicateKey(error)
      if (key === null) throw error
      throw new Refusal(
        key === 'loops_tag' ? 'tag-taken' : 'name-taken',
        'Something in it has a tag or a name that is taken by now. Look at the preview again.',
      )
    }
    const bySaw = new Map((await readSaws(tx, crewId)).map((saw) => [saw.id, saw]))
    const occupied = new Set(
      (
        await tx
          .select({ sawId: snapshots.sawId })
          .from(snapshots)
          .where(and(eq(snapshots.crewId, crewId), isNotNull(snapshots.sawId)))
      ).map(({ sawId }) => sawId),
    )
    const rows: SnapshotRow[] = []
    for (const log of logs.values()) {
      const state = fold(log)
      const row = snapshotRow(crewId, log, rules)
      if (state === null || row === null) throw new Refusal('not-admitted', 'A loop has entries and is not registered.')
      for (const entry of log) {
        if (entry.kind !== 'fitted') continue
        const saw = bySaw.get(entry.sawId)
        if (saw === undefined) throw new Refusal('no-such-saw', `There is no such saw for ${state.tag}.`)
        const check = fitCheck(state.spec, saw, saw, decide(state, rules).fitForUse)
        if (check.level === 'mustNot') throw new Refusal('does-not-fit', sayFit(state.tag, saw.nickname, check))
        if (check.level === 'but' && entry.overruled === undefined)
          throw new Refusal('overrule-needed', sayFit(state.tag, saw.nickname, check))
      }
      if (row.sawId != null && occupied.has(row.sawId))
        throw new Refusal('saw-occupied', `There is another loop on the saw that ${state.tag} is to be on.`)
      rows.push(row)
    }
    await insertSnapshots(tx, rows)
    return { loops: logs.size, saws: body.saws.length, entries: sent.length }
  })
}
