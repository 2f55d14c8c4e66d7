import type { HouseRules } from '../house'
import type { LoopState } from '../state'
import { learnedOf } from '../jobs/learned'
import { priceTurns, type PriceTurn } from './priceTurns'
import { readingTurns, type ReadingTurn } from './readingTurns'
import type { Verdict } from './verdict'

/** What would change the answer. */
export type Turn = PriceTurn | ReadingTurn

/** What would change a verdict: prices, and measurements that nobody has taken yet. */
export function sensitivity(state: LoopState, rules: HouseRules, verdict: Verdict): Turn[] {
  if (state.retired !== null || verdict.reasons.some(({ rule }) => rule === 'endsLoop' || rule === 'atMark')) return []
  const { summary } = learnedOf(state)
  const usableUm = Math.max(0, summary.shortest.length.um - state.spec.markLengthUm - rules.reserveUm)
  return [...priceTurns(state, rules, verdict, usableUm), ...readingTurns(state, rules, verdict)]
}
