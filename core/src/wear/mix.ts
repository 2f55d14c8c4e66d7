import { filingStray, shortestLowerBy, withRemoval, type LengthBelief } from '../belief'
import { POPULATIONS, type LoopState, type Population } from '../state'
import { MOST_SHARPENINGS, type CountRange, type UsedUp } from './life'
import { REMOVAL_PRIORS, Z95, type RemovalBelief, type RemovalFigures } from './removal'

/** Routine filings that common practice counts for against the sharpenings that a loop really got. Starting value. */
const COUNTS_FOR = 4
/** Tanks from one sharpening to the next by common practice: a touch-up at every second, the bench at every sixth. */
const USUAL_TANKS = 4

/** Sharpenings ahead of which it is asked which cutters may turn out the shortest. Starting value. */
const SOON = 10

/** What a sharpening takes off a loop, whichever kind it is, in the mix that this loop gets. */
export interface RemovalMix extends RemovalFigures {
  /** Part of its sharpenings that are of each kind. */
  readonly parts: Readonly<Record<Population, number>>
}

/**
 * What the next sharpening of a loop takes off on average: its touch-ups, filings and grinds as often as it
 * got them, and a few routine filings while it has got few.
 *
 * @example
 * // a loop that got nothing but four touch-ups, at 100 µm against 200: half of each counts
 * learnMix(removal, { touchUp: 4, routine: 0, grind: 0 }).meanUm
 *
 * @param removal what one of each kind takes off
 * @param sharpenedBy how many of each kind it got
 */
export function learnMix(
  removal: Readonly<Record<Population, RemovalBelief>>,
  sharpenedBy: LoopState['sharpenedBy'],
): RemovalMix {
  const counts: Record<Population, number> = { ...sharpenedBy }
  counts.routine += COUNTS_FOR
  const all = POPULATIONS.reduce((sum, one) => sum + counts[one], 0)
  const kinds = POPULATIONS.map((population) => ({ ...removal[population], part: counts[population] / all }))
  const sumOf = (of: (kind: (typeof kinds)[number]) => number): number =>
    kinds.reduce((sum, kind) => sum + kind.part * of(kind), 0)
  const meanUm = sumOf((kind) => kind.meanUm)
  // What is not known of a stroke's bite is not known of any kind: the deviations add up.
  const sdUm = sumOf((kind) => kind.sdUm)
  const withinUm = Math.sqrt(sumOf((kind) => kind.withinUm ** 2 + (kind.meanUm - meanUm) ** 2))
  return {
    meanUm,
    sdUm,
    withinUm,
    lowUm: Math.max(0, meanUm - Z95 * sdUm),
    highUm: meanUm + Z95 * sdUm,
    own: kinds.reduce((sum, { own }) => sum + own, 0),
    parts: { touchUp: counts.touchUp / all, routine: counts.routine / all, grind: counts.grind / all },
  }
}

/**
 * What hangs on the length of the shortest cutter while sharpenings in a mix use it up: strokes that
 * take more than is thought have taken more before, and cutters stray from one another until the next
 * grind makes them equal.
 *
 * @param place of the cutter that seems to be the shortest, from 0
 */
export function usingUp(lengths: LengthBelief, place: number, { parts, meanUm }: RemovalMix): UsedUp {
  const fileUm = parts.touchUp * REMOVAL_PRIORS.touchUp.meanUm + parts.routine * REMOVAL_PRIORS.routine.meanUm
  const each = filingStray(meanUm)
  const strays = (sharpenings: number): number =>
    each * Math.sqrt(Math.min(sharpenings, 1 / Math.max(parts.grind, 1 / MOST_SHARPENINGS)))
  const lower = shortestLowerBy(lengths, place, strays(SOON))
  return { withRemoval: withRemoval(lengths, place, fileUm, parts.grind), lowerBy: (n) => lower(strays(n)) }
}

/**
 * Tanks until so many sharpenings are used up, at as many tanks a sharpening as the loop has run so far. Tanks beyond
 * what any edge lasts teach nothing: a sharpening is missing from the log there.
 *
 * @example
 * tanksLeft({ low: 8, likely: 10, high: 13 }, { taughtTanks: 0, sharpenings: 0 }).likely // 40
 */
export function tanksLeft(
  { low, likely, high }: CountRange,
  { taughtTanks: tanks, sharpenings }: Pick<LoopState, 'taughtTanks' | 'sharpenings'>,
): CountRange {
  const each = (tanks + COUNTS_FOR * USUAL_TANKS) / (sharpenings + COUNTS_FOR)
  return { low: Math.round(low * each), likely: Math.round(likely * each), high: Math.round(high * each) }
}
