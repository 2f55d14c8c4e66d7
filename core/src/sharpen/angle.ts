import { HANDS, type Hand } from '../loop'
import { originOf, PITCH_PROFILES, type LoopSpec } from '../profile'
import type { LoopState } from '../state'
import { mean } from '../stats'
import type { Um } from '../units'

/**
 * Top plate angle to file a loop to: its own where the box, a measurement or the crew named one,
 * else the house's for full chisel, else the cutter type's.
 *
 * @param chiselAngleDeg the house's angle for full chisel, 25 or 30
 * @example
 * topPlateAngleFor({ ...spec38, cutterType: 'fullChisel' }, 25) // 25
 */
export function topPlateAngleFor(spec: LoopSpec, chiselAngleDeg: number): number {
  return spec.cutterType === 'fullChisel' && !isOwn(spec) && originOf(spec, 'topPlateAngleDeg') === 'commonPractice'
    ? chiselAngleDeg
    : spec.topPlateAngleDeg
}

/** Whether somebody named the angle of this loop itself. */
const isOwn = ({ origins }: LoopSpec): boolean => origins?.topPlateAngleDeg !== undefined

/** Top plate angle that is found on each side, degrees: the mean of what was read; null where nobody has read one. */
export function foundAngles({ cutters }: Pick<LoopState, 'cutters'>): Readonly<Record<Hand, number | null>> {
  const before = found.get(cutters)
  if (before !== undefined) return before
  const of = (side: Hand): number | null => {
    const read = cutters.flatMap(({ hand, angleDeg }) => (hand === side && angleDeg !== null ? [angleDeg] : []))
    return read.length === 0 ? null : mean(read)
  }
  const angles = Object.fromEntries(HANDS.map((hand) => [hand, of(hand)])) as Record<Hand, number | null>
  found.set(cutters, angles)
  return angles
}
/** Cutters never change once they are folded, and a decision asks for their angles dozens of times. */
const found = new WeakMap<LoopState['cutters'], Readonly<Record<Hand, number | null>>>()

/**
 * Degrees by which an angle may be off before it matters: ripping chain jumps by one (common practice), for others it
 * is a starting value.
 */
export const ANGLE_OFF_DEG = { ripping: 1, other: 5 } as const
export const angleOffDeg = ({ cutterType }: Pick<LoopSpec, 'cutterType'>): number =>
  cutterType === 'ripping' ? ANGLE_OFF_DEG.ripping : ANGLE_OFF_DEG.other
/** An angle further off than this from what such chain is filed to is a fault, and no choice. Starting value. */
const CHOSEN_WITHIN_DEG = 5

/**
 * Top plate angle that a loop is sharpened to, degrees. The angle that is found on it is kept, where both sides have
 * one and the same, unless somebody named another for this loop.
 *
 * @example
 * angleMeant(state, { chiselAngleDeg: 30 }) // 30: as such chain is filed, while nobody read an angle
 */
export function angleMeant(
  { spec, cutters }: Pick<LoopState, 'spec' | 'cutters'>,
  { chiselAngleDeg }: { readonly chiselAngleDeg: number },
): number {
  const usual = topPlateAngleFor(spec, chiselAngleDeg)
  if (isOwn(spec)) return usual
  const { left, right } = foundAngles({ cutters })
  if (left === null || right === null) return usual
  const [found, most] = [Math.round((left + right) / 2), angleOffDeg(spec)]
  const alike = Math.abs(left - right) < most && Math.abs(found - usual) <= Math.min(CHOSEN_WITHIN_DEG, 3 * most)
  return alike ? found : usual
}

/**
 * What comes off the length of a cutter when its top plate is brought from one angle to another: one end of the edge
 * goes back by the width of the plate times the difference of the tangents.
 *
 * @returns micrometres
 * @example
 * angleCostUm({ pitchClass: 'threeEighths' }, 11, 10) // 99: a tenth of a millimetre for a degree
 * angleCostUm({ pitchClass: 'threeEighths' }, 40, 30) // 1440
 */
export function angleCostUm({ pitchClass }: Pick<LoopSpec, 'pitchClass'>, foundDeg: number, meantDeg: number): Um {
  const tan = (deg: number): number => Math.tan((deg * Math.PI) / 180)
  return Math.round(PITCH_PROFILES[pitchClass].plateWidthUm.value * Math.abs(tan(foundDeg) - tan(meantDeg)))
}
