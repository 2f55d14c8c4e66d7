/**
 * A length in whole micrometres (1/1000 mm). Every length in the project is one of these,
 * so that sums are exact and a database column is an integer.
 */
export type Um = number

/** Micrometres in a millimetre. Exact by definition. */
export const UM_PER_MM = 1000

/**
 * Micrometres in an inch: 1 in = 25.4 mm, exact by definition
 * (international inch; NIST SP 811, quoted from memory).
 */
export const UM_PER_INCH = 25_400

/** The units that people on a crew write lengths in. A thou is a thousandth of an inch. */
export type LengthUnit = 'mm' | 'inch' | 'thou'

/**
 * Millimetres as whole micrometres.
 *
 * @example
 * fromMm(5.2) // 5200
 */
export const fromMm = (mm: number): Um => Math.round(mm * UM_PER_MM)

/**
 * Inches as whole micrometres.
 *
 * @example
 * fromInch(13 / 64) // 5159
 */
export const fromInch = (inch: number): Um => Math.round(inch * UM_PER_INCH)

/** Thousandths of an inch as whole micrometres. `fromThou(25) // 635` */
export const fromThou = (thou: number): Um => Math.round((thou * UM_PER_INCH) / 1000)
