import type { LoopState, RemovalSample } from '../state'
import { updateNormalMean } from '../stats'
import { strokeBite, UM_PER_STROKE } from '../belief'

/** Between one crew's files and another's, and between one filing and the next. Starting values. */
const BETWEEN_UM = 6
const WITHIN_UM = 8

/** Less than this no file takes. Starting value. */
const LEAST_UM = 4

/** What a stroke of the file takes off. */
export interface StrokeBelief {
  readonly meanUm: number
  readonly sdUm: number
  /** Filings that it rests on. */
  readonly own: number
}

/**
 * Length that a stroke takes off on a loop, as the mean of both sides.
 *
 * @example
 * strokeBelief(state).meanUm // 20
 */
export function strokeBelief({ lengths, removals }: Pick<LoopState, 'lengths' | 'removals'>): StrokeBelief {
  const { mean, variance } = strokeBite(lengths)
  return { meanUm: Math.max(LEAST_UM, mean), sdUm: Math.sqrt(variance), own: countedSides(removals).length }
}

/** What a stroke took off on each side where somebody counted, with how much it tells. */
const countedSides = (samples: readonly RemovalSample[]): readonly { readonly um: number; readonly weight: number }[] =>
  samples.flatMap(({ sides }) =>
    [sides?.left, sides?.right].flatMap((side) =>
      side?.strokes === undefined || side.strokes <= 0
        ? []
        : [{ um: side.um / side.strokes, weight: WITHIN_UM ** 2 / (WITHIN_UM ** 2 + (side.sdUm / side.strokes) ** 2) }],
    ),
  )

/**
 * Length that a stroke takes off, over many loops: from filings where somebody counted and measured,
 * shrunk toward common practice while there are few. One that is known vaguely counts for little.
 *
 * @example
 * learnPerStroke([]).meanUm // 20
 */
export function learnPerStroke(samples: readonly RemovalSample[]): StrokeBelief {
  const known = countedSides(samples)
  const weight = known.reduce((sum, one) => sum + one.weight, 0)
  const mean = weight === 0 ? 0 : known.reduce((sum, one) => sum + one.um * one.weight, 0) / weight
  const belief = updateNormalMean({ mean: UM_PER_STROKE, sd: BETWEEN_UM }, mean, weight, WITHIN_UM)
  return { meanUm: Math.max(LEAST_UM, belief.mean), sdUm: belief.sd, own: known.length }
}
