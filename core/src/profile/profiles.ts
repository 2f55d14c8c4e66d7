import { fromInch, fromMm, type Um } from '../units'
import type { CutterType, CutterTypeProfile, Origin, PitchClass, PitchProfile, Sourced } from './profile'

const sourced = <T>(origin: Origin, value: T, note?: string): Sourced<T> =>
  note === undefined ? { value, origin } : { value, origin, note }
const exact = (value: Um): Sourced<Um> => sourced('exact', value, 'inch × 25.4')
const common = <T>(value: T, note?: string): Sourced<T> => sourced('commonPractice', value, note)

/** Drive-link thicknesses in use. Common practice. */
export const GAUGES_UM: readonly Um[] = [1100, 1300, 1500, 1600, 2000]

/** A routine sharpening takes about this off a cutter's length. Common practice. */
export const ROUTINE_REMOVAL_UM: Um = 200

/**
 * About 7°: at this slope four routine sharpenings (the middle of the usual three to five between
 * gauge passes) lower the edge by 0.1 mm.
 */
const SLOPE = sourced('derived', 7, 'from four sharpenings between gauge passes and a tolerance of 0.1 mm')

const MARK = common(0, 'lengths are read from the edge back to the witness mark')
const SHORTER = 'less than on a 3/8" chain; measure a new cutter'

/**
 * Reach grows from about 6 mm to about 12 mm on 3/8" (common practice); other pitches are taken
 * in proportion to their usable length.
 */
const reachLike38 = (pitchUm: Um): Sourced<readonly [Um, Um]> => {
  const ratio = pitchUm / 9525
  return sourced('derived', [Math.round(6000 * ratio), Math.round(12_000 * ratio)], 'in proportion to 3/8"')
}

const RADIANS = Math.PI / 180
/** How far the edge has sunk when a length is gone, at {@link SLOPE}. */
const sunk = (lengthUm: Um): Um => Math.round(lengthUm * Math.tan(SLOPE.value * RADIANS))

/**
 * Height of the top plate above the tie strap that lets the usual file, a quarter of it above the
 * plate, clear the strap down to the mark.
 */
const clearedBy = (fileUm: Um, usableUm: Um): Sourced<Um> =>
  sourced('derived', Math.round(fileUm * 0.75) + sunk(usableUm), 'the usual file clears the strap to the mark')

/** Widths of top plates: 5.5 mm on 3/8", others by the size of their cutters. Starting values: measure one. */
const plateWidth = (um: Um): Sourced<Um> => sourced('assumed', um, 'measure one across the chain')

/**
 * The five pitch classes. Figures are common practice unless their origin says otherwise, and a
 * loop's own box, sheet or measurement replaces any of them.
 */
