import { describe, expect, test } from 'vitest'
import { SPEC } from '../fixtures/logs'
import { PITCH_CLASSES, type PitchClass } from './profile'
import { BENCH_FIGURES, CUTTER_TYPE_PROFILES, GAUGES_UM, PITCH_PROFILES, ROUTINE_REMOVAL_UM } from './profiles'
import { changedSpec, isGiven, originOf, specFromProfile, specLine, usableLengthUm } from './spec'

// Figures by pitch: common practice, with what a new cutter measures on pitches other than 3/8" assumed.
// pitch, gauges, files, wheels, setting, new length
const FIGURES: Record<PitchClass, readonly [number, number[], number[], number[], number, number]> = {
  quarter: [6350, [1100, 1300], [4000], [3200, 3200], 650, 5500],
  lowProfile: [9525, [1100, 1300], [4000], [3200, 3200], 650, 6500],
  p325: [8255, [1300, 1500, 1600], [4800], [4700, 4800], 650, 7000],
  threeEighths: [9525, [1300, 1500, 1600], [5200, 5500], [4700, 4800], 650, 8000],
  p404: [10_262, [1600], [5500], [4700, 6000], 800, 8500],
}

describe('what a pitch brings', () => {
  test.each(PITCH_CLASSES)('%s', (pitch) => {
    const { pitchUm, gaugesUm, filesUm, wheelUm, settingUm, newLengthUm, markLengthUm } = PITCH_PROFILES[pitch]
    expect([pitchUm, gaugesUm, filesUm, wheelUm, settingUm, newLengthUm].map(({ value }) => value)).toEqual(
      FIGURES[pitch],
    )
    expect(markLengthUm.value).toBe(0)
    expect(pitchUm.origin).toBe('exact')
    expect(newLengthUm.origin).toBe(pitch === 'threeEighths' ? 'commonPractice' : 'assumed')
  })

  // From about 6 mm to about 12 mm on 3/8", taken in proportion on the others.
  test('reach grows to twice itself, in proportion to the pitch', () => {
    expect(PITCH_PROFILES.threeEighths.reachUm.value).toEqual([6000, 12_000])
    expect(PITCH_PROFILES.quarter.reachUm.value).toEqual([4000, 8000])
    expect(PITCH_PROFILES.lowProfile.reachUm.value).toEqual([4850, 9701])
    expect(PITCH_PROFILES.p325.reachUm.value).toEqual([5200, 10_400])
    expect(PITCH_PROFILES.p404.reachUm.value).toEqual([6464, 12_929])
  })

  test('the top plate stands as high as the usual file needs to clear the strap, by hand', () => {
    // ¾ of the file, and length × tan 7°; on 3/8" ⅘ of the larger file and half the length.
    const heights = PITCH_CLASSES.map((pitch) => PITCH_PROFILES[pitch].topPlateHeightUm.value)
    expect(heights).toEqual([3675, 3798, 4459, 4891, 5169])
  })
})

test('figures of the bench and the cutter types: common practice', () => {
  expect(GAUGES_UM).toEqual([1100, 1300, 1500, 1600, 2000])
  expect(ROUTINE_REMOVAL_UM).toBe(200)
  expect(Object.values(BENCH_FIGURES).map(({ value }) => value)).toEqual([
    [0.2, 0.25],
    [55, 60],
    [0, 10],
    6000,
    [60, 90],
    2000,
  ])
  const types = Object.values(CUTTER_TYPE_PROFILES).map(({ cutterType, topPlateAngleDeg, dirtFactor }) => [
    cutterType,
    topPlateAngleDeg.value,
    dirtFactor.value,
  ])
  expect(types).toEqual([
    ['fullChisel', 30, 3],
    ['semiChisel', 30, 5 / 3],
    ['chipper', 30, 5 / 3],
    ['ripping', 10, 2],
    ['squareGround', 30, 3],
  ])
})

describe('where a value comes from', () => {
  test('the profile, until the loop has its own', () => {
    expect(originOf(SPEC, 'newLengthUm')).toBe('commonPractice')
    expect(originOf({ ...SPEC, pitchClass: 'p325' }, 'newLengthUm')).toBe('assumed')
    expect(originOf(SPEC, 'fileUm')).toBe('commonPractice')
    expect(originOf({ ...SPEC, cutterType: 'ripping' }, 'topPlateAngleDeg')).toBe('commonPractice')
    expect(originOf(SPEC, 'driveLinks')).toBe('crew')
    const boxed = changedSpec(SPEC, { settingUm: 600 }, 'box')
    expect(boxed).toMatchObject({ settingUm: 600, origins: { settingUm: 'box' } })
    expect(originOf(boxed, 'settingUm')).toBe('box')
  })

  test('what the crew said when it added the loop needs no word, until it was changed', () => {
    expect(isGiven(SPEC, 'driveLinks')).toBe(true)
    expect(isGiven(SPEC, 'settingUm')).toBe(false)
    expect(isGiven(changedSpec(SPEC, { driveLinks: 70 }, 'measured'), 'driveLinks')).toBe(false)
  })

  test('a spec is filled in from its profile', () => {
    const spec = specFromProfile({ pitchClass: 'p404', gaugeUm: 1600, driveLinks: 104, cutterType: 'ripping' })
    expect(spec).toMatchObject({
      sequence: 'full',
      firstHand: 'left',
      newLengthUm: 8500,
      markLengthUm: 0,
      settingUm: 800,
      fileUm: 5500,
      topPlateAngleDeg: 10,
    })
    expect(specLine(spec)).toBe('.404" · 1.6 mm · 104 links')
    expect(usableLengthUm({ newLengthUm: 9000, markLengthUm: 1500 })).toBe(7500)
  })
})
