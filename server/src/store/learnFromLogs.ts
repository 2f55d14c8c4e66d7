import {
  countSigns,
  crewPace,
  POPULATIONS,
  type Pace,
  type SignCounts,
  type TimedWork,
  type TracedSign,
} from '@undercliff/core'
import { eq, sql } from 'drizzle-orm'
import type { Database } from '../database/connect'
import { snapshots } from '../database/schema'
import { readRules } from './crewLock'
import { changeLearned } from './rules'

/** A pace nearer than this to the one that holds changes no verdict that anybody would notice. */
const NOTICED = 0.05

const differs = (before: Pace, now: Pace): boolean =>
  POPULATIONS.some((population) => Math.abs(before[population] - now[population]) >= NOTICED)

const sameCounts = (before: SignCounts, now: SignCounts): boolean =>
  Object.keys({ ...before, ...now }).every((key) => before[key] === now[key])

/**
 * Learns from all of a crew's logs how long its sharpenings take, and what is behind the signs that its saws give, and
 * has its verdicts reckon with that.
 *
 * @returns whether what verdicts reckon with was changed
 */
export async function learnFromLogs(db: Database, crewId: string): Promise<boolean> {
  const rows = await db
    // As text, whatever a driver makes of JSON.
    .select({
      timed: sql<string | null>`cast(json_extract(${snapshots.state}, '$.timed') as char)`,
      traced: sql<string | null>`cast(json_extract(${snapshots.state}, '$.traced') as char)`,
    })
    .from(snapshots)
    .where(eq(snapshots.crewId, crewId))
    .orderBy(snapshots.loopId)
  const timed = rows.flatMap((row) => (row.timed === null ? [] : (JSON.parse(row.timed) as TimedWork[])))
  const traced = rows.flatMap((row) => (row.traced === null ? [] : (JSON.parse(row.traced) as TracedSign[])))
  const before = await readRules(db, crewId)
  const learned = crewPace(timed)
  const pace = differs(before.pace, learned) ? learned : before.pace
  const signCounts = countSigns(traced)
  if (pace === before.pace && sameCounts(before.signCounts, signCounts)) return false
  await changeLearned(db, crewId, { pace, signCounts })
  return true
}
