/**
 * An amount of money as people write it.
 *
 * @param minor whole minor units
 * @param currency ISO 4217 code
 * @example
 * writeMoney(3024, 'EUR') // '€30.24'
 */
export function writeMoney(minor: number, currency: string): string {
  const format = formatOf(currency)
  return format.format(minor / 10 ** (format.resolvedOptions().maximumFractionDigits ?? 2))
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
