import type { LoopState } from '../state'
import type { HouseRules, UnevenSchool } from '../house'
import { UNEVEN_SCHOOLS } from '../house'
import { copyLengths, readLengthOf, sideDifference, sumOf, type LengthBelief } from '../belief'
import type { Hand } from '../loop'
import { chanceBeyond, READING_SD_UM, type SideDifference } from '../measure'
import { EXTRA_STROKES, strokesFor } from '../sharpen'
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
  readonly difference: SideDifference | null
  /** Whether every cutter was read since it was last worked: else the difference is an estimate. */
  readonly measured: boolean
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

/** Chance at which a difference beyond a limit, or within it, is said to be so. Starting value. */
export const SURE_CHANCE = 0.95

/** Cutters of a side that are known least, the vaguest first: what a further reading would be of. */
function toRead({ hands, tied }: LengthBelief, hand: Hand): number[] {
  const variance = (i: number): number => tied.ownVar[i] ?? 0
  return hands.flatMap((one, i) => (one === hand ? [i] : [])).sort((a, b) => variance(b) - variance(a))
}

/** How the sides hang on one another once a further reading was taken of one of them. */
function readOne(belief: LengthBelief, cutter: number | undefined): LengthBelief | null {
  if (cutter === undefined) return null
  const after = copyLengths(belief)
  readLengthOf(
    after,
    cutter,
    Math.max(0, Math.round(sumOf(after.tied, (i) => (i === cutter ? 1 : 0)).mean)),
    READING_SD_UM,
  )
  return after
}

/**
 * Readings that would settle whether the sides differ by more than the house lets run, if what is
 * read is what is expected: each further one goes to the side that narrows the range most.
 */
function readingsNeeded(lengths: LengthBelief, limitUm: Um): Record<Hand, number> | null {
  const left = { left: toRead(lengths, 'left'), right: toRead(lengths, 'right') }
  const needed = { left: 0, right: 0 }
  const varianceOf = (belief: LengthBelief | null): number =>
    belief === null ? Infinity : (sideDifference(belief)?.variance ?? Infinity)
  let belief = lengths
  const settled = (): boolean => {
    const known = sideDifference(belief)
    if (known === null) return false
    const chance = chanceBeyond(known.mean, Math.sqrt(known.variance), limitUm)
    return chance >= SURE_CHANCE || chance <= 1 - SURE_CHANCE
  }
  while (!settled()) {
    const next = { left: readOne(belief, left.left[0]), right: readOne(belief, left.right[0]) }
    const hand: Hand = varianceOf(next.left) <= varianceOf(next.right) ? 'left' : 'right'
    const after = next[hand]
    if (after === null) return null
    left[hand].shift()
    needed[hand] += 1
    belief = after
  }
  return needed
}

/** What each school does about a difference. */
function remedyOf(school: UnevenSchool, differenceUm: number, perStrokeUm: number): SideRemedy {
  const all = strokesFor(Math.round(differenceUm), perStrokeUm)
  switch (school) {
    case 'matchShortest':
      return { school, strokes: all, sharpenings: 1 }
    case 'sameStrokes':
      return { school, strokes: Math.min(EXTRA_STROKES, all), sharpenings: Math.ceil(all / EXTRA_STROKES) }
    case 'worstSetsCount':
    case 'extraOnBad':
    case 'ownGauges':
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
  const { sideDifferenceUm: limit } = rules
  const chance = difference === null ? 0 : chanceBeyond(difference.difference, difference.standardError, limit)
  const beyond = chance >= SURE_CHANCE
  const within = difference !== null && chance <= 1 - SURE_CHANCE
  const longer = difference === null || difference.p >= 0.05 ? null : difference.difference > 0 ? 'left' : 'right'
  return {
    difference,
    measured: summary.measured === state.cutters.length,
    longer,
    beyond,
    within,
    remedies:
      longer === null
        ? []
        : UNEVEN_SCHOOLS.map((school) => remedyOf(school, Math.abs(difference?.difference ?? 0), perStroke.meanUm)),
    readingsNeeded: readingsNeeded(state.lengths, limit),
  }
}
