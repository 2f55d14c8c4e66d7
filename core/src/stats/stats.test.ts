import anscombe from '../../../node_modules/vega-datasets/data/anscombe.json'
import fc from 'fast-check'
import * as reference from 'simple-statistics'
import { describe, expect, test } from 'vitest'
import { mean, median, sampleVariance, updateNormalMean, welch } from '.'

// Student, "The probable error of a mean", Biometrika 6 (1908): extra hours of sleep under two
// drugs. Welch t = −1.8608, df = 17.776, p = 0.0794. Data and results from memory.
const DRUG_1 = [0.7, -1.6, -0.2, -1.2, -0.1, 3.4, 3.7, 0.8, 0.0, 2.0]
const DRUG_2 = [1.9, 0.8, 1.1, 0.1, -0.1, 4.4, 5.5, 1.6, 4.6, 3.4]

describe('welch', () => {
  test("agrees with the published result on Student's sleep data", () => {
    const result = welch(DRUG_1, DRUG_2)
    expect(result?.t).toBeCloseTo(-1.8608, 4)
    expect(result?.df).toBeCloseTo(17.776, 3)
    expect(result?.p).toBeCloseTo(0.0794, 4)
    // The interval that goes with it, −3.3654832 to 0.2054832, from memory.
    expect(result?.low).toBeCloseTo(-3.36548, 4)
    expect(result?.high).toBeCloseTo(0.20548, 4)
  })

  test('turns round when the samples are swapped', () => {
    const sample = fc.array(fc.integer({ min: -5000, max: 5000 }), { minLength: 2, maxLength: 30 })
    fc.assert(
      fc.property(sample, sample, (a, b) => {
        const one = welch(a, b)
        const other = welch(b, a)
        if (one === null || other === null) {
          expect(one).toBe(other)
          return
        }
        expect(one.difference).toBeCloseTo(-other.difference, 6)
        expect(one.low).toBeCloseTo(-other.high, 4)
        expect(one.low).toBeLessThanOrEqual(one.high)
      }),
    )
  })

  test('has nothing to say of a single reading, or of readings that do not vary', () => {
    expect(welch([1], [1, 2])).toBeNull()
    expect(welch([2, 2], [3, 3])).toBeNull()
  })
})

// Anscombe's quartet, shipped in vega-datasets: every series has mean 9 and variance 11 in X,
// mean 7.50 and variance 4.12 in Y.
describe("Anscombe's quartet", () => {
  test.each(['I', 'II', 'III', 'IV'])('series %s', (series) => {
    const rows = anscombe.filter(({ Series }) => Series === series)
    const x = rows.map(({ X }) => X)
    const y = rows.map(({ Y }) => Y)
    expect(mean(x)).toBeCloseTo(9, 10)
    expect(sampleVariance(x)).toBeCloseTo(11, 10)
    expect(mean(y)).toBeCloseTo(7.5, 2)
    expect(sampleVariance(y)).toBeCloseTo(4.12, 1)
  })
})

test('mean, variance and median agree with simple-statistics', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: -100_000, max: 100_000 }), { minLength: 2 }), (values) => {
      expect(mean(values)).toBeCloseTo(reference.mean(values), 6)
      expect(sampleVariance(values) / (1 + reference.sampleVariance(values))).toBeCloseTo(
        reference.sampleVariance(values) / (1 + reference.sampleVariance(values)),
        9,
      )
      expect(median(values)).toBeCloseTo(reference.median(values), 9)
    }),
  )
})

test('a conjugate normal mean lies between prior and sample, and is surer than either', () => {
  const updated = updateNormalMean({ mean: 200, sd: 60 }, 260, 4, 80)
  expect(updated.mean).toBeCloseTo(241.538, 3)
  expect(updated.sd).toBeCloseTo(33.282, 3)
  expect(updateNormalMean({ mean: 200, sd: 60 }, 0, 0, 80)).toEqual({ mean: 200, sd: 60 })
})
