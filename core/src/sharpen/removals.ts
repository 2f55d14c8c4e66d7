import { damageDepth, type CutterDamage } from '../damage'
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
export function removals(
  cutters: readonly CutterToSharpen[],
  tool: Tool,
  usualUm: Um,
  throughDamage: boolean,
): Um[] {
  const needed = cutters.map((cutter) => (throughDamage ? neededUm(cutter, usualUm) : usualUm))
  if (tool === 'file') return cutters.map(({ length }, i) => Math.min(length.um, needed[i] ?? 0))
  const stop = Math.min(...cutters.map(({ length }, i) => Math.max(0, length.um - (needed[i] ?? 0))))
  return cutters.map(({ length }) => length.um - stop)
}
