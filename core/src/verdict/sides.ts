import type { LoopState } from '../state'
import type { HouseRules, UnevenSchool } from '../house'
import { UNEVEN_SCHOOLS } from '../house'
import type { Hand } from '../loop'
import { strokesFor } from '../sharpen'
import { sampleVariance, type WelchDifference } from '../stats'
import type { Um } from '../units'
import type { Forecast } from './forecast'

/** How a difference between the sides is evened out under one school. */
export interface SideRemedy {
  readonly school: UnevenSchool
  /** Extra strokes for each cutter of the long side, each time; 0 where the wheel does it. */
  readonly strokes: number
  /** Over so many sharpenings; null where it stays until the loop is next ground. */
  readonly sharpenings: number | null
}

/** Left against right: what is known of it, and what to do. */
export interface SideBalance {
  readonly difference: WelchDifference | null
  /** The side with the longer cutters, to which the saw pulls; null while that cannot be told. */
  readonly longer: Hand | null
  /** More than the house lets run, and sure. */
  readonly beyond: boolean
  /** Surely within what the house lets run. */
  readonly within: boolean
  readonly remedies: readonly SideRemedy[]
  /** Readings that are still needed to tell, by side; null when no number of them would. */
  readonly readingsNeeded: Readonly<Record<Hand, number>> | null
}

/** Spread of the cutters of a side before it is known. Starting value. */
const USUAL_SPREAD_UM = 120

const lengthsOf = (state: LoopState, hand: Hand): number[] =>
  state.cutters
    .filter((cutter) => cutter.hand === hand && cutter.length.known === 'measured')
    .map(({ length }) => length.um)

const spreadOf = (lengths: readonly number[]): number =>
  lengths.length < 3 ? USUAL_SPREAD_UM : Math.max(20, Math.sqrt(sampleVariance(lengths)))

/**
 * Readings that would settle whether the sides differ by more than the house lets run, if the
 * means and spreads stay as they are: each further reading goes to the side that narrows the
 * interval most.
 */
function readingsNeeded(
  state: LoopState,
  limitUm: Um,
  difference: WelchDifference | null,
): Record<Hand, number> | null {
  const lengths = { left: lengthsOf(state, 'left'), right: lengthsOf(state, 'right') }
  const spread = { left: spreadOf(lengths.left), right: spreadOf(lengths.right) }
  const have = { left: lengths.left.length, right: lengths.right.length }
  const room = (hand: Hand): number => state.cutters.filter((cutter) => cutter.hand === hand).length
  const now = { ...have }
  const off = Math.abs(difference?.difference ?? 0)
  const settled = (): boolean => {
    if (now.left < 2 || now.right < 2) return false
    // Two deviations: close to the Welch interval once a few are read, a little generous before.
    const half = 2 * Math.sqrt(spread.left ** 2 / now.left + spread.right ** 2 / now.right)
    return off - half > limitUm || off + half <= limitUm
  }
  while (!settled()) {
    const gain = (hand: Hand): number =>
      now[hand] >= room(hand) ? -1 : spread[hand] ** 2 / Math.max(0.5, now[hand]) - spread[hand] ** 2 / (now[hand] + 1)
    const next: Hand = gain('left') >= gain('right') ? 'left' : 'right'
    if (gain(next) < 0) return null
    now[next] += 1
  }
  return { left: now.left - have.left, right: now.right - have.right }
}

/** What each school does about a difference. Two extra strokes a cutter is what a hand keeps count of. */
function remedyOf(school: UnevenSchool, differenceUm: number, perStrokeUm: number): SideRemedy {
  const all = strokesFor(Math.round(differenceUm), perStrokeUm)
  switch (school) {
    case 'matchShortest':
      return { school, strokes: all, sharpenings: 1 }
    case 'sameStrokes':
      return { school, strokes: Math.min(2, all), sharpenings: Math.ceil(all / 2) }
    case 'worstSetsCount':
    case 'extraOnBad':
      return { school, strokes: 0, sharpenings: null }
  }
}

/** Left against right of a loop, and how each school evens it. */
export function sideBalance(
  state: LoopState,
  rules: HouseRules,
  { summary, perStroke }: Pick<Forecast, 'summary' | 'perStroke'>,
): SideBalance {
  const { difference } = summary
  const sure = difference !== null && difference.p < 0.05
  const longer = sure ? (difference.difference > 0 ? 'left' : 'right') : null
  const limit = rules.sideDifferenceUm
  const beyond = sure && Math.abs(difference.difference) > limit
  const within = difference !== null && Math.max(Math.abs(difference.low), Math.abs(difference.high)) <= limit
  return {
    difference,
    longer,
    beyond,
    within,
    remedies:
      longer === null
        ? []
        : UNEVEN_SCHOOLS.map((school) => remedyOf(school, Math.abs(difference?.difference ?? 0), perStroke.meanUm)),
    readingsNeeded: beyond || within ? { left: 0, right: 0 } : readingsNeeded(state, limit, difference),
  }
}
