import type { WearAnswer } from '@undercliff/contract'
import { crewWear, knownBite, type KnownBite, type NewEntry, type RemovalSample } from '@undercliff/core'
import { eq, sql } from 'drizzle-orm'
import type { Database, Transaction } from '../database/connect'
import { snapshots } from '../database/schema'

/** What sharpening takes off and how long loops stay sharp, over all of a crew's loops. */
export async function readWear(db: Database, crewId: string): Promise<WearAnswer> {
  const rows = await db.select({ state: snapshots.state }).from(snapshots).where(eq(snapshots.crewId, crewId))
  return crewWear(rows.map(({ state }) => state))
}

/** What a crew's files are known to take off by now, for a loop that comes; undefined where nothing was read yet. */
export async function readKnownBite(db: Database | Transaction, crewId: string): Promise<KnownBite | undefined> {
  const rows = await db
    // As text, whatever a driver makes of JSON.
    .select({ removals: sql<string>`cast(json_extract(${snapshots.state}, '$.removals') as char)` })
    .from(snapshots)
    .where(eq(snapshots.crewId, crewId))
    .orderBy(snapshots.loopId)
  return knownBite(rows.flatMap(({ removals }) => JSON.parse(removals) as RemovalSample[]))
}

/** An entry as it is written: a registration says what was known of the crew's files, unless it came with that. */
export const withKnownBite = (entry: NewEntry, known: KnownBite | undefined): NewEntry =>
  entry.kind === 'registered' && known !== undefined ? { knownBite: known, ...entry } : entry
