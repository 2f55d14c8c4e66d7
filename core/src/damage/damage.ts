import type { Um } from '../units'
import type { CutterDamageKind, PartDamageKind } from './kinds'
import { CUTTER_DAMAGE } from './kinds'

/** Damage seen on one cutter. */
export interface CutterDamage {
  readonly kind: CutterDamageKind
  /** How far back from the edge it reaches; null when nobody has measured it. */
  readonly depthUm: Um | null
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

/**
 * The deepest of several kinds of damage on one cutter, and whether any is still unmeasured.
 * Kinds that cost no length (dullness, shape) do not count.
 *
 * @example
 * damageDepth([{ kind: 'stone', depthUm: 900 }, { kind: 'chipped', depthUm: null }])
 * // { knownUm: 900, unknown: true }
 */
export function damageDepth(damage: readonly CutterDamage[]): DamageDepth {
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
    else if (one.depthUm > removedUm) left.push({ kind: one.kind, depthUm: one.depthUm - removedUm })
  }
  return left
}
