import { expect, test } from 'vitest'
import { BENCH_FIGURES, specFromProfile } from '../profile'
import { edgeDrop, fileBevelDeg, reachAt, targetSetting } from './cutter'

const spec = specFromProfile({ pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72, cutterType: 'semiChisel' })

// The trade's range: a fifth to a quarter of the file above the plate gives about 50 to 60°. Common practice.
test('a fifth to a quarter of the file above the plate gives a bevel of 50 to 60°', () => {
  const [least, most] = BENCH_FIGURES.filePartAbove.value
  for (const part of [least, most]) {
    expect(fileBevelDeg(part)).toBeGreaterThanOrEqual(50)
    expect(fileBevelDeg(part)).toBeLessThanOrEqual(60 + 1e-9)
  }
  expect(fileBevelDeg(0.2)).toBeCloseTo(53.13, 2)
  expect(fileBevelDeg(0.25)).toBeCloseTo(60, 10)
  expect(() => fileBevelDeg(1.1)).toThrow(RangeError)
})

test('the edge sinks by length times the tangent of the slope', () => {
  expect(edgeDrop(800, 7)).toBe(98)
  expect(edgeDrop(0, 7)).toBe(0)
})

// About 6 mm new and 12 mm at the mark on 3/8", and a setting that doubles: common practice.
test('progressive gauges keep the attack angle: the setting doubles toward the mark', () => {
  expect(reachAt(spec, spec.newLengthUm)).toBe(6000)
  expect(reachAt(spec, 0)).toBe(12_000)
  expect(targetSetting(spec, 0, 'progressive')).toBe(1300)
  expect(targetSetting(spec, 0, 'constant')).toBe(650)
  expect(targetSetting(spec, spec.newLengthUm, 'progressive')).toBe(650)
})
