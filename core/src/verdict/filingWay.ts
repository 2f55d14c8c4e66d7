import type { LoopState } from '../state'
import type { HouseRules, UnevenSchool } from '../house'
import { usableLengthUm } from '../profile'
import { cutsOf } from './cuts'
import { leastThatCut } from './dirt'
import { learnedOf } from '../jobs/learned'
import type { Needs } from './needs'
import type { Reason, Rule } from './verdict'

/** Part of a new loop's length, and of what is left of this one, that counts as most of its life. Starting value. */
const MOST = 0.5

/**
 * How a filing is done where cutters differ or are hurt: as the house does it, but that matching the worst
 * cutter never throws away a loop with most of its life left. Then all get the same strokes, and the worst
 * catches up over the next few, as long as enough of the others cut.
 */
export function filingWay(state: LoopState, rules: HouseRules): UnevenSchool {
  const school = rules.unevenSchool
  if (school !== 'matchShortest' && school !== 'worstSetsCount') return school
  const { spec, cutters } = state
  const floorUm = spec.markLengthUm + rules.reserveUm
  const leftUm = learnedOf(state).meanLengthUm - spec.markLengthUm
  if (leftUm <= MOST * usableLengthUm(spec)) return school
  const matched = cutsOf(state).file(school)
  if (matched.shortestUm >= floorUm && matched.meanUm <= MOST * leftUm) return school
  const same = cutsOf(state).file('sameStrokes')
  const cutting = cutters.length - same.damagedLeft
  return cutting >= leastThatCut(cutters.length) && same.shortestUm >= floorUm ? 'sameStrokes' : school
}

const OF_DEPTH: ReadonlySet<Rule> = new Set(['damageToClean', 'tooDeepToFile'])

/**
 * What a loop calls for now: damage that was filed at, and whose rest is left to the next sharpenings, does
 * not call for one by itself where that is how things are done.
 */
export function callsForNow(state: LoopState, rules: HouseRules, found: Needs): Needs {
  // Where each gauge is set to its own cutter, lengths may differ.
  const needs = rules.unevenSchool === 'ownGauges' ? butFor(found, ({ rule }) => rule === 'uneven') : found
  const left = ({ rule, cutter = 0 }: Reason): boolean =>
    OF_DEPTH.has(rule) && (state.cutters[cutter - 1]?.damage ?? []).every(({ catchingUp }) => catchingUp === true)
  if (!needs.repairs.some(left) || filingWay(state, rules) !== 'sameStrokes') return needs
  return butFor(needs, left)
}

/** What is called for, but for some of it. */
function butFor(needs: Needs, not: (reason: Reason) => boolean): Needs {
  if (!needs.repairs.some(not)) return needs
  const without = (reasons: readonly Reason[]): readonly Reason[] => reasons.filter((reason) => !not(reason))
  return { ...needs, repairs: without(needs.repairs), metal: without(needs.metal), all: without(needs.all) }
}
