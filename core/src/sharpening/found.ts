import { CUTTER_DAMAGE } from '../damage'
import type { LoopSpec } from '../profile'
import { angleOffDeg } from '../sharpen'
import type { SharpeningPlan } from './plan'
import type { Walk } from './walk'

/** A cutter that was measured at another angle than it is sharpened at. */
export interface OddAngle {
  readonly cutter: number
  readonly deg: number
  readonly wantedDeg: number
}

/** Cutters whose angle was measured and is not the one wanted, so that the chain jumps on them. */
export function oddAngles(
  spec: LoopSpec,
  { angleDeg: wantedDeg }: Pick<SharpeningPlan, 'angleDeg'>,
  { work }: Pick<Walk, 'work'>,
): OddAngle[] {
  const most = angleOffDeg(spec)
  return [...work].flatMap(([cutter, { angleDeg: deg }]) =>
    deg === null || Math.abs(deg - wantedDeg) < most ? [] : [{ cutter, deg, wantedDeg }],
  )
}

/** Cutters on which something was found that ends the loop: nothing more is done to it. */
export const endingsFound = ({ work }: Pick<Walk, 'work'>): number[] =>
  [...work].flatMap(([cutter, { found }]) =>
    found.some(({ kind }) => CUTTER_DAMAGE[kind].effect === 'ends') ? [cutter] : [],
  )
