import { fromInch, fromMm, fromThou, UM_PER_INCH, UM_PER_MM, type LengthUnit, type Um } from './length'

/** Why a piece of text was not taken for a length. */
export type LengthRefusal =
  | 'empty'
  | 'aCode'
  | 'notALength'
  | 'unknownUnit'
  | 'twoSeparators'
  | 'zeroDenominator'
  | 'fractionOfMm'
  | 'negative'
  | 'tooLong'

/** A length as it was read, or why it was not. */
export type LengthReading =
  | {
      ok: true
      um: Um
      unit: LengthUnit
      /** True when the text named no unit and one was taken from its form or its context. */
      assumed: boolean
      /** Typed as a fraction: as a ruler is read, to no more than it shows. */
      fraction: boolean
    }
  | {
      ok: false
      reason: LengthRefusal
      /** One plain sentence for the person who typed it. */
      message: string
      /** The nearest text that would have been understood and is a likely length; null when nothing is near. */
      nearest: string | null
    }

/** The longest length that is read: ten metres, well past any guide bar. */
export const LONGEST_READ_UM = 10_000_000

/** Lengths that somebody may well have meant: from a hair off a gauge to the longest bar. */
const LIKELY_UM = { least: 50, most: 1_100_000 } as const

const MESSAGES: Record<LengthRefusal, string> = {
  empty: 'Nothing was typed.',
  aCode: 'That is a code, as of a pack or a page, and not a length.',
  notALength: 'That is not a length.',
  unknownUnit: 'The unit is not one that is read here: mm, in or thou.',
  twoSeparators: 'There is more than one decimal mark.',
  zeroDenominator: 'A fraction cannot be over zero.',
  fractionOfMm: 'Fractions are read as inches only; write millimetres as a decimal.',
  negative: 'A length cannot be less than nothing.',
  tooLong: 'That is longer than ten metres.',
}

const UNITS: Record<string, LengthUnit> = {
  mm: 'mm',
  millimetre: 'mm',
  millimetres: 'mm',
  millimeter: 'mm',
  millimeters: 'mm',
  in: 'inch',
  inch: 'inch',
  inches: 'inch',
  '"': 'inch',
  "''": 'inch',
  thou: 'thou',
  mil: 'thou',
  mils: 'thou',
}

const DECIMAL = /^(\d+(?:\.\d*)?|\.\d+)$/
const FRACTION = /^(?:(\d+)(?:\s+|-))?(\d+)\/(\d+)$/
/** What a scanner types into a field that is meant for a reading: the digits of a pack, or a web address. */
const CODE = /^\d{8,}$|:\/\//
const SPLIT = /^(-?)\s*([\d.,\s/-]*[\d.,])\s*(.*)$/

/** Vulgar fractions, primes, odd spaces and slashes brought to plain ASCII. */
function plain(text: string): string {
  return text
    .replace(/(\d)\s*([\u00BC-\u00BE\u2150-\u215E])/g, '$1 $2')
    .normalize('NFKC')
    .replace(/[\u2044\u2215]/g, '/')
    .replace(/[\u2032\u2019]{2}|[\u2033\u201C\u201D]/g, '"')
    .replace(/[\u2212\u2013]/g, '-')
    .replace(/\s+/g, ' ')
    .trim()
    .toLowerCase()
}

/** Text that is near to the one refused, would be read and is a likely length; null when there is none. */
function nearestTo(text: string, bare: 'mm' | 'inch'): string | null {
  const kept = text
    .replace(/\\/g, '/')
    .replace(/\bcm\b/, 'mm')
    .replace(/-/g, ' ')
    .replace(/\.{2,}/g, '.')
    .replace(/,{2,}/g, ',')
  const number = /\d+ \d+\/\d+|\d+\/\d+|\d*[.,]\d+|\d+/.exec(kept)?.[0]
  if (number === undefined) return null
  const named = /mm|inch|in|thou|"/.exec(kept.slice(kept.indexOf(number) + number.length))?.[0]
  const unit = number.includes('/') ? (named === 'mm' || named === undefined ? 'in' : named) : (named ?? bare)
  const candidate = unit === '"' ? `${number}"` : `${number} ${unit}`
  const meant = read(candidate, bare)
  return meant.ok && meant.um >= LIKELY_UM.least && meant.um <= LIKELY_UM.most ? candidate : null
}

function refuse(reason: LengthRefusal, text: string, bare: 'mm' | 'inch'): LengthReading {
  const nearest = reason === 'aCode' ? null : nearestTo(text, bare)
  return { ok: false, reason, message: MESSAGES[reason], nearest }
}

