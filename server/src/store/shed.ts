import { inShedOrder, type CrewChange, type NewPerson, type NewSaw, type ShedAnswer } from '@undercliff/contract'
import { type CrewProfile } from '@undercliff/core'
import { and, asc, eq, sql } from 'drizzle-orm'
import type { Database, Transaction } from '../database/connect'
import { atOneMoment } from '../database/atOneMoment'
import { duplicateKey } from '../database/errors'
import { crews, people, profiles, saws } from '../database/schema'
import { AlikeNames } from './alikeNames'
import { lockCrew, rulesOf } from './crewLock'
import { readKit } from './kit'
import { readPhotoAbouts } from './photos'
import { Refusal } from './refusal'
import { readSaws } from './saws'
import { readCards } from './snapshot'

/** A shed without its loops. */
export type AroundLoops = Omit<ShedAnswer, 'loops' | 'place'>

/** Everything the whole-shed screen draws, as it was at one moment. */
export const readShed = (db: Database, crewId: string): Promise<ShedAnswer> =>
  atOneMoment(db, (tx) => readShedWithin(tx, crewId))

/** The same within a transaction that sees one moment. */
export async function readShedWithin(tx: Transaction, crewId: string): Promise<ShedAnswer> {
  const around = await readAround(tx, crewId)
  return inShedOrder({ place: null, ...around, loops: await readCards(tx, crewId, around.crew.rules) })
}

/** What stands around the loops of a shed. */
export async function readAround(tx: Transaction, crewId: string): Promise<AroundLoops> {
  const [crew] = await tx.select().from(crews).where(eq(crews.id, crewId))
  if (crew === undefined) throw new Error('the crew of a request has to exist')
  const crewPeople = await tx
    .select({
      id: people.id,
      name: people.name,
      role: people.role,
      weakSide: people.weakSide,
      gone: people.gone,
    })
    .from(people)
    .where(eq(people.crewId, crewId))
    .orderBy(asc(people.name))
  const crewProfiles = await tx.select().from(profiles).where(eq(profiles.crewId, crewId)).orderBy(asc(profiles.name))
  const rules = rulesOf(crew)
  return {
    crew: { id: crew.id, name: crew.name, lengths: crew.lengths, dates: crew.dates, rules, demo: crew.demo },
    people: crewPeople,
    saws: await readSaws(tx, crewId),
    profiles: crewProfiles.map(({ crewId: _crew, ...profile }) => profile),
    kit: await readKit(tx, crewId),
    photos: await readPhotoAbouts(tx, crewId),
  }
}

/** Changes what a crew is called, reads lengths in and how it writes days. */
export async function changeCrew(db: Database, crewId: string, change: CrewChange): Promise<CrewChange> {
  const { name, lengths, dates } = change
  await db
    .update(crews)
    .set({ name, lengths, ...(dates === undefined ? {} : { dates }), revision: sql`revision + 1` })
    .where(eq(crews.id, crewId))
  return change
}

/** What is kept under ids that devices make, with how a row says what was sent. */
interface Kept<T> {
  readonly table: typeof saws | typeof people | typeof profiles
  readonly kind: 'saw' | 'person' | 'profile'
  readonly called: string
  readonly wanted: T
}

/**
 * Adds something of a crew's under an id made on the device, with the crew's revision, both or
 * neither. Sending it twice does no harm and answers alike.
 *
 * @throws Refusal when something else has the id, or something has the name
 */
const addOnce = <T extends { readonly id: string }>(
  db: Database,
  crewId: string,
  { table, kind, called, wanted }: Kept<T>,
): Promise<T> =>
  db.transaction(async (tx) => {
    await lockCrew(tx, crewId)
    const [before] = await tx
      .select()
      .from(table)
      .where(and(eq(table.crewId, crewId), eq(table.id, wanted.id)))
    if (before !== undefined) {
      if (!isSame(before, wanted)) throw new Refusal('id-taken', 'Something else was added under this id.')
      return wanted
    }
    await new AlikeNames(tx, crewId).take(kind, wanted.id, called)
    try {
      await tx.insert(table).values({ crewId, ...wanted } as never)
    } catch (error) {
      if (duplicateKey(error) === null) throw error
      throw new Refusal('name-taken', 'That name is taken. Choose another.')
    }
    return wanted
  })

const isSame = (row: object, wanted: object): boolean =>
  Object.entries(wanted).every(
    ([key, value]) => JSON.stringify((row as Record<string, unknown>)[key] ?? null) === JSON.stringify(value ?? null),
  )

/** Adds a saw; see {@link addOnce}. */
export const addSaw = (db: Database, crewId: string, saw: NewSaw): Promise<NewSaw> =>
  addOnce(db, crewId, { table: saws, kind: 'saw', called: saw.nickname, wanted: saw })

/** Adds a person; see {@link addOnce}. */
export const addPerson = (db: Database, crewId: string, { id, name, role }: NewPerson): Promise<NewPerson> =>
  addOnce(db, crewId, { table: people, kind: 'person', called: name, wanted: { id, name, role: role ?? 'sawyer' } })

/** Adds a profile; see {@link addOnce}. */
export const addProfile = (db: Database, crewId: string, profile: CrewProfile): Promise<CrewProfile> =>
  addOnce(db, crewId, { table: profiles, kind: 'profile', called: profile.name, wanted: profile })

/** Takes a profile away; loops that were added from it keep their values. */
export const removeProfile = (db: Database, crewId: string, id: string): Promise<void> =>
  db.transaction(async (tx) => {
    await lockCrew(tx, crewId)
    const [{ affectedRows }] = await tx.delete(profiles).where(and(eq(profiles.crewId, crewId), eq(profiles.id, id)))
    if (affectedRows === 0) throw new Refusal('no-such-profile', 'There is no such profile.')
  })
