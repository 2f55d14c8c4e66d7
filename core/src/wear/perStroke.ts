import type { RemovalSample } from '../state'
import { updateNormalMean } from '../stats'
import { UM_PER_STROKE } from '../sharpen/time'

/** Between one crew's files and another's, and between one filing and the next. Starting values. */
const BETWEEN_UM = 6
const WITHIN_UM = 8

/** What a stroke of the file takes off. */
export interface StrokeBelief {
  readonly meanUm: number
  readonly sdUm: number
  /** Filings that it rests on. */
  readonly own: number
}

/**
 * Length that a stroke takes off, from filings where somebody counted and measured, shrunk toward
 * common practice while there are few.
 *
 * @example
 * learnPerStroke([]).meanUm // 20
 */
export function learnPerStroke(samples: readonly RemovalSample[]): StrokeBelief {
  let sum = 0
  let own = 0
  for (const { sides } of samples) {
    for (const side of [sides?.left, sides?.right]) {
      if (side?.strokes === undefined || side.strokes <= 0) continue
      sum += side.um / side.strokes
      own += 1
    }
  }
  const belief = updateNormalMean({ mean: UM_PER_STROKE, sd: BETWEEN_UM }, own === 0 ? 0 : sum / own, own, WITHIN_UM)
  return { meanUm: Math.max(4, belief.mean), sdUm: belief.sd, own }
}
