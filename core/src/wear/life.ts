import type { Um } from '../units'
import { Z95, type RemovalBelief } from './removal'

/** A whole number that may lie from `low` to `high`; `likely` is the middle of it. */
export interface CountRange {
  readonly low: number
  readonly likely: number
  readonly high: number
}

/** More sharpenings than any loop has in it; forecasts stop here. */
export const MOST_SHARPENINGS = 400

/** Most whole sharpenings whose total, `z` deviations to the heavy side, still fits the length. */
function sharpeningsWithin(lengthUm: number, removal: RemovalBelief, z: number): number {
  if (lengthUm <= 0) return 0
  let n = 0
  while (n < MOST_SHARPENINGS) {
    const next = n + 1
    // The mean is unknown by sdUm (shared by all), each sharpening strays by withinUm (its own).
    const spread = Math.sqrt((next * removal.sdUm) ** 2 + next * removal.withinUm ** 2)
    if (next * removal.meanUm + z * spread > lengthUm) break
    n = next
  }
  return n
}

/**
 * Sharpenings left before a length is used up, with a 95 % range: the total of n sharpenings is
 * normal with mean n·μ and variance n²·σμ² + n·σ², and the length itself is uncertain by `sdUm`.
 *
 * @param lengthUm length that may still be taken off
 * @param sdUm standard deviation of that length
 * @example
 * sharpeningsLeft(2000, 0, learnRemoval([], 'routine')).likely // 10
 */
export function sharpeningsLeft(lengthUm: Um, sdUm: number, removal: RemovalBelief): CountRange {
  const low = sharpeningsWithin(lengthUm - Z95 * sdUm, removal, Z95)
  const likely = sharpeningsWithin(lengthUm, removal, 0)
  const high = lengthUm <= 0 ? 0 : sharpeningsWithin(lengthUm + Z95 * sdUm, removal, -Z95)
  return { low, likely, high: Math.max(high, likely) }
}
