import { SECONDS_PER_STROKE, strokesOf } from '../sharpen'
import type { Um } from '../units'
import { expectedBite, FILE_STROKES } from './usage'

/** What a fresh file would save on one loop, against what it costs. */
export interface FileChange {
  readonly strokesNow: number
  readonly strokesFresh: number
  readonly savedMinutes: number
  readonly savedMinor: number
  readonly priceMinor: number
  /** After so many loops like this one it has saved more than it costs; null where it never does in its life. */
  readonly paysAfter: number | null
  /** It saves more than it costs before it is used up. */
  readonly pays: boolean
}

/**
 * Whether to open a fresh file for a loop: what it saves on loops like this one over its life, against its price.
 *
 * @param offUm what has to come off each cutter
 * @param strokeUm what a stroke takes off with a file as it usually is
 * @param bite what a stroke of the file in hand takes against that
 * @param lasts strokes that a file lasts on this crew
 */
export function changeFile(
  offUm: readonly Um[],
  strokeUm: number,
  bite: number,
  prices: { readonly labourPerHourMinor: number; readonly filePriceMinor: number },
  lasts = FILE_STROKES,
): FileChange {
  const worked = offUm.filter((um) => um > 0)
  const strokesNow = strokesOf(worked, Math.max(1, strokeUm * bite))
  const strokesFresh = strokesOf(worked, Math.max(1, strokeUm * expectedBite(0, lasts)))
  const savedMinutes = Math.max(0, ((strokesNow - strokesFresh) * SECONDS_PER_STROKE) / 60)
  const savedMinor = Math.round((savedMinutes / 60) * prices.labourPerHourMinor)
  const priceMinor = prices.filePriceMinor
  const loops = strokesFresh === 0 ? 0 : Math.max(1, Math.floor(lasts / strokesFresh))
  const needed = savedMinor <= 0 ? Infinity : Math.max(1, Math.ceil(priceMinor / savedMinor))
  const paysAfter = needed <= loops ? needed : null
  return { strokesNow, strokesFresh, savedMinutes, savedMinor, priceMinor, paysAfter, pays: paysAfter !== null }
}
