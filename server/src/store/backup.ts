import { createHash } from 'node:crypto'
import {
  BACKUP_VERSION,
  backupContentSchema,
  backupSchema,
  MOST_ENTRIES,
  newEntriesSchema,
  validate,
  type Backup,
  type BackupContent,
  type FieldProblem,
} from '@undercliff/contract'
import { admit, type Entry, type NewEntry } from '@undercliff/core'
import { asc, eq, sql } from 'drizzle-orm'
import type { Database, Transaction } from '../database/connect'
import { duplicateKey } from '../database/errors'
import { crews, entries, loops, people, saws, type snapshots } from '../database/schema'
import { Refusal } from './refusal'
import { entryOf, rowOf } from './rows'
import { readShed } from './shed'
import { snapshotRow, writeSnapshots } from './snapshot'

const checksumOf = (content: unknown): string => createHash('sha256').update(JSON.stringify(content)).digest('hex')

/** Everything of a crew's, with a checksum over it. */
export async function writeBackup(db: Database, crewId: string, now: Date): Promise<Backup> {
  const { crew, people: crewPeople, saws: crewSaws } = await readShed(db, crewId)
  const rows = await db.select().from(entries).where(eq(entries.crewId, crewId)).orderBy(asc(entries.arrival))
  const content: BackupContent = {
    crew: { name: crew.name, lengths: crew.lengths, rules: crew.rules },
    people: crewPeople,
    saws: crewSaws,
    entries: rows.map(entryOf),
  }
  return {
    format: 'undercliff-backup',
    version: BACKUP_VERSION,
    writtenAt: now.toISOString(),
    checksum: checksumOf(content),
    content,
  }
}

const invalid = (problems: readonly FieldProblem[]): Refusal =>
  new Refusal('invalid', `${problems[0]?.field ?? ''}: ${problems[0]?.message ?? 'not right'}`, problems)

/** Entries are what `POST /api/entries` takes, and say besides when they were written. */
function checkEntries(sent: readonly unknown[]): Entry[] {
  const read: Entry[] = []
  for (let from = 0; from < sent.length; from += MOST_ENTRIES) {
    const chunk = sent.slice(from, from + MOST_ENTRIES).map((one) => (typeof one === 'object' && one !== null ? { ...one } : one))
    const writtenAts = chunk.map((one) => {
      const writtenAt: unknown = typeof one === 'object' && one !== null && 'writtenAt' in one ? one.writtenAt : null
      if (typeof one === 'object' && one !== null) Reflect.deleteProperty(one, 'writtenAt')
      return writtenAt
    })
    const checked = validate<{ entries: NewEntry[] }>(newEntriesSchema, { entries: chunk })
    const shifted = (field: string): string => field.replace(/entries\[(\d+)\]/, (_all, i: string) => `content.entries[${Number(i) + from}]`)
    if (!checked.ok) throw invalid(checked.problems.map(({ field, ...rest }) => ({ field: shifted(field), ...rest })))
    checked.value.entries.forEach((entry, i) => {
      const writtenAt = writtenAts[i]
      if (typeof writtenAt !== 'string' || Number.isNaN(Date.parse(writtenAt)) || new Date(writtenAt).toISOString() !== writtenAt) {
        throw invalid([{ field: `content.entries[${from + i}].writtenAt`, message: 'There is no such time.' }])
      }
      read.push({ ...entry, writtenAt })
    })
  }
  return read
}

/**
 * What a backup holds, once it is known to be whole and right.
 *
 * @throws Refusal when it is of a newer version, damaged or wrong
 */
export function readBackup(body: unknown): BackupContent {
  const outer = validate<Backup>(backupSchema, body)
  if (!outer.ok) throw invalid(outer.problems)
  const { version, checksum, content } = outer.value
  if (version > BACKUP_VERSION) {
    throw new Refusal('backup-newer', `It has version ${version}; this Undercliff reads up to ${BACKUP_VERSION}. Update Undercliff first.`)
  }
  if (checksumOf(content) !== checksum) {
    throw new Refusal('backup-damaged', 'Its checksum does not match what is in it: it was cut short or changed. Nothing was read.')
  }
  const inner = validate<BackupContent>(backupContentSchema, content)
  if (!inner.ok) throw invalid(inner.problems.map(({ field, ...rest }) => ({ field: `content.${field}`, ...rest })))
  return { ...inner.value, entries: checkEntries(inner.value.entries) }
}

/** Logs by loop, each entry admitted to the log before it. */
function admittedLogs(sent: readonly Entry[], nowMs: number): Map<string, Entry[]> {
  const logs = new Map<string, Entry[]>()
  sent.forEach((entry, i) => {
    const log = logs.get(entry.loopId) ?? []
    logs.set(entry.loopId, log)
    const [problem] = admit(entry, log, nowMs)
    if (problem !== undefined) throw invalid([{ field: `content.entries[${i}].${problem.field}`, message: problem.message }])
    log.push(entry)
  })
  return logs
}

async function insertAll(tx: Transaction, crewId: string, { crew, ...content }: BackupContent, now: Date): Promise<void> {
  const logs = admittedLogs(content.entries, now.getTime())
  await tx.update(crews).set({ ...crew, revision: sql`revision + 1` }).where(eq(crews.id, crewId))
  if (content.people.length > 0) await tx.insert(people).values(content.people.map(({ id, name }) => ({ crewId, id, name })))
  if (content.saws.length > 0) await tx.insert(saws).values(content.saws.map((saw) => ({ crewId, ...saw })))
  const registered = content.entries.filter((entry) => entry.kind === 'registered')
  if (registered.length > 0) await tx.insert(loops).values(registered.map(({ loopId, tag }) => ({ crewId, id: loopId, tag })))
  const CHUNK = 500
  for (let from = 0; from < content.entries.length; from += CHUNK) {
    const rows = content.entries.slice(from, from + CHUNK).map(({ writtenAt, ...entry }) => rowOf(crewId, entry as NewEntry, writtenAt))
    await tx.insert(entries).values(rows)
  }
  const rows: (typeof snapshots.$inferInsert)[] = []
  for (const log of logs.values()) {
    const row = snapshotRow(crewId, log, crew.rules)
    if (row !== null) rows.push(row)
  }
  await writeSnapshots(tx, crewId, rows)
}

/**
 * Reads a backup into a crew that has nothing yet: all of it or none.
 *
 * @throws Refusal when the crew has something already, or the backup cannot be read
 */
export async function restoreBackup(db: Database, crewId: string, body: unknown, now: Date): Promise<void> {
  const content = readBackup(body)
  await db.transaction(async (tx) => {
    await tx.update(crews).set({ revision: sql`revision + 1` }).where(eq(crews.id, crewId))
    for (const table of [loops, saws, people]) {
      const [one] = await tx.select({ id: table.id }).from(table).where(eq(table.crewId, crewId)).limit(1)
      if (one !== undefined) throw new Refusal('not-empty', 'A backup is read into an empty shed only. Start one with ./start --fresh --empty.')
    }
    try {
      await insertAll(tx, crewId, content, now)
    } catch (error) {
      const key = duplicateKey(error)
      if (key === null) throw error
      throw new Refusal('backup-damaged', 'Two things in it have the same id, tag, name or saw. Nothing was read.')
    }
  })
}
