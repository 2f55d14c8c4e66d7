import { edgeDrop } from '../geometry'
import type { Um } from '../units'
import { MOST_SHARPENINGS, type CountRange } from './life'

/** When the depth gauges are due. */
export interface GaugePass {
  /** Setting now less target: below nothing when the gauges stand high. */
  readonly offByUm: Um
  /** Further sharpenings until the gauges stand higher than the tolerance allows; 0 is now, null is never. */
  readonly dueInSharpenings: number | null
}

/**
 * The next depth-gauge pass. Every sharpening lowers the edge, and with it the setting, until the
 * gauges are lowered after it.
 *
 * @param settingUm setting now
 * @param targetUm setting wanted
 * @param toleranceUm how far below target is still let run
 * @param removalUm what a sharpening takes off the length
 * @param slopeDeg fall of the top plate
 * @example
 * nextGaugePass(650, 650, 100, 200, 7).dueInSharpenings // 5: due once the setting is past 0.55 mm
 */
export function nextGaugePass(
  settingUm: Um,
  targetUm: Um,
  toleranceUm: Um,
  removalUm: number,
  slopeDeg: number,
): GaugePass {
  const offByUm = settingUm - targetUm
  const roomUm = offByUm + toleranceUm
  if (roomUm < 0) return { offByUm, dueInSharpenings: 0 }
  const dropUm = edgeDrop(1_000_000, slopeDeg) * (removalUm / 1_000_000)
  return { offByUm, dueInSharpenings: dropUm <= 0 ? null : Math.floor(roomUm / dropUm) + 1 }
}

/**
 * The next depth-gauge pass with what is not known of it: soonest when every sharpening takes more
 * off than is likely and the top plate falls steeper, latest the other way round.
 *
 * @param removal mean and 95 % range of what a sharpening takes off
 * @param slope tangent of the fall of the top plate and its deviation
 * @returns sharpenings until it is due; null when it never may be
 */
export function gaugePassRange(
  settingUm: Um,
  targetUm: Um,
  toleranceUm: Um,
  removal: { readonly lowUm: number; readonly meanUm: number; readonly highUm: number },
  slope: { readonly mean: number; readonly sd: number },
): CountRange | null {
  const at = (removalUm: number, tangent: number): number | null =>
    nextGaugePass(settingUm, targetUm, toleranceUm, removalUm, (Math.atan(Math.max(0, tangent)) * 180) / Math.PI)
      .dueInSharpenings
  const likely = at(removal.meanUm, slope.mean)
  const low = at(removal.highUm, slope.mean + slope.sd)
  if (likely === null || low === null) return null
  return { low, likely, high: Math.min(MOST_SHARPENINGS, at(removal.lowUm, slope.mean - slope.sd) ?? MOST_SHARPENINGS) }
}
