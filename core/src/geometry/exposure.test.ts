import { expect, test } from 'vitest'
import { SPEC } from '../fixtures/logs'
import { chainSpeed, FULL_THROTTLE, strikeExposure, TOUCH_MS } from './exposure'

const SPEED = chainSpeed(9525, FULL_THROTTLE.perMinute, FULL_THROTTLE.teeth)

test('a touch at full throttle meets less than half of a loop', () => {
  // By hand: 12 000 / 60 × 7 × 2 × 9.525 mm = 26.67 m/s; in 20 ms 533 mm of 1 372 mm, so 14 of 36 cutters and a start.
  const { passedUm, cutters, wholeLoop } = strikeExposure(SPEC, SPEED, TOUCH_MS)
  expect(Math.round(passedUm / 1000)).toBe(533)
  expect(cutters).toBe(15)
  expect(wholeLoop).toBe(false)
})

test('a touch as long as a turn of the loop meets every cutter, and no length goes by twice', () => {
  const lengthUm = 72 * 2 * 9525
  const turnMs = lengthUm / 1000 / SPEED
  expect(strikeExposure(SPEC, SPEED, turnMs + 0.01).wholeLoop).toBe(true)
  expect(strikeExposure(SPEC, SPEED, turnMs * 3)).toEqual({ passedUm: lengthUm, cutters: 36, wholeLoop: true })
  expect(strikeExposure(SPEC, SPEED, turnMs - 0.1).wholeLoop).toBe(false)
})

test('nothing is met at rest but where the touch begins; time and speed are not below nothing', () => {
  expect(strikeExposure(SPEC, 0, TOUCH_MS)).toEqual({ passedUm: 0, cutters: 1, wholeLoop: false })
  expect(() => strikeExposure(SPEC, -1, TOUCH_MS)).toThrow(RangeError)
  expect(() => strikeExposure(SPEC, SPEED, -1)).toThrow(RangeError)
  expect(() => strikeExposure(SPEC, NaN, TOUCH_MS)).toThrow(RangeError)
})
