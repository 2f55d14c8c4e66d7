import fc from 'fast-check'
import { expect, test } from 'vitest'
import { specFromProfile } from '../profile'
import {
  checkFigure,
  depthBounds,
  grooveBounds,
  markBounds,
  sayFigureCheck,
  settingBounds,
  specLengthBounds,
} from './checkFigure'

const SPEC = specFromProfile({ pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72, cutterType: 'semiChisel' })
const setting = settingBounds(SPEC)

test('a gauge setting that slipped is asked about with what was meant, and what cannot be is refused', () => {
  // Common practice: 0.65 mm (.025") on 3/8".
  expect(SPEC.settingUm).toBeGreaterThan(600)
  for (const um of [400, 650, 1000]) expect(checkFigure(um, 'mm', setting)).toEqual({ ok: true })
  expect(checkFigure(6500, 'mm', setting)).toEqual({ ok: false, weight: 'refuse', meantUm: 650 })
  expect(checkFigure(65_000, 'mm', setting)).toEqual({ ok: false, weight: 'refuse', meantUm: 650 })
  // .025 typed as millimetres, meant as inches: 0.025 × 25.4 = 0.635 by definition.
  expect(checkFigure(25, 'mm', setting)).toEqual({ ok: false, weight: 'ask', meantUm: 635 })
  expect(checkFigure(2000, 'mm', setting)).toEqual({ ok: false, weight: 'ask', meantUm: null })
})

test('410 is far from any depth of damage', () => {
  expect(checkFigure(410_000, 'mm', depthBounds(SPEC))).toMatchObject({ weight: 'refuse', meantUm: null })
  expect(checkFigure(41_000, 'mm', depthBounds(SPEC))).toMatchObject({ weight: 'refuse', meantUm: 410 })
  expect(checkFigure(410, 'mm', depthBounds(SPEC)).ok).toBe(true)
})

test('a width is told from a depth, and a new length from one of another chain', () => {
  expect(checkFigure(6000, 'mm', grooveBounds(1500))).toMatchObject({ weight: 'refuse' })
  expect(checkFigure(1650, 'mm', grooveBounds(1500)).ok).toBe(true)
  expect(checkFigure(0, 'mm', markBounds(1000, 9000)).ok).toBe(true)
  expect(checkFigure(0, 'mm', settingBounds(SPEC))).toMatchObject({ weight: 'ask' })
  expect(checkFigure(90_000, 'mm', specLengthBounds(9000))).toMatchObject({ weight: 'refuse', meantUm: 9000 })
})

test('a figure that is likely is never asked about, and what is offered instead always is likely', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 2_000_000 }), fc.constantFrom('mm' as const, 'inch' as const), (um, unit) => {
      const check = checkFigure(um, unit, setting)
      if (check.ok) expect(um / setting.expectedUm).toBeGreaterThan(0.4)
      else if (check.meantUm !== null) expect(checkFigure(check.meantUm, unit, setting)).toEqual({ ok: true })
    }),
  )
})

test('it is said in the crew’s unit', () => {
  expect(sayFigureCheck(6500, checkFigure(6500, 'mm', setting) as never, 'mm')).toBe(
    '6.50 mm cannot be. Was it 0.65 mm?',
  )
  expect(sayFigureCheck(25, checkFigure(25, 'mm', setting) as never, 'inch')).toMatch(/is hardly right\. Was it \.025"/)
})
