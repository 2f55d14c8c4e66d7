import type { LoopState } from '../state'
import { FINDING_RULES, type FindingRules } from './findingRules'
import { soundUm } from '../sharpen'
import type { Um } from '../units'
import { unfitForDirt } from './dirt'
import { dullness, endings, gaugesHigh, repairs, stops, unknowns } from './findings'
import { forecast, type Forecast } from './forecast'
import type { Reason, Rule } from './verdict'
import { onceFor } from '../jobs/onceFor'
import { signsOfGauges, signsOfLowGauges, signsOfShape, signsOfTheEdge, signsToLookInto } from './signsSay'

/** What a loop calls for. */
export interface Needs {
  /** Damage, shape and evenness, the deepest first. */
  readonly repairs: readonly Reason[]
  readonly dullness: readonly Reason[]
  /** Everything that takes metal off: repairs, then dullness. */
  readonly metal: readonly Reason[]
  readonly gauges: readonly Reason[]
  readonly all: readonly Reason[]
  /** Duller than a touch-up puts right. */
  readonly bench: boolean
}

/** What bounds every option. */
export interface HouseLimits {
  /** Most that any cutter needs to lose. */
  readonly deepestUm: Um
  /** Why it is not fit for work in dirt either. */
  readonly unfitForDirt: readonly Reason[]
  /** Why it must not cut as it is. */
  readonly notAsItIs: readonly Reason[]
  /** Why no work brings it back. */
  readonly over: readonly Reason[]
}

/** What stands in the way of use, gravest first. */
export interface Standing {
  readonly ends: readonly Reason[]
  readonly stopping: readonly Reason[]
  readonly unknown: readonly Reason[]
}

/** What nobody knows, and may be dangerous: the loop does not cut until somebody has looked. */
export const KEEPS_OFF: ReadonlySet<Rule> = new Set([
  'struckUnseen',
  'signsToLookInto',
  'perhapsAtMark',
  'longUnmeasured',
  'plateUnheardOf',
])

const NOT_FIT: readonly Reason[] = [{ rule: 'notFitForAnything' }]

/** Everything found on a loop under a crew's rules. */
export interface Found {
  readonly ahead: Forecast
  readonly needs: Needs
  readonly limits: HouseLimits
  readonly standing: Standing
}

/** What was found on a loop, by the rules that it rests on. */
const foundOn = onceFor((_state: LoopState) => new Map<string, Found>())

/**
 * Everything found on a loop under a crew's rules, looked for once under each set of the rules that
 * it rests on: a decision in full asks under every school. What looks is given those rules and no
 * others, so that one which is not in the key does not compile.
 */
export function findAll(state: LoopState, rules: FindingRules): Found {
  const found = foundOn(state)
  const key = FINDING_RULES.map((rule) => (rule === 'signCounts' ? JSON.stringify(rules[rule]) : rules[rule])).join(' ')
  const before = found.get(key)
  if (before !== undefined) return before
  const fresh = look(state, rules)
  found.set(key, fresh)
  return fresh
}

function look(state: LoopState, rules: FindingRules): Found {
  const ahead = forecast(state, rules)
  const deepestUm = Math.max(...state.cutters.map((cutter) => soundUm(cutter, 0)))
  const repairing = [...repairs(state, rules, deepestUm, ahead), ...signsOfShape(state, rules)]
  const dull = [...dullness(state, rules), ...signsOfTheEdge(state, rules)]
  const gauges = [...gaugesHigh(state, rules), ...signsOfGauges(state, rules)]
  const metal = [...repairing, ...dull]
  const standing: Standing = {
    ends: endings(state, ahead),
    stopping: [...stops(state, rules, ahead), ...signsOfLowGauges(state, rules)],
    unknown: [...unknowns(state, rules, ahead), ...signsToLookInto(state, rules)],
  }
  const barred =
    standing.ends.length + standing.stopping.length > 0 || standing.unknown.some(({ rule }) => KEEPS_OFF.has(rule))
  const unfit = [...standing.ends, ...standing.stopping, ...standing.unknown]
  return {
    ahead,
    needs: {
      repairs: repairing,
      dullness: dull,
      metal,
      gauges,
      all: [...metal, ...gauges],
      // A house that goes by signs touches up at the first of them.
      bench: dull.some(({ rule }) => rule === 'benchDue' || (rule === 'dull' && rules.when !== 'onSigns')),
    },
    limits: {
      deepestUm,
      unfitForDirt: [...(unfit.length === 0 ? [] : NOT_FIT), ...unfitForDirt(state, rules)],
      notAsItIs: barred ? NOT_FIT : [],
      over: state.retired === null ? standing.ends.slice(0, 1) : [{ rule: 'alreadyRetired' }],
    },
    standing,
  }
}
