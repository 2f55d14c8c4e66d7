import type { LoopState } from '../state'
import { fileFor, partAboveWorn, fileBevelDeg, targetSetting, type FileChoice } from '../geometry'
import {
  byQuestion,
  followsSchool,
  schoolsOf,
  type HouseRules,
  type Question,
  type School,
  type SchoolId,
} from '../house'
import type { Action } from '../log'
import { usableLengthUm } from '../profile'
import { angleMeant, GUIDES, sidePlateOf, type MinutesRange } from '../sharpen'
import type { Um } from '../units'
import type { CountRange } from '../wear'
import { advise, type Advice } from './decide'
import { learnedOf, type Learned } from '../jobs/learned'
import { onceFor } from '../jobs/onceFor'
import type { InStages, Option, Range } from './verdict'

/** Part of its best that a chain cuts at by the mark under one setting for life. Common practice: about 60 %. */
const CONSTANT_AT_MARK = 0.6

/** What a choice comes to on a real loop. */
export interface TradeOff {
  readonly action: Action
  /** The job that it is judged by: the sharpening advised, or a filing at the bench. */
  readonly job: Action
  readonly metalUm: Um
  readonly deepestUm: Um
  readonly minutes: MinutesRange
  readonly spreadUm: Um | null
  readonly damagedLeft: number
  /** How the job is spread over the next sharpenings; null where it is done in one go. */
  readonly stages: InStages | null
  readonly sharpeningsLeft: CountRange
  readonly perHourMinor: Range | null
  readonly sharpHours: Range
  /** Setting that the gauges come down to at its present wear. */
  readonly targetUm: Um
  /** Part of its best that it cuts at with that setting, 0 to 1. */
  readonly cutsAt: number
  readonly file: FileChoice
  /** Part of the file above the top plate on the worn cutter, and the bevel that it leaves. */
  readonly partAbove: number
  readonly bevelDeg: number
  readonly topPlateAngleDeg: number
  readonly strayUm: Um
  /** What the habit of when and where comes to, sharpening after sharpening. */
  readonly cycle: Cycle
}

/** A habit of sharpening, for each tank that the loop cuts. */
export interface Cycle {
  /** Tanks from one sharpening to the next. */
  readonly tanks: number
  readonly metalPerTankUm: number
  readonly minutesPerTank: number
  /** Tanks until the loop is used up at that. */
  readonly tanksLeft: number
}

const SHARPENS: ReadonlySet<Action> = new Set(['touchUp', 'file', 'regrind', 'shop'])

const FILED: ReadonlySet<Action> = new Set(['touchUp', 'file'])
/** Questions that are about work with a file, and which jobs show them. */
const BY_FILE: Partial<Record<Question, ReadonlySet<Action>>> = {
  uneven: new Set(['file']),
  file: FILED,
  sidePlate: FILED,
  guide: FILED,
}

function jobOf(options: readonly Option[], action: Action, question: Question): Option | undefined {
  const wanted =
    BY_FILE[question]?.has(action) === true || (BY_FILE[question] === undefined && SHARPENS.has(action))
      ? action
      : 'file'
  return options.find((option) => option.action === wanted)
}

/** Touch-ups in the field, or filing at the bench: after so many tanks, or once it shows that it is dull. */
function cycleOf(
  rules: HouseRules,
  { options }: Pick<Advice, 'options'>,
  { removal, sharpness }: Learned,
  usableUm: Um,
): Cycle {
  const inField = rules.where === 'field' && rules.when === 'byTanks'
  const tanks = rules.when === 'byTanks' ? Math.max(0.5, rules.touchUpTanks) : sharpness.mean
  const minutes = options.find(({ action }) => action === (inField ? 'touchUp' : 'file'))?.minutes.likely ?? 0
  const metalPerTankUm = (inField ? removal.touchUp.meanUm : removal.routine.meanUm) / tanks
  return { tanks, metalPerTankUm, minutesPerTank: minutes / tanks, tanksLeft: Math.max(0, usableUm) / metalPerTankUm }
}

/**
 * The loop as it comes to the bench in the routine: what hurt it cleaned out, every cutter as long
 * as the worst is then, and dull. Habits are told apart on that, not on a loop that a stone has just hit.
 */
