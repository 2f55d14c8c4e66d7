import { crewPace, POPULATIONS, withDefaults, type Pace, type TimedWork } from '@undercliff/core'
import { eq, sql } from 'drizzle-orm'
import type { Database } from '../database/connect'
import { crews, snapshots } from '../database/schema'
import { Refusal } from './refusal'
import { changeRules } from './rules'

/** A pace nearer than this to the one that holds changes no verdict that anybody would notice. */
const NOTICED = 0.05
/** Somebody may change the rules at the same moment: then they are read again. */
const TRIES = 3

const differs = (before: Pace, now: Pace): boolean =>
  POPULATIONS.some((population) => Math.abs(before[population] - now[population]) >= NOTICED)

/**
 * Learns from all of a crew's sharpenings how long they take, and has its verdicts reckon with that.
 *
 * @returns whether the pace that verdicts reckon with was changed
 */
export async function learnPace(db: Database, crewId: string): Promise<boolean> {
  for (let tries = 1; ; tries += 1) {
    const [crew] = await db.select({ rules: crews.rules }).from(crews).where(eq(crews.id, crewId))
    if (crew === undefined) return false
    const rows = await db
      // As text, whatever a driver makes of JSON.
      .select({ timed: sql<string | null>`cast(json_extract(${snapshots.state}, '$.timed') as char)` })
      .from(snapshots)
      .where(eq(snapshots.crewId, crewId))
      .orderBy(snapshots.loopId)
    const timed = rows.flatMap((row) => (row.timed === null ? [] : (JSON.parse(row.timed) as TimedWork[])))
    const before = withDefaults(crew.rules)
    const pace = crewPace(timed)
    if (!differs(before.pace, pace)) return false
    try {
      await changeRules(db, crewId, { version: before.version, pace })
      return true
    } catch (error) {
      if (!(error instanceof Refusal) || tries === TRIES) throw error
    }
  }
}
