import { restedUm, UM_PER_STROKE } from '../belief'
import type { Um } from '../units'

/** Minutes that a job may take. */
export interface MinutesRange {
  readonly low: number
  readonly likely: number
  readonly high: number
}

/** Seconds a stroke of the file takes. Common practice. */
export const SECONDS_PER_STROKE = 1.2
/** Minutes of setting up and cleaning at the bench, from and to. Common practice. */
export const BENCH_SETUP_MINUTES = [3, 8] as const
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
  return Math.max(1, Math.ceil(restedUm(removalUm) / perStrokeUm))
}

/** Minutes from and to, the middle of them likely. */
export const rangeOf = (low: number, high: number): MinutesRange => ({ low, likely: (low + high) / 2, high })

/** Strokes of a whole loop. */
export const strokesOf = (removalsUm: readonly Um[], perStrokeUm = UM_PER_STROKE): number =>
  removalsUm.reduce((sum, removal) => sum + strokesFor(removal, perStrokeUm), 0)

/** Minutes to look a loop over and to put it back on its saw, whoever sharpened it. Starting value. */
const PUT_BACK_MINUTES: MinutesRange = { low: 1.3, likely: 2.65, high: 4 }

/** Minutes that a visit to a shop takes the crew itself. */
export const shopMinutes = (): MinutesRange => addMinutes(rangeOf(...SHOP_ERRAND_MINUTES), PUT_BACK_MINUTES)
/** Minutes to put a new loop on. */
export const newLoopMinutes = (): MinutesRange => rangeOf(...NEW_LOOP_MINUTES)

/** Touches of the wheel for what has to come off one cutter: at least one, and as many as that takes on average. */
export const touchesFor = (removalUm: Um): number => Math.max(1, removalUm / UM_PER_GRIND_TOUCH)

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
  return rangeOf(1 + each(fast), 3 + each(slow))
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