function inRoutine(state: LoopState, rules: HouseRules): LoopState {
  const wearTanksSinceSharpened = Math.max(rules.benchTanks, state.wearTanksSinceSharpened)
  const known = routines(state)
  const routine = known.get(wearTanksSinceSharpened) ?? dullAndSound(state, wearTanksSinceSharpened)
  known.set(wearTanksSinceSharpened, routine)
  return routine
}
/** One for all habits: what is worked out of a state is worked out once. */
const routines = onceFor((_state: LoopState) => new Map<number, LoopState>())

function dullAndSound(state: LoopState, wearTanksSinceSharpened: number): LoopState {
  const { summary } = learnedOf(state)
  return {
    ...state,
    parts: [],
    openStrikes: [],
    doubts: [],
    decision: null,
    // What it is supposed to have run has not been seen, and teaches nothing.
    spellOver: true,
    wearTanksSinceSharpened,
    cutters: state.cutters.map((cutter) => ({
      ...cutter,
      damage: [],
      length: { ...cutter.length, um: summary.worstAfterUm },
    })),
  }
}

/** What some rules come to on one of the crew's own loops. */
export function tradeOff(
  state: LoopState,
  rules: HouseRules,
  question: Question,
  verdict: Advice = advise(state, rules),
): TradeOff | null {
  const { advised, options } = verdict
  const job = jobOf(options, advised, question)
  if (job === undefined) return null
  const { spec } = state
  const { meanLengthUm: meanUm, shortestUm } = learnedOf(state)
  const worn = Math.min(1, Math.max(0, (spec.newLengthUm - meanUm) / usableLengthUm(spec)))
  const file = fileFor(spec, shortestUm, rules.fileSchool)
  const guide = GUIDES[rules.guide]
  const partAbove = partAboveWorn(
    spec,
    meanUm,
    file.fileUm,
    sidePlateOf(rules.sidePlate).partAbove,
    guide.restsOn === 'chassis' ? 'chassis' : 'topPlate',
  )
  return {
    action: advised,
    job: job.action,
    metalUm: job.meanUm,
    deepestUm: job.deepestUm,
    minutes: job.minutes,
    spreadUm: job.spreadUm,
    damagedLeft: job.damagedLeft,
    stages: job.stages,
    sharpeningsLeft: job.sharpeningsLeft,
    perHourMinor: job.perHourMinor,
    sharpHours: job.sharpHours,
    targetUm: targetSetting(spec, meanUm, rules),
    cutsAt: rules.gaugeSchool === 'constant' ? 1 - (1 - CONSTANT_AT_MARK) * worn : 1,
    file,
    partAbove,
    bevelDeg: fileBevelDeg(partAbove),
    topPlateAngleDeg: angleMeant(state, rules),
    strayUm: guide.strayUm,
    cycle: cycleOf(rules, verdict, learnedOf(state), shortestUm - spec.markLengthUm - rules.reserveUm),
  }
}

/** One school as it would turn out. */
export interface SchoolOutcome {
  readonly id: SchoolId
  readonly follows: boolean
  readonly outcome: TradeOff | null
}

/** Questions of angle and file: they change how a loop is sharpened, not whether. */
const SHAPE_ONLY: ReadonlySet<Question> = new Set(['file', 'chisel'])

/**
 * What every school of every question comes to on a loop, the other rules of the house as they are.
 * Habits (when, file or wheel) are shown on the loop as the routine brings it to the bench.
 *
 * @param verdict the one under the house's own rules
 */
export function everySchool(
  state: LoopState,
  rules: HouseRules,
  verdict: Advice = advise(state, rules),
): Record<Question, SchoolOutcome[]> {
  const routine = inRoutine(state, rules)
  const atTheBench = advise(routine, rules)
  /** The verdict where it is known to be the same without asking again. */
  const known = (question: Question, follows: boolean): Advice | undefined => {
    // When it is sharpened does not change what is done then.
    if (question === 'when') return atTheBench
    if (question === 'bench') return follows ? atTheBench : undefined
    return follows || SHAPE_ONLY.has(question) ? verdict : undefined
  }
  const outcomeOf = (question: Question, { id, sets }: School): SchoolOutcome => {
    const follows = followsSchool(rules, { sets })
    const shownOn = question === 'when' || question === 'bench' ? routine : state
    return { id, follows, outcome: tradeOff(shownOn, { ...rules, ...sets }, question, known(question, follows)) }
  }
  return byQuestion((question) => schoolsOf(question).map((school) => outcomeOf(question, school)))
}
