import type { Person, PersonChange } from '@undercliff/contract'
import { and, eq, sql } from 'drizzle-orm'
import type { Database } from '../database/connect'
import { duplicateKey } from '../database/errors'
import { accounts, crews, people, sessions } from '../database/schema'
import { changePin, needAnotherLead } from './accounts'
import { AlikeNames } from './alikeNames'
import { lockCrew } from './crewLock'
import { Refusal } from './refusal'
import type { Tries } from './tries'

/** Somebody of the crew, within a transaction that has locked it. */
async function personOf(tx: Pick<Database, 'select'>, crewId: string, personId: string) {
  const [person] = await tx
    .select()
    .from(people)
    .where(and(eq(people.crewId, crewId), eq(people.id, personId)))
  if (person === undefined) throw new Refusal('no-such-person', 'Nobody on the crew has this id.')
  return person
}

/**
 * Changes what somebody is called, which hand they say is the weaker one, or that they left. What they did stays
 * theirs; who left signs in no more, and everywhere they were signed in it is over.
 *
 * @throws Refusal when there is nobody such, the name is taken, or no lead would be left
 */
export const changePerson = (
  db: Database,
  crewId: string,
  personId: string,
  { name, weakSide, gone }: PersonChange,
): Promise<Person> =>
  db.transaction(async (tx) => {
    await lockCrew(tx, crewId)
    const before = await personOf(tx, crewId, personId)
    if (gone === true && !before.gone) await needAnotherLead(tx, crewId, personId)
    const after = {
      name: name ?? before.name,
      weakSide: weakSide === undefined ? before.weakSide : weakSide,
      gone: gone ?? before.gone,
    }
    if (after.name !== before.name) await new AlikeNames(tx, crewId).take('person', personId, after.name)
    try {
      await tx
        .update(people)
        .set(after)
        .where(and(eq(people.crewId, crewId), eq(people.id, personId)))
    } catch (error) {
      if (duplicateKey(error) === null) throw error
      throw new Refusal('name-taken', 'That name is taken. Choose another.')
    }
    if (after.gone) {
      await tx.delete(sessions).where(and(eq(sessions.crewId, crewId), eq(sessions.personId, personId)))
      await tx.delete(accounts).where(and(eq(accounts.crewId, crewId), eq(accounts.personId, personId)))
    }
    await tx
      .update(crews)
      .set({ revision: sql`revision + 1` })
      .where(eq(crews.id, crewId))
    return { id: personId, role: before.role, ...after }
  })

/**
 * Sets somebody's PIN for them, or takes it away: a helper who has none yet takes over at the bench with it.
 *
 * @throws Refusal when there is nobody such, they cannot sign in at all, or after too many changes
 */
export async function setPinOf(
  db: Database,
  tries: Tries,
  crewId: string,
  personId: string,
  pin: string | null,
): Promise<void> {
  const { gone } = await personOf(db, crewId, personId)
  if (gone) throw new Refusal('no-such-person', 'They have left the crew. Take them back first.')
  if (!(await changePin(db, tries, { crewId, personId }, pin)))
    throw new Refusal('no-such-account', 'Give them a sign-in first: a PIN is only a quicker way to take over.')
}
