import { ROUTINE_REMOVAL_UM } from '../profile'
import { mean, updateNormalMean } from '../stats'
import type { Population, RemovalSample } from '../state'
import type { Um } from '../units'

/** What common practice expects, and how far loops and single sharpenings stray from it. */
export interface RemovalPrior {
  readonly meanUm: Um
  /** Between one crew's loops and another's. */
  readonly betweenUm: Um
  /** Between one sharpening of a loop and the next. */
  readonly withinUm: Um
}

/**
 * A routine sharpening takes about 0.2 mm and a touch-up less (common practice); a wheel sits in
 * the same range when it only cleans an even loop. The spreads are this project's starting values.
 */
export const REMOVAL_PRIORS: Readonly<Record<Population, RemovalPrior>> = {
  touchUp: { meanUm: 100, betweenUm: 30, withinUm: 40 },
  routine: { meanUm: ROUTINE_REMOVAL_UM, betweenUm: 60, withinUm: 80 },
  grind: { meanUm: 250, betweenUm: 80, withinUm: 120 },
}

/** Most strokes a cutter gets in what is still a touch-up: two to five. Common practice. */
export const TOUCH_UP_STROKES = 5

/** What a sharpening of one kind is expected to take off a cutter. */
export interface RemovalBelief {
  readonly population: Population
  readonly meanUm: number
  /** Standard deviation of the belief about the mean. */
  readonly sdUm: number
  /** Spread of a single sharpening about the mean. */
  readonly withinUm: number
  /** 95 % interval of the mean. */
  readonly lowUm: number
  readonly highUm: number
  /** Sharpenings of this loop that it rests on. */
  readonly own: number
  /** Part of the belief that rests on this loop rather than on common practice, 0 to 1. */
  readonly weightOfOwn: number
}

/** Two-sided 95 % point of the normal distribution. */
export const Z95 = 1.959964

/**
 * Removal per sharpening learned from a loop's own before-and-after figures, shrunk toward common
 * practice while there are few: a conjugate normal update.
 *
 * @example
 * learnRemoval([], 'routine').meanUm // 200: common practice
 */
export function learnRemoval(samples: readonly RemovalSample[], population: Population): RemovalBelief {
  const prior = REMOVAL_PRIORS[population]
  let own = 0
  let sum = 0
  for (const sample of samples) {
    if (sample.population !== population) continue
    own += sample.sharpenings
    sum += sample.perSharpeningUm * sample.sharpenings
  }
  const belief = updateNormalMean(
    { mean: prior.meanUm, sd: prior.betweenUm },
    own === 0 ? 0 : sum / own,
    own,
    prior.withinUm,
  )
  return {
    population,
    meanUm: belief.mean,
    sdUm: belief.sd,
    withinUm: prior.withinUm,
    lowUm: Math.max(0, belief.mean - Z95 * belief.sd),
    highUm: belief.mean + Z95 * belief.sd,
    own,
    weightOfOwn: 1 - belief.sd ** 2 / prior.betweenUm ** 2,
  }
}

/** Mean taken off, from cutters measured before and after. */
export const meanRemoved = (pairs: readonly { beforeUm: Um; afterUm: Um }[]): Um =>
  Math.round(mean(pairs.map(({ beforeUm, afterUm }) => beforeUm - afterUm)))
