import type { LoopState } from '../fold'
import { addMinutes, NO_MINUTES, type MinutesRange } from '../sharpen'
import { dullness, endings, gaugesHigh, repairs, stops, unknowns } from './findings'
import { forecast, type Forecast } from './forecast'
import { simulateOptions } from './options'
import type { HouseRules } from './rules'
import type { Action, Option, Reason, Rule, Verdict } from './verdict'

/** Minutes to look a loop over, or to walk round it with a caliper. Starting values. */
const LOOK_MINUTES: Partial<Record<Action, MinutesRange>> = {
  inspect: { low: 2, likely: 3, high: 5 },
  measure: { low: 3, likely: 5, high: 8 },
  stop: NO_MINUTES,
}

const has = (reasons: readonly Reason[], ...rules: Rule[]): boolean => reasons.some(({ rule }) => rules.includes(rule))

/** The bench job that the findings call for: wheel, file, touch-up or none. */
function benchAction(found: readonly Reason[], options: readonly Option[]): Action {
  const filing = options.find(({ action }) => action === 'file')
  if (has(found, 'fileSkates', 'tooDeepToFile', 'uneven', 'sidesDiffer')) return 'regrind'
  if (has(found, 'damageWithinFile', 'shapeToPutRight')) return filing?.feasible === false ? 'regrind' : 'file'
  if (has(found, 'dull', 'benchDue')) return 'file'
  if (has(found, 'touchUpDue')) return 'touchUp'
  return 'runOn'
}

interface Chosen {
  readonly action: Action
  readonly also: readonly Action[]
  readonly reasons: readonly Reason[]
  readonly fitForUse: boolean
}

function choose(state: LoopState, rules: HouseRules, ahead: Forecast, options: readonly Option[]): Chosen {
  if (state.retired !== null) {
    return { action: 'retire', also: [], reasons: [{ rule: 'alreadyRetired' }], fitForUse: false }
  }
  const deepestUm = options.find(({ action }) => action === 'file')?.deepestUm ?? 0
  const found = [...repairs(rules, deepestUm, ahead), ...dullness(state, rules)]
  const bench = benchAction(found, options)
  const job = options.find(({ action }) => action === bench)
  // Nothing is left to bring down to: the bench job would pass the reserve above the mark.
  const spent = bench !== 'runOn' && has(job?.reasons ?? [], 'tooLittleLeft') ? [...(job?.reasons ?? []), ...found] : []

  const ends = endings(state, rules, ahead)
  if (ends.length > 0) return { action: 'retire', also: [], reasons: ends, fitForUse: false }
  if (spent.length > 0 && ahead.summary.worst.length.known === 'measured') {
    return { action: 'retire', also: [], reasons: spent, fitForUse: true }
  }
  const stopping = stops(state, rules)
  if (stopping.length > 0) return { action: 'stop', also: [], reasons: stopping, fitForUse: false }

  const unknown = unknowns(state, rules, ahead)
  const high = gaugesHigh(rules, ahead)
  if (unknown.length > 0) {
    const action = has(unknown, 'struckUnseen') ? 'inspect' : 'measure'
    const fitForUse = !has(unknown, 'struckUnseen', 'perhapsAtMark')
    return { action, also: [], reasons: [...unknown, ...found, ...high], fitForUse }
  }
  if (spent.length > 0) return { action: 'measure', also: [], reasons: spent, fitForUse: true }

  if (bench === 'runOn') {
    return high.length > 0
      ? { action: 'lowerGauges', also: [], reasons: high, fitForUse: true }
      : { action: 'runOn', also: [], reasons: [{ rule: 'nothingDue' }, ...found], fitForUse: true }
  }
  return { action: bench, also: high.length > 0 ? ['lowerGauges'] : [], reasons: [...found, ...high], fitForUse: true }
}

/**
 * What to do with a loop: unfit rules first, then what nobody knows yet, then the bench job that
 * its damage, evenness and dullness call for, then the gauges, else run on.
 *
 * @returns the verdict with its reasons as data, minutes, and every option worked out
 * @example
 * decide(state, DEFAULT_RULES).action // 'touchUp'
 */
export function decide(state: LoopState, rules: HouseRules): Verdict {
  const ahead = forecast(state, rules)
  const options = simulateOptions(state, rules, ahead)
  const chosen = choose(state, rules, ahead, options)
  const minutesOf = (action: Action): MinutesRange =>
    LOOK_MINUTES[action] ?? options.find((option) => option.action === action)?.minutes ?? NO_MINUTES
  return {
    ...chosen,
    minutes: chosen.also.reduce((sum, action) => addMinutes(sum, minutesOf(action)), minutesOf(chosen.action)),
    options,
    sharpeningsLeft: ahead.sharpeningsLeft,
    rulesVersion: rules.version,
  }
}
