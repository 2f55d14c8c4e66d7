import { createHash } from 'node:crypto'
import {
  BACKUP_VERSION,
  backupContentSchema,
  backupSchema,
  isId,
  isInstant,
  isSaidInstant,
  validate,
  validateSawEntries,
  type Backup,
  type BackupContent,
  type Person,
} from '@undercliff/contract'
import { admitAll, believeClock, withDefaults, type Entry, type SawEntry } from '@undercliff/core'
import { and, asc, eq, ne } from 'drizzle-orm'
import type { Database, Transaction } from '../database/connect'
import { atOneMoment } from '../database/atOneMoment'
import { duplicateKey } from '../database/errors'
import { inChunks } from '../database/inChunks'
import { crews, entries, kitItems, loops, people, profiles, sawEntries, saws } from '../database/schema'
import type { Caller } from './caller'
import { checked, checkEntries, invalid } from './checkEntries'
import { lockCrew } from './crewLock'
import { Refusal } from './refusal'
import { entryOf, rowOf, sawEntryOf, sawRowOf } from './rows'
import { sawOf } from './saws'
import { kitRow, readKit } from './kit'
import { backedUpPhotos, restorePhotos } from './photos'
import { insertSnapshots, snapshotRow, type SnapshotRow } from './snapshot'

const checksumOf = (content: unknown): string => createHash('sha256').update(JSON.stringify(content)).digest('hex')

async function readContent(tx: Transaction, crewId: string): Promise<BackupContent> {
  const [crew] = await tx.select().from(crews).where(eq(crews.id, crewId))
  if (crew === undefined) throw new Error('the crew of a request has to exist')
  const crewPeople = await tx.select().from(people).where(eq(people.crewId, crewId)).orderBy(asc(people.name))
  const crewSaws = await tx.select().from(saws).where(eq(saws.crewId, crewId)).orderBy(asc(saws.nickname))
  const crewProfiles = await tx.select().from(profiles).where(eq(profiles.crewId, crewId)).orderBy(asc(profiles.name))
  const crewKit = await readKit(tx, crewId)
  const sawRows = await tx
    .select()
    .from(sawEntries)
    .where(eq(sawEntries.crewId, crewId))
    .orderBy(asc(sawEntries.arrival))
  const rows = await tx.select().from(entries).where(eq(entries.crewId, crewId)).orderBy(asc(entries.arrival))
  return {
    crew: { name: crew.name, lengths: crew.lengths, dates: crew.dates, rules: withDefaults(crew.rules) },
    people: crewPeople.map(({ id, name, role, weakSide, gone }) => ({
      ...{ id, name, role },
      ...(weakSide === null ? {} : { weakSide }),
      ...(gone ? { gone } : {}),
    })),
    saws: crewSaws.map(sawOf),
    profiles: crewProfiles.map(({ crewId: _crew, ...profile }) => profile),
    kit: crewKit,
    photos: await backedUpPhotos(tx, crewId),
    sawEntries: sawRows.map(sawEntryOf),
    entries: rows.map(entryOf),
  }
}

/** Everything of a crew's as it was at one moment, with a checksum over it. */
export async function writeBackup(db: Database, crewId: string, now: Date): Promise<Backup> {
  const content = await atOneMoment(db, (tx) => readContent(tx, crewId))
  return {
    format: 'undercliff-backup',
    version: BACKUP_VERSION,
    writtenAt: now.toISOString(),
    checksum: checksumOf(content),
    content,
  }
}

/** What is not part of a new entry: when it was written and by whom, and what a device's clock said. */
interface Written {
  readonly writtenAt: string
  readonly writtenBy: string | null
  readonly saidAt?: string
}

