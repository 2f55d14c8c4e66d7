import type { Shelf } from '../log'
import type { Sequence } from '../loop'
import {
  GAUGES_UM,
  PITCH_CLASSES,
  PITCH_PROFILES,
  START_MARKS,
  type CutterType,
  type PitchClass,
  type StartMark,
} from '../profile'
import { fromInch, readLength, writeMm, type Um } from '../units'

/** A cell as it was understood, with what is in doubt about it, or why it cannot be. */
export type Cell<T> =
  | { readonly ok: true; readonly value: T; readonly doubt?: string }
  | { readonly ok: false; readonly message: string }

const right = <T>(value: T, doubt?: string): Cell<T> =>
  doubt === undefined ? { ok: true, value } : { ok: true, value, doubt }
/** What a bare figure is in, under a heading that names a unit. */
type CellUnit = 'mm' | 'inch' | 'thou'

/** Words that a spreadsheet puts where a formula went wrong. */
export const isSheetError = (text: string): boolean =>
  /^#(ref|name|value|div\/0|n\/a|null|num|formula)/i.test(text.trim())

/** A length as a cell holds it: with a comma, with the other unit behind it in brackets or after a stroke. */
function readIn(text: string, unit: CellUnit): ReturnType<typeof readLength> {
  const plain = text
    .replace(/\([^)]*\)/g, ' ')
    .replace(',', '.')
    .trim()
  const bare = unit === 'thou' && /^[\d.]+$/.test(plain) ? `${plain} thou` : plain
  const reading = readLength(bare, unit === 'mm' ? 'mm' : 'inch')
  const [first = '', second] = plain.split(/\s*[/|]\s*(?=[.\d]*\.)/)
  return reading.ok || second === undefined ? reading : readLength(first, unit === 'mm' ? 'mm' : 'inch')
}
const wrong = (message: string): Cell<never> => ({ ok: false, message })

/** A nominal thickness may be written this far off and still be meant. Starting value. */
const GAUGE_NEAR_UM = 60
/** The millimetres and inches in which a thickness is named differ by up to this: .050" is 1.27 mm. */
const NOMINAL_UM = 35
/** The same for a pitch. Starting value. */
const PITCH_NEAR_UM = 120

/**
 * The kind of pitch that a cell names. "3/8" alone is the classic mistake: low profile and
 * standard share that pitch, so which it is comes from what else the row says, as a doubt.
 *
 * @param low whether the rest of the row speaks for low profile
 */
export function readPitchCell(text: string, low: boolean): Cell<PitchClass> {
  const plain = text.toLowerCase().replace(/[″”“]/g, '"').trim()
  if (plain === '') return wrong('The pitch is missing.')
  const saysLow = /(\b|\d)(lp|lo.?pro|low|narrow)/.test(plain)
  if (saysLow && !/\d/.test(plain)) return right('lowProfile')
  const named = /(?<![\d.,/])(250|325|375|404)(?!\d)/.exec(plain)?.[1]
  const number =
    named !== undefined
      ? `.${named}`
      : (plain
          .replace(',', '.')
          .replace(/[^0-9./]/g, ' ')
          .trim()
          .split(/\s+/)[0] ?? '')
  const reading = readLength(number.includes('/') || Number(number) < 1 ? `${number}"` : `${number} mm`, 'mm')
  if (!reading.ok) return wrong(`"${text}" is not a pitch.`)
  const near = PITCH_CLASSES.filter(
    (pitch) => Math.abs(PITCH_PROFILES[pitch].pitchUm.value - reading.um) <= PITCH_NEAR_UM,
  )
  const [first] = near
  if (first === undefined) return wrong(`"${text}" is no pitch in use: they are 1/4", .325", 3/8" and .404".`)
  if (near.length === 1) return right(first)
  if (saysLow) return right('lowProfile')
  if (/std|stand|regular|full|\breg\b/.test(plain)) return right('threeEighths')
  return low
    ? right('lowProfile', '"3/8" alone: taken as low profile, by its file, gauge or cutter.')
    : right('threeEighths', '"3/8" alone: taken as standard, not low profile. Check it.')
}

/**
 * A drive-link thickness: 1.3, .050", 50 (thousandths).
 *
 * @example
 * readGaugeCell('.058', 'mm') // { ok: true, value: 1500 }
 */
