import { CUTTER_DAMAGE, PART_DAMAGE } from '../damage'
import type { LoopState, Population } from '../state'
import type { HouseRules } from '../house'
import { servesNone, wheelProblems, type KitItem, type KitItemOf } from '../kit'
import type { FileAge } from '../log'
import type { Hand } from '../loop'
import { SECONDS_PER_STROKE, timesMinutes, topPlateAngleFor, type MinutesRange } from '../sharpen'
import type { Um } from '../units'
import { filingWay } from '../verdict/filingWay'
import { learnedOf } from '../verdict/learned'
import { TOUCH_UP_STROKES } from '../wear/removal'
import { sideBites, type SideBites } from './bites'
import { firstSide, sideJobs, staysAbove, worstJob, type CutterJob, type SideJob } from './cutterJobs'
import { gaugeJobs, type GaugeJobs } from './gaugeJobs'
import { setUpFor, type SetUp } from './setUp'
import { stepsOf, type Step } from './steps'
import { TOOL_FACTS, usualTool, whyNotWith, type SharpeningTool, type ToolRefusal } from './tools'

/** A sharpening that is to be done. */
export interface Sharpening {
  readonly action: 'touchUp' | 'file' | 'regrind'
  /** The house's own where it is left out. */
  readonly tool?: SharpeningTool
  /** Who does it; null where nobody said. */
  readonly personId: string | null
  readonly fileAge?: FileAge
  /** The side to begin with, where it is settled; the weaker one where it is left out. */
  readonly first?: Hand
  /** What a stroke of the file in hand takes against what is usual, where the kit knows that file. */
  readonly fileBite?: number
  /** The wheel and the grinder that are to be used, where the kit knows them. */
  readonly mounted?: { readonly wheel: KitItemOf<'wheel'>; readonly grinder: KitItemOf<'grinder'> }
  /** What of the kit says which chains it serves. */
  readonly kit?: readonly KitItem[]
  /** So many times the starting times this person takes with this tool; as the crew does where it is left out. */
  readonly pace?: number
}

/** Why a loop is not sharpened at all as it is, whatever the tool. */
export type LoopRefusal =
  | 'retired'
  /** Cracked, loose or stretched: no edge makes it fit. */
  | 'ends'
  /** It struck something, and nobody has looked since. */
  | 'lookFirst'
  /** It would take a cutter past its mark. */
  | 'pastMark'
  /** The speed marked on the wheel is below the spindle's: it is not mounted, whoever says so. */
  | 'wheelTooSlow'
  /** Nobody has read what is marked on the wheel, or how fast the spindle turns. */
  | 'wheelSpeedUnknown'

/** What of a plan has to be looked at before anybody begins. */
export type PlanDoubt =
  /** A cutter would end nearer to its mark than the house keeps. */
  | 'intoReserve'
  /** The file or wheel would cut into the tie strap at this wear. */
  | 'intoStrap'
  /** Deeper than the house files by hand. */
  | 'deepForFile'
  /** Deep work under a wheel: light touches, or the temper goes. */
  | 'hotUnderWheel'
  /** Ripping chain jumps by one degree between cutters, and one of them is at another angle. */
  | 'ripperJumps'
  /** Nobody has measured the cutter that decides on the stop. */
  | 'stopOnEstimate'
  /** Steel that heat has hardened skates a file. */
  | 'fileSkates'

/** Everything about a sharpening before it begins. */
export interface SharpeningPlan {
  readonly tool: SharpeningTool
  readonly action: Sharpening['action']
  /** Why the loop is not sharpened as it is, or not with this tool in this house; null where it may be. */
  readonly refusal: LoopRefusal | ToolRefusal | null
  readonly setUp: SetUp
  readonly gives: 'strokes' | 'touches'
  /** What a stroke takes off on each side in this person's hands. */
  readonly bites: SideBites
  /** Both sides, the one to begin with first. */
  readonly sides: readonly SideJob[]
  /** The only side that is left to do, where the first was done another time; null where both are. */
  readonly waiting: Hand | null
  readonly worst: CutterJob | null
  /** Length that a stop ends every cutter at; null where each ends by itself. */
  readonly stopUm: Um | null
  /** Whether a file brings every cutter to one length, rather than giving all the same strokes. */
  readonly evens: boolean
  readonly gauges: GaugeJobs
  readonly steps: readonly Step[]
  /** Of all steps together. */
  readonly minutes: MinutesRange
  readonly doubts: readonly PlanDoubt[]
}

