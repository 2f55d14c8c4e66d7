import type { LoopState } from '../state'
import { damageDepth } from '../damage'
import type { HouseRules } from '../house'
import type { Action } from '../log'
import { asMeant } from '../jobs'
import { NO_MINUTES, type MinutesRange } from '../sharpen'
import { atBound, depthOpen, type End } from './bounds'
import { choose, type Chosen } from './choose'
import { callsForNow } from './filingWay'
import { fileMisfits } from './findings'
import type { Forecast } from './forecast'
import { findAll } from './needs'
import { layOut, simulateOptions } from './options'
import type { Bounds, Option, Verdict } from './verdict'

/** Minutes to look a loop over, or to walk round it with a caliper. Starting values. */
export const LOOK_MINUTES = {
  inspect: { low: 2, likely: 3, high: 5 },
  measure: { low: 3, likely: 5, high: 8 },
  stop: NO_MINUTES,
} as const satisfies Partial<Record<Action, MinutesRange>>

interface WorkedOut {
  readonly ahead: Forecast
  readonly options: readonly Option[]
  readonly chosen: Chosen
}

function workOut(found: LoopState, rules: HouseRules): WorkedOut {
  const state = asMeant(found, rules)
  const { ahead, needs: all, limits, standing } = findAll(state, rules)
  const needs = callsForNow(state, rules, all)
  const options = simulateOptions(layOut(state, rules, ahead, needs), limits)
  const chosen = choose({ state, rules, ahead, options, needs, limits, standing })
  const reasons = state.retired === null ? [...chosen.reasons, ...fileMisfits(state, ahead)] : chosen.reasons
  return { ahead, options, chosen: { ...chosen, reasons } }
}

/** What is advised, and every option worked out. */
export type Advice = Pick<Verdict, 'advised' | 'options'>

/**
 * What is advised for a loop, without how sure that is or what a lead has settled on: enough where many
 * suppositions are tried.
 */
export function advise(state: LoopState, rules: HouseRules): Advice {
  const { options, chosen } = workOut(state, rules)
  return { advised: chosen.action, options }
}

/** What comes of it at either end of what is not known. */
function boundsOf(state: LoopState, rules: HouseRules): Bounds | null {
  if (state.retired !== null || !depthOpen(state)) return null
  const at = (end: End): Bounds[End] => {
    const supposed = atBound(state, end)
    const { ahead, chosen } = workOut(supposed, rules)
    const depthUm = Math.max(...supposed.cutters.map(({ damage }) => damageDepth(damage).knownUm))
    return { depthUm, action: chosen.action, sharpeningsLeft: ahead.sharpeningsLeft }
  }
  return { least: at('least'), most: at('most') }
}

/** Actions that put a loop to work as it is. */
const PUTS_TO_WORK: ReadonlySet<Action> = new Set(['runOn', 'touchUp', 'lowerGauges', 'dirtyDuty'])

/** Whether a person may settle on an action although the verdict is another: an unfit loop stays out of use. */
export const mayOverrule = ({ fitForUse, advised }: Pick<Verdict, 'fitForUse' | 'advised'>, action: Action): boolean =>
  fitForUse ||
  (advised === 'retire' ? action === 'inspect' || action === 'retire' || action === 'stop' : !PUTS_TO_WORK.has(action))

/**
 * What to do with a loop: what ends it first, then what is spent by measurement, what stops it, what
 * nobody knows yet, and last the cheapest way on for an hour of sharp running within the house limits. What a lead has
 * settled on for the loop as it stands takes its place, unless the loop is unfit for it.
 *
 * @returns the verdict with its reasons as data, minutes, money, and every option worked out
 * @example
 * decide(state, DEFAULT_RULES).action // 'touchUp'
 */
export function decide(state: LoopState, rules: HouseRules): Verdict {
  const { ahead, options, chosen } = workOut(state, rules)
  const { decision } = state
  const advised = chosen.action
  const stands =
    decision !== null &&
    state.retired === null &&
    mayOverrule({ fitForUse: chosen.fitForUse, advised }, decision.action)
  const action = stands ? decision.action : advised
  const done = options.find((option) => option.action === action)
  const also: readonly Action[] =
    action === advised ? chosen.also : done?.gauges === true && action !== 'lowerGauges' ? ['lowerGauges'] : []
  return {
    ...chosen,
    action,
    also,
    // An option's minutes hold what is done in the same go.
    minutes: action in LOOK_MINUTES ? LOOK_MINUTES[action as keyof typeof LOOK_MINUTES] : (done?.minutes ?? NO_MINUTES),
    options,
    bounds: boundsOf(state, rules),
    sharpeningsLeft: ahead.sharpeningsLeft,
    rulesVersion: rules.version,
    advised,
    decision: stands ? decision : null,
  }
}
