import { TOOL_FACTS, type CutterJob } from '../jobs'
import type { SharpeningPlan } from '../sharpening'
import { specLine, type LoopSpec } from '../profile'
import { writeLength } from '../units'
import { cutterName } from './damage'
import { capital } from './text'
import type { Figures } from './figures'
import { sayMinutes } from './ranges'
import { PLAN_DOUBTS, sayCount, sayStep, setUpRows, TOOL_NAMES, type SetUpRow } from './sharpening'

/** A cutter on the paper: what is there, what is wanted, and room to write what came of it. */
export interface SheetRow {
  readonly number: number
  readonly name: string
  readonly length: string
  readonly target: string
  readonly count: string
  readonly hurt: boolean
}

/** Everything that stands on a job sheet, in words. */
export interface JobSheet {
  readonly title: string
  readonly what: string
  readonly minutes: string
  readonly setUp: readonly SetUpRow[]
  readonly cautions: readonly string[]
  readonly sides: readonly { readonly title: string; readonly rows: readonly SheetRow[] }[]
  readonly gauges: string
}

function sayGauges({ gauges, tool }: SharpeningPlan, { lengths }: Figures): string {
  if (TOOL_FACTS[tool].gaugesToo) return 'Gauges: down with every stroke; no pass of their own.'
  const plate = `Plate ${writeLength(gauges.plateUm, lengths)}`
  const low = gauges.tooLow.length === 0 ? '' : ` Too low, and stay: ${gauges.tooLow.join(', ')}.`
  if (!gauges.due) return `Gauges: ${plate}, to be looked at only.${low}`
  const groups = gauges.groups.map(({ strokes, cutters }) => `${strokes} on ${cutters.join(', ')}`).join('; ')
  return `Gauges: ${plate}. Strokes: ${groups}.${low}`
}

/** Where a cutter ends: nobody knows where its depth was not measured, and a stop ends where the worst is clean. */
function targetOf({ stopUm, stopUnknown }: SharpeningPlan, job: CutterJob, { lengths }: Figures): string {
  if (stopUm === null) return job.depthUnknown ? 'clean' : writeLength(job.targetUm, lengths)
  return stopUnknown ? 'the stop' : `about ${writeLength(stopUm, lengths)}`
}

/**
 * A sharpening on paper: set-up, what every cutter gets with room to write, the cautions at their place.
 *
 * @example
 * jobSheetOf(plan, spec38, 'K3', figures).sides.length // 2
 */
export function jobSheetOf(plan: SharpeningPlan, spec: LoopSpec, tag: string, figures: Figures): JobSheet {
  const steps = plan.steps.map(({ id, hand }) => sayStep(id, hand, plan).caution)
  const doing = { touchUp: 'touch-up', file: 'filing', regrind: 'regrind' }[plan.action]
  return {
    title: `${tag}: ${doing}`,
    what: `${specLine(spec)} · ${TOOL_NAMES[plan.tool]}`,
    minutes: sayMinutes(plan.minutes),
    setUp: setUpRows(plan.setUp, figures),
    cautions: [...new Set([...plan.doubts.map((doubt) => PLAN_DOUBTS[doubt]), ...steps])].filter(Boolean),
    sides: plan.sides
      .filter(({ hand }) => (plan.waiting ?? hand) === hand)
      .map(({ hand, cutters }, i) => ({
        title: `${capital(hand)} cutters${i === 0 ? ', first' : ''}`,
        rows: cutters.map((job) => ({
          number: job.number,
          name: cutterName(job.number, job.hand),
          length: `${job.known === 'measured' ? '' : 'about '}${writeLength(job.lengthUm, figures.lengths)}`,
          target: targetOf(plan, job, figures),
          count: sayCount(job, plan),
          hurt: job.damageUm > 0 || job.depthUnknown,
        })),
      })),
    gauges: sayGauges(plan, figures),
  }
}
