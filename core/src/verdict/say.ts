import { CUTTER_DAMAGE, PART_DAMAGE, type CutterDamageKind, type DamageKind, type PartDamageKind } from '../damage'
import type { Hand } from '../loop'
import type { MinutesRange } from '../sharpen'
import { writeLength, writeMoney, type LengthPreference } from '../units'
import type { CountRange } from '../wear'
import type { DoubtKind } from '../fold'
import type { Action } from '../log'
import type { Turn } from './sensitivity'
import type { Quantity, Reason, Risk } from './verdict'

/** What a person does, in the words of the trade. */
export const ACTION_WORDS: Record<Action, string> = {
  retire: 'Retire',
  stop: 'Do not use',
  inspect: 'Inspect',
  measure: 'Measure',
  shop: 'Send to a shop',
  regrind: 'Regrind',
  file: 'File at bench',
  lowerGauges: 'Lower gauges',
  touchUp: 'Touch up',
  dirtyDuty: 'Dirty duty',
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

/** How a crew reads figures. */
export interface Figures {
  readonly lengths: LengthPreference
  /** ISO 4217 code. */
  readonly currency: string
}

function say(quantity: Quantity | undefined, { lengths, currency }: Figures): string {
  if (quantity === undefined) return ''
  switch (quantity.unit) {
    case 'um':
      return writeLength(quantity.amount, lengths)
    case 'tanks':
      return plural(quantity.amount, 'tank')
    case 'cutters':
      return plural(quantity.amount, 'cutter')
    case 'strikes':
      return plural(quantity.amount, 'strike')
    case 'minorPerHour':
      return writeMoney(quantity.amount, currency)
  }
}

/**
 * A reason as one plain sentence.
 *
 * @example
 * sayReason({ rule: 'touchUpDue', value: tanks(2.4), limit: tanks(2) }, { lengths: 'mm', currency: 'EUR' })
 * // '2.4 tanks of wear since the last sharpening; touch up is due at 2 tanks.'
 */
export function sayReason(reason: Reason, figures: Figures): string {
  const value = say(reason.value, figures)
  const limit = say(reason.limit, figures)
  const takes = say(reason.takes, figures)
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
      return `Depth gauge${at} is ${about}${value} too low (limit ${limit}): the saw snatches and kickback is likelier. ${takes === '' ? 'No filing brings it right.' : `${takes} has to come off the length to bring it right.`}`
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
    case 'damageToClean':
      return `${capital(damage)}${at}, ${about}${value} deep: ${takes} has to come off.`
    case 'shapeToPutRight':
      return `${capital(damage)}${at}: put the shape right.`
    case 'uneven':
      return `Cutters differ by ${value}; ${limit} counts as even.`
    case 'sidesDiffer':
      return `The ${reason.hand ?? 'left'} side is ${value} longer on average (limit ${limit}): the saw pulls ${reason.hand ?? 'left'}.`
    case 'gaugesHigh':
      return `Depth gauges stand ${about}${value} high; ${limit} is let run.`
    case 'gaugeToPutRight':
      return `${capital(damage)}${at}: plate, flat file, and round its front again.`
    case 'dull':
      return `${capital(value)} marked as ${damage}.`
    case 'benchDue':
      return `About ${value} of wear since it was sharpened; the bench is due at ${limit}.`
    case 'touchUpDue':
      return `About ${value} of wear since it was sharpened; a touch-up is due at ${limit}.`
    case 'nothingDue':
      return 'Nothing is due.'
    case 'contradiction':
      return sayDoubt(reason.doubt ?? 'grew', reason.cutter, value)
    case 'tooLittleLeft':
      return `It would leave ${value} above the mark; ${limit} is kept in reserve.`
    case 'notNeeded':
      return 'Not needed.'
    case 'cheapestPerHour':
      return `${value} for an hour of sharp running; ${lower(ACTION_WORDS[reason.against ?? 'file'])} comes to ${limit}.`
    case 'cheaperToReplace':
      return `A new loop costs ${value} for an hour of sharp running; ${lower(ACTION_WORDS[reason.against ?? 'file'])} comes to ${limit}.`
    case 'noWayWithinLimits':
      return 'Nothing that can be done here meets every limit of the house; this comes nearest.'
    case 'measureBeforeRetiring':
      return 'By estimate a new loop is cheaper; metal is not thrown away on an estimate.'
    case 'keptForDirt':
      return 'Fit for stumps and soil-covered wood, and the house keeps such loops.'
    case 'dirtyNotAllowed':
      return 'The house keeps no loops for dirty work.'
    case 'dirtyAlready':
      return 'It is kept for dirty work already.'
    case 'notFitForAnything':
      return 'It is not fit for any work until somebody has seen to it.'
    case 'noGrinder':
      return 'The house has no grinder.'
    case 'noShop':
      return 'The house sends nothing to a shop.'
    case 'fileForRoutine':
      return 'The house files the routine; the wheel is for stones, nails, uneven loops and milling chain.'
    case 'wheelAtBench':
      return 'The house grinds at the bench.'
    case 'sharpenedAtBench':
      return 'The house carries spares and sharpens at the bench.'
    case 'notEnough':
      return 'Duller than a touch-up puts right.'
  }
}