export const PITCH_PROFILES: Readonly<Record<PitchClass, PitchProfile>> = {
  quarter: {
    pitchClass: 'quarter',
    name: '1/4"',
    pitchUm: exact(fromInch(1 / 4)),
    gaugesUm: common([1100, 1300]),
    filesUm: common([fromMm(4)], '5/32"'),
    wheelUm: common([3200, 3200]),
    settingUm: common(650),
    newLengthUm: sourced('assumed', 5500, SHORTER),
    markLengthUm: MARK,
    reachUm: reachLike38(6350),
    topPlateSlopeDeg: SLOPE,
    topPlateHeightUm: clearedBy(fromMm(4), 5500),
    plateWidthUm: plateWidth(3700),
  },
  lowProfile: {
    pitchClass: 'lowProfile',
    name: '3/8" low profile',
    pitchUm: exact(fromInch(3 / 8)),
    gaugesUm: common([1100, 1300]),
    filesUm: common([fromMm(4)], '5/32"'),
    wheelUm: common([3200, 3200]),
    settingUm: common(650, 'very light versions 0.45 mm'),
    newLengthUm: sourced('assumed', 6500, SHORTER),
    markLengthUm: MARK,
    reachUm: reachLike38(7700),
    topPlateSlopeDeg: SLOPE,
    topPlateHeightUm: clearedBy(fromMm(4), 6500),
    plateWidthUm: plateWidth(4500),
  },
  p325: {
    pitchClass: 'p325',
    name: '.325"',
    pitchUm: exact(fromInch(0.325)),
    gaugesUm: common([1300, 1500, 1600]),
    filesUm: common([fromMm(4.8)], '3/16"'),
    wheelUm: common([4700, 4800]),
    settingUm: common(650),
    newLengthUm: sourced('assumed', 7000, SHORTER),
    markLengthUm: MARK,
    reachUm: reachLike38(8255),
    topPlateSlopeDeg: SLOPE,
    topPlateHeightUm: clearedBy(fromMm(4.8), 7000),
    plateWidthUm: plateWidth(4800),
  },
  threeEighths: {
    pitchClass: 'threeEighths',
    name: '3/8"',
    pitchUm: exact(fromInch(3 / 8)),
    gaugesUm: common([1300, 1500, 1600]),
    filesUm: common([fromMm(5.2), fromMm(5.5)], '13/64" or 7/32": two schools'),
    wheelUm: common([4700, 4800]),
    settingUm: common(650),
    newLengthUm: common(8000, 'about 8 mm from new to the witness mark'),
    markLengthUm: MARK,
    reachUm: common([6000, 12_000]),
    topPlateSlopeDeg: SLOPE,
    // The larger file is used until about half worn: a fifth of it above the plate, it then just clears.
    topPlateHeightUm: sourced(
      'derived',
      Math.round(fromMm(5.5) * 0.8) + sunk(4000),
      'the larger file clears the strap until half worn',
    ),
    plateWidthUm: plateWidth(5500),
  },
  p404: {
    pitchClass: 'p404',
    name: '.404"',
    pitchUm: exact(fromInch(0.404)),
    gaugesUm: common([1600]),
    filesUm: common([fromMm(5.5)], '7/32"'),
    wheelUm: common([4700, 6000]),
    settingUm: common(800),
    newLengthUm: sourced('assumed', 8500, 'a little more than 3/8"; measure a new cutter'),
    markLengthUm: MARK,
    reachUm: reachLike38(10_262),
    topPlateSlopeDeg: SLOPE,
    topPlateHeightUm: clearedBy(fromMm(5.5), 8500),
    plateWidthUm: plateWidth(6000),
  },
}

/** Figures of the bench that do not depend on the pitch. Common practice. */
export const BENCH_FIGURES = {
  /** Part of a round file's diameter above the top plate, least and most. */
  filePartAbove: common([0.2, 0.25] as const),
  /** Head tilts in use on a grinder. */
  headTiltDeg: common([55, 60] as const),
  /** Down angles in use for full chisel; some makers say none. */
  downAngleDeg: common([0, 10] as const),
  /** Thickness of the wheel for depth gauges, with the clamp at 0°. */
  gaugeWheelUm: common(6000),
  /** Head angles for the depth-gauge wheel, by machine. */
  gaugeHeadDeg: common([60, 90] as const),
  /** Strokes after which a round file skates. */
  fileLifeStrokes: common(2000),
} as const

/** What dirt adds to the wear of a rounded corner: a third of what it adds to that of a square one. */
const ROUNDED_IN_DIRT = common(5 / 3, 'dirt dulls a rounded corner roughly a third as fast as a square one')

/** What each cutter type brings. Common practice. */
export const CUTTER_TYPE_PROFILES: Readonly<Record<CutterType, CutterTypeProfile>> = {
  fullChisel: {
    cutterType: 'fullChisel',
    topPlateAngleDeg: common(30, 'many use 25° on full chisel'),
    dirtFactor: common(3, 'a semi-chisel holds roughly three times the edge in dirty wood'),
  },
  semiChisel: { cutterType: 'semiChisel', topPlateAngleDeg: common(30), dirtFactor: ROUNDED_IN_DIRT },
  chipper: { cutterType: 'chipper', topPlateAngleDeg: common(30), dirtFactor: ROUNDED_IN_DIRT },
  ripping: { cutterType: 'ripping', topPlateAngleDeg: common(10), dirtFactor: sourced('assumed', 2) },
  squareGround: {
    cutterType: 'squareGround',
    topPlateAngleDeg: common(30),
    dirtFactor: sourced('assumed', 3, 'as full chisel'),
  },
}
