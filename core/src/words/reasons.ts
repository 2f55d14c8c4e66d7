import type { DoubtKind } from '../state'
import type { Reason, Rule } from '../verdict'
import { actionInWords } from './actions'
import { cutterName, damageName } from './damage'
import { sayQuantity, type Figures } from './figures'
import { CAUSE_NAMES, sayChance } from './signs'
import { capital } from './text'

/** A reason in pieces, each as it stands in a sentence; empty where the reason does not say. */
interface Told {
  readonly reason: Reason
  readonly value: string
  readonly limit: string
  readonly takes: string
  /** `about ` where the value is an estimate: it never reads as a measurement. */
  readonly about: string
  readonly damage: string
  /** Where it is, with a space before it. */
  readonly at: string
  /** The cutter that it is about, at the beginning of a sentence. */
  readonly cutter: string
  /** What it was weighed against. */
  readonly against: string
}

function toldOf(reason: Reason, figures: Figures): Told {
  const figure = (part: 'value' | 'limit' | 'takes'): string => {
    const quantity = reason[part]
    return quantity === undefined ? '' : sayQuantity(quantity, figures)
  }
  const { cutter, hand } = reason
  const named = cutter === undefined || hand === undefined ? null : cutterName(cutter, hand)
  return {
    reason,
    value: figure('value'),
    limit: figure('limit'),
    takes: figure('takes'),
    about: reason.known === 'estimated' || reason.known === 'new' ? 'about ' : '',
    damage: reason.damage === undefined ? 'damage' : damageName(reason.damage),
    at: named !== null ? ` on cutter ${named}` : cutter === undefined ? '' : ` near cutter ${cutter}`,
    cutter: named === null ? 'The shortest cutter' : `Cutter ${named}`,
    against: actionInWords(reason.against ?? 'file'),
  }
}

/** A chance as people say one; nothing where it is none, or certain. */
function outOfAHundred(chance: number | undefined): string {
  const hundredths = Math.round((chance ?? 0) * 100)
  return hundredths <= 0 || hundredths >= 100 ? '' : `, ${hundredths} chances in 100`
}

/** What is behind what the saw told: found by somebody, or thought likely. */
function saySigned({ cause = 'dull', chance, hand }: Reason): string {
  const side = hand === undefined ? '' : `: it is the ${hand} side that is worked on`
  return chance === undefined
    ? `${capital(CAUSE_NAMES[cause])}, found when the saw told of it${side}.`
    : `By what the saw tells: ${CAUSE_NAMES[cause]} (${sayChance(chance)})${side}.`
}