const lower = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1)

function sayDoubt(kind: DoubtKind, cutter: number | undefined, value: string): string {
  const which = `Cutter ${cutter ?? '?'}`
  switch (kind) {
    case 'grew':
      return `${which} was read ${value} longer than before: wrong loop, wrong cutter or a slip?`
    case 'shrank':
      return `${which} was read ${value} shorter than it was measured, and no sharpening is logged since: is one missing, or a slip?`
    case 'disagree':
      return `Two people measured cutter ${cutter ?? '?'} and differ by ${value}: wrong loop, wrong cutter or a slip? Measure it again.`
    case 'pairGrew':
      return `${which} is ${value} longer after its sharpening than before it: were the two figures swapped?`
    case 'belowPlate':
      return `Depth gauge on cutter ${cutter ?? '?'} was read ${value} finer than the plate it was just filed to: read it again.`
  }
}

/** What an option leaves to be borne, in one sentence. */
export const RISK_WORDS: Record<Risk, string> = {
  cuttersLeftDull: 'Some cutters stay damaged until the next sharpenings have caught up.',
  unevenUntilGround: 'Cutters differ until it is next ground.',
  heat: 'Deep work under the wheel: touch, lift, touch. A cutter that turns blue has lost its temper.',
  away: 'It is away meanwhile.',
  strays: 'Long filing strays: measure as you go.',
}

/**
 * What would change a verdict, in one sentence.
 *
 * @example
 * sayTurn({ by: 'loopPrice', from: 'below', atMinor: 900, turnsTo: 'retire' }, 'regrind', figures)
 * // 'Regrind as long as a new loop costs more than €9.00; below that: retire.'
 */
export function sayTurn(turn: Turn, now: Action, { currency }: Pick<Figures, 'currency'>): string {
  const stays = ACTION_WORDS[now]
  switch (turn.by) {
    case 'loopPrice':
      return `${stays} as long as a new loop costs ${turn.from === 'below' ? 'more' : 'less'} than ${writeMoney(turn.atMinor, currency)}; then: ${lower(ACTION_WORDS[turn.turnsTo])}.`
    case 'labour':
      return `${stays} as long as an hour of work costs ${turn.from === 'below' ? 'more' : 'less'} than ${writeMoney(turn.atMinor, currency)}; then: ${lower(ACTION_WORDS[turn.turnsTo])}.`
    case 'measuring':
      return `${plural(turn.cutters, 'cutter')} ${turn.cutters === 1 ? 'is' : 'are'} estimated. Measured, it may turn to: ${turn.turnsTo.map((action) => lower(ACTION_WORDS[action])).join(', or ')}.`
    case 'sides':
      return `Measure ${turn.cutters} more ${turn.hand}-hand ${turn.cutters === 1 ? 'cutter' : 'cutters'}: if the sides differ, it may turn to: ${lower(ACTION_WORDS[turn.turnsTo])}.`
  }
}

/** `sayMinutes({ low: 4, likely: 6, high: 9 }) // 'about 6 min'` */
export const sayMinutes = ({ likely }: MinutesRange): string =>
  likely <= 0
    ? ''
    : likely >= 90
      ? `about ${(likely / 60).toFixed(1)} h`
      : `about ${Math.max(1, Math.round(likely))} min`

/** `sayRange({ low: 8, likely: 11, high: 15 }) // 'about 11 (8 to 15)'` */
export const sayRange = ({ low, likely, high }: CountRange): string =>
  low === high ? String(likely) : `about ${likely} (${low} to ${high})`
