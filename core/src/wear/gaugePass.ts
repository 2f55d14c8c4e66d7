import { edgeDrop } from '../geometry'
import type { Um } from '../units'

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
