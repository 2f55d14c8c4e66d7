import { describe, expect, test } from 'vitest'
import { BENCH_FIGURES, specFromProfile } from '../profile'
import fc from 'fast-check'
import {
  attackAngleDeg,
  edgeDrop,
  fileBevelDeg,
  lengthToRight,
  reachAt,
  targetSetting,
  WOOD_STEP_UM,
  type GaugeRule,
} from './cutter'

const spec = specFromProfile({ pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72, cutterType: 'semiChisel' })

const constant: GaugeRule = { gaugeSchool: 'constant', woodStep: 'standard' }
const progressive: GaugeRule = { gaugeSchool: 'progressive', woodStep: 'standard' }

// The trade's range: a fifth to a quarter of the file above the plate gives about 50 to 60°. Common practice.
test('a fifth to a quarter of the file above the plate gives a bevel of 50 to 60°', () => {
  const [least, most] = BENCH_FIGURES.filePartAbove.value
  for (const part of [least, most]) {
    expect(fileBevelDeg(part)).toBeGreaterThanOrEqual(50)
    expect(fileBevelDeg(part)).toBeLessThanOrEqual(60 + 1e-9)
  }
  expect(fileBevelDeg(0.2)).toBeCloseTo(53.13, 2)
  expect(fileBevelDeg(0.25)).toBeCloseTo(60, 10)
  expect(fileBevelDeg(0)).toBe(0)
  expect(fileBevelDeg(1)).toBeCloseTo(180, 10)
  expect(() => fileBevelDeg(1.1)).toThrow(RangeError)
  expect(() => fileBevelDeg(-0.01)).toThrow(RangeError)
})

test('the edge sinks by length times the tangent of the slope', () => {
  expect(edgeDrop(800, 7)).toBe(98)
  expect(edgeDrop(0, 7)).toBe(0)
})

// About 6 mm new and 12 mm at the mark on 3/8", and a setting that doubles: common practice.
test('progressive gauges keep the attack angle: the setting doubles toward the mark', () => {
  expect(reachAt(spec, spec.newLengthUm)).toBe(6000)
  expect(reachAt(spec, 0)).toBe(12_000)
  expect(targetSetting(spec, 0, progressive)).toBe(1300)
  expect(targetSetting(spec, 0, constant)).toBe(650)
  expect(targetSetting(spec, spec.newLengthUm, progressive)).toBe(650)
})

test('a plate has a step for softer and one for harder wood; a constant setting has none', () => {
  const at = (woodStep: GaugeRule['woodStep'], lengthUm = 8000) =>
    targetSetting(spec, lengthUm, { gaugeSchool: 'progressive', woodStep })
  expect(at('softer') - at('standard')).toBe(WOOD_STEP_UM)
  expect(at('standard') - at('harder')).toBe(WOOD_STEP_UM)
  // A step is one of attack: at the mark, where the reach is double, it is double too.
  expect(at('softer', 0) - at('standard', 0)).toBe(2 * WOOD_STEP_UM)
  expect(targetSetting(spec, 4000, { gaugeSchool: 'constant', woodStep: 'softer' })).toBe(650)
})

test('progressive keeps the attack from new to the mark, constant halves it', () => {
  const attack = (lengthUm: number, rule: GaugeRule) =>
    attackAngleDeg(targetSetting(spec, lengthUm, rule), reachAt(spec, lengthUm))
  expect(attack(8000, progressive)).toBeCloseTo(6.18, 2)
  expect(attack(2000, progressive)).toBeCloseTo(6.18, 1)
  expect(attack(0, constant)).toBeCloseTo(3.1, 2)
})

test('a spec with no length between new and mark reaches as far as at the mark', () => {
  expect(reachAt({ ...spec, markLengthUm: 8000 }, 7999)).toBe(12_000)
  expect(reachAt({ ...spec, markLengthUm: 8000 }, 8000)).toBe(6000)
  expect(reachAt(spec, 9000)).toBe(6000)
  expect(reachAt(spec, -10)).toBe(12_000)
})

describe('length that brings a low gauge right', () => {
  // 0.3 mm ÷ tan 7° = 2.443 mm; progressive: 0.3 ÷ (tan 7° + 0.65/8) = 1.471 mm. By hand.
  test('by hand', () => {
    expect(lengthToRight(spec, 300, constant, 7)).toBe(2444)
    expect(lengthToRight(spec, 300, progressive, 7)).toBe(1471)
    expect(lengthToRight(spec, 0, constant, 7)).toBe(0)
    // 1 µm ÷ tan 7° = 8.1: the least that is over asks for length as well.
    expect(lengthToRight(spec, 1, constant, 7)).toBe(9)
    expect(lengthToRight(spec, 300, constant, 0)).toBeNull()
  })

  test('once that length is off, setting and target meet', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 500 }), fc.constantFrom(constant, progressive), (over, rule) => {
        const length = 7000
        const off = lengthToRight(spec, over, rule, 7) ?? 0
        const setting = targetSetting(spec, length, rule) + over - edgeDrop(off, 7)
        expect(Math.abs(setting - targetSetting(spec, length - off, rule))).toBeLessThanOrEqual(2)
      }),
    )
  })
})
