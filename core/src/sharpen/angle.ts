import { originOf, type LoopSpec } from '../profile'

/**
 * Top plate angle to file a loop to: its own where the box, a measurement or the crew named one,
 * else the house's for full chisel, else the cutter type's.
 *
 * @param chiselAngleDeg the house's angle for full chisel, 25 or 30
 * @example
 * topPlateAngleFor({ ...spec38, cutterType: 'fullChisel' }, 25) // 25
 */
export function topPlateAngleFor(spec: LoopSpec, chiselAngleDeg: number): number {
  const own = spec.origins?.topPlateAngleDeg !== undefined
  return spec.cutterType === 'fullChisel' && !own && originOf(spec, 'topPlateAngleDeg') === 'commonPractice'
    ? chiselAngleDeg
    : spec.topPlateAngleDeg
}
