import type { LogsAnswer } from '@undercliff/contract'
import { and, asc, eq, gt } from 'drizzle-orm'
import type { Database } from '../database/connect'
import { entries, sawEntries } from '../database/schema'
import { entryOf, sawEntryOf } from './rows'

/** Entries in one answer. */
const PAGE = 4000
/** Entries before the place that are told again: what was written at one moment may have come in another order. */
const AGAIN = 200

/** How far a device has read: the arrival of the last entry of loops, and of saws. */
export interface LogPlace {
  readonly loops: number
  readonly saws: number
}

/** A place as an answer wrote it; the beginning for anything else. */
export function readPlace(text: unknown): LogPlace {
  const found = typeof text === 'string' ? /^(\d{1,15})\.(\d{1,15})$/.exec(text) : null
  return { loops: Number(found?.[1] ?? 0), saws: Number(found?.[2] ?? 0) }
}

/**
 * Everything that was written to a crew's logs since a place, in order of arrival, page by page: what a device keeps
 * for when nothing answers. Some of what was told before is told again.
 */
export async function readLogsSince(db: Database, crewId: string, place: LogPlace): Promise<LogsAnswer> {
  const [loopRows, sawRows] = await Promise.all([
    db
      .select()
      .from(entries)
      .where(and(eq(entries.crewId, crewId), gt(entries.arrival, place.loops)))
      .orderBy(asc(entries.arrival))
      .limit(PAGE),
    db
      .select()
      .from(sawEntries)
      .where(and(eq(sawEntries.crewId, crewId), gt(sawEntries.arrival, place.saws)))
      .orderBy(asc(sawEntries.arrival))
      .limit(PAGE),
  ])
  const more = loopRows.length === PAGE || sawRows.length === PAGE
  const back = more ? 0 : AGAIN
  const loopsTo = Math.max(place.loops, (loopRows.at(-1)?.arrival ?? 0) - back)
  const sawsTo = Math.max(place.saws, (sawRows.at(-1)?.arrival ?? 0) - back)
  return {
    entries: loopRows.map(entryOf),
    sawEntries: sawRows.map(sawEntryOf),
    place: `${loopsTo}.${sawsTo}`,
    more,
  }
}
