import type { Hand } from '../loop'
import { partMinutes, timesMinutes, touchesFor, type MinutesRange, type SideLoad } from '../sharpen'
import type { SideJob } from './cutterJobs'
import type { GaugeJobs } from './gaugeJobs'
import { onceFor } from './onceFor'
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
  'stop',
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

/** Steps among which the minutes of setting up are shared, where the loop stays on its bar. */
const ON_THE_BAR = ['makeSafe', 'clean', 'hold', 'tension', 'mark'] as const
/** The same where it comes off, to a grinder: no bar to hold, no tension. */
const OFF_THE_BAR = ['makeSafe', 'clean', 'mark', 'ring'] as const

/** Whether the loop is taken off its bar for a tool. */
export const comesOff = (tool: SharpeningTool): boolean => tool === 'benchGrinder' || tool === 'smallGrinder'
const hasWheel = (tool: SharpeningTool): boolean => TOOL_FACTS[tool].gives === 'touches'

/** What there is to do. */
interface ToDo {
  readonly tool: SharpeningTool
  /** On the saw, where it is cut with. */
  readonly inField: boolean
  readonly sides: readonly SideJob[]
  readonly gauges: GaugeJobs
  readonly bumpers: boolean
  /** The only side that is left, where the first was done another time. */
  readonly waiting: Hand | null
  /** It ends at a stop that has to be found on the worst cutter. */
  readonly findsStop: boolean
}

/** What the cutters of a side get, all of them together. */
const loadOf = onceFor(({ cutters }: SideJob): SideLoad => ({
  cutters: cutters.length,
  strokes: cutters.reduce((sum, { count }) => sum + count, 0),
  touches: cutters.reduce((sum, { removeUm }) => sum + touchesFor(removeUm), 0),
}))

/**
 * The steps of a sharpening in their order. A wheel is rung before it is mounted; a stop is found on the worst cutter;
 * after the first side the work is turned and one cutter measured before the second; gauges come last, since edges
 * that go back sink toward them. A two-in-one has them done with the edges.
 */
export function stepsOf({ tool, inField, sides, gauges, bumpers, waiting, findsStop }: ToDo): Step[] {
  const { gaugesToo } = TOOL_FACTS[tool]
  const before: StepId[] = comesOff(tool)
    ? [...OFF_THE_BAR]
    : [...ON_THE_BAR, ...(hasWheel(tool) ? ['ring' as const] : [])]
  const worked = waiting === null ? sides : sides.slice(1)
  const minutes = partMinutes(tool, {
    sides: worked.map(loadOf),
    inField,
    findsStop,
    follows: waiting !== null,
    gauges: gauges.due ? gauges.each.length : 0,
    bumpers,
    gaugesOnTheWay: gaugesToo,
  })
  const plain = (id: StepId, takes: MinutesRange): Step => ({ id, hand: null, minutes: takes })
  const share = timesMinutes(minutes.setUp, 1 / (before.length + 1))
  const [first, second] = sides
  const side = (id: 'firstSide' | 'secondSide', job: SideJob | undefined, takes: MinutesRange | undefined): Step[] =>
    job === undefined || takes === undefined ? [] : [{ id, hand: job.hand, minutes: takes }]
  return [
    ...[...before, 'setUp' as const].map((id) => plain(id, share)),
    ...(findsStop && waiting === null ? [plain('stop', minutes.stop)] : []),
    ...(waiting === null ? side('firstSide', first, minutes.sides[0]) : []),
    ...(second === undefined || waiting !== null ? [] : [plain('turn', minutes.turn)]),
    ...(second === undefined ? [] : [plain('recheck', minutes.recheck)]),
    ...side('secondSide', second, minutes.sides.at(-1)),
    ...(gaugesToo ? [] : [plain('gauges', minutes.gauges)]),
    plain('lookOver', minutes.lookOver),
    plain('putBack', minutes.putBack),
  ]
}
