import type { Um } from '../units'
import type { CutterDamageKind, PartDamageKind } from './kinds'
import { CUTTER_DAMAGE } from './kinds'

/** Damage seen on one cutter. */
export interface CutterDamage {
  readonly kind: CutterDamageKind
  /** How far back from the edge it reaches; null when nobody has measured it. */
  readonly depthUm: Um | null
  /** The depth was worked out from a neighbour of the same strike, not looked at. */
  readonly estimated?: true
  /** What a shape takes to be put right, where that was worked out; as its kind has it where it is left out. */
  readonly takesUm?: Um
  /** Some of it was filed away since it was seen, and the rest is left to the next sharpenings. */
  readonly catchingUp?: true
}

/** Damage seen on a strap, drive link, rivet or the loop as a whole. */
export interface PartDamage {
  readonly kind: PartDamageKind
  /** The cutter it is next to; null when it is not at one place. */
  readonly nearCutter: number | null
}

/** How deep the damage on a cutter reaches. */
export interface DamageDepth {
  /** Deepest depth that is known; 0 when none is. */
  readonly knownUm: Um
  /** True when some damage that takes length has no depth yet. */
  readonly unknown: boolean
}

const SOUND: DamageDepth = { knownUm: 0, unknown: false }

/**
 * The deepest of several kinds of damage on one cutter, and whether any is still unmeasured.
 * Kinds that cost no length (dullness, shape) do not count.
 *
 * @example
 * damageDepth([{ kind: 'stone', depthUm: 900 }, { kind: 'chipped', depthUm: null }])
 * // { knownUm: 900, unknown: true }
 */
export function damageDepth(damage: readonly CutterDamage[]): DamageDepth {
  if (damage.length === 0) return SOUND
  let knownUm = 0
  let unknown = false
  for (const { kind, depthUm } of damage) {
    if (CUTTER_DAMAGE[kind].effect !== 'depth') continue
    if (depthUm === null) unknown = true
    else if (depthUm > knownUm) knownUm = depthUm
  }
  return { knownUm, unknown }
}

/**
 * What is left of a cutter's damage after steel came off its edge. Dullness goes with any
 * sharpening; depth shrinks by what came off; unmeasured depth and shape stay until somebody looks.
 *
 * @param removedUm length taken off
 */
export function damageAfterRemoval(damage: readonly CutterDamage[], removedUm: Um): readonly CutterDamage[] {
  if (damage.length === 0 || removedUm <= 0) return damage
  const left: CutterDamage[] = []
  for (const one of damage) {
    const { effect } = CUTTER_DAMAGE[one.kind]
    if (effect === 'dullness') continue
    if (effect !== 'depth' || one.depthUm === null) left.push(one)
    else if (one.depthUm > removedUm) left.push({ ...one, depthUm: one.depthUm - removedUm, catchingUp: true })
  }
  return left
}

/**
 * Length that the shapes on a cutter take to be put right: the one that takes most.
 *
 * @example
 * shapeUm([{ kind: 'hook', depthUm: null }, { kind: 'wrongAngle', depthUm: null }]) // 400
 */
export const shapeUm = (damage: readonly CutterDamage[]): Um =>
  damage.reduce((most, { kind, takesUm = CUTTER_DAMAGE[kind].takesUm }) => Math.max(most, takesUm), 0)

/** Depth at either end of a strike's run, as a part of the deepest. Starting value. */
const AT_THE_ENDS = 0.25

/**
 * Depths over the run of cutters that a strike met: the deepest where it was seen, falling away in
 * a straight line to a quarter of it at the ends of the run. Only the deepest was looked at; the
 * others are estimates.
 *
 * @param run cutter numbers in the order in which they met it
 * @param deepest the cutter looked at and how deep; it has to be in the run
 * @returns depth by cutter number, in micrometres
 * @throws RangeError when the deepest cutter is not in the run
 * @example
 * [...spreadStrike([4, 5, 6], { cutter: 5, depthUm: 1200 }).values()] // [300, 1200, 300]
 */
export function spreadStrike(
  run: readonly number[],
  deepest: { readonly cutter: number; readonly depthUm: Um },
): Map<number, Um> {
  const at = run.indexOf(deepest.cutter)
  if (at < 0) throw new RangeError('the deepest cutter has to be one that was struck')
  return new Map(
    run.map((cutter, i) => {
      const end = i < at ? at : run.length - 1 - at
      const share = end === 0 ? 1 : 1 - (1 - AT_THE_ENDS) * (Math.abs(i - at) / end)
      return [cutter, Math.round(deepest.depthUm * share)]
    }),
  )
}
