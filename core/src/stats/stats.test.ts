import anscombe from '../../../node_modules/vega-datasets/data/anscombe.json'
import fc from 'fast-check'
import * as reference from 'simple-statistics'
import { describe, expect, test } from 'vitest'
import { mean, median, normalBelow, normalQuantile, sampleVariance, updateNormalMean } from '.'

// Tables of the normal distribution: Φ(1) 0.8413, Φ(1.645) 0.95, Φ(−1.96) 0.025; from memory.
test('the normal distribution agrees with its tables, both ways', () => {
  expect(normalBelow(0)).toBeCloseTo(0.5, 12)
  expect(normalBelow(1)).toBeCloseTo(0.841345, 6)
  expect(normalBelow(-1.959964)).toBeCloseTo(0.025, 6)
  expect(normalQuantile(0.95)).toBeCloseTo(1.644854, 5)
  expect(normalQuantile(0.5)).toBeCloseTo(0, 9)
  expect(normalBelow(9)).toBe(1)
  expect(normalBelow(-9)).toBe(0)
  for (const chance of [0.001, 0.2, 0.7, 0.999]) expect(normalBelow(normalQuantile(chance))).toBeCloseTo(chance, 6)
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
    expect([sampleVariance([]), sampleVariance([5])]).toEqual([NaN, NaN])
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
  expect(updateNormalMean({ mean: 200, sd: 0 }, 260, 4, 80)).toEqual({ mean: 200, sd: 0 })
})
