import { describe, expect, test } from 'vitest'
import { Log, stateOf } from '../fixtures/logs'
import { DEFAULT_RULES, loopPriceMinor, type HouseRules } from '../house'
import type { CutterDamageKind } from '../damage'
import { sayWayOut, sayWhatFollows } from '../words'
import { decide } from './decide'
import { waysOut } from './wayOut'

const FIGURES = { lengths: 'mm', currency: 'EUR' } as const
const outOf = (log: Log, rules: HouseRules = DEFAULT_RULES) => {
  const state = stateOf(log)
  return { ways: waysOut(state, rules, decide(state, rules)), state, verdict: decide(state, rules) }
}
const hurt = (kind: CutterDamageKind) =>
  new Log().measureAll(6500).add('inspected', {
    readings: [{ cutter: 4, damage: [{ kind, depthUm: null }] }],
    parts: [],
  })
const lowGauges = (settingUm: number) =>
  new Log().measureAll(6500).add('measured', {
    readings: Array.from({ length: 36 }, (_, i) => ({ cutter: i + 1, settingUm })),
  })

describe('what must not cut says how it comes back to work', () => {
  test('a loop that is fit has no way out to be told', () => {
    expect(outOf(new Log().measureAll(6500)).ways).toEqual([])
  })

  test('gauges too low: the cutters follow them, with the metal counted, the cheapest way first', () => {
    const { ways, state, verdict } = outOf(lowGauges(900))
    expect(verdict.action).toBe('stop')
    const [first] = ways
    expect(ways.map(({ way }) => way)).toContain('cutBack')
    const back = ways.find(({ way }) => way === 'cutBack')
    expect(back?.takesUm).toBe(verdict.reasons.find(({ rule }) => rule === 'gaugesTooLow')?.takes?.amount)
    expect(ways.map(({ costMinor }) => costMinor)).toEqual(
      [...ways.map(({ costMinor }) => costMinor)].sort((a, b) => a - b),
    )
    expect(ways.at(-1)?.costMinor ?? 0).toBeGreaterThanOrEqual(first?.costMinor ?? 0)
    // 72 drive links at the starting price of one.
    expect(ways.find(({ way }) => way === 'replace')?.costMinor).toBe(loopPriceMinor(state.spec, DEFAULT_RULES))
  })

  test('cutters go back only as far as they reach, and by a tool that the house has', () => {
    const worn = new Log().measureAll(1000).add('measured', {
      readings: Array.from({ length: 36 }, (_, i) => ({ cutter: i + 1, settingUm: 900 })),
    })
    expect(outOf(worn).ways.map(({ way }) => way)).not.toContain('cutBack')
    const byHand = outOf(lowGauges(900), { ...DEFAULT_RULES, grinderOwned: false })
    const filed = byHand.verdict.options.find(({ action }) => action === 'file')
    expect(byHand.ways.find(({ way }) => way === 'cutBack')?.minutes).toBe(filed?.minutes.likely)
  })

  test('a cutter that is missing: a shop, where the house uses one, or a new loop', () => {
    expect(outOf(hurt('missing')).ways.map(({ way }) => way)).toEqual(['shop', 'replace'])
    expect(outOf(hurt('missing'), { ...DEFAULT_RULES, shopUsed: false }).ways.map(({ way }) => way)).toEqual([
      'replace',
    ])
  })

  test('what was judged by eye begins with a look, a strike that nobody saw too', () => {
    expect(outOf(hurt('gaugeLow')).ways[0]).toMatchObject({ way: 'measure' })
    const struck = new Log().measureAll(6500).add('struck', { against: 'stone' })
    expect(outOf(struck).ways.map(({ way }) => way)).toEqual(['inspect', 'replace'])
  })

  test('a crack ends it: nothing but a new loop', () => {
    expect(outOf(hurt('cracked')).ways.map(({ way }) => way)).toEqual(['replace'])
  })
})

test('each way is said with its minutes and money, and each verdict says what follows', () => {
  const { ways } = outOf(lowGauges(900))
  const said = ways.map((way) => sayWayOut(way, FIGURES as never))
  expect(said.join('; ')).toMatch(/every cutter back by \d\.\d\d mm, gauges right then: \d+ min, €\d/)
  expect(said.join('; ')).toMatch(/a shop, where it can be put right: 4 days, €16\.00/)
  const follows = (log: Log): string => sayWhatFollows(outOf(log).verdict)
  expect(follows(hurt('missing'))).toBe('')
  expect(follows(new Log().measureAll(6500).add('struck', { against: 'stone' }))).toMatch(/stays off the saws/)
  expect(follows(new Log().measureAll(6500).add('ran', { tanks: 4, conditions: 'clean' }))).toMatch(
    /sharpenings are left/,
  )
})
