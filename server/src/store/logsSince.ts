import type { LogsAnswer } from '@undercliff/contract'
import { and, asc, eq, gt, max } from 'drizzle-orm'
import type { Database } from '../database/connect'
import { entries } from '../database/schema'
import { entryOf } from './rows'
import { readEpoch } from './shedIndex'

/** Entries in one answer. */
const PAGE = 4000

/** A place as an answer wrote it: whose arrivals they are, and the last that was told. */
const PLACE = /^([\w-]{1,32})\.(\d{1,15})$/

/** What is asked for. */
export interface LogsAsked {
  readonly crewId: string
  /** A place as an answer wrote it; anything else is the beginning. */
  readonly since: unknown
  /** What arrived after this may not all be there yet; null where it is. */
  readonly sureTo: number | null
}

/**
 * Everything that was written to the logs of a crew's loops since a place, in order of arrival, page by page: what a
 * device keeps for when nothing answers. A crew's entries arrive one request after another, but for those of an
 * import; while one is under way, the place that is told stays before it, and what came after is told again.
 */
export async function readLogsSince(db: Database, { crewId, since, sureTo }: LogsAsked): Promise<LogsAnswer> {
  const epoch = (await readEpoch(db, crewId)) ?? ''
  const [, ofEpoch, arrival] = PLACE.exec(String(since)) ?? []
  const from = ofEpoch === epoch ? Number(arrival) : 0
  const rows = await db
    .select()
    .from(entries)
    .where(and(eq(entries.crewId, crewId), gt(entries.arrival, from)))
    .orderBy(asc(entries.arrival))
    .limit(PAGE)
  const readTo = Math.max(from, Math.min(rows.at(-1)?.arrival ?? 0, sureTo ?? Infinity))
  // A place that does not move on is not asked from at once.
  const more = rows.length === PAGE && readTo > from
  return { entries: rows.map(entryOf), place: `${epoch}.${readTo}`, more }
}

/** Imports that are under way, and from where on a crew's arrivals are not all there yet. */
export class ImportsUnderWay {
  private readonly begunAt = new Map<string, number[]>()

  constructor(private readonly db: Database) {}

  /** The last arrival before any import of the crew's that is under way; null when none is. */
  sureTo(crewId: string): number | null {
    const begun = this.begunAt.get(crewId) ?? []
    return begun.length === 0 ? null : Math.min(...begun)
  }

  /** Runs an import. */
  async during<T>(crewId: string, run: () => Promise<T>): Promise<T> {
    const [row] = await this.db.select({ last: max(entries.arrival) }).from(entries)
    const begunAt = row?.last ?? 0
    const begun = this.begunAt.get(crewId) ?? []
    this.begunAt.set(crewId, [...begun, begunAt])
    try {
      return await run()
    } finally {
      const left = [...(this.begunAt.get(crewId) ?? [])]
      left.splice(left.indexOf(begunAt), 1)
      this.begunAt.set(crewId, left)
    }
  }
}
