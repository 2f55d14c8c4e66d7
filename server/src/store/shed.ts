import type { CrewChange, NewPerson, NewSaw, ShedAnswer } from '@undercliff/contract'
import { withDefaults, type CrewProfile } from '@undercliff/core'
import { and, asc, eq, sql } from 'drizzle-orm'
import type { Database } from '../database/connect'
import { duplicateKey } from '../database/errors'
import { crews, people, profiles, saws } from '../database/schema'
import { Refusal } from './refusal'
import { readSaws } from './saws'
import { readCards } from './snapshot'

/** Everything the whole-shed screen draws. */
export async function readShed(db: Database, crewId: string): Promise<ShedAnswer> {
  return db.transaction(
    async (tx) => {
      const [crew] = await tx.select().from(crews).where(eq(crews.id, crewId))
      if (crew === undefined) throw new Error('the crew of a request has to exist')
      const crewPeople = await tx
        .select({ id: people.id, name: people.name, role: people.role })
        .from(people)
        .where(eq(people.crewId, crewId))
        .orderBy(asc(people.name))
      const crewProfiles = await tx
        .select()
        .from(profiles)
        .where(eq(profiles.crewId, crewId))
        .orderBy(asc(profiles.name))
      const rules = withDefaults(crew.rules)
      return {
        crew: { id: crew.id, name: crew.name, lengths: crew.lengths, rules, demo: crew.demo },
        people: crewPeople,
        saws: await readSaws(tx, crewId),
        profiles: crewProfiles.map(({ crewId: _crew, ...profile }) => profile),
        loops: await readCards(tx, crewId, rules),
      }
    },
    { isolationLevel: 'repeatable read', accessMode: 'read only' },
  )
}

/** Changes what a crew is called and reads lengths in. */
export async function changeCrew(db: Database, crewId: string, { name, lengths }: CrewChange): Promise<CrewChange> {
  await db
    .update(crews)
    .set({ name, lengths, revision: sql`revision + 1` })
    .where(eq(crews.id, crewId))
  return { name, lengths }
}

/** Adds something of a crew's under an id made on the device; sending it twice does no harm. */
async function addOnce<T extends { id: string }>(
  db: Database,
  crewId: string,
  wanted: T,
  read: () => Promise<T | undefined>,
  insert: () => Promise<unknown>,
): Promise<T> {
  const before = await read()
  if (before !== undefined) {
    const same = Object.entries(wanted).every(
      ([key, value]) =>
        JSON.stringify((before as Record<string, unknown>)[key] ?? null) === JSON.stringify((value as unknown) ?? null),
    )
    if (!same) throw new Refusal('id-taken', 'Something else was added under this id.')
    return wanted
  }
  try {
    await insert()
    await db
      .update(crews)
      .set({ revision: sql`revision + 1` })
      .where(eq(crews.id, crewId))
  } catch (error) {
    if (duplicateKey(error) === null) throw error
    throw new Refusal('name-taken', 'That name is taken. Choose another.')
  }
  return wanted
}

export const addSaw = (db: Database, crewId: string, saw: NewSaw): Promise<NewSaw> =>
  addOnce(
    db,
    crewId,
    saw,
    async () =>
      (
        await db
          .select()
          .from(saws)
          .where(and(eq(saws.crewId, crewId), eq(saws.id, saw.id)))
      )[0],
    () => db.insert(saws).values({ crewId, ...saw }),
  )

export const addPerson = (db: Database, crewId: string, person: NewPerson): Promise<NewPerson> =>
  addOnce(
    db,
    crewId,
    person,
    async () =>
      (
        await db
          .select()
          .from(people)
          .where(and(eq(people.crewId, crewId), eq(people.id, person.id)))
      )[0],
    () => db.insert(people).values({ crewId, id: person.id, name: person.name, role: person.role ?? 'sawyer' }),
  )

export const addProfile = (db: Database, crewId: string, profile: CrewProfile): Promise<CrewProfile> =>
  addOnce(
    db,
    crewId,
    profile,
    async () =>
      (
        await db
          .select()
          .from(profiles)
          .where(and(eq(profiles.crewId, crewId), eq(profiles.id, profile.id)))
      )[0],
    () => db.insert(profiles).values({ crewId, ...profile }),
  )

/** Takes a profile away; loops that were added from it keep their values. */
export async function removeProfile(db: Database, crewId: string, id: string): Promise<void> {
  const [{ affectedRows }] = await db.delete(profiles).where(and(eq(profiles.crewId, crewId), eq(profiles.id, id)))
  if (affectedRows === 0) throw new Refusal('no-such-profile', 'There is no such profile.')
  await db
    .update(crews)
    .set({ revision: sql`revision + 1` })
    .where(eq(crews.id, crewId))
}
