import type { Um } from '../units'
import { Z95, type RemovalFigures } from './removal'

/** A whole number that may lie from `low` to `high`; `likely` is the middle of it. */
export interface CountRange {
  readonly low: number
  readonly likely: number
  readonly high: number
}

/** More sharpenings than any loop has in it; forecasts stop here. */
export const MOST_SHARPENINGS = 400

/** What hangs on the length that is used up. */
export interface UsedUp {
  /** Covariance of the length with what a sharpening takes off, square micrometres. */
  readonly withRemoval: number
  /** How much lower the shortest cutter will lie than the one that is known to be, after so many sharpenings. */
  readonly lowerBy: (sharpenings: number) => number
}

const NOTHING: UsedUp = { withRemoval: 0, lowerBy: () => 0 }

type Removal = Pick<RemovalFigures, 'meanUm' | 'sdUm' | 'withinUm'>

/** Most whole sharpenings whose total, `z` deviations to the heavy side, still fits the length. */
function sharpeningsWithin(
  lengthUm: Um,
  sdUm: number,
  { meanUm, sdUm: meanSdUm, withinUm }: Removal,
  { withRemoval, lowerBy }: UsedUp,
  z: number,
): number {
  // The mean is unknown by sdUm (shared by all), each sharpening strays by withinUm (its own).
  const variance = (n: number): number =>
    Math.max(0, sdUm ** 2 + (n * meanSdUm) ** 2 + n * withinUm ** 2 - 2 * n * withRemoval)
  const fits = (n: number): boolean => n * meanUm + lowerBy(n) + z * Math.sqrt(variance(n)) <= lengthUm
  let [most, tooMany] = [0, MOST_SHARPENINGS + 1]
  while (tooMany - most > 1) {
    const n = (most + tooMany) >> 1
    if (fits(n)) most = n
    else tooMany = n
  }
  return most
}

/**
 * Sharpenings left before a length is used up, with a 95 % range: what is left after n sharpenings is
 * normal, with the variance of the length, n²·σμ² of the mean, n·σ² of single ones, and what the
 * length and the mean have in common.
 *
 * @param lengthUm length that may still be taken off
 * @param sdUm standard deviation of that length
 * @example
 * sharpeningsLeft(2000, 0, learnRemoval(state, 'routine')).likely // 10
 */
export function sharpeningsLeft(lengthUm: Um, sdUm: number, removal: Removal, usedUp: UsedUp = NOTHING): CountRange {
  if (lengthUm <= 0) return { low: 0, likely: 0, high: 0 }
  const within = (z: number): number => sharpeningsWithin(lengthUm, sdUm, removal, usedUp, z)
  const likely = within(0)
  return { low: Math.min(likely, within(Z95)), likely, high: Math.max(likely, within(-Z95)) }
}
