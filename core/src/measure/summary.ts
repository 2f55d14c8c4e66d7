import type { CutterState, LoopState } from '../state'
import { damageDepth } from '../damage'
import type { Hand } from '../loop'
import { sideDifference } from '../belief'
import { mean, normalBelow } from '../stats'
import type { Um } from '../units'

/** What a loop's cutters come to. Lengths in micrometres. */
export interface CutterSummary {
  readonly shortest: CutterState
  readonly longest: CutterState
  /** Shortest once its known damage is cleaned out; it decides the job. */
  readonly worst: CutterState
  /** What is left of the worst one then. */
  readonly worstAfterUm: Um
  readonly spreadUm: Um
  readonly sides: Readonly<Record<Hand, SideSummary>>
  /** Mean left less mean right, as it is known; null where a side has no cutters. */
  readonly difference: SideDifference | null
  readonly measured: number
  readonly damaged: readonly CutterState[]
  /** Damaged cutters of which nobody knows how deep. */
  readonly depthUnknown: readonly CutterState[]
}

/** Mean of the left less mean of the right, in micrometres. */
export interface SideDifference {
  readonly difference: number
  readonly standardError: number
  /** Two-sided chance of a difference as great if there were none. */
  readonly p: number
  /** 95 % range. */
  readonly low: number
  readonly high: number
}

export interface SideSummary {
  readonly cutters: number
  readonly measured: number
  readonly meanUm: number
}

/** What is left of a cutter once its known damage is cleaned out. */
export const afterDamageUm = (cutter: CutterState): Um =>
  Math.max(0, cutter.length.um - damageDepth(cutter.damage).knownUm)

function sideSummary(cutters: readonly CutterState[], hand: Hand): SideSummary {
  const side = cutters.filter((cutter) => cutter.hand === hand)
  return {
    cutters: side.length,
    measured: side.filter(({ length }) => length.known === 'measured').length,
    meanUm: mean(side.map(({ length }) => length.um)),
  }
}

/** Two-sided 95 % point of the normal distribution. */
const Z95 = 1.959964

/** Finer than a tenth of a micrometre nobody knows anything. */
const LEAST_UM = 0.1
const tenths = (um: number): number => Math.round(um * 10) / 10 + 0

function differenceOf({ lengths }: Pick<LoopState, 'lengths'>): SideDifference | null {
  const known = sideDifference(lengths)
  if (known === null) return null
  const difference = tenths(known.mean)
  const standardError = tenths(Math.sqrt(known.variance))
  return {
    difference,
    standardError,
    p: 2 * normalBelow(-Math.abs(difference) / Math.max(LEAST_UM, standardError)),
    low: tenths(difference - Z95 * standardError),
    high: tenths(difference + Z95 * standardError),
  }
}

/**
 * Chance that a figure lies further from nothing than a limit, either way.
 *
 * @example
 * chanceBeyond(400, 50, 250) // 0.99865: three deviations past it
 */
export const chanceBeyond = (mean: number, sd: number, limit: number): number =>
  sd <= 0
    ? Number(Math.abs(mean) > limit)
    : normalBelow((Math.abs(mean) - limit) / sd) + normalBelow((-Math.abs(mean) - limit) / sd)

/**
 * Shortest, worst after damage, side means and spread of a loop's cutters.
 *
 * @throws RangeError when the loop has no cutters
 */
export function summarise(state: Pick<LoopState, 'cutters' | 'lengths'>): CutterSummary {
  const { cutters } = state
  const [first] = cutters
  if (first === undefined) throw new RangeError('a loop without cutters cannot be summed up')
  let shortest = first
  let longest = first
  let worst = first
  for (const cutter of cutters) {
    if (cutter.length.um < shortest.length.um) shortest = cutter
    if (cutter.length.um > longest.length.um) longest = cutter
    if (afterDamageUm(cutter) < afterDamageUm(worst)) worst = cutter
  }
  const damaged = cutters.filter(({ damage }) => damage.length > 0)
  return {
    shortest,
    longest,
    worst,
    worstAfterUm: afterDamageUm(worst),
    spreadUm: longest.length.um - shortest.length.um,
    sides: { left: sideSummary(cutters, 'left'), right: sideSummary(cutters, 'right') },
    difference: differenceOf(state),
    measured: cutters.filter(({ length }) => length.known === 'measured').length,
    damaged,
    depthUnknown: damaged.filter(({ damage }) => damageDepth(damage).unknown),
  }
}
