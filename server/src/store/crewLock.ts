import { withDefaults, type HouseRules } from '@undercliff/core'
import { eq, sql } from 'drizzle-orm'
import type { Database, Transaction } from '../database/connect'
import { crews, people } from '../database/schema'
import { Refusal } from './refusal'

/** The rules of a crew's row, with what was learned beside them. */
export const rulesOf = ({ rules, learned }: Pick<typeof crews.$inferSelect, 'rules' | 'learned'>): HouseRules =>
  withDefaults({ ...rules, ...learned })

/** What a crew works by now. */
export async function readRules(db: Database | Transaction, crewId: string): Promise<HouseRules> {
  const [crew] = await db.select({ rules: crews.rules, learned: crews.learned }).from(crews).where(eq(crews.id, crewId))
  if (crew === undefined) throw new Error('the crew of a request has to exist')
  return rulesOf(crew)
}

/** Locks the crew for writing, so that its entries are written one request after another. */
export async function lockCrew(tx: Transaction, crewId: string): Promise<HouseRules> {
  await tx
    .update(crews)
    .set({ revision: sql`revision + 1` })
    .where(eq(crews.id, crewId))
  return readRules(tx, crewId)
}

/** @throws Refusal when somebody who is named is not on the crew */
export async function checkPeople(
  tx: Transaction,
  crewId: string,
  sent: readonly { readonly personId: string | null }[],
): Promise<void> {
  const known = new Set(
    (await tx.select({ id: people.id }).from(people).where(eq(people.crewId, crewId))).map(({ id }) => id),
  )
  sent.forEach(({ personId }, i) => {
    if (personId === null || known.has(personId)) return
    const message = 'Nobody on the crew has this id.'
    throw new Refusal('no-such-person', message, [{ field: `entries[${i}].personId`, message }])
  })
}
