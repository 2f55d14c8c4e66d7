import type { CutterState, LoopState } from '../state'
import { damageDepth } from '../damage'
import type { Hand } from '../loop'
import { mean, welch, type WelchDifference } from '../stats'
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
  /**
   * Mean left less mean right over the measured cutters, with its interval; null while fewer than
   * two a side are measured.
   */
  readonly difference: WelchDifference | null
  readonly measured: number
  readonly damaged: readonly CutterState[]
  /** Damaged cutters of which nobody knows how deep. */
  readonly depthUnknown: readonly CutterState[]
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

const measuredOn = (cutters: readonly CutterState[], hand: Hand): number[] =>
  cutters.filter((cutter) => cutter.hand === hand && cutter.length.known === 'measured').map(({ length }) => length.um)

/**
 * Shortest, worst after damage, side means and spread of a loop's cutters.
 *
 * @throws RangeError when the loop has no cutters
 */
export function summarise(state: Pick<LoopState, 'cutters'>): CutterSummary {
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
    difference: welch(measuredOn(cutters, 'left'), measuredOn(cutters, 'right')),
    measured: cutters.filter(({ length }) => length.known === 'measured').length,
    damaged,
    depthUnknown: damaged.filter(({ damage }) => damageDepth(damage).unknown),
  }
}
