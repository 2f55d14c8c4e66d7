import { describe, expect, test } from 'vitest'
import { Log, stateOf } from '../fixtures/logs'
import { DEFAULT_RULES } from '../house'
import type { Action } from '../log'
import { choose } from './choose'
import { decide } from './decide'
import { forecast } from './forecast'
import type { Needs } from './needs'
import type { Option, Quantity, Reason } from './verdict'

const STATE = stateOf(new Log().measureAll(7000).add('ran', { tanks: 4, conditions: 'soil' }))
const AHEAD = forecast(STATE, DEFAULT_RULES)
const [ANY] = decide(STATE, DEFAULT_RULES).options
const DULL: Reason = { rule: 'touchUpDue' }
const NEEDS: Needs = { repairs: [], dullness: [DULL], metal: [DULL], gauges: [], all: [DULL], bench: true }

const um = (amount: number): Quantity => ({ unit: 'um', amount })
const range = (likely: number) => ({ low: likely, likely, high: likely })
/** An option that takes metal, with what speaks against it and what an hour of sharp running costs. */
function option(action: Action, reasons: readonly Reason[], perHour = 100): Option {
  if (ANY === undefined) throw new Error('a loop should have options')
  return { ...ANY, action, reasons, feasible: reasons.length === 0, deepestUm: 300, perHourMinor: range(perHour) }
}
const uneven = (valueUm: number, limitUm = 500): Reason => ({
  rule: 'uneven',
  value: um(valueUm),
  limit: um(limitUm),
})
const chosen = (...options: readonly Option[]) =>
  choose({
    state: STATE,
    rules: DEFAULT_RULES,
    ahead: AHEAD,
    options,
    needs: NEEDS,
    limits: { deepestUm: 300, unfitForDirt: [], notAsItIs: [], over: [] },
    standing: { ends: [], stopping: [], unknown: [] },
  })

test('what comes second is said with what it costs more, and nothing where it gives no sharp hours', () => {
  const money = (second: Option) => chosen(option('file', [], 40), second).runnerUp
  expect(money(option('regrind', [], 65))).toEqual({ action: 'regrind', byMinor: 25 })
  expect(money({ ...option('regrind', []), perHourMinor: null })).toBeNull()
  expect(chosen(option('file', [])).runnerUp).toBeNull()
})

test('of ways that cost alike the quicker is taken, and of those that take as long the milder', () => {
  const taking = (action: Action, minutes: number) => ({ ...option(action, []), minutes: range(minutes) })
  for (const [quick, slow] of [
    ['file', 'regrind'],
    ['regrind', 'file'],
  ] as const)
    for (const both of [
      [taking(quick, 20), taking(slow, 30)],
      [taking(slow, 30), taking(quick, 20)],
    ])
      expect(chosen(...both).action).toBe(quick)
  expect(chosen(taking('regrind', 20), taking('file', 20)).action).toBe('file')
  expect(chosen(taking('file', 20), taking('regrind', 20)).action).toBe('file')
})

describe('of ways that all go past a limit of the house', () => {
  test('the one that goes past it least is taken, whatever it costs', () => {
    expect(chosen(option('file', [uneven(900)], 10), option('regrind', [uneven(600)], 90)).action).toBe('regrind')
    expect(chosen(option('file', [uneven(600)], 90), option('regrind', [uneven(900)], 10)).action).toBe('file')
  })

  test('what is broken adds up', () => {
    const twice = [uneven(510), uneven(520)]
    expect(chosen(option('file', twice, 10), option('regrind', [uneven(900)], 90)).action).toBe('regrind')
  })

  test('a habit of the house counts as one limit in full', () => {
    const habit: Reason = { rule: 'fileForRoutine' }
    expect(chosen(option('file', [uneven(510)], 10), option('regrind', [habit], 90)).action).toBe('regrind')
    expect(chosen(option('file', [uneven(495)], 90), option('regrind', [habit], 10)).action).toBe('file')
    // A limit of nothing has no parts.
    expect(chosen(option('file', [uneven(9, 0)], 90), option('regrind', [uneven(510)], 10)).action).toBe('file')
  })

  test('of two that go past alike the cheaper, and of two that cost alike the milder', () => {
    expect(chosen(option('file', [uneven(600)], 90), option('regrind', [uneven(600)], 10)).action).toBe('regrind')
    expect(chosen(option('regrind', [uneven(600)], 50), option('file', [uneven(600)], 50)).action).toBe('file')
  })

  test('it is said that nothing meets the limits, and why something is due', () => {
    const { reasons, fitForUse } = chosen(option('file', [uneven(600)]))
    expect(reasons.map(({ rule }) => rule)).toEqual(['touchUpDue', 'noWayWithinLimits'])
    expect(fitForUse).toBe(true)
  })

  test('what is impossible is no way at all', () => {
    const hard: Reason = { rule: 'noGrinder' }
    expect(chosen(option('regrind', [hard], 1), option('file', [uneven(900)], 90)).action).toBe('file')
    expect(chosen(option('regrind', [hard, uneven(510)], 1)).action).toBe('retire')
    // What stands in the way of a filing is said; what stands in the way of the others follows from it.
    const skates: Reason = { rule: 'fileSkates' }
    const { reasons } = chosen(option('regrind', [hard]), option('file', [skates, uneven(510)]))
    expect(reasons).toEqual([skates, { rule: 'noWayWithinLimits' }])
  })
})
