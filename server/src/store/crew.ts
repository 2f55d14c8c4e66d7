import { DEFAULT_RULES, type NewEntry } from '@undercliff/core'
import { scenario } from '@undercliff/demo'
import { asc, eq } from 'drizzle-orm'
import type { Database } from '../database/connect'
import { crews, entries, loops, people, saws, snapshots } from '../database/schema'
import { MOST_ENTRIES } from '@undercliff/contract'
import { appendEntries } from './appendEntries'

/** The crew that an installation serves: its first. Null before there is one. */
export async function installedCrew(db: Database): Promise<string | null> {
  const [crew] = await db.select({ id: crews.id }).from(crews).orderBy(asc(crews.id)).limit(1)
  return crew?.id ?? null
}

/** Makes a crew with nothing in it. */
export async function createCrew(db: Database, crewId: string, name: string): Promise<void> {
  await db.insert(crews).values({ id: crewId, name, lengths: 'mm', rules: DEFAULT_RULES })
}

/** Throws away everything of every crew. */
export async function clearAll(db: Database): Promise<void> {
  await db.transaction(async (tx) => {
    await tx.delete(snapshots)
    // Corrections point at the entries they strike out and go first.
    await tx.delete(entries).where(eq(entries.kind, 'corrected'))
    for (const table of [entries, loops, saws, people, crews]) await tx.delete(table)
  })
}

/**
 * Loads the demo as a crew of its own, through the same door as every entry, each written when it
 * happened.
 */
export async function loadDemo(db: Database, crewId: string, now: Date): Promise<void> {
  const { crewName, people: crewPeople, saws: crewSaws, entries: season } = scenario(now)
  await createCrew(db, crewId, crewName)
  await db.insert(people).values(crewPeople.map(({ id, name }) => ({ crewId, id, name })))
  await db.insert(saws).values(crewSaws.map((saw) => ({ crewId, ...saw })))
  for (let i = 0; i < season.length; i += MOST_ENTRIES) {
    const batch: NewEntry[] = season.slice(i, i + MOST_ENTRIES)
    let next = 0
    await appendEntries(db, crewId, batch, () => new Date(batch[next++]?.happenedAt ?? now))
  }
}
