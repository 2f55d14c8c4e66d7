import type { SharpeningTool } from '../log'
import { HANDS, type Hand } from '../loop'
import type { Um } from '../units'
import { GUIDES } from './guides'
import {
  addMinutes,
  BENCH_SETUP_MINUTES,
  gaugeMinutes,
  NO_MINUTES,
  rangeOf,
  SECONDS_PER_STROKE,
  strokesFor,
  touchesFor,
  type MinutesRange,
} from './time'

/** How long a tool takes beside the work on cutters. */
interface ToolTimes {
  /** Minutes to set it up in the field and take it away again, from and to. */
  readonly setUpMinutes: readonly [number, number]
  /** Seconds from one cutter to the next. */
  readonly secondsToNext: number
  /** Minutes to change to the other side. */
  readonly turnMinutes: number
  /** Seconds that one touch of a wheel takes with all that belongs to it, from and to; null for a file. */
  readonly touchSeconds: readonly [number, number] | null
}

const FILE: Omit<ToolTimes, 'secondsToNext'> = { setUpMinutes: [0.5, 1.5], turnMinutes: 0.5, touchSeconds: null }

/**
 * Times of each tool: starting values, but for those of `GUIDES`, of setting a grinder up and turning its clamp, and of
 * a touch at the bench, 6 to 10 s a cutter (common practice).
 */
export const TOOL_TIMES: Readonly<Record<SharpeningTool, ToolTimes>> = {
  freehand: { ...FILE, secondsToNext: GUIDES.freehand.secondsToNext },
  plateGuide: { ...FILE, secondsToNext: GUIDES.topPlate.secondsToNext },
  rollerGuide: { ...FILE, secondsToNext: GUIDES.chassis.secondsToNext },
  twoInOne: {
    ...FILE,
    secondsToNext: GUIDES.twoInOne.secondsToNext,
    setUpMinutes: [0.3, 0.8],
    turnMinutes: 0.3,
  },
  jig: { ...FILE, secondsToNext: GUIDES.jig.secondsToNext, setUpMinutes: [2, 5], turnMinutes: 1 },
  squareFile: { ...FILE, secondsToNext: 6, setUpMinutes: [2, 5] },
  benchGrinder: { setUpMinutes: [3, 8], secondsToNext: 0, turnMinutes: 1, touchSeconds: [6, 10] },
  smallGrinder: { setUpMinutes: [1, 3], secondsToNext: 0, turnMinutes: 0.5, touchSeconds: [4, 8] },
  handGrinder: { setUpMinutes: [1, 3], secondsToNext: 0, turnMinutes: 0.5, touchSeconds: [6, 12] },
}

/** What the cutters of one side get, all of them together. */
export interface SideLoad {
  readonly cutters: number
  readonly strokes: number
  /** Of a wheel a hair more length is a hair more work: touches need not be whole. */
  readonly touches: number
}

/** Minutes on the cutters of one side. */
export function sideMinutes(tool: SharpeningTool, { cutters, strokes, touches }: SideLoad): MinutesRange {
  const { touchSeconds, secondsToNext } = TOOL_TIMES[tool]
  if (touchSeconds !== null) return rangeOf((touches * touchSeconds[0]) / 60, (touches * touchSeconds[1]) / 60)
  const likely = (strokes * SECONDS_PER_STROKE + cutters * secondsToNext) / 60
  return { low: likely * 0.85, likely, high: likely * 1.25 }
}

/** Everything that a sharpening is made of, as far as it takes time. */
export interface WorkLoad {
  /** The sides that are worked, the first one first. */
  readonly sides: readonly SideLoad[]
  /** On the saw, where it is cut with: no bar comes off. */
  readonly inField: boolean
  /** A stop is found on the worst cutter first. */
  readonly findsStop: boolean
  /** One side follows another that was done before: a cutter of it is measured against that. */
  readonly follows: boolean
  /** Gauges that are filed; they are only looked at where none is. */
  readonly gauges: number
  readonly bumpers: boolean
  /** The tool brings gauges down with every stroke. */
  readonly gaugesOnTheWay: boolean
}

/** Minutes of every part of a sharpening; of what it does not have, none. */
export interface PartMinutes {
  readonly setUp: MinutesRange
  readonly stop: MinutesRange
  readonly sides: readonly MinutesRange[]
  readonly turn: MinutesRange
  readonly recheck: MinutesRange
  readonly gauges: MinutesRange
  readonly lookOver: MinutesRange
  readonly putBack: MinutesRange
}

