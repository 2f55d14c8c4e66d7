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

/** Most whole sharpenings whose total, `z` deviations to the heavy side, still fits the length. */
function sharpeningsWithin(
  lengthUm: number,
  removal: Pick<RemovalFigures, 'meanUm' | 'sdUm' | 'withinUm'>,
  z: number,
): number {
  if (lengthUm <= 0) return 0
  const { meanUm, sdUm, withinUm } = removal
  // The mean is unknown by sdUm (shared by all), each sharpening strays by withinUm (its own).
  const fits = (n: number): boolean => n * meanUm + z * Math.sqrt((n * sdUm) ** 2 + n * withinUm ** 2) <= lengthUm
  let [most, tooMany] = [0, MOST_SHARPENINGS + 1]
  while (tooMany - most > 1) {
    const n = (most + tooMany) >> 1
    if (fits(n)) most = n
    else tooMany = n
  }
  return most
}

/**
 * Sharpenings left before a length is used up, with a 95 % range: the total of n sharpenings is
 * normal with mean n·μ and variance n²·σμ² + n·σ², and the length itself is uncertain by `sdUm`.
 *
 * @param lengthUm length that may still be taken off
 * @param sdUm standard deviation of that length
 * @example
 * sharpeningsLeft(2000, 0, learnRemoval(state, 'routine')).likely // 10
 */
export function sharpeningsLeft(
  lengthUm: Um,
  sdUm: number,
  removal: Pick<RemovalFigures, 'meanUm' | 'sdUm' | 'withinUm'>,
): CountRange {
  const low = sharpeningsWithin(lengthUm - Z95 * sdUm, removal, Z95)
  const likely = sharpeningsWithin(lengthUm, removal, 0)
  const high = lengthUm <= 0 ? 0 : sharpeningsWithin(lengthUm + Z95 * sdUm, removal, -Z95)
  return { low, likely, high: Math.max(high, likely) }
}
