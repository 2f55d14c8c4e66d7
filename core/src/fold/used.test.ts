import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { admit } from '../admit'
import { Log, SPEC, stateOf } from '../fixtures/logs'
import { DEFAULT_RULES } from '../house'
import type { NewEntry } from '../log'
import { decide } from '../verdict'

const half = () => new Log(SPEC, { used: { aboutUm: 4000 } })
const verdictOf = (log: Log) => decide(stateOf(log), DEFAULT_RULES)
const rulesOf = (log: Log) => verdictOf(log).reasons.map(({ rule }) => rule)

describe('a loop that comes used is never taken for new', () => {
  test('where nobody looked it may have anything left, and is measured before it cuts', () => {
    const log = new Log(SPEC, { used: {} })
    const { cutters } = stateOf(log)
    expect(cutters.every(({ length, setting }) => length.known === 'estimated' && setting.known === 'estimated')).toBe(
      true,
    )
    // From the mark to new, as likely here as there.
    expect(cutters[0]?.length.um).toBe(4000)
    expect(cutters[0]?.length.sdUm).toBeGreaterThan(2000)
    expect(verdictOf(log)).toMatchObject({ action: 'measure', fitForUse: false })
  })

  test('what somebody judged by eye is an estimate with its range, and the verdict asks to measure', () => {
    const { length } = stateOf(half()).cutters[5] ?? { length: null }
    expect(length).toMatchObject({ um: 4000, known: 'estimated' })
    expect(length?.sdUm).toBeGreaterThan(600)
    expect(verdictOf(half())).toMatchObject({ action: 'measure', fitForUse: true })
    expect(rulesOf(half())[0]).toBe('usedUnmeasured')
  })

  test('close to its mark by eye it does not cut before it is measured', () => {
    expect(verdictOf(new Log(SPEC, { used: { aboutUm: 1500 } }))).toMatchObject({
      action: 'measure',
      fitForUse: false,
    })
  })

  test('its life has fewer sharpenings left than that of a new one', () => {
    expect(verdictOf(half()).sharpeningsLeft.likely).toBeLessThan(verdictOf(new Log()).sharpeningsLeft.likely * 0.7)
  })
})

test('what an eye says of some cutters is no measurement: the verdict still asks for one', () => {
  expect(rulesOf(half().measureAll(() => 4100, 9, { readWith: 'eye' }))).toContain('usedUnmeasured')
})

test('once some cutters were read the others follow them, and nobody asks any more', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1500, max: 7500 }), fc.integer({ min: -1400, max: 1400 }), (um, off) => {
      const aboutUm = Math.min(8000, Math.max(500, um + off))
      const log = new Log(SPEC, { used: { aboutUm } }).measureAll((n) => um + ((n * 37) % 60), 9)
      const { cutters } = stateOf(log)
      for (const { number, length } of cutters) {
        expect(Math.abs(length.um - um - 30), `cutter ${number}`).toBeLessThan(150)
        expect(length.known).toBe(number <= 9 ? 'measured' : 'estimated')
      }
      expect(rulesOf(log)).not.toContain('usedUnmeasured')
    }),
    { numRuns: 60 },
  )
})

test('more left than a new cutter has is refused, with what a new one has', () => {
  const coming = (aboutUm: number) =>
    new Log(SPEC, { used: { aboutUm } }).entries.flatMap((entry) => admit(entry as NewEntry, [], Date.now()))
  expect(coming(4000)).toEqual([])
  expect(coming(12_000)).toMatchObject([{ code: 'length-cannot-be', field: 'used.aboutUm' }])
})
