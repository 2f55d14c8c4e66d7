import { LENGTH_SPREADS, newLengths, usualRemoval } from '../belief'
import { ROUTINE_REMOVAL_UM } from '../profile'
import type { LoopState, Population } from '../state'
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

/** What a sharpening is expected to take off a cutter. */
export interface RemovalFigures {
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
}

/** What a sharpening of one kind is expected to take off a cutter. */
export interface RemovalBelief extends RemovalFigures {
  readonly population: Population
  /** Part of the belief that rests on this loop rather than on common practice, 0 to 1. */
  readonly weightOfOwn: number
}

/** Two-sided 95 % point of the normal distribution. */
export const Z95 = 1.959964

/** How far one sharpening strays from the usual one, as a part of it: the day, and a count that nobody kept. */
const STRAY_PART = Math.hypot(LENGTH_SPREADS.dayUncounted, LENGTH_SPREADS.daySide / Math.SQRT2)

/**
 * What a sharpening of one kind takes off, as this loop has shown it: the belief about the bite of a
 * stroke, the habit of those who do not count and the depth of a grind, which every reading teaches.
 *
 * @example
 * learnRemoval(state, 'routine').meanUm // 200: common practice, while nothing was read
 */
export function learnRemoval(
  { lengths, removals }: Pick<LoopState, 'lengths' | 'removals'>,
  population: Population,
): RemovalBelief {
  const { meanUm, withinUm } = REMOVAL_PRIORS[population]
  const { mean, variance } = usualRemoval(lengths, population === 'grind' ? 'grind' : 'file', meanUm)
  const before = usualRemoval(BEFORE, population === 'grind' ? 'grind' : 'file', meanUm)
  const sdUm = Math.sqrt(variance)
  const own = removals.reduce((sum, one) => sum + (one.population === population ? one.sharpenings : 0), 0)
  return {
    population,
    meanUm: Math.max(1, mean),
    sdUm,
    withinUm: population === 'grind' ? withinUm : STRAY_PART * Math.max(1, mean),
    lowUm: Math.max(0, mean - Z95 * sdUm),
    highUm: Math.max(1, mean + Z95 * sdUm),
    own,
    weightOfOwn: Math.min(1, Math.max(0, 1 - variance / before.variance)),
  }
}

/** A loop of which nothing was read yet. */
const BEFORE = newLengths(['left', 'right'], 0, true)