export function readGaugeCell(text: string, unit: CellUnit): Cell<Um> {
  const plain = text.replace(',', '.').trim()
  if (plain === '') return wrong('The gauge is missing.')
  const thousandths = /^0*(43|50|58|63|80)$/.exec(plain)
  const bare = /^\d*\.\d+$/.test(plain) ? Number(plain) : NaN
  const um = thousandths ? fromInch(Number(thousandths[1]) / 1000) : bare < 0.2 ? fromInch(bare) : null
  const reading = um === null ? readIn(plain, unit) : { ok: true as const, um }
  if (!reading.ok) return wrong(`"${text}" is not a gauge.`)
  const nearest = GAUGES_UM.reduce((best, one) =>
    Math.abs(one - reading.um) < Math.abs(best - reading.um) ? one : best,
  )
  const off = Math.abs(nearest - reading.um)
  if (off > GAUGE_NEAR_UM) return wrong(`A gauge of ${writeMm(reading.um)} is not in use.`)
  return right(
    nearest,
    off > NOMINAL_UM ? `${writeMm(reading.um)} taken as ${writeMm(nearest, 1)}: worn, or a slip.` : undefined,
  )
}

/** A count of drive links, with or without letters behind it. */
export function readDriveLinksCell(text: string): Cell<number> {
  const digits = /^\s*(\d{1,4})\s*[a-z. ]*$/i.exec(text)?.[1]
  if (text.trim() === '') return wrong('The drive links are missing.')
  if (digits === undefined) return wrong(`"${text}" is not a count of drive links.`)
  const count = Number(digits)
  return count < 20 || count > 250 ? wrong(`A loop has 20 to 250 drive links, not ${count}.`) : right(count)
}

export function readCutterTypeCell(text: string): Cell<CutterType> {
  const plain = text
    .toLowerCase()
    .replace(/(full|semi|half)?[ -]?skip([ -]?(tooth|sequence|chain))?/, '')
    .trim()
  if (plain === '') return right('semiChisel', 'No cutter type: taken as semi-chisel.')
  if (/square/.test(plain)) return right('squareGround')
  if (/rip|mill/.test(plain)) return right('ripping')
  if (/chip|\blp\b|low/.test(plain)) return right('chipper')
  if (/semi|round|^sc$|micro/.test(plain)) return right('semiChisel')
  if (/full|chisel|^fc$/.test(plain)) return right('fullChisel')
  return wrong(`"${text}" is not a cutter type: full chisel, semi-chisel, chipper, ripping or square-ground.`)
}

/** Whether a cutter type names a sequence besides: a skip tooth is no kind of cutter. */
export const namesSkip = (text: string): boolean => /skip/i.test(text)

export function readSequenceCell(text: string): Cell<Sequence> {
  const plain = text.toLowerCase().trim()
  if (/semi|half|^1\/2/.test(plain)) return right('semiSkip')
  if (/^(no|none|0|-)( skip)?$/.test(plain)) return right('full')
  if (/skip|^fs$/.test(plain)) return right('fullSkip')
  if (plain === '' || /full|standard|\bstd\b|comp/.test(plain)) return right('full')
  return wrong(`"${text}" is not a sequence: full, semi-skip or full skip.`)
}

export function readLengthCell(text: string, unit: CellUnit): Cell<Um | null> {
  if (text.trim() === '') return right(null)
  if (isSheetError(text)) return wrong(`"${text}" is a formula that went wrong in the sheet.`)
  const reading = readIn(text, unit)
  return reading.ok ? right(reading.um) : wrong(`"${text}" is not a length.`)
}

/** What a cell says of how much is left of the cutters. */
export type Left =
  | { readonly is: 'unsaid' }
  | { readonly is: 'new' }
  /** Used, and nobody says how far. */
  | { readonly is: 'used' }
  /** By eye: the part of what lies between new and the mark. */
  | { readonly is: 'part'; readonly part: number }
  /** By eye: about so long. */
  | { readonly is: 'about'; readonly um: Um }
  | { readonly is: 'measured'; readonly um: Um }

/** Words for how much is left, the surest first. */
const LEFT_WORDS: readonly (readonly [RegExp, Left])[] = [
  [/^(never|not|un).?used/, { is: 'new' }],
  [/almost none|nearly (gone|done|dead|finished)|worn out|at the mark|last legs/, { is: 'part', part: 0 }],
  [/three.?quarters?|3\/4|¾/, { is: 'part', part: 0.75 }],
  [/half|1\/2|½/, { is: 'part', part: 0.5 }],
  [/third|1\/3|⅓/, { is: 'part', part: 0.33 }],
  [/quarter|1\/4|¼/, { is: 'part', part: 0.25 }],
  [/nearly (all|new)|almost new|like new|as new|good as new/, { is: 'part', part: 0.95 }],
  [/^(brand )?new\b|unused|in (the|its) box/, { is: 'new' }],
  [/short|\blow\b|worn/, { is: 'part', part: 0.2 }],
  [/good|plenty|long/, { is: 'part', part: 0.8 }],
  [/used|old|second.?hand|filed|ok/, { is: 'used' }],
]
/** A part named like this is what is gone. */
const GONE = /gone|worn|used up/

