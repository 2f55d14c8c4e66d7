import fc from 'fast-check'
import { expect, test } from 'vitest'
import { SPEC } from '../fixtures/logs'
import { changedSpec, PITCH_CLASSES, PITCH_PROFILES, specFromProfile } from '../profile'
import { topPlateAngleFor } from '../sharpen'
import { fileBevelDeg } from './cutter'
import { fileBottom, fileFor, partAboveWorn, topPlateHeight } from './file'

// d(1 − p): a 5.2 mm file with a quarter above the plate reaches 3.9 mm below it.
test('the bottom of a file lies d(1 − p) below the top plate', () => {
  expect(fileBottom(5200, 0.25)).toBe(3900)
  expect(fileBottom(4000, 0.2)).toBe(3200)
  expect([fileBottom(4000, 0), fileBottom(4000, 1)]).toEqual([4000, 0])
  expect(() => fileBottom(4000, 1.2)).toThrow(RangeError)
})

// Common practice (one school): 5.5 mm until about half worn, then 5.2 mm.
test('larger then smaller changes files at about half worn, and says why', () => {
  const at = (lengthUm: number) => fileFor(SPEC, lengthUm, 'largerThenSmaller')
  expect(at(8000)).toMatchObject({ fileUm: 5500, reason: 'largerClears', clears: true, otherUm: 5200 })
  expect(at(4100)).toMatchObject({ fileUm: 5500 })
  expect(at(3900)).toMatchObject({ fileUm: 5200, reason: 'largerBites', otherUm: 5500 })
  expect(fileFor(SPEC, 8000, 'oneSize')).toMatchObject({ fileUm: 5200, reason: 'oneSize' })
})

test('a file whose bottom just reaches the strap clears it', () => {
  // 4.891 mm high when new: ⅘ of 6.114 mm.
  const named = (fileUm: number) => fileFor(changedSpec(SPEC, { fileUm }, 'crew'), 8000, 'oneSize')
  expect(named(6114)).toMatchObject({ bottomUm: 4891, heightUm: 4891, clears: true })
  expect(named(6116)).toMatchObject({ bottomUm: 4893, clears: false })
})

test('a file that the box or the crew named for a loop stays', () => {
  for (const origin of ['box', 'measured', 'crew'] as const) {
    const own = changedSpec(SPEC, { fileUm: 5500 }, origin)
    expect(fileFor(own, 500, 'largerThenSmaller')).toMatchObject({ fileUm: 5500, reason: 'setOnLoop', clears: false })
  }
})

test('the usual file, a quarter above the plate, clears the strap down to the mark on every pitch', () => {
  for (const pitchClass of PITCH_CLASSES) {
    const spec = specFromProfile({ pitchClass, gaugeUm: 1300, driveLinks: 60, cutterType: 'semiChisel' })
    expect(fileBottom(PITCH_PROFILES[pitchClass].filesUm.value[0] ?? 0, 0.25), pitchClass).toBeLessThanOrEqual(
      topPlateHeight(spec, spec.markLengthUm),
    )
  }
})

test('once the smaller file is due, it stays due as the cutter wears', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 8000 }), fc.integer({ min: 0, max: 8000 }), (a, b) => {
      const [longer, shorter] = a > b ? [a, b] : [b, a]
      expect(fileFor(SPEC, shorter, 'largerThenSmaller').fileUm).toBeLessThanOrEqual(
        fileFor(SPEC, longer, 'largerThenSmaller').fileUm,
      )
    }),
  )
})

test('a guide on the chassis leaves more of the file above a worn plate, and a steeper bevel', () => {
  expect(partAboveWorn(SPEC, 4000, 5200, 0.2, 'topPlate')).toBe(0.2)
  const worn = partAboveWorn(SPEC, 4000, 5200, 0.2, 'chassis')
  // 4 mm filed off at 7° sinks the plate by 0.491 mm.
  expect(worn).toBeCloseTo(0.2 + 0.491 / 5.2, 3)
  expect(fileBevelDeg(worn)).toBeGreaterThan(fileBevelDeg(0.2))
  // No more of it than there is.
  expect(partAboveWorn(SPEC, 0, 1000, 0.9, 'chassis')).toBe(1)
})

test('full chisel takes the angle of the house unless its own was named', () => {
  const chisel = specFromProfile({
    pitchClass: 'threeEighths',
    gaugeUm: 1500,
    driveLinks: 72,
    cutterType: 'fullChisel',
  })
  expect(topPlateAngleFor(chisel, 25)).toBe(25)
  expect(topPlateAngleFor(changedSpec(chisel, { topPlateAngleDeg: 30 }, 'box'), 25)).toBe(30)
  expect(topPlateAngleFor(SPEC, 25)).toBe(30)
})

test('a part of a file above the plate is from none of it to all', () => {
  expect([0, 1].map((part) => fileBevelDeg(part)).every(Number.isFinite)).toBe(true)
  for (const part of [-0.001, 1.001, NaN]) expect(() => fileBevelDeg(part)).toThrow(RangeError)
})
