import { Log, stateOf } from '../fixtures/logs'
import type { EntryBodies } from '../log'
import { POPULATIONS, type LoopState } from '../state'
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { gaugePassRange, nextGaugePass } from './gaugePass'
import { sharpeningsLeft } from './life'
import { learnRemoval, REMOVAL_PRIORS } from './removal'
import { usualWear } from './sharpness'

const NEW = stateOf(new Log())
/** A loop that was read before and after each of some filings, at which so much came off. */
function filed(removals: readonly number[], more: Partial<EntryBodies['sharpened']> = {}): LoopState {
  const log = new Log().measureAll(7500)
  let um = 7500
  for (const off of removals) log.file(more).measureAll((um -= off))
  return stateOf(log)
}
const routineOf = (removals: readonly number[]) => learnRemoval(filed(removals), 'routine')

describe('removal', () => {
  test('with nothing measured it is common practice', () => {
    for (const population of POPULATIONS)
      expect(learnRemoval(NEW, population)).toMatchObject({
        meanUm: REMOVAL_PRIORS[population].meanUm,
        own: 0,
        weightOfOwn: 0,
      })
  })

  test('few figures are shrunk toward common practice, many are believed', () => {
    const few = routineOf([300])
    const many = routineOf(Array.from({ length: 15 }, () => 300))
    expect(few.meanUm).toBeGreaterThan(200)
    expect(few.meanUm).toBeLessThan(290)
    expect(many.meanUm).toBeGreaterThan(285)
    expect(many.meanUm).toBeLessThan(305)
    expect([few.own, many.own]).toEqual([1, 15])
    expect(many.weightOfOwn).toBeGreaterThan(few.weightOfOwn)
  })

  test('the belief lies between prior and data, and narrows with every figure', () => {
    fc.assert(
      fc.property(fc.integer({ min: 80, max: 350 }), fc.integer({ min: 1, max: 6 }), (um, n) => {
        const fewer = routineOf(Array.from({ length: n }, () => um))
        const more = routineOf(Array.from({ length: n + 1 }, () => um))
        expect(fewer.meanUm).toBeGreaterThanOrEqual(Math.min(um, 200) - 10)
        expect(fewer.meanUm).toBeLessThanOrEqual(Math.max(um, 200) + 10)
        expect(more.sdUm).toBeLessThan(fewer.sdUm + 3)
      }),
      { numRuns: 30 },
    )
  })

  test('filings say nothing of grinds, and a grind says so of grinds', () => {
    expect(learnRemoval(filed([300, 300]), 'grind').meanUm).toBe(REMOVAL_PRIORS.grind.meanUm)
    const ground = filed([400, 400, 400], { method: 'grinder' })
    expect(learnRemoval(ground, 'grind').meanUm).toBeGreaterThan(300)
    expect(learnRemoval(ground, 'routine').meanUm).toBeCloseTo(200, 6)
    for (const population of POPULATIONS) expect(learnRemoval(ground, population).lowUm).toBeGreaterThanOrEqual(0)
  })
})