/**
 * How much is left of the cutters, as people write it: `6.5`, `about 5`, `new`, `about half`, `60 %`.
 * What was judged by eye is never taken for a reading.
 *
 * @example
 * readLeftCell('about half', 'mm') // { ok: true, value: { is: 'part', part: 0.5 } }
 */
export function readLeftCell(text: string, unit: CellUnit): Cell<Left> {
  const plain = text.toLowerCase().trim()
  if (plain === '' || plain === '?' || plain === '-') return right({ is: 'unsaid' })
  if (isSheetError(plain)) return wrong(`"${text}" is a formula that went wrong in the sheet.`)
  const left = readPercent(plain) ?? readLeftLength(plain, unit) ?? readLeftWords(plain)
  if (left === null) return wrong(`"${text}" does not say how much is left: a length, new, used or about half.`)
  return right(left, plain === '1/4' ? '"1/4" is taken for a quarter of a cutter, not of an inch.' : undefined)
}

/** A part in hundredths, of what is left or of what is gone. */
function readPercent(plain: string): Left | null {
  const percent = /^(?:about|ca\.?|~)?\s*(\d{1,3})\s*%/.exec(plain)?.[1]
  if (percent === undefined || Number(percent) > 100) return null
  const part = Number(percent) / 100
  return { is: 'part', part: GONE.test(plain) ? 1 - part : part }
}

const BY_EYE = /^(?:about|approx\.?|around|roughly|circa|ca\.?|~|≈)\s*(?=[.\d])|(?<=\d)\s*(?:ish|\?)$/

/** A length, read or by eye. A bare fraction is a part: no cutter is half an inch long. */
function readLeftLength(plain: string, unit: CellUnit): Left | null {
  const exact = plain.replace(BY_EYE, '')
  if (/^\s*[1-3]\/[234]\s*$/.test(exact)) return null
  const reading = readIn(exact, unit)
  return reading.ok ? { is: exact === plain ? 'measured' : 'about', um: reading.um } : null
}

function readLeftWords(plain: string): Left | null {
  const found = LEFT_WORDS.find(([words]) => words.test(plain))?.[1] ?? null
  if (found?.is !== 'part') return found
  const names = /\d|half|third|quarter|[¼½¾⅓]/.test(plain)
  return { is: 'part', part: GONE.test(plain) && names ? 1 - found.part : found.part }
}

/** Where a row says that its loop is. */
export type ImportPlace = Shelf | 'saw' | 'shop' | 'retired'

export function readPlaceCell(text: string): Cell<ImportPlace | null> {
  const plain = text.toLowerCase().trim()
  if (plain === '') return right(null)
  if (/retire|scrap|bin|dead|gone/.test(plain)) return right('retired')
  if (/shop|sent|service/.test(plain)) return right('shop')
  if (/truck|\bvan\b|lorry|trailer/.test(plain)) return right('truck')
  if (/dull|blunt/.test(plain)) return right('dullBox')
  if (/rack|hook|sharp|wall/.test(plain)) return right('sharpRack')
  if (/bench|shed/.test(plain)) return right('bench')
  if (/saw|fitted|^on\b/.test(plain)) return right('saw')
  return right(null, `"${text}" is no place that is known: put on the bench.`)
}

export function readStartMarkCell(text: string): Cell<StartMark | null> {
  const plain = text.toLowerCase().trim()
  if (plain === '') return right(null)
  const found = START_MARKS.find((mark) => plain.includes(mark))
  return found === undefined ? right(null, `Start mark "${text}" is not a colour on the list; left out.`) : right(found)
}

/** A cell as plain text: one line, no control characters, no apostrophe before a formula. */
export function cleanCell(raw: string): { readonly text: string; readonly changed: boolean } {
  const plain = raw.replace(/[\u0000-\u001f\u007f\ud800-\udfff]+/gu, ' ').replace(/^'(?=[=+\-@])/, '')
  const text = plain.replace(/ +/g, ' ').trim()
  return { text, changed: /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]/.test(raw) }
}
