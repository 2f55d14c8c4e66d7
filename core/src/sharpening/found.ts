import { CUTTER_DAMAGE } from '../damage'
import type { HouseRules } from '../house'
import type { LoopSpec } from '../profile'
import { topPlateAngleFor } from '../sharpen'
import type { Walk } from './walk'

/**
 * Degrees by which a cutter's angle may differ from the others': ripping chain jumps by one (common practice), for
 * others it is a starting value.
 */
const DIFFERS_DEG = { ripping: 1, other: 5 } as const

/** A cutter that was measured at another angle than it is sharpened at. */
export interface OddAngle {
  readonly cutter: number
  readonly deg: number
  readonly wantedDeg: number
}

/** Cutters whose angle was measured and is not the one wanted, so that the chain jumps on them. */
export function oddAngles(
  spec: LoopSpec,
  rules: Pick<HouseRules, 'chiselAngleDeg'>,
  { work }: Pick<Walk, 'work'>,
): OddAngle[] {
  const wantedDeg = topPlateAngleFor(spec, rules.chiselAngleDeg)
  const most = spec.cutterType === 'ripping' ? DIFFERS_DEG.ripping : DIFFERS_DEG.other
  return [...work].flatMap(([cutter, { angleDeg: deg }]) =>
    deg === null || Math.abs(deg - wantedDeg) < most ? [] : [{ cutter, deg, wantedDeg }],
  )
}

/** Cutters on which something was found that ends the loop: nothing more is done to it. */
export const endingsFound = ({ work }: Pick<Walk, 'work'>): number[] =>
  [...work].flatMap(([cutter, { found }]) =>
    found.some(({ kind }) => CUTTER_DAMAGE[kind].effect === 'ends') ? [cutter] : [],
  )
