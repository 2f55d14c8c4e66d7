import type { DamageKind } from '../damage'
import type { Known } from '../fold'
import type { Hand } from '../loop'
import type { MinutesRange } from '../sharpen'
import type { Um } from '../units'
import type { CountRange } from '../wear'

/** What to do with a loop next, the gravest first. */
export const ACTIONS = [
  'retire',
  'stop',
  'inspect',
  'measure',
  'regrind',
  'file',
  'lowerGauges',
  'touchUp',
  'runOn',
] as const

export type Action = (typeof ACTIONS)[number]

/** The rules a verdict may rest on. */
export type Rule =
  | 'alreadyRetired'
  | 'endsLoop'
  | 'unfitDamage'
  | 'needsAttention'
  | 'atMark'
  | 'noLengthBehindDamage'
  | 'perhapsAtMark'
  | 'gaugesTooLow'
  | 'struckUnseen'
  | 'depthUnknown'
  | 'fileSkates'
  | 'tooDeepToFile'
  | 'damageWithinFile'
  | 'shapeToPutRight'
  | 'uneven'
  | 'sidesDiffer'
  | 'gaugesHigh'
  | 'dull'
  | 'benchDue'
  | 'touchUpDue'
  | 'nothingDue'
  | 'contradiction'
  | 'tooLittleLeft'
  | 'notNeeded'
  | 'firstThingsFirst'

/** A figure with its unit. Lengths are micrometres. */
export interface Quantity {
  readonly unit: 'um' | 'tanks' | 'cutters' | 'strikes'
  readonly amount: number
}

/** One reason as data: what rule, about what, which figure against which limit. */
export interface Reason {
  readonly rule: Rule
  readonly cutter?: number
  readonly hand?: Hand
  readonly damage?: DamageKind
  readonly value?: Quantity
  readonly limit?: Quantity
  /** Who set the limit: the crew's house rules, the loop's own spec, or the trade. */
  readonly limitFrom?: 'house' | 'spec' | 'trade'
  /** How the value is known. An estimate never reads as a measurement. */
  readonly known?: Known
}

/** One thing that could be done, worked out on the real loop. */
export interface Option {
  readonly action: Action
  readonly feasible: boolean
  /** Why not, or what speaks for it. */
  readonly reasons: readonly Reason[]
  /** Most that comes off any cutter. */
  readonly deepestUm: Um
  /** Mean that comes off a cutter. */
  readonly meanUm: Um
  /** What the worst cutter has left then, to the mark. */
  readonly leftUm: Um
  readonly sharpeningsLeft: CountRange
  readonly minutes: MinutesRange
}

/** What to do with a loop, why, how long it takes, and what else could be done. */
export interface Verdict {
  readonly action: Action
  /** To be done in the same go. */
  readonly also: readonly Action[]
  /** False when the loop must not cut as it is. */
  readonly fitForUse: boolean
  /** The deciding one first. */
  readonly reasons: readonly Reason[]
  readonly minutes: MinutesRange
  readonly options: readonly Option[]
  readonly sharpeningsLeft: CountRange
  /** House rules it was made under. */
  readonly rulesVersion: number
}
