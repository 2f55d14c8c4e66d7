import { createHash } from 'node:crypto'
import {
  BACKUP_VERSION,
  backupContentSchema,
  backupSchema,
  validate,
  validateSawEntries,
  type Backup,
  type BackupContent,
} from '@undercliff/contract'
import { admitAll, withDefaults, type Entry, type SawEntry } from '@undercliff/core'
import { and, asc, eq, ne } from 'drizzle-orm'
import type { Database, Transaction } from '../database/connect'
import { duplicateKey } from '../database/errors'
import { inChunks } from '../database/inChunks'
import { crews, entries, loops, people, profiles, sawEntries, saws } from '../database/schema'
import type { Caller } from './caller'
import { checked, checkEntries, invalid } from './checkEntries'
import { lockCrew } from './crewLock'
import { Refusal } from './refusal'
import { entryOf, rowOf, sawEntryOf, sawRowOf } from './rows'
import { sawOf } from './saws'
import { readShed } from './shed'
import { insertSnapshots, snapshotRow } from './snapshot'

const checksumOf = (content: unknown): string => createHash('sha256').update(JSON.stringify(content)).digest('hex')

/** Everything of a crew's, with a checksum over it. */
export async function writeBackup(db: Database, crewId: string, now: Date): Promise<Backup> {
  const { crew, people: crewPeople, profiles: crewProfiles } = await readShed(db, crewId)
  const crewSaws = await db.select().from(saws).where(eq(saws.crewId, crewId)).orderBy(asc(saws.nickname))
  const sawRows = await db
    .select()
    .from(sawEntries)
    .where(eq(sawEntries.crewId, crewId))
    .orderBy(asc(sawEntries.arrival))
  const rows = await db.select().from(entries).where(eq(entries.crewId, crewId)).orderBy(asc(entries.arrival))
  const content: BackupContent = {
    crew: { name: crew.name, lengths: crew.lengths, rules: crew.rules },
    people: crewPeople,
    saws: crewSaws.map(sawOf),
    profiles: crewProfiles,
    sawEntries: sawRows.map(sawEntryOf),
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

/** What is not part of a new entry: when it was written and by whom. */
interface Written {
  readonly writtenAt: string
  readonly writtenBy: string | null
}

const isInstant = (value: unknown): value is string =>
  typeof value === 'string' && !Number.isNaN(Date.parse(value)) && new Date(value).toISOString() === value

/** Takes what the server added off entries, so that the rest can be checked as new ones are. */
function withoutWritten(sent: readonly unknown[], where: string): { bare: unknown[]; written: Written[] } {
  const written: Written[] = []
  const bare = sent.map((one, i) => {
    if (typeof one !== 'object' || one === null)
      throw invalid([{ field: `${where}[${i}]`, message: 'This has to be an object.' }])
    const { writtenAt, writtenBy = null, ...rest } = one as Record<string, unknown>
    if (!isInstant(writtenAt)) throw invalid([{ field: `${where}[${i}].writtenAt`, message: 'There is no such time.' }])
    if (writtenBy !== null && typeof writtenBy !== 'string')
      throw invalid([{ field: `${where}[${i}].writtenBy`, message: 'This has to be a string.' }])
    written.push({ writtenAt, writtenBy })
    return rest
  })
  return { bare, written }
}

function readEntries(sent: readonly unknown[]): Entry[] {
  const where = 'content.entries'
  const { bare, written } = withoutWritten(sent, where)
  return checkEntries(bare, where).map((entry, i) => ({ ...entry, ...written[i] }) as Entry)
}

function readSawEntries(sent: readonly unknown[]): SawEntry[] {
  const where = 'content.sawEntries'
  const { bare, written } = withoutWritten(sent, where)
  return checked(validateSawEntries(bare, where)).map((entry, i) => ({ ...entry, ...written[i] }) as SawEntry)
}

/**
 * What a backup holds, once it is known to be whole and right.
 *
 * @throws Refusal when it is of a newer version, damaged or wrong
 */
function readBackup(body: unknown): BackupContent {
  const outer = validate<Backup>(backupSchema, body)
  if (!outer.ok) throw invalid(outer.problems)
  const { version, checksum, content } = outer.value
  if (version > BACKUP_VERSION) {
    throw new Refusal(
      'backup-newer',
      `It has version ${version}; this Undercliff reads up to ${BACKUP_VERSION}. Update Undercliff first.`,
    )
  }
  if (checksumOf(content) !== checksum) {
    throw new Refusal(
      'backup-damaged',
      'Its checksum does not match what is in it: it was cut short or changed. Nothing was read.',
    )
  }
  const inner = validate<Omit<BackupContent, 'profiles' | 'sawEntries'> & Partial<BackupContent>>(
    backupContentSchema,
    content,
  )
  if (!inner.ok) throw invalid(inner.problems.map(({ field, ...rest }) => ({ field: `content.${field}`, ...rest })))
  const { crew, profiles: read = [], sawEntries: log = [], ...rest } = inner.value
  return {
    ...rest,
    crew: { ...crew, rules: withDefaults(crew.rules) },
    profiles: read,
    sawEntries: readSawEntries(log),
    entries: readEntries(rest.entries),
  }
}

/** Logs by loop, each entry admitted to the log before it. */
function admittedLogs(sent: readonly Entry[], nowMs: number): ReadonlyMap<string, readonly Entry[]> {
  const { logs, problems } = admitAll(sent, nowMs)
  if (problems.length > 0)
    throw invalid(problems.map(({ at, field, ...rest }) => ({ ...rest, field: `content.entries[${at}].${field}` })))
  return logs
}

async function insertAll(
  tx: Transaction,
  crewId: string,
  { crew, ...content }: BackupContent,
  now: Date,
): Promise<void> {
  const logs = admittedLogs(content.entries, now.getTime())
  await tx.update(crews).set(crew).where(eq(crews.id, crewId))
  const known = new Set(
    (await tx.select({ id: people.id }).from(people).where(eq(people.crewId, crewId))).map(({ id }) => id),
  )
  const fresh = content.people.filter(({ id }) => !known.has(id))
  await inChunks(fresh, (some) =>
    tx.insert(people).values(some.map(({ id, name, role }) => ({ crewId, id, name, role }))),
  )
  await inChunks(content.saws, (some) => tx.insert(saws).values(some.map((saw) => ({ crewId, ...saw }))))
  await inChunks(content.profiles, (some) =>
    tx.insert(profiles).values(some.map((profile) => ({ crewId, ...profile }))),
  )
  await inChunks(content.sawEntries, (some) =>
    tx.insert(sawEntries).values(some.map((entry) => sawRowOf(crewId, entry))),
  )
  const registered = [...logs.values()].map((log) => snapshotRow(crewId, log, crew.rules)).filter((row) => row !== null)
  await inChunks(registered, (some) =>
    tx.insert(loops).values(some.map(({ loopId, state }) => ({ crewId, id: loopId, tag: state.tag }))),
  )
  await inChunks(content.entries, (some) =>
    tx.insert(entries).values(some.map((entry) => rowOf(crewId, entry, entry.writtenAt, entry.writtenBy))),
  )
  await insertSnapshots(tx, registered)
}

/**
 * Makes the lead who reads a backup the person of that name in it, so that what they wrote before
 * is theirs again. Sign-ins are not in a backup.
 */
async function takeOverName(
  tx: Transaction,
  { crewId, personId }: Caller,
  { people: inBackup }: BackupContent,
): Promise<void> {
  const [reader] = await tx
    .select()
    .from(people)
    .where(and(eq(people.crewId, crewId), eq(people.id, personId)))
  const same = inBackup.find(({ name }) => name.toLowerCase() === reader?.name.toLowerCase())
  if (same === undefined || same.id === personId) return
  await tx
    .update(people)
    .set({ id: same.id, name: same.name })
    .where(and(eq(people.crewId, crewId), eq(people.id, personId)))
}

/**
 * Reads a backup into a crew that has nothing yet but the lead who reads it: all of it or none.
 *
 * @throws Refusal when the crew has something already, or the backup cannot be read
 */
export async function restoreBackup(db: Database, caller: Caller, body: unknown, now: Date): Promise<void> {
  const { crewId, personId } = caller
  const content = readBackup(body)
  await db.transaction(async (tx) => {
    await lockCrew(tx, crewId)
    const others = [
      await tx.select({ id: loops.id }).from(loops).where(eq(loops.crewId, crewId)).limit(1),
      await tx.select({ id: saws.id }).from(saws).where(eq(saws.crewId, crewId)).limit(1),
      await tx
        .select({ id: people.id })
        .from(people)
        .where(and(eq(people.crewId, crewId), ne(people.id, personId)))
        .limit(1),
    ].flat()
    if (others.length > 0)
      throw new Refusal(
        'not-empty',
        'A backup is read into an empty shed only. Start one with ./start --fresh --empty.',
      )
    try {
      await takeOverName(tx, caller, content)
      await insertAll(tx, crewId, content, now)
    } catch (error) {
      const key = duplicateKey(error)
      const clash = error instanceof Refusal && ['saw-occupied', 'tag-taken'].includes(error.problem.code)
      if (key === null && !clash) throw error
      throw new Refusal('backup-damaged', 'Two things in it have the same id, tag, name or saw. Nothing was read.')
    }
  })
}