/** What each rule says: a new rule has no verdict before it has its words. */
const RULE_WORDS: { readonly [R in Rule]: (told: Told) => string } = {
  alreadyRetired: () => 'Already retired.',
  endsLoop: ({ damage, at }) => `${capital(damage)}${at}: that ends a loop, however long its cutters are.`,
  unfitDamage: ({ damage, at }) =>
    `${capital(damage)}${at}: not fit for use. Ask a trained person whether it can be put right.`,
  needsAttention: ({ damage, at }) => `${capital(damage)}${at}: to be put right before it runs.`,
  sideWaits: ({ reason: { hand = 'left' } }) =>
    `Only one side was sharpened: the ${hand} side waits. Like this the saw pulls; it stays off until it is done.`,
  begunNotEnded: ({ reason: { hand = 'left' } }) =>
    `A sharpening was begun and not ended: the ${hand} side waits. ` +
    'Half sharp the saw pulls; it stays off until both are done.',
  atMark: ({ value, limit, cutter }) => `${cutter} is at its witness mark: ${value} measured, the mark is at ${limit}.`,
  noLengthBehindDamage: ({ value, limit, cutter }) =>
    `${cutter} would have ${value} left once its damage is ground out; at least ${limit} is kept.`,
  perhapsAtMark: ({ value, cutter, reason: { chance } }) => {
    const known = `about ${value} by estimate${outOfAHundred(chance)}`
    return `${cutter} may be at its mark: ${known}. Measure it before the loop runs.`
  },
  longUnmeasured: ({ value }) => {
    const gone = `About ${value} is thought to have gone since a length was last read`
    return `${gone}, and no reading has shown what a sharpening takes: it may be twice that. Measure it before it runs.`
  },
  usedUnmeasured: ({ value }) => `It came used, and nobody has measured it: about ${value} is left, by estimate.`,
  gaugesTooLow: ({ value, limit, takes, about, at }) => {
    const right = takes === '' ? 'No filing brings it right.' : `${takes} has to come off the length to bring it right.`
    const low = `Depth gauge${at} is ${about}${value} too low (limit ${limit})`
    return `${low}: the saw snatches and kickback is likelier. ${right}`
  },
  struckUnseen: ({ value }) => `${capital(value)} since anybody looked it over.`,
  ranSinceStruck: ({ value }) => `It has run ${value} since that strike all the same.`,
  sharpenedTwice: () =>
    'Two people wrote a sharpening down within minutes: is it the same one? Strike one out, or measure the loop.',
  moreThanThere: () =>
    'More was filed off than there was left, by what is known: strike that entry out, or measure it.',
  plateUnheardOf: () =>
    'Its gauges were lowered to a setting that no plate has: a slip? Read gauges on both sides before it runs.',
  shopWorkUnsaid: () => 'It came back from a shop, and nobody said what was done there: log that work, or measure it.',
  sharpeningMissing: ({ value }) =>
    `${capital(value)} of wear since it was sharpened, more than any edge lasts: is a sharpening missing from the log?`,
  depthUnknown: ({ damage, at }) => `${capital(damage)}${at}: nobody has measured how deep.`,
  fileSkates: ({ reason, damage, at }) =>
    `${capital(reason.damage === undefined ? 'blued steel' : damage)}${at}: a file skates on it.`,
  tooDeepToFile: ({ value, limit, damage, at, reason }) =>
    reason.damage === undefined
      ? `${value} would have to come off; at most ${limit} is filed by hand.`
      : `${capital(damage)}${at}, ${value} deep; with clean steel behind it that is past the ${limit} filed by hand.`,
  damageToClean: ({ value, takes, about, damage, at }) =>
    `${capital(damage)}${at}, ${about}${value} deep: ${takes} has to come off.`,
  shapeToPutRight: ({ damage, at }) => `${capital(damage)}${at}: put the shape right.`,
  uneven: ({ value, limit, about }) => `Cutters differ by ${about}${value}; ${limit} counts as even.`,
  sidesDiffer: ({ value, limit, about, reason: { hand = 'left' } }) =>
    `The ${hand} side is ${about}${value} longer on average (limit ${limit}): the saw pulls ${hand}.`,
  gaugesHigh: ({ value, limit, about, at, reason: { hand, cutters = 0 } }) => {
    const where = at !== '' ? at : hand === undefined ? '' : ` on the ${hand} side`
    const most = cutters > 1 ? `up to ` : ''
    return `Depth gauges${where} stand ${most}${about}${value} high; up to ${limit} is left as it is.`
  },
  gaugeToPutRight: ({ damage, at }) => `${capital(damage)}${at}: plate, flat file, and round its front again.`,
  dull: ({ value, damage }) => `${capital(value)} marked as ${damage}.`,
  signsSay: ({ reason }) => saySigned(reason),
  signsOfLowGauges: ({ reason }) =>
    `${saySigned(reason)} It does not cut until a plate has said otherwise: a saw that snatches may kick back.`,
  signsToLookInto: ({ reason }) => `${saySigned(reason)} Look it over before it runs.`,
  benchDue: ({ value, limit }) => `About ${value} of wear since it was sharpened; the bench is due at ${limit}.`,
  touchUpDue: ({ value, limit }) => `About ${value} of wear since it was sharpened; a touch-up is due at ${limit}.`,
  nothingDue: ({ value }) =>
    value === '' ? 'Fit to cut; nothing is due.' : `Fit to cut; the next sharpening is due in about ${value} of wear.`,
  contradiction: ({ value, reason }) => sayDoubt(reason.doubt ?? 'grew', reason.cutter ?? '?', value),
  tooLittleLeft: ({ value, limit }) => `It would leave ${value} above the mark; ${limit} is kept in reserve.`,
  notNeeded: () => 'Not needed.',
  cheapestPerHour: ({ value, limit, against }) =>
    `${value} for an hour of sharp running; ${against} comes to ${limit}.`,
  cheaperToReplace: ({ value, limit, against }) =>
    `A new loop costs ${value} for an hour of sharp running; ${against} comes to ${limit}.`,
  noWayWithinLimits: () => 'Nothing that can be done here meets every limit of the house; this comes nearest.',
  measureBeforeRetiring: () => 'By estimate a new loop is cheaper; metal is not thrown away on an estimate.',
  keptForDirt: () => 'Fit for stumps and soil-covered wood, and the house keeps such loops.',
  dirtyNotAllowed: () => 'The house keeps no loops for dirty work.',
  dirtyAlready: () => 'It is kept for dirty work already.',
  notFitForAnything: () => 'It is not fit for any work until somebody has seen to it.',
  tooFewCut: ({ value, limit }) => `Only ${value} still have a corner; even in dirt ${limit} have to cut.`,
  noGrinder: () => 'The house has no grinder.',
  noShop: () => 'The house sends nothing to a shop.',
  fileForRoutine: () => 'The house files the routine; the wheel is for stones, nails, uneven loops and milling chain.',
  wheelAtBench: () => 'The house grinds at the bench.',
  sharpenedAtBench: () => 'The house carries spares and sharpens at the bench.',
  fileMisfits: ({ reason, value, limit }) =>
    (reason.limit?.amount ?? 0) > (reason.value?.amount ?? 0)
      ? `The file named for it, ${value}, is too small for this pitch: ${limit} is the least in use.`
      : `The file named for it, ${value}, is too large for this pitch or by now bites the strap: ${limit} suits it.`,
  notEnough: () => 'Duller than a touch-up puts right.',
}

