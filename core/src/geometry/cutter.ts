import { PITCH_PROFILES, usableLengthUm, type LoopSpec } from '../profile'
import type { Um } from '../units'

const RADIANS = Math.PI / 180

/**
 * How far the edge sinks when a length is filed off: the top plate falls toward the heel, so
 * filing ΔL off the length lowers the edge by ΔL·tan(slope).
 *
 * @param removedUm length filed off
 * @param slopeDeg fall of the top plate
 * @example
 * edgeDrop(800, 7) // 98
 */
export const edgeDrop = (removedUm: Um, slopeDeg: number): Um => Math.round(removedUm * Math.tan(slopeDeg * RADIANS))

/**
 * Bevel under the top plate left by a round file with a part of its diameter above the plate:
 * arccos(1 − 2p). The file is a circle; this is the angle of its tangent where it meets the plate.
 *
 * @param partAbove part of the diameter above the top plate, 0 to 1
 * @throws RangeError outside 0 to 1
 * @example
 * fileBevelDeg(0.25) // 60; a fifth gives 53.1: the trade's 50 to 60
 */
export function fileBevelDeg(partAbove: number): number {
  if (!(partAbove >= 0 && partAbove <= 1)) throw new RangeError('part above the plate must be from 0 to 1')
  return Math.acos(1 - 2 * partAbove) / RADIANS
}

/** Which depth-gauge setting a crew files to as a loop wears. */
export type GaugeSchool = 'constant' | 'progressive'

/**
 * Depth-gauge tip to working corner at a given cutter length: grows in a straight line from new
 * to the witness mark.
 *
 * @example
 * reachAt(spec38, 0) // 12_000 at the mark
 */
export function reachAt(spec: LoopSpec, lengthUm: Um): Um {
  const [atNew, atMark] = PITCH_PROFILES[spec.pitchClass].reachUm.value
  const usable = usableLengthUm(spec)
  const worn = usable <= 0 ? 1 : Math.min(1, Math.max(0, (spec.newLengthUm - lengthUm) / usable))
  return Math.round(atNew + (atMark - atNew) * worn)
}

/**
 * The setting to lower the gauge to. *Constant* is the new setting for life; *progressive* keeps
 * the attack angle of a new cutter, so the setting grows with the reach.
 *
 * @returns target setting in micrometres
 * @example
 * targetSetting(spec38, spec38.markLengthUm, 'progressive') // 1300: double at the mark
 */
export function targetSetting(spec: LoopSpec, lengthUm: Um, school: GaugeSchool): Um {
  switch (school) {
    case 'constant':
      return spec.settingUm
    case 'progressive':
      return Math.round((spec.settingUm / reachAt(spec, spec.newLengthUm)) * reachAt(spec, lengthUm))
  }
}