type Parsed =
  | { ok: true; um: Um; unit: LengthUnit; assumed: boolean; fraction: boolean }
  | { ok: false; reason: LengthRefusal }

const no = (reason: LengthRefusal): Parsed => ({ ok: false, reason })

const FROM: Readonly<Record<LengthUnit, (value: number) => Um>> = { mm: fromMm, inch: fromInch, thou: fromThou }

const within = (um: Um, unit: LengthUnit, assumed: boolean, fraction = false): Parsed =>
  um > LONGEST_READ_UM ? no('tooLong') : { ok: true, um, unit, assumed, fraction }

/** The unit that the text behind a number names; null for none, undefined for one that is not read. */
const unitNamed = (suffix: string): LengthUnit | null | undefined => (suffix === '' ? null : UNITS[suffix])

function readFraction(number: string, named: LengthUnit | null): Parsed {
  const fraction = FRACTION.exec(number)
  if (fraction === null) return no('notALength')
  if (named === 'mm' || named === 'thou') return no('fractionOfMm')
  const [, whole = '0', top = '', bottom = ''] = fraction
  if (Number(bottom) === 0) return no('zeroDenominator')
  return within(fromInch(Number(whole) + Number(top) / Number(bottom)), 'inch', named === null, true)
}

function read(text: string, bare: 'mm' | 'inch'): Parsed {
  if (text === '') return no('empty')
  if (CODE.test(text)) return no('aCode')
  const split = SPLIT.exec(text)
  if (split === null) return no('notALength')
  const [, sign, rawNumber = '', suffix = ''] = split
  if (sign === '-') return no('negative')
  const named = unitNamed(suffix)
  if (named === undefined) return no(/^[a-z"'°%µ]+$/.test(suffix) ? 'unknownUnit' : 'notALength')
  const number = rawNumber.trim()
  if ((number.match(/[.,]/g) ?? []).length > 1) return no('twoSeparators')
  const decimal = number.replace(',', '.')
  if (!DECIMAL.test(decimal)) return readFraction(number, named)
  const unit = named ?? bare
  return within(FROM[unit](Number(decimal)), unit, named === null)
}

/**
 * Reads a length as a person or a caliper types it: `5.2`, `5,2`, `5.2mm`, `.25`, `0.325"`,
 * `3/8`, `13/64 in`, `25 thou`, `1 1/16"`.
 *
 * A bare fraction is inches, since nobody writes millimetres so. Any other bare number is in `bare`,
 * `.250` too: inches need a mark.
 *
 * @param text what was typed
 * @param bare the unit of a number that names none; millimetres unless told otherwise
 * @returns the length in micrometres, or a refusal with its reason, a sentence, and the nearest
 *   text that would have been understood, if any is likely. Never throws.
 *
 * @example
 * readLength('13/64 in')  // { ok: true, um: 5159, unit: 'inch', assumed: false, fraction: true }
 * readLength('5..2')      // { ok: false, reason: 'twoSeparators', nearest: '5.2 mm', … }
 */
export function readLength(text: string, bare: 'mm' | 'inch' = 'mm'): LengthReading {
  const typed = plain(text.slice(0, 60))
  const parsed = read(typed, bare)
  return parsed.ok ? parsed : refuse(parsed.reason, typed, bare)
}

/**
 * A refusal as a sentence, with what it would be read as where that is likely.
 *
 * @example
 * sayRefusal({ message: 'There is more than one decimal mark.', nearest: '5.2 mm' })
 * // 'There is more than one decimal mark. It would be read as: 5.2 mm'
 */
export const sayRefusal = ({
  message,
  nearest,
}: {
  readonly message: string
  readonly nearest: string | null
}): string => (nearest === null ? message : `${message} It would be read as: ${nearest}`)

/**
 * The same figure with its decimal mark moved one place either way, for asking after a slip.
 *
 * @example
 * slippedDecimals(52_000) // [5200, 520000]
 */
export const slippedDecimals = (um: Um): [Um, Um] => [Math.round(um / 10), um * 10]

/**
 * What the bare figure would have been in the other system, for asking after a wrong unit.
 * `otherUnit(330, 'mm') // 8382`: 0.33 typed as mm, meant as inches.
 */
export const otherUnit = (um: Um, unit: LengthUnit): Um =>
  unit === 'mm' ? Math.round((um / UM_PER_MM) * UM_PER_INCH) : Math.round((um / UM_PER_INCH) * UM_PER_MM)
