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
  { readonly ok: true; readonly value: T; readonly doubt?: string } | { readonly ok: false; readonly message: string }

const right = <T>(value: T, doubt?: string): Cell<T> =>
  doubt === undefined ? { ok: true, value } : { ok: true, value, doubt }
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
  const saysLow = /\b(lp|lo.?pro|low|narrow)/.test(plain)
  const number =
    plain
      .replace(/[^0-9./]/g, ' ')
      .trim()
      .split(/\s+/)[0] ?? ''
  const reading = readLength(number.includes('/') || Number(number) < 1 ? `${number}"` : `${number} mm`, 'mm')
  if (!reading.ok) return wrong(`"${text}" is not a pitch.`)
  const near = PITCH_CLASSES.filter(
    (pitch) => Math.abs(PITCH_PROFILES[pitch].pitchUm.value - reading.um) <= PITCH_NEAR_UM,
  )
  const [first] = near
  if (first === undefined) return wrong(`"${text}" is no pitch in use: they are 1/4", .325", 3/8" and .404".`)
  if (near.length === 1) return right(first)
  if (saysLow) return right('lowProfile')
  if (/std|stand|regular|full/.test(plain)) return right('threeEighths')
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
export function readGaugeCell(text: string, unit: 'mm' | 'inch'): Cell<Um> {
  const plain = text.replace(',', '.').trim()
  if (plain === '') return wrong('The gauge is missing.')
  const thousandths = /^0*(43|50|58|63|80)$/.exec(plain)
  const bare = /^\d*\.\d+$/.test(plain) ? Number(plain) : NaN
  const um = thousandths ? fromInch(Number(thousandths[1]) / 1000) : bare < 0.2 ? fromInch(bare) : null
  const reading = um === null ? readLength(plain, unit) : { ok: true as const, um }
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
  const plain = text.toLowerCase()
  if (plain.trim() === '') return right('semiChisel', 'No cutter type: taken as semi-chisel.')
  if (/square/.test(plain)) return right('squareGround')
  if (/rip|mill/.test(plain)) return right('ripping')
  if (/chip|\blp\b|low/.test(plain)) return right('chipper')
  if (/semi|round/.test(plain)) return right('semiChisel')
  if (/full|chisel/.test(plain)) return right('fullChisel')
  return wrong(`"${text}" is not a cutter type: full chisel, semi-chisel, chipper, ripping or square-ground.`)
}

export function readSequenceCell(text: string): Cell<Sequence> {
  const plain = text.toLowerCase()
  if (plain.trim() === '' || /full comp|^full$|standard/.test(plain)) return right('full')
  if (/semi/.test(plain)) return right('semiSkip')
  if (/skip/.test(plain)) return right('fullSkip')
  return wrong(`"${text}" is not a sequence: full, semi-skip or full skip.`)
}

export function readLengthCell(text: string, unit: 'mm' | 'inch'): Cell<Um | null> {
  if (text.trim() === '') return right(null)
  const reading = readLength(text.replace(',', '.'), unit)
  return reading.ok ? right(reading.um) : wrong(`"${text}" is not a length.`)
}

/** Where a row says that its loop is. */
export type ImportPlace = Shelf | 'saw' | 'shop' | 'retired'

export function readPlaceCell(text: string): Cell<ImportPlace | null> {
  const plain = text.toLowerCase().trim()
  if (plain === '') return right(null)
  if (/retire|scrap|bin|dead|gone/.test(plain)) return right('retired')
  if (/shop|sent|service/.test(plain)) return right('shop')
  if (/truck|van|lorry|trailer/.test(plain)) return right('truck')
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
