import type { WearAnswer } from '@undercliff/contract'
import { crewWear } from '@undercliff/core'
import { eq } from 'drizzle-orm'
import type { Database } from '../database/connect'
import { snapshots } from '../database/schema'

/** What sharpening takes off and how long loops stay sharp, over all of a crew's loops. */
export async function readWear(db: Database, crewId: string): Promise<WearAnswer> {
  const rows = await db.select({ state: snapshots.state }).from(snapshots).where(eq(snapshots.crewId, crewId))
  return crewWear(rows.map(({ state }) => state))
}