/** Minutes of what belongs to every sharpening, from and to. Starting values. */
const AROUND = {
  stop: rangeOf(0.4, 1),
  recheck: rangeOf(0.2, 0.5),
  gaugesLooked: rangeOf(0.2, 0.5),
  lookOver: rangeOf(0.3, 1),
  putBack: rangeOf(1, 3),
} as const
/** The same on the saw, where a touch-up is done at the stump. Starting values. */
const IN_FIELD = {
  recheck: rangeOf(0.1, 0.3),
  gaugesLooked: rangeOf(0.1, 0.2),
  lookOver: rangeOf(0.1, 0.4),
  putBack: rangeOf(0.1, 0.4),
} as const

/** How long every part of a sharpening takes by the starting times: the one place where that is worked out. */
export function partMinutes(tool: SharpeningTool, load: WorkLoad): PartMinutes {
  const { setUpMinutes, turnMinutes, touchSeconds } = TOOL_TIMES[tool]
  const { sides, inField, findsStop, follows, gauges, bumpers, gaugesOnTheWay } = load
  const around = inField ? IN_FIELD : AROUND
  const ofGauges = gauges > 0 ? gaugeMinutes(gauges, bumpers) : around.gaugesLooked
  return {
    setUp: rangeOf(...(touchSeconds === null && !inField ? BENCH_SETUP_MINUTES : setUpMinutes)),
    stop: findsStop && !follows ? AROUND.stop : NO_MINUTES,
    sides: sides.map((side) => sideMinutes(tool, side)),
    turn: sides.length > 1 ? rangeOf(turnMinutes * 0.7, turnMinutes * 1.3) : NO_MINUTES,
    recheck: sides.length > 1 || follows ? around.recheck : NO_MINUTES,
    gauges: gaugesOnTheWay ? NO_MINUTES : ofGauges,
    lookOver: around.lookOver,
    putBack: around.putBack,
  }
}

/** Minutes of a whole sharpening by the starting times. */
export function workMinutes(tool: SharpeningTool, load: WorkLoad): MinutesRange {
  const { sides, ...others } = partMinutes(tool, load)
  return [...sides, ...Object.values(others)].reduce(addMinutes, NO_MINUTES)
}

/** What one cutter got. */
interface Given {
  readonly hand: Hand
  readonly offUm: Um
  /** Left out where nobody counted. */
  readonly strokes: number | undefined
}

/**
 * Minutes that so much work with a tool takes by the starting times, before anything is learned of this crew.
 *
 * @param given one for each cutter that was worked
 * @param gauges that were filed besides
 */
export function startingMinutes(
  tool: SharpeningTool,
  where: 'field' | 'bench',
  given: readonly Given[],
  gauges = 0,
): number {
  const sides = HANDS.map((side) => given.filter(({ hand }) => hand === side)).filter((one) => one.length > 0)
  const strokesOf = ({ strokes, offUm }: Given): number => strokes ?? strokesFor(offUm)
  return workMinutes(tool, {
    sides: sides.map((side) => ({
      cutters: side.length,
      strokes: side.reduce((sum, one) => sum + strokesOf(one), 0),
      touches: side.reduce((sum, { offUm }) => sum + touchesFor(offUm), 0),
    })),
    inField: where === 'field',
    findsStop: TOOL_TIMES[tool].touchSeconds !== null && tool !== 'handGrinder',
    follows: false,
    gauges,
    bumpers: false,
    gaugesOnTheWay: tool === 'twoInOne',
  }).likely
}

/** What is done to a loop of so many sound cutters when each loses so much, half of them on each side. */
export const evenLoad = (
  cutters: number,
  offUm: Um,
  how: Partial<WorkLoad> & { readonly perStrokeUm?: number } = {},
): WorkLoad => {
  const { perStrokeUm, ...more } = how
  const half = cutters / 2
  const side = { cutters: half, strokes: half * strokesFor(offUm, perStrokeUm), touches: half * touchesFor(offUm) }
  return {
    sides: [side, side],
    inField: false,
    findsStop: false,
    follows: false,
    gauges: 0,
    bumpers: false,
    gaugesOnTheWay: false,
    ...more,
  }
}
