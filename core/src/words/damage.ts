import {
  CUTTER_DAMAGE,
  PART_DAMAGE,
  type CutterDamage,
  type CutterDamageKind,
  type DamageKind,
  type DamageUrgency,
  type PartDamageKind,
} from '../damage'
import type { Hand } from '../loop'
import { writeLength, type LengthPreference } from '../units'

const isPart = (kind: DamageKind): kind is PartDamageKind => kind in PART_DAMAGE

/** What a kind of damage is called in the middle of a sentence. `damageName('rivetLoose') // 'loose rivet'` */
export const damageName = (kind: DamageKind): string =>
  isPart(kind) ? PART_DAMAGE[kind].name : CUTTER_DAMAGE[kind satisfies CutterDamageKind].name

/** `cutterName(17, 'right') // '17 R'` */
export const cutterName = (number: number, hand: Hand): string => `${number} ${hand === 'left' ? 'L' : 'R'}`

/**
 * Damage of one cutter with how deep it is, where that matters.
 *
 * @example
 * sayDamage({ kind: 'stone', depthUm: 900 }, 'mm') // 'stone strike 0.90 mm deep'
 * sayDamage({ kind: 'stone', depthUm: null }, 'mm') // 'stone strike, depth not measured'
 */
export function sayDamage({ kind, depthUm }: CutterDamage, lengths: LengthPreference): string {
  if (depthUm !== null) return `${damageName(kind)} ${writeLength(depthUm, lengths)} deep`
  return CUTTER_DAMAGE[kind].effect === 'depth' ? `${damageName(kind)}, depth not measured` : damageName(kind)
}

/** How soon, in words. */
export const URGENCY_WORDS: Readonly<Record<DamageUrgency, string>> = {
  beforeUse: 'before it cuts again',
  soon: 'soon: it brings the next sharpening forward',
  whenDue: 'with the next sharpening',
}
