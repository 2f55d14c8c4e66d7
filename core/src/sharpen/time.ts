import type { Um } from '../units'

/** Minutes that a job may take. */
export interface MinutesRange {
  readonly low: number
  readonly likely: number
  readonly high: number
}

/** Seconds a stroke of the file takes. Common practice. */
export const SECONDS_PER_STROKE = 1.2
/** Seconds to move on to the next cutter when filing. Common practice. */
export const SECONDS_TO_NEXT = 2.5
/** Seconds a cutter takes on a grinder, from and to. Common practice. */
export const SECONDS_PER_GRIND = [6, 10] as const
/** Minutes of setting up and cleaning at the bench, from and to. Common practice. */
export const BENCH_SETUP_MINUTES = [3, 8] as const
/** Minutes to clamp the bar and find the start mark for a touch-up on the saw. Starting value. */
export const FIELD_SETUP_MINUTES = [0.5, 1.5] as const
/** Minutes to turn the clamp to the other side and check the stop. Common practice. */
export const TURN_SIDE_MINUTES = 1
/**
 * Length one stroke of a round file takes off: a touch-up of two to five strokes takes about half
 * of a routine 0.2 mm. Derived from common practice.
 */
export const UM_PER_STROKE: Um = 20
/** Length a wheel takes off in one touch without heating the cutter. Starting value. */
export const UM_PER_GRIND_TOUCH: Um = 400
/** Seconds to lower one depth gauge with plate and flat file, rounding its front. Starting value. */
export const SECONDS_PER_GAUGE = [5, 9] as const

/** Strokes it takes to file a length off; at least one. `strokesFor(100) // 5` */
export const strokesFor = (removalUm: Um): number => Math.max(1, Math.ceil(removalUm / UM_PER_STROKE))

const range = (low: number, high: number): MinutesRange => ({ low, likely: (low + high) / 2, high })

/**
 * Minutes to file a loop, given what has to come off each cutter.
 *
 * @param removalsUm one for each cutter that gets filed
 * @example
 * filingMinutes(Array(28).fill(100), 'field').likely // ≈ 5: both sides of a 16-inch saw
 */
export function filingMinutes(removalsUm: readonly Um[], where: 'field' | 'bench'): MinutesRange {
  const [setupLow, setupHigh] = where === 'field' ? FIELD_SETUP_MINUTES : BENCH_SETUP_MINUTES
  let seconds = 0
  for (const removal of removalsUm) seconds += strokesFor(removal) * SECONDS_PER_STROKE + SECONDS_TO_NEXT
  return range(setupLow + (seconds / 60) * 0.85, setupHigh + (seconds / 60) * 1.25)
}

/** Minutes to grind a loop to a stop, given what has to come off the cutter that needs it most. */
export function grindingMinutes(cutters: number, deepestUm: Um): MinutesRange {
  const touches = Math.max(1, Math.ceil(deepestUm / UM_PER_GRIND_TOUCH))
  const [fast, slow] = SECONDS_PER_GRIND
  const [setupLow, setupHigh] = BENCH_SETUP_MINUTES
  const minutes = (seconds: number): number => (cutters * seconds * touches) / 60 + TURN_SIDE_MINUTES
  return range(setupLow + minutes(fast), setupHigh + minutes(slow))
}

/** Minutes to lower so many depth gauges by hand. */
export function gaugeMinutes(cutters: number): MinutesRange {
  const [fast, slow] = SECONDS_PER_GAUGE
  return range(1 + (cutters * fast) / 60, 3 + (cutters * slow) / 60)
}

/** Two jobs one after the other. */
export const addMinutes = (a: MinutesRange, b: MinutesRange): MinutesRange => ({
  low: a.low + b.low,
  likely: a.likely + b.likely,
  high: a.high + b.high,
})

export const NO_MINUTES: MinutesRange = { low: 0, likely: 0, high: 0 }
