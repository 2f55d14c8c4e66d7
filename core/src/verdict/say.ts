import { CUTTER_DAMAGE, PART_DAMAGE, type CutterDamageKind, type DamageKind, type PartDamageKind } from '../damage'
import type { Hand } from '../loop'
import type { MinutesRange } from '../sharpen'
import { writeLength, type LengthPreference } from '../units'
import type { CountRange } from '../wear'
import type { Action, Quantity, Reason } from './verdict'

/** What a person does, in the words of the trade. */
export const ACTION_WORDS: Record<Action, string> = {
  retire: 'Retire',
  stop: 'Do not use',
  inspect: 'Inspect',
  measure: 'Measure',
  regrind: 'Regrind',
  file: 'File at bench',
  lowerGauges: 'Lower gauges',
  touchUp: 'Touch up',
  runOn: 'Run on',
}

const isPart = (kind: DamageKind): kind is PartDamageKind => kind in PART_DAMAGE

/** What a kind of damage is called in the middle of a sentence. */
export const damageName = (kind: DamageKind): string =>
  isPart(kind) ? PART_DAMAGE[kind].name : CUTTER_DAMAGE[kind satisfies CutterDamageKind].name

/** `cutterName(17, 'right') // '17 R'` */
export const cutterName = (number: number, hand: Hand): string => `${number} ${hand === 'left' ? 'L' : 'R'}`

const plural = (amount: number, one: string, many = `${one}s`): string => `${amount} ${amount === 1 ? one : many}`
const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)

function say(quantity: Quantity | undefined, preference: LengthPreference): string {
  if (quantity === undefined) return ''
  switch (quantity.unit) {
    case 'um':
      return writeLength(quantity.amount, preference)
    case 'tanks':
      return plural(quantity.amount, 'tank')
    case 'cutters':
      return plural(quantity.amount, 'cutter')
    case 'strikes':
      return plural(quantity.amount, 'strike')
  }
}

/**
 * A reason as one plain sentence.
 *
 * @example
 * sayReason({ rule: 'touchUpDue', value: tanks(2.4), limit: tanks(2) }, 'mm')
 * // '2.4 tanks of wear since the last sharpening; touch up is due at 2 tanks.'
 */
export function sayReason(reason: Reason, preference: LengthPreference): string {
  const value = say(reason.value, preference)
  const limit = say(reason.limit, preference)
  const about = reason.known === 'estimated' || reason.known === 'new' ? 'about ' : ''
  const damage = reason.damage === undefined ? 'damage' : damageName(reason.damage)
  const at =
    reason.cutter === undefined
      ? ''
      : reason.hand === undefined
        ? ` near cutter ${reason.cutter}`
        : ` on cutter ${cutterName(reason.cutter, reason.hand)}`
  const cutter =
    reason.cutter === undefined || reason.hand === undefined
      ? 'The shortest cutter'
      : `Cutter ${cutterName(reason.cutter, reason.hand)}`
  switch (reason.rule) {
    case 'alreadyRetired':
      return 'Already retired.'
    case 'endsLoop':
      return `${capital(damage)}${at}: that ends a loop, however long its cutters are.`
    case 'unfitDamage':
      return `${capital(damage)}${at}: not fit for use. Ask a trained person whether it can be put right.`
    case 'needsAttention':
      return `${capital(damage)}${at}: to be put right before it runs.`
    case 'atMark':
      return `${cutter} is at its witness mark: ${value} measured, the mark is at ${limit}.`
    case 'noLengthBehindDamage':
      return `${cutter} would have ${value} left once its damage is ground out; at least ${limit} is kept.`
    case 'perhapsAtMark':
      return `${cutter} may be at its mark: about ${value} by estimate. Measure it before the loop runs.`
    case 'gaugesTooLow':
      return `Depth gauge${at} is ${about}${value} too low (limit ${limit}): the saw snatches and kickback is likelier.`
    case 'struckUnseen':
      return `${capital(value)} since anybody looked it over.`
    case 'depthUnknown':
      return `${capital(damage)}${at}: nobody has measured how deep.`
    case 'fileSkates':
      return `${capital(damage === 'damage' ? 'blued steel' : damage)}${at}: a file skates on it.`
    case 'tooDeepToFile':
      return reason.damage === undefined
        ? `${value} would have to come off; at most ${limit} is filed by hand.`
        : `${capital(damage)}${at}, ${value} deep; with clean steel behind it that is past the ${limit} filed by hand.`
    case 'damageWithinFile':
      return `${capital(damage)}${at}, ${value} deep: a file gets behind it.`
    case 'shapeToPutRight':
      return `${capital(damage)}${at}: put the shape right.`
    case 'uneven':
      return `Cutters differ by ${value}; ${limit} counts as even.`
    case 'sidesDiffer':
      return `The ${reason.hand ?? 'left'} side is ${value} longer on average (limit ${limit}): the saw pulls ${reason.hand ?? 'left'}.`
    case 'gaugesHigh':
      return `Depth gauges stand ${about}${value} high; ${limit} is let run.`
    case 'dull':
      return `${capital(value)} marked as ${damage}.`
    case 'benchDue':
      return `About ${value} of wear since it was sharpened; the bench is due at ${limit}.`
    case 'touchUpDue':
      return `About ${value} of wear since it was sharpened; a touch-up is due at ${limit}.`
    case 'nothingDue':
      return 'Nothing is due.'
    case 'contradiction':
      return `Cutter ${reason.cutter ?? '?'} was read ${value} longer than before: wrong loop, wrong cutter or a slip?`
    case 'tooLittleLeft':
      return `It would leave ${value} above the mark; ${limit} is kept in reserve.`
    case 'notNeeded':
      return 'Not needed.'
    case 'firstThingsFirst':
      return 'Damage has to be cleaned out first.'
  }
}

/** `sayMinutes({ low: 4, likely: 6, high: 9 }) // 'about 6 min'` */
export const sayMinutes = ({ likely }: MinutesRange): string =>
  likely <= 0 ? '' : likely >= 90 ? `about ${(likely / 60).toFixed(1)} h` : `about ${Math.max(1, Math.round(likely))} min`

/** `sayRange({ low: 8, likely: 11, high: 15 }) // 'about 11 (8 to 15)'` */
export const sayRange = ({ low, likely, high }: CountRange): string =>
  low === high ? String(likely) : `about ${likely} (${low} to ${high})`