/** Takes what the server added off entries, so that the rest can be checked as new ones are. */
function withoutWritten(sent: readonly unknown[], where: string): { bare: unknown[]; written: Written[] } {
  const written: Written[] = []
  const bare = sent.map((one, i) => {
    const wrong = (field: string, message: string) => invalid([{ field: `${where}[${i}]${field}`, message }])
    if (typeof one !== 'object' || one === null) throw wrong('', 'This has to be an object.')
    const { writtenAt, writtenBy = null, saidAt, ...rest } = one as Record<string, unknown>
    if (!isInstant(writtenAt)) throw wrong('.writtenAt', 'There is no such time.')
    if (saidAt !== undefined && !isSaidInstant(saidAt)) throw wrong('.saidAt', 'There is no such time.')
    if (writtenBy !== null && !isId(writtenBy)) throw wrong('.writtenBy', 'This has to be the id of a person.')
    written.push({ writtenAt, writtenBy, ...(saidAt === undefined ? {} : { saidAt }) })
    return rest
  })
  return { bare, written }
}

/** With a time that can be: what was written down before it happened, or before anybody wrote, was a clock's mistake. */
const asBelieved = <T extends Entry | SawEntry>(entry: T): T =>
  believeClock([entry], Date.parse(entry.writtenAt), null)[0] ?? entry

function readEntries(sent: readonly unknown[]): Entry[] {
  const where = 'content.entries'
  const { bare, written } = withoutWritten(sent, where)
  return checkEntries(bare, where).map((entry, i) => asBelieved({ ...entry, ...written[i] } as Entry))
}

function readSawEntries(sent: readonly unknown[]): SawEntry[] {
  const where = 'content.sawEntries'
  const { bare, written } = withoutWritten(sent, where)
  return checked(validateSawEntries(bare, where)).map((entry, i) => asBelieved({ ...entry, ...written[i] } as SawEntry))
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
  const inner = validate<Omit<BackupContent, 'profiles' | 'kit' | 'photos' | 'sawEntries'> & Partial<BackupContent>>(
    backupContentSchema,
    content,
  )
  if (!inner.ok) throw invalid(inner.problems.map(({ field, ...rest }) => ({ field: `content.${field}`, ...rest })))
  const { crew, profiles: read = [], kit = [], photos: pictures = [], sawEntries: log = [], ...rest } = inner.value
  const whole: BackupContent = {
    ...rest,
    crew: { ...crew, rules: withDefaults(crew.rules) },
    profiles: read,
    kit,
    photos: pictures,
    sawEntries: readSawEntries(log),
    entries: readEntries(rest.entries),
  }
  refuseUnknown(whole)
  return whole
}

/** @throws Refusal when an entry names somebody, a saw or another entry that is not in the backup */
function refuseUnknown({
  people: known,
  saws: knownSaws,
  entries: log,
  sawEntries: sawLog,
  photos: pictures = [],
}: BackupContent): void {
  const persons = new Set<string | null>([null, ...known.map(({ id }) => id)])
  const sawIds = new Set(knownSaws.map(({ id }) => id))
  const struck = new Map(sawLog.map(({ id, sawId }) => [id, sawId]))
  const wrong = (where: string, message: string) => invalid([{ field: `content.${where}`, message }])
  const refuseStrangers = (where: string, { personId, writtenBy }: Entry | SawEntry): void => {
    if (!persons.has(personId)) throw wrong(`${where}.personId`, 'Nobody in the backup has this id.')
    if (!persons.has(writtenBy)) throw wrong(`${where}.writtenBy`, 'Nobody in the backup has this id.')
  }
  const loopIds = new Set(log.map(({ loopId }) => loopId))
  for (const [i, { personId, sawId, loopId }] of pictures.entries()) {
    const where = `photos[${i}]`
    if (!persons.has(personId)) throw wrong(`${where}.personId`, 'Nobody in the backup has this id.')
    if (sawId === undefined ? !loopIds.has(loopId) : !sawIds.has(sawId))
      throw wrong(where, 'What it is of is not in the backup.')
  }
  log.forEach((entry, i) => {
    refuseStrangers(`entries[${i}]`, entry)
    if (entry.kind === 'fitted' && !sawIds.has(entry.sawId))
      throw wrong(`entries[${i}].sawId`, 'There is no such saw in the backup.')
  })
  sawLog.forEach((entry, i) => {
    refuseStrangers(`sawEntries[${i}]`, entry)
    if (!sawIds.has(entry.sawId)) throw wrong(`sawEntries[${i}].sawId`, 'There is no such saw in the backup.')
    if (entry.kind === 'sawCorrected' && struck.get(entry.strikes) !== entry.sawId)
      throw wrong(`sawEntries[${i}].strikes`, 'The entry to strike out is not in the log of this saw.')
  })
}

