import { readLength, writeMoney, type HouseRules, type PitchClass } from '@undercliff/core'

/** A limit that is a length. */
export const LENGTH_LIMITS = [
  { field: 'evennessUm', label: 'Cutters count as even within', hint: 'shortest to longest' },
  { field: 'sideDifferenceUm', label: 'Sides may differ on average by', hint: 'left against right' },
  { field: 'gaugeHighUm', label: 'Gauges are let stand high by', hint: 'then they are lowered' },
  { field: 'gaugeLowUm', label: 'Gauges too low from', hint: 'then it is not fit for use' },
  { field: 'reserveUm', label: 'Kept above the witness mark', hint: 'nobody files to the last hundredth' },
  { field: 'largestFilingUm', label: 'Largest job for a file', hint: 'deeper goes to the wheel' },
] as const satisfies readonly { field: keyof HouseRules; label: string; hint: string }[]

/** A limit that is a plain number. */
export const NUMBER_LIMITS = [
  { field: 'benchTanks', label: 'Bench due after', unit: 'tanks of wear' },
  { field: 'shopDays', label: 'Away at a shop', unit: 'days' },
] as const satisfies readonly { field: keyof HouseRules; label: string; unit: string }[]

/** A price. */
export const PRICES = [
  { field: 'labourPerHourMinor', label: 'An hour of work' },
  { field: 'shopFeeMinor', label: 'A visit to a shop' },
  { field: 'filePriceMinor', label: 'A round file' },
  { field: 'wheelPerLoopMinor', label: 'Wheel and power for one loop' },
] as const satisfies readonly { field: keyof HouseRules; label: string }[]

export type LimitText = Readonly<Record<string, string>>

const minorPer = (currency: string): number =>
  10 ** (new Intl.NumberFormat('en', { style: 'currency', currency }).resolvedOptions().maximumFractionDigits ?? 2)
export const moneyText = (minor: number, currency: string): string =>
  (minor / minorPer(currency)).toFixed(Math.log10(minorPer(currency)))

/**
 * Reads an amount of money as people type it, a comma or a point before the cents.
 *
 * @returns whole minor units, or null when it is no amount
 */
export function readMoney(text: string, currency: string): number | null {
  const match = /^\s*(\d{1,7})(?:[.,](\d{1,3}))?\s*$/.exec(text)
  if (match === null) return null
  return Math.round(Number(`${match[1] ?? '0'}.${match[2] ?? '0'}`) * minorPer(currency))
}

const priceKey = (pitch: PitchClass): string => `link:${pitch}`

/** The rules' limits and prices as text, to be typed over. */
export function textsOf(rules: HouseRules, unit: 'mm' | 'inch'): LimitText {
  const texts: Record<string, string> = { currency: rules.currency }
  const length = (um: number): string => (unit === 'inch' ? `${um / 25_400}`.slice(0, 6) : String(um / 1000))
  for (const { field } of LENGTH_LIMITS) texts[field] = length(rules[field])
  for (const { field } of NUMBER_LIMITS) texts[field] = String(rules[field])
  for (const { field } of PRICES) texts[field] = moneyText(rules[field], rules.currency)
  for (const [pitch, minor] of Object.entries(rules.linkPriceMinor) as [PitchClass, number][])
    texts[priceKey(pitch)] = moneyText(minor, rules.currency)
  return texts
}

/** The rules with what was typed, or the sentence that says what cannot be read, and where. */
export function rulesFrom(
  rules: HouseRules,
  texts: LimitText,
  unit: 'mm' | 'inch',
): HouseRules | { readonly field: string; readonly message: string } {
  const currency = (texts.currency ?? '').trim().toUpperCase()
  try {
    writeMoney(0, currency)
  } catch {
    return { field: 'currency', message: 'Money has a code of three letters, such as EUR.' }
  }
  const changed: Record<string, number> = {}
  for (const { field, label } of LENGTH_LIMITS) {
    const reading = readLength(texts[field] ?? '', unit)
    if (!reading.ok) return { field, message: `${label}: ${reading.message} It would be read as: ${reading.nearest}` }
    changed[field] = reading.um
  }
  for (const { field, label } of NUMBER_LIMITS) {
    const value = Number((texts[field] ?? '').replace(',', '.'))
    if ((texts[field] ?? '').trim() === '' || !Number.isFinite(value) || value < 0)
      return { field, message: `${label}: a number is wanted.` }
    changed[field] = value
  }
  for (const { field, label } of PRICES) {
    const minor = readMoney(texts[field] ?? '', currency)
    if (minor === null) return { field, message: `${label}: an amount is wanted, such as 16.00.` }
    changed[field] = minor
  }
  const linkPriceMinor: Partial<Record<PitchClass, number>> = {}
  for (const pitch of Object.keys(rules.linkPriceMinor) as PitchClass[]) {
    const minor = readMoney(texts[priceKey(pitch)] ?? '', currency)
    if (minor === null) return { field: priceKey(pitch), message: 'A drive link costs an amount, such as 0.42.' }
    linkPriceMinor[pitch] = minor
  }
  return { ...rules, ...changed, currency, linkPriceMinor: { ...rules.linkPriceMinor, ...linkPriceMinor } }
}
