import { BACKUP_VERSION, type Backup, type BackupContent, type Person, type SetAsideAnswer } from '@undercliff/contract'
import { partedRules } from '@undercliff/core'
import { and, asc, eq, ne } from 'drizzle-orm'
import type { Database, Transaction } from '../database/connect'
import { atOneMoment } from '../database/atOneMoment'
import { duplicateKey } from '../database/errors'
import { inChunks } from '../database/inChunks'
import { crews, entries, kitItems, loops, people, profiles, sawEntries, saws } from '../database/schema'
import type { Caller } from './caller'
import { lockCrew, rulesOf } from './crewLock'
import { Refusal } from './refusal'
import { entryOf, rowOf, sawEntryOf, sawRowOf } from './rows'
import { sawOf } from './saws'
import { keepAside, readAside } from './aside'
import { kitRow, readKit } from './kit'
import { backedUpPhotos, restorePhotos } from './photos'
import { checksumOf, readBackup, type ReadBackup } from './readBackup'
import { insertSnapshots, snapshotRow, type SnapshotRow } from './snapshot'

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
  const aside = await readAside(tx, crewId)
  return {
    crew: { name: crew.name, lengths: crew.lengths, dates: crew.dates, rules: rulesOf(crew) },
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
    ...(aside.length === 0 ? {} : { setAside: aside }),
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

async function insertAll(tx: Transaction, crewId: string, { content: all, logs, setAside }: ReadBackup): Promise<void> {
  const { crew, ...content } = all
  const { decided, learned } = partedRules(crew.rules)
  await tx
    .update(crews)
    .set({ ...crew, rules: decided, learned })
    .where(eq(crews.id, crewId))
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
  await keepAside(tx, crewId, setAside)
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
 * Reads a backup into a crew that has nothing yet but the lead who reads it: all of it or none. A row that is odd is
 * kept aside, and named.
 *
 * @returns what is set aside
 * @throws Refusal when the crew has something already, or the backup cannot be read
 */
export async function restoreBackup(db: Database, caller: Caller, body: unknown): Promise<SetAsideAnswer> {
  const { crewId, personId } = caller
  const read = readBackup(body)
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
      await takeOverName(tx, caller, read.content)
      await insertAll(tx, crewId, read)
    } catch (error) {
      const key = duplicateKey(error)
      const clash = error instanceof Refusal && ['saw-occupied', 'tag-taken'].includes(error.problem.code)
      if (key === null && !clash) throw error
      throw new Refusal('backup-damaged', 'Two things in it have the same id, tag, name or saw. Nothing was read.')
    }
  })
  return { rows: read.setAside.map(({ part, why, row }) => ({ part, why, row })) }
}