/** Logs by loop, each entry admitted to the log before it. What a wrong clock wrote was written all the same. */
function admittedLogs(sent: readonly Entry[]): ReadonlyMap<string, readonly Entry[]> {
  const { logs, problems } = admitAll(sent, Infinity)
  if (problems.length > 0)
    throw invalid(problems.map(({ at, field, ...rest }) => ({ ...rest, field: `content.entries[${at}].${field}` })))
  return logs
}

async function insertAll(tx: Transaction, crewId: string, { crew, ...content }: BackupContent): Promise<void> {
  const logs = admittedLogs(content.entries)
  await tx.update(crews).set(crew).where(eq(crews.id, crewId))
  const known = new Set(
    (await tx.select({ id: people.id }).from(people).where(eq(people.crewId, crewId))).map(({ id }) => id),
  )
  const fresh = content.people.filter(({ id }) => !known.has(id))
  await inChunks(fresh, (some) =>
    tx
      .insert(people)
      .values(some.map(({ id, name, role, weakSide, gone }) => ({ crewId, id, name, role, weakSide, gone }))),
  )
  await inChunks(content.saws, (some) => tx.insert(saws).values(some.map((saw) => ({ crewId, ...saw }))))
  await inChunks(content.profiles, (some) =>
    tx.insert(profiles).values(some.map((profile) => ({ crewId, ...profile }))),
  )
  await inChunks(content.kit ?? [], (some) => tx.insert(kitItems).values(some.map((item) => kitRow(crewId, item))))
  await inChunks(content.sawEntries, (some) =>
    tx.insert(sawEntries).values(some.map((entry) => sawRowOf(crewId, entry))),
  )
  const registered: SnapshotRow[] = []
  for (const log of logs.values()) {
    const row = snapshotRow(crewId, log, crew.rules)
    if (row !== null) registered.push(row)
  }
  await inChunks(registered, (some) =>
    tx.insert(loops).values(some.map(({ loopId, state }) => ({ crewId, id: loopId, tag: state.tag }))),
  )
  await inChunks(content.entries, (some) =>
    tx.insert(entries).values(some.map((entry) => rowOf(crewId, entry, entry.writtenAt, entry.writtenBy))),
  )
  await insertSnapshots(tx, registered)
  await restorePhotos(tx, crewId, content.photos ?? [])
}

/** The person in a backup whose name the database takes for that of somebody here. */
async function alikeIn(
  tx: Transaction,
  crewId: string,
  personId: string,
  inBackup: readonly Person[],
): Promise<Person | undefined> {
  for (const person of inBackup) {
    const [one] = await tx
      .select({ id: people.id })
      .from(people)
      .where(and(eq(people.crewId, crewId), eq(people.id, personId), eq(people.name, person.name)))
    if (one !== undefined) return person
  }
  return undefined
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
  if (reader === undefined) return
  const [exactly] = inBackup.filter(({ name }) => name === reader.name)
  const same = exactly ?? (await alikeIn(tx, crewId, personId, inBackup))
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
export async function restoreBackup(db: Database, caller: Caller, body: unknown): Promise<void> {
  const { crewId, personId } = caller
  const content = readBackup(body)
  await db.transaction(async (tx) => {
    await lockCrew(tx, crewId)
    const others = [
      await tx.select({ id: profiles.id }).from(profiles).where(eq(profiles.crewId, crewId)).limit(1),
      await tx.select({ id: kitItems.id }).from(kitItems).where(eq(kitItems.crewId, crewId)).limit(1),
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
      await insertAll(tx, crewId, content)
    } catch (error) {
      const key = duplicateKey(error)
      const clash = error instanceof Refusal && ['saw-occupied', 'tag-taken'].includes(error.problem.code)
      if (key === null && !clash) throw error
      throw new Refusal('backup-damaged', 'Two things in it have the same id, tag, name or saw. Nothing was read.')
    }
  })
}
