import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { SPEC } from '../fixtures/logs'
import { PITCH_CLASSES, specFromProfile } from '../profile'
import { chainSpeed, strikeExposure } from './exposure'
import { grinderSettings, rimSpeed } from './grinder'

describe('grinder settings', () => {
  const wanted = { angleDeg: 30, downAngleDeg: 10, stopUm: 5700, settingUm: 650 }

  // Wheels by pitch, head 55 or 60°, gauge wheel about 6 mm with the clamp at 0°: common practice.
  test('wheel, clamp, head and gauges follow the spec', () => {
    expect(grinderSettings(SPEC, wanted)).toEqual({
      wheelUm: [4700, 4800],
      squareGround: null,
      clampDeg: 30,
      headTiltDeg: [55, 60],
      downAngleDeg: 0,
      stopUm: 5700,
      gauges: { wheelUm: 6000, clampDeg: 0, headDeg: [60, 90], settingUm: 650 },
    })
    for (const pitchClass of PITCH_CLASSES) {
      const [thin, thick] = grinderSettings(specFromProfile({ ...SPEC, pitchClass }), wanted).wheelUm
      expect(thin).toBeGreaterThanOrEqual(3200)
      expect(thick).toBeGreaterThanOrEqual(thin)
    }
  })

  test('square-ground chisel takes a shaped wheel, its side plate leaning 5° forward', () => {
    const { squareGround } = grinderSettings({ ...SPEC, cutterType: 'squareGround' }, wanted)
    expect(squareGround).toEqual({ sidePlateLeanDeg: 5 })
  })

  test('only full chisel takes the down angle of the house', () => {
    expect(grinderSettings({ ...SPEC, cutterType: 'fullChisel' }, wanted).downAngleDeg).toBe(10)
    expect(grinderSettings({ ...SPEC, cutterType: 'ripping' }, wanted).downAngleDeg).toBe(0)
  })

  // Peripheral speed = π·d·n/60 (EN 12413, from memory): 145 mm at 2800/min by hand.
  test('speed of the rim', () => {
    expect(rimSpeed(145_000, 2800)).toBeCloseTo(21.26, 2)
  })
})

describe('strike exposure', () => {
  test('chain speed by hand: 12 000 a minute, 7 teeth, 3/8"', () => {
    // 200 turns a second × 7 × 19.05 mm = 26.67 m/s.
    expect(chainSpeed(9525, 12_000, 7)).toBeCloseTo(26.67, 6)
  })

  test('20 ms at that speed is 0.53 m: 14 cutters of 36 and the one it began on', () => {
    expect(strikeExposure(SPEC, 26.67, 20)).toEqual({ passedUm: 533_400, cutters: 15, wholeLoop: false })
    expect(strikeExposure(SPEC, 26.67, 60)).toMatchObject({ cutters: 36, wholeLoop: true })
    expect(() => strikeExposure(SPEC, -1, 20)).toThrow(RangeError)
  })

  test('a longer touch never meets fewer', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 30, noNaN: true }),
        fc.integer({ min: 0, max: 200 }),
        fc.integer({ min: 0, max: 50 }),
        (speed, ms, more) => {
          expect(strikeExposure(SPEC, speed, ms + more).cutters).toBeGreaterThanOrEqual(
            strikeExposure(SPEC, speed, ms).cutters,
          )
        },
      ),
    )
  })
})
