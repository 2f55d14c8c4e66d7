import type { Sequence } from '../loop'
import {
  PITCH_PROFILES,
  type CutterType,
  type LinkKind,
  type Origin,
  type SpecField,
  type SpecValues,
} from '../profile'
import { writeFile, writeLength, type LengthPreference } from '../units'

/** Where a value comes from, in words. */
export const ORIGIN_WORDS: Record<Origin, string> = {
  exact: 'by definition',
  commonPractice: 'common practice',
  assumed: 'assumed; measure it',
  derived: 'worked out from common practice',
  box: 'from the box or sheet',
  measured: 'by measuring',
  crew: "the crew's own",
}

/** What a cutter type is called. */
export const CUTTER_TYPE_NAMES: Record<CutterType, string> = {
  fullChisel: 'full chisel',
  semiChisel: 'semi-chisel',
  chipper: 'low-profile chipper',
  ripping: 'ripping',
  squareGround: 'square-ground chisel',
}

/** What a sequence of cutters is called. */
export const SEQUENCE_NAMES: Record<Sequence, string> = {
  full: 'full complement',
  semiSkip: 'semi-skip',
  fullSkip: 'full skip',
}

/** What links are called that are plain, or have a bumper. */
export const LINK_KIND_NAMES: Readonly<Record<LinkKind, string>> = { plain: 'plain', bumper: 'low-kickback, bumpers' }

/** What each value of a spec is called, in the middle of a sentence. */
export const SPEC_FIELD_NAMES: Readonly<Record<SpecField, string>> = {
  pitchClass: 'pitch',
  gaugeUm: 'gauge',
  driveLinks: 'drive links',
  sequence: 'sequence',
  cutterType: 'cutters',
  firstHand: 'hand of cutter 1',
  newLengthUm: 'new cutter',
  markLengthUm: 'reading at the mark',
  settingUm: 'gauge setting',
  fileUm: 'file',
  topPlateAngleDeg: 'top plate angle',
  downAngleDeg: 'down angle',
  headTiltDeg: 'head tilt',
  startMark: 'start mark',
  links: 'links',
  stamp: 'stamped',
}

type Sayers = { readonly [F in SpecField]: (value: NonNullable<SpecValues[F]>, lengths: LengthPreference) => string }

const SAY: Sayers = {
  pitchClass: (value) => PITCH_PROFILES[value].name,
  gaugeUm: writeLength,
  driveLinks: String,
  sequence: (value) => SEQUENCE_NAMES[value],
  cutterType: (value) => CUTTER_TYPE_NAMES[value],
  firstHand: String,
  newLengthUm: writeLength,
  markLengthUm: writeLength,
  settingUm: writeLength,
  fileUm: writeFile,
  topPlateAngleDeg: (value) => `${value}°`,
  downAngleDeg: (value) => `${value}°`,
  headTiltDeg: (value) => `${value}°`,
  startMark: String,
  links: (value) => LINK_KIND_NAMES[value],
  stamp: String,
}

/**
 * A value of a spec in words; empty where there is none.
 *
 * @example
 * saySpecValue({ fileUm: 5200 }, 'fileUm', 'mm') // '5.2 mm (13/64")'
 */
export function saySpecValue(values: Partial<SpecValues>, field: SpecField, lengths: LengthPreference): string {
  const value = values[field]
  const say = SAY[field] as (value: string | number, lengths: LengthPreference) => string
  return value === undefined ? '' : say(value, lengths)
}
