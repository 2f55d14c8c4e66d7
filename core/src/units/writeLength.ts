import { UM_PER_INCH, UM_PER_MM, type Um } from './length'

/** What a crew reads lengths in. */
export const LENGTH_PREFERENCES = ['mm', 'inch', 'both'] as const
export type LengthPreference = (typeof LENGTH_PREFERENCES)[number]

/**
 * Millimetres as people read them.
 *
 * @param digits decimals, two unless told otherwise
 * @example
 * writeMm(5200) // '5.20 mm'
 */
export const writeMm = (um: Um, digits = 2): string => `${(um / UM_PER_MM).toFixed(digits)} mm`

/**
 * Decimal inches the way the trade writes them: three decimals, no leading zero.
 *
 * @example
 * writeInch(635)    // '.025"'
 * writeInch(26_988) // '1.063"'
 */
export const writeInch = (um: Um): string => `${(um / UM_PER_INCH).toFixed(3).replace(/^(-?)0\./, '$1.')}"`

/**
 * A length as a fraction of an inch in 64ths when it lies within `tolerance` of one.
 *
 * @param tolerance how far off a 64th still counts, in micrometres
 * @returns the fraction in lowest terms, or null when none is near
 * @example
 * writeFraction(9525) // '3/8"'
 * writeFraction(8255) // null
 */
export function writeFraction(um: Um, tolerance: Um = 50): string | null {
  const parts = Math.round((um / UM_PER_INCH) * 64)
  if (parts <= 0 || Math.abs((parts * UM_PER_INCH) / 64 - um) > tolerance) return null
  const whole = Math.floor(parts / 64)
  let top = parts % 64
  let bottom = 64
  while (top !== 0 && top % 2 === 0) {
    top /= 2
    bottom /= 2
  }
  const fraction = top === 0 ? '' : `${top}/${bottom}`
  return `${[whole === 0 ? '' : String(whole), fraction].filter(Boolean).join(' ')}"`
}

/**
 * A length as the crew likes to read it.
 *
 * @example
 * writeLength(650, 'both') // '0.65 mm · .026"'
 */
export function writeLength(um: Um, preference: LengthPreference): string {
  switch (preference) {
    case 'mm':
      return writeMm(um)
    case 'inch':
      return writeInch(um)
    case 'both':
      return `${writeMm(um)} · ${writeInch(um)}`
  }
}

/** Decimals beyond which no micrometre is lost in either unit. */
const MOST_DECIMALS = 6

/**
 * A length as a field shows it, to be typed over: the shortest figure that is read as the same
 * micrometres again.
 *
 * @param bare unit of a number that names none
 * @example
 * lengthField(650, 'mm') // '0.65'
 * lengthField(500, 'inch') // '0.0197'
 */
export function lengthField(um: Um, bare: 'mm' | 'inch'): string {
  const each = bare === 'mm' ? UM_PER_MM : UM_PER_INCH
  const text = (digits: number): string => (um / each).toFixed(digits)
  let digits = 0
  while (digits < MOST_DECIMALS && Math.round(Number(text(digits)) * each) !== um) digits += 1
  return text(digits)
}

/**
 * A file diameter as people ask for it: millimetres to one place and the nearest common fraction.
 *
 * @example
 * writeFile(5200) // '5.2 mm (13/64")'
 */
export function writeFile(um: Um): string {
  const fraction = writeFraction(um, 60)
  return fraction === null ? writeMm(um, 1) : `${writeMm(um, 1)} (${fraction})`
}

/** `pitchName(9525) // '3/8"'`, `pitchName(8255) // '.325"'` */
export const pitchName = (um: Um): string => writeFraction(um, 5) ?? writeInch(um)
