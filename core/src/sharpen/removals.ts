import { damageDepth, shapeUm, type CutterDamage } from '../damage'
import type { UnevenSchool } from '../house/schools'
import type { Um } from '../units'

/** Sound steel taken off behind the deepest damage. Starting value. */
export const BEHIND_DAMAGE_UM: Um = 100

/** A file takes from each cutter what it needs; a wheel runs to a stop that is set on the worst. */
export type Tool = 'file' | 'wheel'

/** What has to be known of a cutter to say what comes off it. */
export interface CutterToSharpen {
  readonly length: { readonly um: Um }
  readonly damage: readonly CutterDamage[]
}

/**
 * What has to come off a cutter for clean steel: what a sharpening usually takes, or its deepest
 * known damage and a little behind it.
 *
 * @example
 * neededUm({ ...cutter, damage: [{ kind: 'stone', depthUm: 1200 }] }, 200) // 1300
 */
export function neededUm({ damage }: Pick<CutterToSharpen, 'damage'>, usualUm: Um): Um {
  const { knownUm } = damageDepth(damage)
  return knownUm === 0 ? usualUm : Math.max(usualUm, knownUm + BEHIND_DAMAGE_UM)
}

/**
 * What comes off each cutter of a loop. With a wheel they all come down to the one that needs it
 * most, on both sides: a stop for each side alone would leave a loop that pulls.
 *
 * @param usualUm what a sharpening of this kind takes off a sound cutter
 * @param throughDamage whether it goes on until all known damage is gone
 * @returns one length for each cutter, never more than the cutter has
 */
export function removals(cutters: readonly CutterToSharpen[], tool: Tool, usualUm: Um, throughDamage: boolean): Um[] {
  const needed = cutters.map((cutter) => (throughDamage ? neededUm(cutter, usualUm) : usualUm))
  if (tool === 'file') return cutters.map(({ length }, i) => Math.min(length.um, needed[i] ?? 0))
  const stop = Math.min(...cutters.map(({ length }, i) => Math.max(0, length.um - (needed[i] ?? 0))))
  return cutters.map(({ length }) => length.um - stop)
}

/**
 * What has to come off a cutter for a sound edge of the right shape: like {@link neededUm}, and
 * what a wrong shape takes to be put right.
 */
export const soundUm = (cutter: Pick<CutterToSharpen, 'damage'>, usualUm: Um): Um =>
  cutter.damage.length === 0 ? usualUm : Math.max(neededUm(cutter, usualUm), shapeUm(cutter.damage))

/** A shape that takes length counts like damage that reaches as deep. */
export function withShape<C extends Pick<CutterToSharpen, 'damage'>>(cutter: C): C {
  const takes = shapeUm(cutter.damage)
  return takes === 0
    ? cutter
    : { ...cutter, damage: [...cutter.damage, { kind: 'chipped', depthUm: Math.max(0, takes - BEHIND_DAMAGE_UM) }] }
}

/**
 * What a file takes off each cutter of a loop that has a short or damaged one, by the school that
 * the house follows.
 *
 * @param usualUm what a sharpening takes off a sound cutter
 * @returns one length for each cutter, never more than the cutter has
 * @example
 * // four cutters of 7 mm, the second with a nick 0.5 mm deep, 0.2 mm as usual
 * filingRemovals(cutters, 200, 'matchShortest') // [600, 600, 600, 600]
 * filingRemovals(cutters, 200, 'sameStrokes')   // [200, 200, 200, 200]
 * filingRemovals(cutters, 200, 'worstSetsCount')// [600, 600, 600, 600]
 * filingRemovals(cutters, 200, 'extraOnBad')    // [200, 600, 200, 200]
 */
export function filingRemovals(cutters: readonly CutterToSharpen[], usualUm: Um, school: UnevenSchool): Um[] {
  const needed = cutters.map((cutter) => soundUm(cutter, usualUm))
  const capped = (um: (cutter: CutterToSharpen, i: number) => Um): Um[] =>
    cutters.map((cutter, i) => Math.max(0, Math.min(cutter.length.um, um(cutter, i))))
  switch (school) {
    case 'matchShortest': {
      const downTo = Math.min(...cutters.map(({ length }, i) => Math.max(0, length.um - (needed[i] ?? 0))))
      return capped(({ length }) => length.um - downTo)
    }
    case 'sameStrokes':
      return capped(() => usualUm)
    case 'worstSetsCount': {
      const most = Math.max(...needed)
      return capped(() => most)
    }
    case 'extraOnBad':
    case 'ownGauges':
      return capped((_cutter, i) => needed[i] ?? usualUm)
  }
}
