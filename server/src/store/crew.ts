import { DEFAULT_RULES, type NewEntry } from '@undercliff/core'
import { DEMO_SIGN_INS, scenario } from '@undercliff/demo'
import { MOST_ENTRIES } from '@undercliff/contract'
import { and, asc, eq, isNotNull, sql } from 'drizzle-orm'
import type { Database, Transaction } from '../database/connect'
import {
  accounts,
  crews,
  entries,
  loops,
  people,
  profiles,
  sawEntries,
  saws,
  sessions,
  snapshots,
  tries,
} from '../database/schema'
import { appendEntries } from './appendEntries'
import { hashSecret } from './passwords'
import { sawRowOf } from './rows'

/** The crew that an installation begins with. Null before there is one. */
export async function installedCrew(db: Database | Transaction): Promise<string | null> {
  const [crew] = await db.select({ id: crews.id }).from(crews).orderBy(asc(crews.id)).limit(1)
  return crew?.id ?? null
}

/** Makes a crew with nothing in it. */
export async function createCrew(db: Database, crewId: string, name: string, demo = false): Promise<void> {
  await db.insert(crews).values({ id: crewId, name, lengths: 'mm', rules: DEFAULT_RULES, demo })
}

/** Throws away everything of every crew. */
export async function clearAll(db: Database): Promise<void> {
  await db.transaction(async (tx) => {
    await tx.delete(snapshots)
    // Corrections point at the entries they strike out and go first.
    await tx.delete(entries).where(eq(entries.kind, 'corrected'))
    for (const table of [entries, loops, sawEntries, saws, profiles, sessions, accounts, tries, people, crews])
      await tx.delete(table)
  })
}

/**
 * Loads the demo as a crew of its own, through the same door as every entry, each written when it
 * happened by whoever did the work.
 */
export async function loadDemo(db: Database, crewId: string, now: Date): Promise<void> {
  const demo = scenario(now)
  await createCrew(db, crewId, demo.crewName, true)
  await db.insert(people).values(demo.people.map(({ id, name, role }) => ({ crewId, id, name, role })))
  for (const { name, login, password, pin } of DEMO_SIGN_INS) {
    const person = demo.people.find((one) => one.name === name)
    if (person === undefined) continue
    await db.insert(accounts).values({
      crewId,
      personId: person.id,
      login,
      passwordHash: await hashSecret(password),
      pinHash: await hashSecret(pin),
    })
  }
  await db.insert(saws).values(demo.saws.map((saw) => ({ crewId, ...saw })))
  await db.insert(profiles).values(demo.profiles.map((profile) => ({ crewId, ...profile })))
  const lead = demo.people.find(({ role }) => role === 'lead')
  // Registered before any of them is read, each loop begins with common practice, as `docs/verdict.md` has it.
  const isRegistration = ({ kind }: NewEntry): boolean => kind === 'registered'
  const sent = [...demo.entries.filter(isRegistration), ...demo.entries.filter((entry) => !isRegistration(entry))]
  for (let i = 0; i < sent.length; i += MOST_ENTRIES) {
    const batch = sent.slice(i, i + MOST_ENTRIES)
    let next = 0
    await appendEntries(
      db,
      { crewId, personId: lead?.id ?? '', role: 'lead' },
      batch,
      () => new Date(batch[next++]?.happenedAt ?? now),
    )
  }
  // Everybody wrote down their own work.
  await db
    .update(entries)
    .set({ writtenBy: sql`person_id` })
    .where(and(eq(entries.crewId, crewId), isNotNull(entries.personId)))
  await db.insert(sawEntries).values(demo.sawEntries.map((entry) => sawRowOf(crewId, entry)))
}
