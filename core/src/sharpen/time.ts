import { LONG_FILING_UM, UM_PER_STROKE } from '../belief'
import type { GuideSchool } from '../house/schools'
import type { Um } from '../units'
import { GUIDES } from './guides'

/** Minutes that a job may take. */
export interface MinutesRange {
  readonly low: number
  readonly likely: number
  readonly high: number
}

/** Seconds a stroke of the file takes. Common practice. */
export const SECONDS_PER_STROKE = 1.2
/** Seconds a cutter takes on a grinder, from and to. Common practice. */
export const SECONDS_PER_GRIND = [6, 10] as const
/** Minutes of setting up and cleaning at the bench, from and to. Common practice. */
export const BENCH_SETUP_MINUTES = [3, 8] as const
/** Minutes to clamp the bar and find the start mark for a touch-up on the saw. Starting value. */
export const FIELD_SETUP_MINUTES = [0.5, 1.5] as const
/** Minutes to turn the clamp to the other side and check the stop. Common practice. */
export const TURN_SIDE_MINUTES = 1
/** Length a wheel takes off in one touch without heating the cutter. Starting value. */
export const UM_PER_GRIND_TOUCH: Um = 400
/** Seconds to lower one depth gauge with plate and flat file, rounding its front. Starting value. */
export const SECONDS_PER_GAUGE = [5, 9] as const

/** Minutes to bring a loop to a shop and fetch it, with the others that go. Starting value. */
export const SHOP_ERRAND_MINUTES = [6, 15] as const
/** Minutes to put a new loop on a saw and run it in. Starting value. */
export const NEW_LOOP_MINUTES = [2, 5] as const

/**
 * Strokes it takes to file a length off; at least one.
 *
 * @param perStrokeUm what a stroke takes off
 * @example
 * strokesFor(100) // 5
 * strokesFor(600) // 40: 20 for the first 0.4 mm, 20 for the rest
 */
export function strokesFor(removalUm: Um, perStrokeUm = UM_PER_STROKE): number {
  const long = Math.max(0, removalUm - LONG_FILING_UM)
  return Math.max(1, Math.ceil((removalUm - long) / perStrokeUm + (2 * long) / perStrokeUm))
}

const range = (low: number, high: number): MinutesRange => ({ low, likely: (low + high) / 2, high })

/** How filing is done. */
export interface FilingWay {
  readonly guide: GuideSchool
  /** What a stroke takes off. */
  readonly perStrokeUm: number
}

const USUAL_WAY: FilingWay = { guide: 'topPlate', perStrokeUm: UM_PER_STROKE }

/** Strokes of a whole loop. */
export const strokesOf = (removalsUm: readonly Um[], perStrokeUm = UM_PER_STROKE): number =>
  removalsUm.reduce((sum, removal) => sum + strokesFor(removal, perStrokeUm), 0)

/** Minutes to file a loop, given the strokes of all its cutters together. */
export function filingMinutesOf(
  strokes: number,
  cutters: number,
  where: 'field' | 'bench',
  guide: GuideSchool,
): MinutesRange {
  const [setupLow, setupHigh] = where === 'field' ? FIELD_SETUP_MINUTES : BENCH_SETUP_MINUTES
  const seconds = strokes * SECONDS_PER_STROKE + cutters * GUIDES[guide].secondsToNext
  return range(setupLow + (seconds / 60) * 0.85, setupHigh + (seconds / 60) * 1.25)
}

/**
 * Minutes to file a loop, given what has to come off each cutter.
 *
 * @param removalsUm one for each cutter that gets filed
 * @example
 * filingMinutes(Array(28).fill(100), 'field').likely // ≈ 5: both sides of a 16-inch saw
 */
export const filingMinutes = (
  removalsUm: readonly Um[],
  where: 'field' | 'bench',
  way: FilingWay = USUAL_WAY,
): MinutesRange => filingMinutesOf(strokesOf(removalsUm, way.perStrokeUm), removalsUm.length, where, way.guide)

/** Minutes that a visit to a shop takes the crew itself. */
export const shopMinutes = (): MinutesRange => range(...SHOP_ERRAND_MINUTES)
/** Minutes to put a new loop on. */
export const newLoopMinutes = (): MinutesRange => range(...NEW_LOOP_MINUTES)

/**
 * Touches of the wheel for what has to come off each cutter: at least one each, and as many as that takes
 * on average, so that a hair more length is a hair more work.
 */
export const grindTouches = (removalsUm: readonly Um[]): number =>
  removalsUm.reduce((sum, removal) => sum + Math.max(1, removal / UM_PER_GRIND_TOUCH), 0)

/**
 * Minutes to grind a loop to a stop, given what has to come off each cutter.
 *
 * @param removalsUm one for each cutter
 * @example
 * grindingMinutes(Array(20).fill(200)).low // 6: two minutes under the wheel, set-up and turning the clamp
 */
export function grindingMinutes(removalsUm: readonly Um[]): MinutesRange {
  const touches = grindTouches(removalsUm)
  const [fast, slow] = SECONDS_PER_GRIND
  const [setupLow, setupHigh] = BENCH_SETUP_MINUTES
  const minutes = (seconds: number): number => (seconds * touches) / 60 + TURN_SIDE_MINUTES
  return range(setupLow + minutes(fast), setupHigh + minutes(slow))
}

/** How much longer a gauge takes whose bumper has to be kept clear of the file. Starting value. */
const BESIDE_BUMPER = 1.5

/**
 * Minutes to lower so many depth gauges by hand.
 *
 * @param bumpers whether each has a bumper before it, which is never filed off
 */
export function gaugeMinutes(cutters: number, bumpers = false): MinutesRange {
  const [fast, slow] = SECONDS_PER_GAUGE
  const each = (seconds: number): number => (cutters * seconds * (bumpers ? BESIDE_BUMPER : 1)) / 60
  return range(1 + each(fast), 3 + each(slow))
}

/** A job that takes so many times as long. */
export const timesMinutes = ({ low, likely, high }: MinutesRange, by: number): MinutesRange => ({
  low: low * by,
  likely: likely * by,
  high: high * by,
})

/** Two jobs one after the other. */
export const addMinutes = (a: MinutesRange, b: MinutesRange): MinutesRange => ({
  low: a.low + b.low,
  likely: a.likely + b.likely,
  high: a.high + b.high,
})

export const NO_MINUTES: MinutesRange = { low: 0, likely: 0, high: 0 }
