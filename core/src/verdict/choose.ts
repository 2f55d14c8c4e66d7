import type { LoopState } from '../state'
import type { HouseRules } from '../house'
import { ACTIONS, type Action } from '../log'
import { nothingBehindDamage, nothingDue } from './findings'
import type { Forecast } from './forecast'
import { KEEPS_OFF, type HouseLimits, type Needs, type Standing } from './needs'
import type { Option, Reason, Rule, RunnerUp } from './verdict'

/** What was chosen, before minutes and words. */
export interface Chosen {
  readonly action: Action
  readonly also: readonly Action[]
  readonly reasons: readonly Reason[]
  readonly fitForUse: boolean
  readonly runnerUp: RunnerUp | null
}

/** What speaks against an option without making it impossible: a limit or a habit of the house. */
const SOFT: ReadonlySet<Rule> = new Set([
  'uneven',
  'sidesDiffer',
  'fileForRoutine',
  'wheelAtBench',
  'sharpenedAtBench',
  'notFitForAnything',
])
const isSoft = ({ rule }: Reason): boolean => SOFT.has(rule)

const rate = ({ perHourMinor }: Option): number => perHourMinor?.likely ?? Infinity
/** The cheapest first; of two that cost alike the quicker, and then the milder. */
const byRate = (a: Option, b: Option): number =>
  (rate(a) === rate(b) ? 0 : rate(a) - rate(b)) ||
  a.minutes.likely - b.minutes.likely ||
  ACTIONS.indexOf(b.action) - ACTIONS.indexOf(a.action)

/** How far an option goes past the house limits, as parts of them. */
const excess = ({ reasons }: Option): number =>
  reasons.reduce(
    (sum, { value, limit }) =>
      sum + (value === undefined || limit === undefined || limit.amount <= 0 ? 1 : value.amount / limit.amount),
    0,
  )

const inUse = ({ action }: Option): boolean => action !== 'retire' && action !== 'dirtyDuty'

const perHourQuantity = (option: Option) => ({ unit: 'minorPerHour', amount: Math.round(rate(option)) }) as const

function money(winner: Option, second: Option | undefined, rule: Rule): Reason[] {
  if (winner.perHourMinor === null || second?.perHourMinor == null) return []
  return [{ rule, value: perHourQuantity(winner), limit: perHourQuantity(second), against: second.action }]
}

const runnerUpOf = (winner: Option, second: Option | undefined): RunnerUp | null =>
  second === undefined || rate(second) === Infinity
    ? null
    : { action: second.action, byMinor: Math.round(rate(second) - rate(winner)) }

interface Case {
  readonly state: LoopState
  readonly rules: HouseRules
  readonly ahead: Forecast
  readonly options: readonly Option[]
  readonly needs: Needs
  readonly limits: HouseLimits
  readonly standing: Standing
}

const optionOf = (options: readonly Option[], action: Action): Option | undefined =>
  options.find((option) => option.action === action)

/** Out of clean work: kept for dirt where the house does that and it is fit for it, else retired. */
function endOfService({ options, limits }: Case, reasons: readonly Reason[], runnerUp: RunnerUp | null): Chosen {
  const kept = optionOf(options, 'dirtyDuty')?.feasible === true
  // Done with, and something else may keep it off the saws until it is gone.
  const fitForUse = limits.notAsItIs.length === 0
  return kept
    ? {
        action: 'dirtyDuty',
        also: [],
        reasons: [...reasons, { rule: 'keptForDirt', limitFrom: 'house' }],
        fitForUse: true,
        runnerUp,
      }
    : { action: 'retire', also: [], reasons, fitForUse, runnerUp }
}

/** Whether the cutter that decides was measured, and its damage looked at. */
const surely = ({ summary: { worst } }: Forecast): boolean =>
  worst.length.known === 'measured' && worst.damage.every(({ estimated }) => estimated !== true)

/** Whether a file brings it through over the next few sharpenings, with what hurt it left blunt meanwhile. */
const inStages = (options: readonly Option[]): boolean =>
  options.some(({ action, stages, reasons }) => action === 'file' && stages !== null && reasons.every(isSoft))

/** No length is left for any sharpening that the loop calls for. */
function spentReasons({ state, rules, ahead, options, needs }: Case): Reason[] {
  const behind = nothingBehindDamage(state, rules, ahead)
  if (behind.length > 0 && !inStages(options)) return [...behind, ...needs.repairs]
  if (needs.metal.length === 0) return []
  const sharpening = options.filter((option) => inUse(option) && option.deepestUm > 0)
  const left = sharpening.filter(({ reasons }) => !reasons.some(({ rule }) => rule === 'tooLittleLeft'))
  const usable = left.filter(({ reasons }) => reasons.every((reason) => isSoft(reason)))
  const [first] = sharpening.filter(({ reasons }) => reasons.some(({ rule }) => rule === 'tooLittleLeft'))
  const tooLittle = first?.reasons.filter(({ rule }) => rule === 'tooLittleLeft') ?? []
  return usable.length === 0 && tooLittle.length > 0 ? [...tooLittle, ...needs.metal] : []
}

