import type { Conditions, FileAge, ReadWith, RetireReason, SharpenMethod, StrikeObject } from '../log'
import type { Population } from '../state'

/** How a sharpening was done, as the log says it. */
export const METHOD_WORDS: Readonly<Record<SharpenMethod, string>> = {
  fileField: 'filed in the field',
  fileBench: 'filed at the bench',
  grinder: 'ground',
  shop: 'by a shop',
}

/** How lengths were read, as the log says it; a caliper goes without saying. */
export const READ_WITH_WORDS: Readonly<Record<ReadWith, string>> = {
  caliper: 'Measured',
  ruler: 'Measured with a ruler',
  eye: 'Judged by eye',
}

/** What is chosen from: what it was done with, and where. */
export const METHOD_NAMES: Readonly<Record<SharpenMethod, string>> = {
  fileField: 'File, in the field',
  fileBench: 'File, at the bench',
  grinder: 'Grinder',
  shop: 'A shop',
}

/** What stands beside each way of sharpening, where the work is. */
export const METHOD_CAUTIONS: Readonly<Record<SharpenMethod, string>> = {
  fileField: 'Engine off and cold or battery out, brake on, gloves on. File away from you, push strokes only.',
  fileBench: 'Bar clamped, chain tight, brake on, gloves on. Handle on the file.',
  grinder:
    'Eye protection on, guard fitted, stand out of the plane of the wheel. ' +
    'The wheel’s marked speed must not be below the spindle’s; inspect and ring it first. ' +
    'Touch, lift, touch: blue steel has lost its temper.',
  shop: 'Look it over when it comes back, gauges too.',
}

/** What stands beside the gauges of low-kickback chain. */
export const BUMPER_CAUTION =
  'Low-kickback links: file each gauge alone, and keep the file off the bumper. It is never filed off.'

/** What the work was in, in the middle of a sentence. */
export const CONDITION_WORDS: Readonly<Record<Conditions, string>> = {
  clean: 'clean wood',
  gritty: 'gritty bark',
  soil: 'soil',
}

/** What a kind of sharpening is called, one of it and all of them. */
export const POPULATION_WORDS: Readonly<Record<Population, { readonly one: string; readonly all: string }>> = {
  touchUp: { one: 'touch-up', all: 'Touch-ups' },
  routine: { one: 'routine filing', all: 'Filing at the bench' },
  grind: { one: 'grind', all: 'Grinding' },
}

/** What a file is called by how used it is. */
export const FILE_AGE_WORDS: Readonly<Record<FileAge, string>> = {
  fresh: 'fresh file',
  used: 'used file',
  worn: 'worn file',
}

/** How used a file is, as the person who holds it says. */
export const FILE_AGE_NAMES: Readonly<Record<FileAge, string>> = { fresh: 'Fresh', used: 'Used', worn: 'Skates' }

/** What a loop struck. */
export const STRIKE_NAMES: Readonly<Record<StrikeObject, string>> = {
  stone: 'Stone',
  metal: 'Metal',
  soil: 'Soil',
  unknown: 'Not sure',
}

/** Why a loop is done with. */
export const RETIRE_NAMES: Readonly<Record<RetireReason, string>> = {
  worn: 'Worn out',
  damaged: 'Damaged',
  lost: 'Lost',
  mistake: 'Registered by mistake',
  other: 'Something else',
}
