import { copyLengths, lengthOf, replaceLength } from '../belief'
import { READING_SD_UM } from '../measure'
import type { LoopState } from '../state'
import type { HouseRules } from '../house'
import { loopPriceMinor } from '../house'
import type { Action } from '../log'
import type { Hand } from '../loop'
import { advise } from './decide'
import { learnedOf } from './learned'
import { metalPriceMinor, perHourAt } from './money'
import { sideBalance } from './sides'
import type { Option, Verdict } from './verdict'

/** What would change the answer. */
export type Turn =
  /** At another price of a new loop. */
  | { readonly by: 'loopPrice'; readonly from: 'above' | 'below'; readonly atMinor: number; readonly turnsTo: Action }
  /** At another price of an hour of work. */
  | { readonly by: 'labour'; readonly from: 'above' | 'below'; readonly atMinor: number; readonly turnsTo: Action }
  /** If so many estimated cutters were measured. */
  | { readonly by: 'measuring'; readonly cutters: number; readonly turnsTo: readonly Action[] }
  /** If so many more cutters of a side were measured. */
  | { readonly by: 'sides'; readonly hand: Hand; readonly cutters: number; readonly turnsTo: Action }

/** Most times what it is that a price is turned. Starting value. */
const MOST_FACTOR = 20
/** Halvings that find a factor to a few parts in a million. */
const HALVINGS = 22

/** Factor at which a rises above b, if it does between two factors; found by halving. */
function crossing(differ: (factor: number) => number, from: number, to: number): number | null {
  if (differ(from) === 0 || differ(from) > 0 === differ(to) > 0) return null
  let [low, high] = [from, to]
  const sign = differ(low) > 0
  for (let i = 0; i < HALVINGS; i += 1) {
    const middle = (low + high) / 2
    if (differ(middle) > 0 === sign) low = middle
    else high = middle
  }
  return high
}

/** The nearest price at which another option becomes the cheapest. */
function turnOfPrice(
  winner: Option,
  others: readonly Option[],
  what: 'loop' | 'labour',
  mostMetal: number,
): { readonly factor: number; readonly turnsTo: Action } | null {
  let nearest: { factor: number; turnsTo: Action } | null = null
  for (const other of others) {
    const differ = (factor: number): number =>
      perHourAt(other, mostMetal, { [what]: factor }) - perHourAt(winner, mostMetal, { [what]: factor })
    for (const to of [0, MOST_FACTOR]) {
      const factor = crossing(differ, 1, to)
      if (factor === null || factor <= 0.001) continue
      if (nearest === null || Math.abs(Math.log(factor)) < Math.abs(Math.log(nearest.factor)))
        nearest = { factor, turnsTo: other.action }
    }
  }
  return nearest
}

const CUTS: ReadonlySet<Action> = new Set(['touchUp', 'file', 'regrind', 'shop', 'retire', 'dirtyDuty'])

function turnsOfPrices(state: LoopState, rules: HouseRules, verdict: Verdict, usableUm: number): Turn[] {
  const mine = verdict.advised === 'dirtyDuty' ? 'retire' : verdict.advised
  const winner = verdict.options.find(({ action }) => action === mine)
  if (winner === undefined || !CUTS.has(mine) || verdict.runnerUp === null) return []
  const others = verdict.options.filter(
    ({ action, feasible, perHourMinor }) =>
      feasible && action !== mine && action !== 'dirtyDuty' && CUTS.has(action) && perHourMinor !== null,
  )
  const full = verdict.options.find(({ action }) => action === 'retire')?.sharpHours.likely ?? 1
  const mostMetal = (usableUm * metalPriceMinor(state.spec, rules)) / full
  const turns: Turn[] = []
  const loop = turnOfPrice(winner, others, 'loop', mostMetal)
  if (loop !== null) {
    const atMinor = Math.round(loop.factor * loopPriceMinor(state.spec, rules))
    turns.push({ by: 'loopPrice', from: loop.factor > 1 ? 'above' : 'below', atMinor, turnsTo: loop.turnsTo })
  }
  const labour = turnOfPrice(winner, others, 'labour', mostMetal)
  if (labour !== null) {
    turns.push({
      by: 'labour',
      from: labour.factor > 1 ? 'above' : 'below',
      atMinor: Math.round(labour.factor * rules.labourPerHourMinor),
      turnsTo: labour.turnsTo,
    })
  }
  return turns
}

/** The loop as it would be if every cutter that was not measured were read at one end of its range. */
function estimatesAt(state: LoopState, deviations: number): LoopState {
  const lengths = copyLengths(state.lengths)
  const shift = (i: number): number => deviations * Math.sqrt(lengthOf(state.lengths, i).variance)
  const cutters = state.cutters.map((cutter, i) => {
    if (cutter.length.known === 'measured') return cutter
    const um = Math.max(0, Math.round(cutter.length.um + shift(i)))
    replaceLength(lengths, i, { mean: um, variance: READING_SD_UM ** 2 })
    return { ...cutter, length: { um, known: 'measured' as const, sdUm: READING_SD_UM } }
  })
  return { ...state, decision: null, lengths, cutters }
}

/** Deviations that are tried either way: about seven in eight true values lie within them. Starting value. */
const TRIED = 1.5

function turnOfMeasuring(state: LoopState, rules: HouseRules, verdict: Verdict): Turn[] {
  const cutters = state.cutters.filter(({ length }) => length.known !== 'measured').length
  if (cutters === 0 || verdict.advised === 'retire') return []
  const found = new Set([-TRIED, TRIED].map((deviations) => advise(estimatesAt(state, deviations), rules).advised))
  found.delete(verdict.advised)
  return found.size === 0 ? [] : [{ by: 'measuring', cutters, turnsTo: [...found] }]
}

function turnOfSides(state: LoopState, rules: HouseRules, verdict: Verdict): Turn[] {
  const balance = sideBalance(state, rules, learnedOf(state))
  const { readingsNeeded, difference } = balance
  if (readingsNeeded === null || difference === null || balance.beyond || balance.within) return []
  const hand: Hand = readingsNeeded.left >= readingsNeeded.right ? 'left' : 'right'
  const cutters = Math.max(readingsNeeded.left, readingsNeeded.right)
  if (cutters === 0 || verdict.advised === 'regrind' || verdict.advised === 'shop') return []
  return [{ by: 'sides', hand, cutters, turnsTo: rules.grinderOwned ? 'regrind' : rules.shopUsed ? 'shop' : 'file' }]
}

/** What would change a verdict: prices, and measurements that nobody has taken yet. */
export function sensitivity(state: LoopState, rules: HouseRules, verdict: Verdict): Turn[] {
  if (state.retired !== null || verdict.reasons.some(({ rule }) => rule === 'endsLoop' || rule === 'atMark')) return []
  const { summary } = learnedOf(state)
  const usableUm = Math.max(0, summary.shortest.length.um - state.spec.markLengthUm - rules.reserveUm)
  return [
    ...turnsOfPrices(state, rules, verdict, usableUm),
    ...turnOfMeasuring(state, rules, verdict),
    ...turnOfSides(state, rules, verdict),
  ]
}
