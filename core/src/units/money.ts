/**
 * An amount of money as people write it.
 *
 * @param minor whole minor units
 * @param currency ISO 4217 code
 * @example
 * writeMoney(3024, 'EUR') // '€30.24'
 */
export const writeMoney = (minor: number, currency: string): string =>
  formatOf(currency).format(minor / 10 ** minorDigits(currency))

/**
 * Decimals that an amount of money is written with.
 *
 * @param currency ISO 4217 code
 * @throws RangeError when it is no such code
 * @example
 * minorDigits('EUR') // 2
 * minorDigits('JPY') // 0
 */
export const minorDigits = (currency: string): number => formatOf(currency).resolvedOptions().maximumFractionDigits ?? 2

/**
 * An amount of money as a field shows it, to be typed over.
 *
 * @example
 * moneyField(1450, 'EUR') // '14.50'
 */
export function moneyField(minor: number, currency: string): string {
  const digits = minorDigits(currency)
  return (minor / 10 ** digits).toFixed(digits)
}

/**
 * Reads an amount of money as people type it, with a comma or a point before the minor unit.
 *
 * @returns whole minor units, or null when it is no amount of that money
 * @example
 * readMoney('14,5', 'EUR') // 1450
 * readMoney('14.5', 'JPY') // null
 */
export function readMoney(text: string, currency: string): number | null {
  const match = /^\s*(\d{1,7})(?:[.,](\d+))?\s*$/.exec(text)
  const [, whole, part = ''] = match ?? []
  const digits = minorDigits(currency)
  if (whole === undefined || /[1-9]/.test(part.slice(digits))) return null
  return Number(`${whole}${part.slice(0, digits).padEnd(digits, '0')}`)
}

const formats = new Map<string, Intl.NumberFormat>()

function formatOf(currency: string): Intl.NumberFormat {
  let format = formats.get(currency)
  if (format === undefined) {
    format = new Intl.NumberFormat('en', { style: 'currency', currency })
    formats.set(currency, format)
  }
  return format
}

/** Whether a code names a currency that can be written. `isCurrency('EUR') // true` */
export function isCurrency(code: string): boolean {
  return /^[A-Z]{3}$/.test(code) && Intl.supportedValuesOf('currency').includes(code)
}
