import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { fold } from '../fold'
import { Log, SPEC } from '../fixtures/logs'
import { checkLength } from './checkLength'
import { summarise } from './summary'

const summaryOf = (log: Log) => {
  const state = fold(log.entries)
  if (state === null) throw new Error('the loop should be registered')
  return summarise(state)
}

describe('checkLength', () => {
  test.each([
    ['longer than new, one place off', 52_000, 5400, { reason: 'slippedDecimal', weight: 'refuse', meantUm: 5200 }],
    ['longer than new by itself', 11_000, 8000, { reason: 'longerThanNew', weight: 'refuse', meantUm: null }],
    ['ten times too short', 520, 5400, { reason: 'slippedDecimal', weight: 'ask', meantUm: 5200 }],
    ['ten times too short on a worn cutter', 150, 1600, { reason: 'slippedDecimal', weight: 'ask', meantUm: 1500 }],
    ['inches typed as mm', 205, 5300, { reason: 'wrongUnit', weight: 'ask', meantUm: 5207 }],
    ['gone short at once', 4000, 7500, { reason: 'suddenLoss', weight: 'ask', meantUm: null }],
  ])('%s', (_name, lengthUm, expectedUm, wanted) => {
    expect(checkLength(SPEC, lengthUm, expectedUm)).toEqual({ ok: false, ...wanted })
  })

  test('a new one that is longer than is assumed is asked about, and refused where the box says otherwise', () => {
    const longer = { ok: false, reason: 'longerThanNew', meantUm: null }
    expect(checkLength(SPEC, 9200, 8000)).toEqual({ ...longer, weight: 'ask' })
    expect(checkLength({ ...SPEC, origins: { newLengthUm: 'box' } }, 9200, 8000)).toEqual({
      ...longer,
      weight: 'refuse',
    })
  })

  test('the limits themselves', () => {
    // 2.5 mm may go between two looks.
    expect(checkLength(SPEC, 2900, 5400)).toEqual({ ok: true })
    expect(checkLength(SPEC, 2899, 5400)).toMatchObject({ reason: 'suddenLoss' })
    // Ten times the reading comes within 0.6 mm of what was expected.
    expect(checkLength(SPEC, 220, 1600)).toMatchObject({ reason: 'slippedDecimal', meantUm: 2200 })
    expect(checkLength(SPEC, 221, 1600)).toEqual({ ok: true })
    // Of less than 0.6 mm nobody can tell.
    expect(checkLength(SPEC, 60, 660)).toEqual({ ok: true })
    expect(checkLength(SPEC, 59, 660)).toMatchObject({ reason: 'slippedDecimal' })
    // Up to six in a hundred longer than the profile has it, a new one may be.
    expect(checkLength(SPEC, 8480, null)).toEqual({ ok: true })
    expect(checkLength(SPEC, 8481, null)).toMatchObject({ weight: 'refuse' })
  })

  test('mm typed as inches', () => {
    expect(checkLength(SPEC, 132_080, 5300, 'inch')).toMatchObject({ reason: 'wrongUnit', meantUm: 5200 })
  })

  test('anything near what was expected, or unknown and possible, is taken', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 8000 }), fc.integer({ min: 0, max: 400 }), (expectedUm, less) => {
        expect(checkLength(SPEC, Math.max(0, expectedUm - less), expectedUm)).toEqual({ ok: true })
        expect(checkLength(SPEC, expectedUm, null)).toEqual({ ok: true })
      }),
    )
  })
})

describe('summarise', () => {
  test('the worst cutter is the shortest once damage is out, not the shortest', () => {
    const log = new Log().measureAll((n) => 6000 + n)
    log.add('measured', { readings: [{ cutter: 20, lengthUm: 6020, damage: [{ kind: 'stone', depthUm: 700 }] }] })
    const { shortest, worst, worstAfterUm, spreadUm } = summaryOf(log)
    expect([shortest.number, worst.number]).toEqual([1, 20])
    expect(Math.abs(worstAfterUm - 5320)).toBeLessThan(20)
    expect(Math.abs(spreadUm - 35)).toBeLessThan(20)
  })

  test('sides of a new loop are alike, as far as loops are; measured, they are what was read', () => {
    expect(summaryOf(new Log()).difference).toMatchObject({ difference: 0, p: 1 })
    expect(summaryOf(new Log()).difference?.high).toBeCloseTo(1.96 * Math.sqrt(15 ** 2 + (2 * 45 ** 2) / 18), 0)
    const { difference, sides } = summaryOf(new Log().measureAll((n) => (n % 2 === 1 ? 6300 : 6000) + n))
    expect(sides.left).toMatchObject({ cutters: 18, measured: 18 })
    expect(Math.abs((difference?.difference ?? 0) - 299)).toBeLessThan(10)
    expect(difference?.low).toBeGreaterThan(250)
  })

  test('unmeasured depth is counted apart', () => {
    const log = new Log().add('inspected', {
      readings: [{ cutter: 2, damage: [{ kind: 'chipped', depthUm: null }] }],
      parts: [],
    })
    expect(summaryOf(log).depthUnknown.map(({ number }) => number)).toEqual([2])
  })
})