describe('sharpenings left', () => {
  // About 8 mm at 0.2 mm a routine sharpening is about 40 sharpenings: common practice.
  test('a new 3/8" chain has about forty in it', () => {
    expect(sharpeningsLeft(8000, 0, learnRemoval(NEW, 'routine')).likely).toBe(40)
  })

  test('no more are forecast than any loop has in it', () => {
    expect(sharpeningsLeft(10_000_000, 0, learnRemoval(NEW, 'routine'))).toEqual({ low: 400, likely: 400, high: 400 })
  })

  test('nothing left is nothing left', () => {
    expect(sharpeningsLeft(0, 100, learnRemoval(NEW, 'routine'))).toEqual({ low: 0, likely: 0, high: 0 })
  })

  test('a length that hangs together with what comes off has a wider range', () => {
    const removal = { meanUm: 200, sdUm: 40, withinUm: 44 }
    const left = (withRemoval: number, lowerUm: number) =>
      sharpeningsLeft(4000, 300, removal, { withRemoval, lowerBy: () => lowerUm })
    // By hand: 13 × 200 + 1.96 × √(300² + 13² × 40² + 13 × 44²) is 3817, and 4086 with 14.
    expect(left(0, 0)).toMatchObject({ low: 13, likely: 20 })
    // With 2 × 13 × 6000 more under the root, 4042.
    expect(left(-6000, 0).low).toBe(12)
    expect(left(-6000, 0).likely).toBe(20)
    expect(left(-6000, 0).high).toBeGreaterThan(left(0, 0).high)
    expect(left(0, 400).likely).toBe(18)
  })

  const removal = routineOf([180, 180, 180])
  test('the range holds the likely number, and more length never means fewer', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 9000 }),
        fc.integer({ min: 0, max: 2000 }),
        fc.integer({ min: 0, max: 300 }),
        (um, more, sd) => {
          const { low, likely, high } = sharpeningsLeft(um, sd, removal)
          expect(low).toBeLessThanOrEqual(likely)
          expect(likely).toBeLessThanOrEqual(high)
          expect(sharpeningsLeft(um + more, sd, removal).likely).toBeGreaterThanOrEqual(likely)
        },
      ),
    )
  })

  test('about 95 in 100 simulated lives end within the range', () => {
    // A check of the closed form against plain simulation with a fixed generator.
    let seed = 7
    const uniform = () => {
      seed = (seed * 48_271) % 2_147_483_647
      return seed / 2_147_483_647
    }
    const normal = () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform())
    const removal = routineOf([200, 200, 200, 200])
    const { low, high } = sharpeningsLeft(4000, 0, removal)
    let within = 0
    const runs = 4000
    for (let run = 0; run < runs; run += 1) {
      const mean = removal.meanUm + removal.sdUm * normal()
      let left = 4000
      let n = -1
      while (left >= 0 && n < 400) {
        n += 1
        left -= mean + removal.withinUm * normal()
      }
      if (n >= low && n <= high) within += 1
    }
    expect(within / runs).toBeGreaterThan(0.92)
    expect(within / runs).toBeLessThan(0.985)
  })
})

describe('gauge pass', () => {
  // Most lower the gauges about every third to fifth sharpening: common practice.
  test('a new loop is due after three to five routine sharpenings', () => {
    const { dueInSharpenings } = nextGaugePass(650, 650, 100, 200, 7)
    expect(dueInSharpenings).toBeGreaterThanOrEqual(3)
    expect(dueInSharpenings).toBeLessThanOrEqual(5)
  })

  test('what is not known of removal and slope widens when it is due', () => {
    const range = gaugePassRange(650, 650, 100, learnRemoval(NEW, 'routine'), {
      mean: Math.tan((7 * Math.PI) / 180),
      sd: 0.03,
    })
    expect(range?.likely).toBe(5)
    expect(range?.low).toBeLessThan(5)
    expect(range?.high).toBeGreaterThan(5)
    expect(gaugePassRange(500, 650, 100, learnRemoval(NEW, 'routine'), { mean: 0.12, sd: 0.03 })).toEqual({
      low: 0,
      likely: 0,
      high: 0,
    })
    expect(gaugePassRange(650, 650, 100, learnRemoval(NEW, 'routine'), { mean: 0, sd: 0 })).toBeNull()
  })

  test('gauges past the tolerance are due now; a flat top plate never is', () => {
    expect(nextGaugePass(540, 650, 100, 200, 7)).toEqual({ offByUm: -110, dueInSharpenings: 0 })
    expect(nextGaugePass(650, 650, 100, 200, 0).dueInSharpenings).toBeNull()
  })
})

test('a loop kept for dirt that has not run is taken to wear twice as fast; else it is as it ran', () => {
  const wear = (tanks: number, wearTanks: number, duty: 'clean' | 'dirty') => usualWear({ tanks, wearTanks, duty })
  expect([wear(0, 0, 'dirty'), wear(0, 0, 'clean'), wear(4, 6, 'dirty'), wear(4, 3, 'clean')]).toEqual([2, 1, 1.5, 1])
})
