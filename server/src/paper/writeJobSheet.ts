import { jobSheetOf, planSharpening, type Sharpening, type SharpeningPlan } from '@undercliff/core'
import { and, eq } from 'drizzle-orm'
import type { Database } from '../database/connect'
import { crews, snapshots } from '../database/schema'
import { rulesOf } from '../store/crewLock'
import { Refusal } from '../store/refusal'
import { printJobSheet } from './printJobSheet'

/** What keeps a sharpening from being begun is asked at the machine: the paper says it, and is printed all the same. */
const ONLY_WHEN_BEGUN: ReadonlySet<SharpeningPlan['refusal']> = new Set(['wheelUnnamed', 'wheelSpeedUnknown'])

/**
 * The job sheet of a loop as the bytes of a PDF.
 *
 * @throws Refusal when there is no such loop, or it is not sharpened so
 */
export async function writeJobSheet(
  db: Database,
  { crewId, loopId, wanted }: { crewId: string; loopId: string; wanted: Sharpening },
): Promise<Uint8Array> {
  const [crew] = await db.select().from(crews).where(eq(crews.id, crewId))
  const [row] = await db
    .select({ state: snapshots.state })
    .from(snapshots)
    .where(and(eq(snapshots.crewId, crewId), eq(snapshots.loopId, loopId)))
  if (crew === undefined || row === undefined) throw new Refusal('no-such-loop', 'There is no such loop.')
  const rules = rulesOf(crew)
  const plan = planSharpening({ ...row.state, decision: null }, rules, wanted)
  if (plan.refusal !== null && !ONLY_WHEN_BEGUN.has(plan.refusal))
    throw new Refusal('nothing-to-print', 'This loop is not sharpened like that.')
  const figures = { lengths: crew.lengths, currency: rules.currency }
  return printJobSheet(jobSheetOf(plan, row.state.spec, row.state.tag, figures), row.state.tag, crew.name)
}
