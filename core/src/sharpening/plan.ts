import { CUTTER_DAMAGE, PART_DAMAGE } from '../damage'
import { namedFileMisfit } from '../geometry'
import type { HouseRules } from '../house'
import {
  anglesOf,
  asMeant,
  staysAbove,
  whyNotWith,
  workOf,
  type CutterJob,
  type ToolRefusal,
  type Work,
  type WorkWanted,
} from '../jobs'
import { learnedOf } from '../jobs/learned'
import { wheelProblems, type KitItemOf } from '../kit'
import type { LoopState } from '../state'
import type { Um } from '../units'
import { filingWay } from '../verdict/filingWay'
import { sideBehind } from '../verdict/signsSay'
import { setUpFor, type SetUp } from './setUp'

/** Speeds that were read off the wheel, or the stone, and off what turns it. */
export interface SpeedsRead {
  /** Greatest speed marked on the wheel, turns a minute. */
  readonly markedRpm: number
  /** Speed of the spindle, turns a minute. */
  readonly spindleRpm: number
}

/** A sharpening that is to be done. */
export interface Sharpening extends WorkWanted {
  /** The wheel and the grinder that are to be used, where the kit knows them. */
  readonly mounted?: { readonly wheel: KitItemOf<'wheel'>; readonly grinder: KitItemOf<'grinder'> }
  /** Both speeds as somebody has just read them, where the kit does not know the things. */
  readonly speeds?: SpeedsRead
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
  /** Nobody has said which wheel it is on which grinder, nor read both speeds. */
  | 'wheelUnnamed'

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
  /** A reading is being held out: one of two lengths is right, and the shorter is worked with. */
  | 'readingHeld'
  /** The file that somebody named for the loop does not suit its pitch, or its wear by now. */
  | 'fileMisfits'
  /** Nobody has measured how deep it is hurt: what has to come off is found on the way. */
  | 'depthUnknown'

/** Everything about a sharpening before it begins. */
export interface SharpeningPlan extends Work {
  /** Why the loop is not sharpened as it is, or not with this tool in this house; null where it may be. */
  readonly refusal: LoopRefusal | ToolRefusal | null
  readonly setUp: SetUp
  readonly doubts: readonly PlanDoubt[]
}

/** Deeper than this under a wheel wants several light touches. Starting value. */
const DEEP_UNDER_WHEEL_UM: Um = 800

function doubtsOf(state: LoopState, rules: HouseRules, plan: Work & { readonly setUp: SetUp }): PlanDoubt[] {
  const jobs = plan.sides.flatMap(({ cutters }) => cutters)
  const shortestUm = Math.min(...state.cutters.map(({ length }) => length.um))
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
    readingHeld: state.held.length > 0,
    fileMisfits: 'fileUm' in plan.setUp && namedFileMisfit(state.spec, shortestUm) !== null,
    depthUnknown: jobs.some((job) => job.depthUnknown),
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

/** What speaks against a wheel by the speeds that somebody read. */
const bySpeeds = ({ markedRpm, spindleRpm }: SpeedsRead): LoopRefusal | null =>
  markedRpm < spindleRpm ? 'wheelTooSlow' : null

/**
 * Why it is not done with what the crew has. A wheel that is too slow for its spindle may burst: no rule and nobody
 * lets it on, and saying nothing of it does not either.
 */
function whyNotOwned({ gives, angleDeg }: Work, { mounted, speeds }: Sharpening): LoopRefusal | ToolRefusal | null {
  if (gives === 'strokes') return null
  if (mounted === undefined) return speeds === undefined ? 'wheelUnnamed' : bySpeeds(speeds)
  const problems = wheelProblems(mounted.wheel, mounted.grinder)
  if (problems.includes('tooSlow')) return 'wheelTooSlow'
  if (problems.includes('speedUnknown')) return speeds === undefined ? 'wheelSpeedUnknown' : bySpeeds(speeds)
  return mounted.grinder.anglesDeg?.includes(angleDeg) === false ? 'oneAngle' : null
}

/**
 * How a loop is sharpened from set-up to put-back: what every cutter gets, in which order, with which set-up.
 *
 * @example
 * planSharpening(state, DEFAULT_RULES, { action: 'regrind', personId: null }).tool // 'benchGrinder'
 */
export function planSharpening(found: LoopState, rules: HouseRules, wanted: Sharpening): SharpeningPlan {
  const state = asMeant(found, rules)
  const { spec } = state
  const work = workOf(state, rules, filingWay(state, rules), { behind: sideBehind(state, rules), ...wanted })
  const { tool, angleDeg, stopUm, sides } = work
  const kit = wanted.kit ?? []
  const setUp = setUpFor(
    spec,
    {
      tool,
      angleDeg,
      linesDeg: anglesOf(tool, spec.pitchClass, kit),
      shortestUm: learnedOf(state).shortestUm,
      stopUm: stopUm ?? 0,
      stopUnknown: work.stopUnknown,
      settingUm: work.gauges.plateUm,
    },
    rules,
  )
  const jobs = sides.flatMap(({ cutters }) => cutters)
  return {
    ...work,
    refusal: whyNotAtAll(state, jobs) ?? whyNotWith(tool, spec, rules, { angleDeg, kit }) ?? whyNotOwned(work, wanted),
    setUp,
    doubts: doubtsOf(state, rules, { ...work, setUp }),
  }
}
