import type { Hand } from '../loop'
import { SECONDS_PER_GAUGE, type MinutesRange } from '../sharpen'
import type { SideJob } from './cutterJobs'
import type { GaugeJobs } from './gaugeJobs'
import { TOOL_FACTS, type SharpeningTool } from './tools'

/** Steps of a sharpening, in their order. */
export const STEP_IDS = [
  'makeSafe',
  'clean',
  'hold',
  'tension',
  'mark',
  'ring',
  'setUp',
  'firstSide',
  'turn',
  'recheck',
  'secondSide',
  'gauges',
  'lookOver',
  'putBack',
] as const
export type StepId = (typeof STEP_IDS)[number]

/** One step: which it is, of which side, and how long it takes. */
export interface Step {
  readonly id: StepId
  readonly hand: Hand | null
  readonly minutes: MinutesRange
}

const range = (low: number, high: number): MinutesRange => ({ low, likely: (low + high) / 2, high })
/** Minutes of the steps that belong to every sharpening, from and to. Starting values. */
const AROUND = { lookOver: range(0.3, 1), recheck: range(0.2, 0.5), putBack: range(1, 3) } as const
/** Steps among which the minutes of setting up are shared, where the loop stays on its bar. */
const ON_THE_BAR = ['makeSafe', 'clean', 'hold', 'tension', 'mark'] as const
/** The same where it comes off, to a grinder: no bar to hold, no tension. */
const OFF_THE_BAR = ['makeSafe', 'clean', 'mark', 'ring'] as const

/** Whether the loop is taken off its bar for a tool. */
const comesOff = (tool: SharpeningTool): boolean => tool === 'benchGrinder' || tool === 'smallGrinder'
const hasWheel = (tool: SharpeningTool): boolean => TOOL_FACTS[tool].gives === 'touches'

/** What there is to do. */
interface Work {
  readonly tool: SharpeningTool
  readonly sides: readonly SideJob[]
  readonly gauges: GaugeJobs
  /** The only side that is left, where the first was done another time. */
  readonly waiting: Hand | null
}

/**
 * The steps of a sharpening in their order. A wheel is rung before it is mounted; after the first side the work is
 * turned and one cutter measured before the second; gauges come last, since edges that go back sink toward them.
 *
 * @param minutesOf how long a side takes
 */
export function stepsOf({ tool, sides, gauges, waiting }: Work, minutesOf: (side: SideJob) => MinutesRange): Step[] {
  const { setUpMinutes, turnMinutes, gaugesToo } = TOOL_FACTS[tool]
  const before: StepId[] = comesOff(tool)
    ? [...OFF_THE_BAR]
    : [...ON_THE_BAR, ...(hasWheel(tool) ? ['ring' as const] : [])]
  const [low, high] = setUpMinutes
  const share = before.length + 1
  const plain = (id: StepId, minutes: MinutesRange): Step => ({ id, hand: null, minutes })
  const [first, second] = sides
  const side = (id: 'firstSide' | 'secondSide', job: SideJob | undefined): Step[] =>
    job === undefined ? [] : [{ id, hand: job.hand, minutes: minutesOf(job) }]
  const filedOnes = gauges.each.filter(({ strokes }) => strokes > 0).length
  const [fast, slow] = SECONDS_PER_GAUGE
  // A two-in-one has them done with the edges; where none is due they are only looked at.
  const ofGauges =
    gaugesToo || !gauges.due ? range(0.2, 0.5) : range(1 + (filedOnes * fast) / 60, 3 + (filedOnes * slow) / 60)
  return [
    ...[...before, 'setUp' as const].map((id) => plain(id, range(low / share, high / share))),
    ...(waiting === null ? side('firstSide', first) : []),
    ...(second === undefined || waiting !== null ? [] : [plain('turn', range(turnMinutes * 0.7, turnMinutes * 1.3))]),
    ...(second === undefined ? [] : [plain('recheck', AROUND.recheck)]),
    ...side('secondSide', second),
    plain('gauges', ofGauges),
    plain('lookOver', AROUND.lookOver),
    plain('putBack', AROUND.putBack),
  ]
}