/** Seconds that one touch of a wheel takes with all that belongs to it, from and to: common practice at the bench. */
const TOUCH_SECONDS = { benchGrinder: [6, 10], smallGrinder: [4, 8], handGrinder: [6, 12] } as const

/** Minutes for one side. */
function sideMinutes(tool: SharpeningTool, { cutters }: SideJob): MinutesRange {
  const counts = cutters.reduce((sum, { count }) => sum + count, 0)
  if (tool === 'benchGrinder' || tool === 'smallGrinder' || tool === 'handGrinder') {
    const [fast, slow] = TOUCH_SECONDS[tool]
    return { low: (counts * fast) / 60, likely: (counts * (fast + slow)) / 120, high: (counts * slow) / 60 }
  }
  const likely = (counts * SECONDS_PER_STROKE + cutters.length * TOOL_FACTS[tool].secondsToNext) / 60
  return { low: likely * 0.85, likely, high: likely * 1.25 }
}

/** Deeper than this under a wheel wants several light touches. Starting value. */
const DEEP_UNDER_WHEEL_UM: Um = 800

function doubtsOf(
  state: LoopState,
  rules: HouseRules,
  plan: Pick<SharpeningPlan, 'gives' | 'setUp' | 'sides' | 'worst' | 'stopUm'>,
): PlanDoubt[] {
  const jobs = plan.sides.flatMap(({ cutters }) => cutters)
  const deepestUm = Math.max(0, ...jobs.map(({ removeUm }) => removeUm))
  const odd =
    state.parts.some(({ kind }) => kind === 'anglesDiffer') ||
    state.cutters.some(({ damage }) => damage.some(({ kind }) => kind === 'wrongAngle'))
  const holds: Readonly<Record<PlanDoubt, boolean>> = {
    intoReserve: jobs.some((job) => !staysAbove(job, state.spec.markLengthUm, rules)),
    intoStrap: 'clearUm' in plan.setUp && plan.setUp.clearUm < 0,
    deepForFile: plan.gives === 'strokes' && deepestUm > rules.largestFilingUm,
    hotUnderWheel: plan.gives === 'touches' && deepestUm > DEEP_UNDER_WHEEL_UM,
    ripperJumps: state.spec.cutterType === 'ripping' && odd,
    fileSkates:
      plan.gives === 'strokes' &&
      state.cutters.some(({ damage }) => damage.some(({ kind }) => !CUTTER_DAMAGE[kind].fileBites)),
    stopOnEstimate: plan.stopUm !== null && plan.worst?.known !== 'measured',
  }
  return (Object.keys(holds) as PlanDoubt[]).filter((doubt) => holds[doubt])
}

/** Why a loop is not sharpened as it is. No edge mends what ends a loop, and what was struck is looked at first. */
function whyNotAtAll(state: LoopState, jobs: readonly CutterJob[]): LoopRefusal | null {
  if (state.retired !== null) return 'retired'
  const ends =
    state.parts.some(({ kind }) => PART_DAMAGE[kind].effect === 'ends') ||
    state.cutters.some(({ damage }) => damage.some(({ kind }) => CUTTER_DAMAGE[kind].effect === 'ends'))
  if (ends) return 'ends'
  if (state.openStrikes.length > 0) return 'lookFirst'
  return jobs.some(({ targetUm }) => targetUm < state.spec.markLengthUm) ? 'pastMark' : null
}

const sum = (all: readonly MinutesRange[]): MinutesRange => ({
  low: all.reduce((total, { low }) => total + low, 0),
  likely: all.reduce((total, { likely }) => total + likely, 0),
  high: all.reduce((total, { high }) => total + high, 0),
})

/**
 * Why it is not done with what the crew has. A wheel that is too slow for its spindle may burst: no rule and nobody
 * lets it on.
 */
