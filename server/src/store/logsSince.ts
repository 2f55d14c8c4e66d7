import type { LogsAnswer } from '@undercliff/contract'
import { and, asc, eq, gt } from 'drizzle-orm'
import type { Database } from '../database/connect'
import { entries } from '../database/schema'
import { entryOf } from './rows'

/** Entries in one answer. */
const PAGE = 4000
/** Entries before the place that are told again: what was written at one moment may have come in another order. */
const AGAIN = 200

/** A place as an answer wrote it, the arrival of an entry; the beginning for anything else. */
export const readPlace = (text: unknown): number =>
  typeof text === 'string' && /^\d{1,15}$/.test(text) ? Number(text) : 0

/**
 * Everything that was written to the logs of a crew's loops since a place, in order of arrival, page by page: what a
 * device keeps for when nothing answers. Some of what was told before is told again.
 */
export async function readLogsSince(db: Database, crewId: string, place: number): Promise<LogsAnswer> {
  const rows = await db
    .select()
    .from(entries)
    .where(and(eq(entries.crewId, crewId), gt(entries.arrival, place)))
    .orderBy(asc(entries.arrival))
    .limit(PAGE)
  const more = rows.length === PAGE
  const readTo = Math.max(place, (rows.at(-1)?.arrival ?? 0) - (more ? 0 : AGAIN))
  return { entries: rows.map(entryOf), place: String(readTo), more }
}
