import { loopPriceMinor, type HouseRules } from '../house'
import type { Action } from '../log'
import type { LoopState } from '../state'
import { advise } from './decide'
import { metalPriceMinor, perHourAt } from './money'
import type { Option, Verdict } from './verdict'

/** A price that may turn a verdict. */
type Price = 'loopPrice' | 'labour'

/** Another price at which another thing is advised. */
export interface PriceTurn {
  readonly by: Price
  readonly from: 'above' | 'below'
  readonly atMinor: number
  readonly turnsTo: Action
}

/** Most times what it is that a price is turned, either way. Starting value. */
const MOST_FACTOR = 20
/** Halvings that find where two options cost alike, to a few parts in a million. */
const HALVINGS = 22
/** A turn holds when it is so this much on either side of it. */
const NEAR = 0.02
/** And when it is so still this far beyond it: what is advised in a sliver is no turn. */
const FAR = 0.04

/** House rules with one price so many times what it is. */
function priced(rules: HouseRules, { spec }: Pick<LoopState, 'spec'>, what: Price, factor: number): HouseRules {
  if (what === 'labour') return { ...rules, labourPerHourMinor: rules.labourPerHourMinor * factor }
  const { linkPriceMinor } = rules
  return {
    ...rules,
    linkPriceMinor: { ...linkPriceMinor, [spec.pitchClass]: linkPriceMinor[spec.pitchClass] * factor },
  }
}

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

/** The nearest factor at which another option costs as little as the one advised. */
function alikeAt(winner: Option, others: readonly Option[], what: Price, mostMetal: number): number | null {
  const key = what === 'labour' ? 'labour' : 'loop'
  let nearest: number | null = null
  for (const other of others) {
    const differ = (factor: number): number =>
      perHourAt(other, mostMetal, { [key]: factor }) - perHourAt(winner, mostMetal, { [key]: factor })
    for (const to of [0, MOST_FACTOR]) {
      const factor = crossing(differ, 1, to)
      if (factor === null || factor <= 1 / MOST_FACTOR) continue
      if (nearest === null || Math.abs(Math.log(factor)) < Math.abs(Math.log(nearest))) nearest = factor
    }
  }
  return nearest
}

/** Where the advice turns between a factor and 1, tried out on the loop; null where it does not. */
function searched(adviceAt: (factor: number) => Action, advised: Action, to: number): number | null {
  if (adviceAt(to) === advised) return null
  let [same, other] = [0, Math.log(to)]
  while (Math.abs(other - same) > NEAR / 4) {
    const middle = (same + other) / 2
    if (adviceAt(Math.exp(middle)) === advised) same = middle
    else other = middle
  }
  return Math.exp((same + other) / 2)
}

/** The nearest price at which something else is advised: worked out, and then tried out on both sides of it. */
function turnOf(
  adviceAt: (factor: number) => Action,
  advised: Action,
  alike: number | null,
): { readonly factor: number; readonly turnsTo: Action } | null {
  const beyond = (factor: number, by: number): number => factor * (factor > 1 ? 1 + by : 1 - by)
  const candidates = [
    () => alike,
    () => searched(adviceAt, advised, 1 / MOST_FACTOR),
    () => searched(adviceAt, advised, MOST_FACTOR),
  ]
  for (const candidate of candidates) {
    const factor = candidate()
    if (factor === null) continue
    const turnsTo = adviceAt(beyond(factor, NEAR))
    const holds = turnsTo !== advised && adviceAt(beyond(factor, FAR)) === turnsTo
    if (holds && adviceAt(beyond(factor, -NEAR)) === advised) return { factor, turnsTo }
  }
  return null
}

const CUTS: ReadonlySet<Action> = new Set(['touchUp', 'file', 'regrind', 'shop', 'retire', 'dirtyDuty'])

/**
 * The nearest price of a new loop, and of an hour of work, at which another thing is advised. Each is
 * tried out: two parts in a hundred before it the advice is what it is, as much beyond it is the other.
 */
export function priceTurns(state: LoopState, rules: HouseRules, verdict: Verdict, usableUm: number): PriceTurn[] {
  const { advised, options } = verdict
  const mine = advised === 'dirtyDuty' ? 'retire' : advised
  const winner = options.find(({ action }) => action === mine)
  if (winner === undefined || !CUTS.has(mine) || verdict.runnerUp === null) return []
  const others = options.filter(
    ({ action, feasible, perHourMinor }) =>
      feasible && action !== mine && action !== 'dirtyDuty' && CUTS.has(action) && perHourMinor !== null,
  )
  const full = options.find(({ action }) => action === 'retire')?.sharpHours.likely ?? 1
  const mostMetal = (usableUm * metalPriceMinor(state.spec, rules)) / full
  const now: Record<Price, number> = {
    loopPrice: loopPriceMinor(state.spec, rules),
    labour: rules.labourPerHourMinor,
  }
  const turns: PriceTurn[] = []
  for (const by of ['loopPrice', 'labour'] as const) {
    const adviceAt = (factor: number): Action => advise(state, priced(rules, state, by, factor)).advised
    const turn = turnOf(adviceAt, advised, alikeAt(winner, others, by, mostMetal))
    if (turn === null) continue
    const from = turn.factor > 1 ? 'above' : 'below'
    turns.push({ by, from, atMinor: Math.round(turn.factor * now[by]), turnsTo: turn.turnsTo })
  }
  return turns
}