function whyNotOwned(
  { spec }: LoopState,
  rules: HouseRules,
  { tool, mounted, kit = [] }: Sharpening & { readonly tool: SharpeningTool },
): LoopRefusal | ToolRefusal | null {
  if (servesNone(kit, tool, spec.pitchClass)) return 'notForPitch'
  if (TOOL_FACTS[tool].gives === 'strokes' || mounted === undefined) return null
  const problems = wheelProblems(mounted.wheel, mounted.grinder)
  if (problems.includes('tooSlow')) return 'wheelTooSlow'
  if (problems.includes('speedUnknown')) return 'wheelSpeedUnknown'
  const { anglesDeg } = mounted.grinder
  return anglesDeg?.includes(topPlateAngleFor(spec, rules.chiselAngleDeg)) === false ? 'oneAngle' : null
}

/** The side that comes first: the one that was done already where the other waits, else the one settled on. */
function beginWith(state: LoopState, bites: SideBites, settled: Hand | undefined): Hand {
  if (state.waitingSide !== null) return state.waitingSide === 'left' ? 'right' : 'left'
  return settled ?? firstSide(state, bites)
}

/**
 * What is to come off a sound cutter. A touch-up is a few strokes in the hands that give them: the weaker side gets
 * those, and the other as many as come to the same, so that evening out takes no more metal.
 */
function usualOff(
  state: LoopState,
  { action, personId }: Sharpening,
  gives: 'strokes' | 'touches',
  learnedUm: number,
): Um {
  if (gives === 'touches' || action !== 'touchUp') return Math.round(learnedUm)
  const { left, right } = sideBites(state, personId)
  return Math.round(Math.min(learnedUm, TOUCH_UP_STROKES * Math.min(left, right)))
}

/** The kind of sharpening that it counts as. */
const kindOf = (gives: 'strokes' | 'touches', action: Sharpening['action']): Population =>
  gives === 'touches' ? 'grind' : action === 'touchUp' ? 'touchUp' : 'routine'

/**
 * How a loop is sharpened from set-up to put-back: what every cutter gets, in which order, with which set-up.
 *
 * @example
 * planSharpening(state, DEFAULT_RULES, { action: 'regrind', personId: null }).tool // 'benchGrinder'
 */
export function planSharpening(state: LoopState, rules: HouseRules, wanted: Sharpening): SharpeningPlan {
  const { spec } = state
  const { action, personId, fileAge, first } = wanted
  const tool = wanted.tool ?? usualTool(action, spec, rules)
  const { gives, toStop } = TOOL_FACTS[tool]
  const { removal, slopeDeg, shortestUm } = learnedOf(state)
  const bites = sideBites(state, personId, fileAge, wanted.fileBite)
  const usualUm = usualOff(state, wanted, gives, removal[kindOf(gives, action)].meanUm)
  const school = action === 'touchUp' ? 'sameStrokes' : filingWay(state, rules)
  const cutting = { gives, toStop: toStop && action !== 'touchUp', usualUm, school, bites }
  const waiting = state.waitingSide
  const sides = sideJobs(state, cutting, beginWith(state, bites, first))
  const jobs = sides.flatMap(({ cutters }) => cutters)
  const worst = worstJob(sides.filter(({ hand }) => (waiting ?? hand) === hand)) ?? null
  const stopUm = cutting.toStop && worst !== null ? worst.targetUm : null
  const gauges = gaugeJobs(state, jobs, rules, slopeDeg)
  const setUp = setUpFor(spec, { tool, shortestUm, stopUm: stopUm ?? 0, settingUm: gauges.plateUm }, rules)
  const pace = wanted.pace ?? rules.pace[kindOf(gives, action)]
  const steps = stepsOf({ tool, sides, gauges, waiting }, (side) => sideMinutes(tool, side)).map((step) => ({
    ...step,
    minutes: timesMinutes(step.minutes, pace),
  }))
  const planned = { gives, setUp, sides, worst, stopUm }
  return {
    ...planned,
    tool,
    action,
    refusal:
      whyNotAtAll(state, jobs) ?? whyNotWith(tool, spec, rules) ?? whyNotOwned(state, rules, { ...wanted, tool }),
    bites,
    waiting,
    evens: gives === 'strokes' && (cutting.toStop || school === 'matchShortest'),
    gauges,
    steps,
    minutes: sum(steps.map(({ minutes }) => minutes)),
    doubts: doubtsOf(state, rules, planned),
  }
}