/**
 * A reason as one plain sentence.
 *
 * @example
 * sayReason(
 *   { rule: 'touchUpDue', value: { unit: 'tanks', amount: 2.4 }, limit: { unit: 'tanks', amount: 2 } },
 *   { lengths: 'mm', currency: 'EUR' },
 * )
 * // 'About 2.4 tanks of wear since it was sharpened; a touch-up is due at 2 tanks.'
 */
export const sayReason = (reason: Reason, figures: Figures): string => RULE_WORDS[reason.rule](toldOf(reason, figures))

/**
 * Which side of a loop waits whose sharpening was broken off, in a word or two; null where none does.
 *
 * @param reason what decides its verdict
 */
export const sayWaitingSide = (reason: Pick<Reason, 'rule' | 'hand'> | null): string | null =>
  reason?.rule === 'sideWaits' || reason?.rule === 'begunNotEnded' ? `${reason.hand ?? 'left'} side waits` : null

function sayDoubt(kind: DoubtKind, cutter: number | '?', value: string): string {
  switch (kind) {
    case 'grew':
      return `Cutter ${cutter} was read ${value} longer than before: wrong loop, wrong cutter or a slip?`
    case 'shrank': {
      const shorter = `Cutter ${cutter} was read ${value} shorter than it was measured`
      return `${shorter}, and no sharpening is logged since: is one missing, or a slip?`
    }
    case 'disagree': {
      const differ = `Two people measured cutter ${cutter} and differ by ${value}`
      return `${differ}: wrong loop, wrong cutter or a slip? Measure it again.`
    }
    case 'pairGrew':
      return `Cutter ${cutter} is ${value} longer after its sharpening than before it: were the two figures swapped?`
    case 'belowPlate': {
      const finer = `Depth gauge on cutter ${cutter} was read ${value} finer than the plate it was just filed to`
      return `${finer}: read it again.`
    }
  }
}
