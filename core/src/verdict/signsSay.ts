import type { Cause } from '../log'
import { diagnoseAll, type Likely } from '../signs'
import type { Hand } from '../loop'
import type { LoopState } from '../state'
import type { FindingRules } from './findingRules'
import { onceFor } from '../jobs/onceFor'
import type { Reason, Rule } from './verdict'

/** Chance from which what the saw told counts as a reason. Starting value. */
const COUNTS = 0.5
/** Chance of gauges too low from which a loop does not cut until a plate has said. Starting value. */
const RESTS = 0.3

/** Causes of a loop, with their chances, by all that its saw told and nobody traced; none where it told nothing. */
const told = onceFor((_state: LoopState) => new Map<string, readonly Likely[]>())

function likelyOf(state: LoopState, rules: FindingRules): readonly Likely[] {
  if (state.signs.length === 0) return state.standing.map((cause) => ({ cause, chance: 1 }))
  const kept = told(state)
  const key = JSON.stringify(rules)
  const before = kept.get(key)
  if (before !== undefined) return before
  const { causes } = diagnoseAll({ state, saw: null, rules }, rules.signCounts)
  const standing = state.standing.filter((cause) => !causes.some((one) => one.cause === cause))
  const fresh = [...standing.map((cause) => ({ cause, chance: 1 })), ...causes]
  kept.set(key, fresh)
  return fresh
}

/** Which of some causes are likely enough to count, the likeliest first. */
function saying(
  state: LoopState,
  rules: FindingRules,
  rule: Rule,
  causes: readonly Cause[],
  least: number = COUNTS,
): Reason[] {
  if (state.signs.length + state.standing.length === 0) return []
  return likelyOf(state, rules)
    .filter(({ cause, chance }) => causes.includes(cause) && chance >= least)
    .map(({ cause, chance }) => ({
      rule,
      cause,
      ...(chance < 1 ? { chance, known: 'estimated' as const } : {}),
      ...(cause in TO_WORK_ON ? { hand: TO_WORK_ON[cause as keyof typeof TO_WORK_ON] } : {}),
    }))
}

/** The side that is worked on: the blunter one, or the longer. */
const TO_WORK_ON = {
  leftSharper: 'right',
  rightSharper: 'left',
  leftLonger: 'left',
  rightLonger: 'right',
} as const

/** What calls for a touch-up or a filing, though nobody has seen it yet. */
export const signsOfTheEdge = (state: LoopState, rules: FindingRules): Reason[] =>
  saying(state, rules, 'signsSay', ['dull', 'leftSharper', 'rightSharper', 'leftLonger', 'rightLonger'])

/** The side that is behind by what the saw told: what a touch-up works on. Null where it told of none. */
export const sideBehind = (state: LoopState, rules: FindingRules): Hand | null =>
  signsOfTheEdge(state, rules).find(({ hand }) => hand !== undefined)?.hand ?? null

/** What calls for the bench. */
export const signsOfShape = (state: LoopState, rules: FindingRules): Reason[] =>
  saying(state, rules, 'signsSay', ['hook', 'backSlope', 'anglesDiffer'])

/** What calls for the plate and the flat file. */
export const signsOfGauges = (state: LoopState, rules: FindingRules): Reason[] =>
  saying(state, rules, 'signsSay', ['gaugesHigh', 'gaugesUneven'])

/** What keeps the loop off until a plate has said otherwise. */
export const signsOfLowGauges = (state: LoopState, rules: FindingRules): Reason[] =>
  saying(state, rules, 'signsOfLowGauges', ['gaugesLow'], RESTS)

/** What has to be looked for before the loop runs. */
export const signsToLookInto = (state: LoopState, rules: FindingRules): Reason[] =>
  saying(state, rules, 'signsToLookInto', ['struck', 'blued', 'tangs'])