/** The cheapest way of going on for an hour of sharp running, within the house limits. */
function cheapest(given: Case): Chosen {
  const { options, needs, ahead } = given
  const feasible = options
    .filter(({ feasible, action, perHourMinor }) => feasible && action !== 'dirtyDuty' && perHourMinor !== null)
    .sort(byRate)
  const working = feasible.filter(inUse)
  const [best] = working
  if (best === undefined) return withinReach(given)
  const [winner, second] = feasible
  if (winner?.action === 'retire') {
    const reasons = [...money(winner, best, 'cheaperToReplace'), ...needs.metal]
    // Metal is not thrown away on an estimate.
    if (!surely(ahead)) {
      return {
        action: 'measure',
        also: [],
        reasons: [{ rule: 'measureBeforeRetiring' }, ...reasons],
        fitForUse: true,
        runnerUp: null,
      }
    }
    return endOfService(given, reasons, runnerUpOf(winner, best))
  }
  if (best.action === 'runOn') {
    const reasons = [nothingDue(given.state, given.rules)]
    return { action: 'runOn', also: [], reasons, fitForUse: true, runnerUp: null }
  }
  if (best.action === 'lowerGauges')
    return { action: 'lowerGauges', also: [], reasons: needs.gauges, fitForUse: true, runnerUp: null }
  return {
    action: best.action,
    also: best.gauges ? ['lowerGauges'] : [],
    reasons: [...needs.all, ...money(best, second, 'cheapestPerHour')],
    fitForUse: true,
    runnerUp: runnerUpOf(best, second),
  }
}

/** Nothing meets every limit of the house: what comes nearest to them, said as such. */
function withinReach(given: Case): Chosen {
  const { options, needs } = given
  const [nearest] = options
    .filter((option) => inUse(option) && option.deepestUm > 0 && option.reasons.every((reason) => isSoft(reason)))
    .sort((a, b) => excess(a) - excess(b) || byRate(a, b))
  if (nearest !== undefined) {
    return {
      action: nearest.action,
      also: nearest.gauges ? ['lowerGauges'] : [],
      reasons: [...needs.all, { rule: 'noWayWithinLimits' }],
      fitForUse: true,
      runnerUp: null,
    }
  }
  const hard = options.flatMap(({ action, reasons }) =>
    action === 'file' ? reasons.filter((reason) => !isSoft(reason)) : [],
  )
  return endOfService(given, [...needs.repairs, ...hard, { rule: 'noWayWithinLimits' }], null)
}

/**
 * What to do, in this order: retired already; what ends the loop; spent by what was measured; what stops it;
 * what nobody knows; spent by estimate, to be measured first; then the cheapest way on.
 */
export function choose(given: Case): Chosen {
  const { state, ahead, needs, standing } = given
  const { ends, stopping, unknown } = standing
  const stay = (action: Action, reasons: readonly Reason[], fitForUse: boolean): Chosen => ({
    action,
    also: [],
    reasons,
    fitForUse,
    runnerUp: null,
  })

  if (state.retired !== null) return stay('retire', [{ rule: 'alreadyRetired' }], false)
  if (ends.length > 0) return stay('retire', ends, false)
  const spent = spentReasons(given)
  const measured = surely(ahead)
  if (spent.length > 0 && measured) return endOfService(given, spent, null)

  if (stopping.length > 0) {
    const beyond = stopping.find(
      ({ rule, takes }) => rule === 'gaugesTooLow' && (takes === undefined || takes.amount > ahead.usableUm),
    )
    return beyond !== undefined && measured
      ? stay(
          'retire',
          [
            beyond,
            {
              rule: 'tooLittleLeft',
              value: { unit: 'um', amount: ahead.usableUm },
              ...(beyond.takes === undefined ? {} : { limit: beyond.takes }),
              limitFrom: 'house',
            },
          ],
          false,
        )
      : stay('stop', stopping, false)
  }
  if (unknown.length > 0) {
    const struck = unknown.some(({ rule }) => rule === 'struckUnseen' || rule === 'signsToLookInto')
    const fit = !unknown.some(({ rule }) => KEEPS_OFF.has(rule))
    return stay(struck ? 'inspect' : 'measure', [...unknown, ...needs.all], fit)
  }
  if (spent.length > 0) return stay('measure', spent, true)
  return cheapest(given)
}
