import {
  checkCount,
  checkFigure,
  isCurrency,
  lengthField,
  moneyField,
  PITCH_CLASSES,
  PITCH_PROFILES,
  PRICE_NAMES,
  priceBounds,
  type PriceName,
  readLength,
  sayCountCheck,
  sayFigureCheck,
  sayRefusal,
  readMoney,
  writeMoney,
  type Figures,
  type HouseRules,
  type PitchClass,
} from '@undercliff/core'

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

const priceKey = (pitch: PitchClass): string => `link:${pitch}`

/** The rules' limits and prices as text, to be typed over. */
export function textsOf(rules: HouseRules, unit: 'mm' | 'inch'): LimitText {
  const texts: Record<string, string> = { currency: rules.currency }
  for (const { field } of LENGTH_LIMITS) texts[field] = lengthField(rules[field], unit)
  for (const { field } of NUMBER_LIMITS) texts[field] = String(rules[field])
  for (const { field } of PRICES) texts[field] = moneyField(rules[field], rules.currency)
  for (const [pitch, minor] of Object.entries(rules.linkPriceMinor) as [PitchClass, number][])
    texts[priceKey(pitch)] = moneyField(minor, rules.currency)
  return texts
}

/** What cannot be read, and where. */
export interface Unread {
  readonly field: string
  readonly message: string
}

/** Gathers what was typed, field by field, until something cannot be read. */
class Reader {
  unread: Unread | null = null

  constructor(private readonly texts: LimitText) {}

  /** What a field says, read; NaN once something could not be. */
  take(field: string, read: (text: string) => number | string): number {
    if (this.unread !== null) return NaN
    const value = read(this.texts[field] ?? '')
    if (typeof value === 'number') return value
    this.unread = { field, message: value }
    return NaN
  }
}

const readLimit =
  (label: string, unit: 'mm' | 'inch') =>
  (text: string): number | string => {
    const reading = readLength(text, unit)
    return reading.ok ? reading.um : `${label}: ${sayRefusal(reading)}`
  }

const readCount =
  (label: string) =>
  (text: string): number | string => {
    const value = Number(text.replace(',', '.'))
    return text.trim() === '' || !Number.isFinite(value) || value < 0 ? `${label}: a number is wanted.` : value
  }

const readPrice =
  (currency: string, message: string) =>
  (text: string): number | string =>
    readMoney(text, currency) ?? message

/** The prices that somebody has said: those from before, and those that this changes. */
function saidBy(before: HouseRules, after: HouseRules): readonly PriceName[] {
  const same: Readonly<Record<PriceName, boolean>> = {
    loop: PITCH_CLASSES.every((pitch) => before.linkPriceMinor[pitch] === after.linkPriceMinor[pitch]),
    hour: before.labourPerHourMinor === after.labourPerHourMinor,
    shop: before.shopFeeMinor === after.shopFeeMinor,
  }
  return PRICE_NAMES.filter((name) => before.saidPrices.includes(name) || !same[name])
}

/** The rules with what was typed, or the sentence that says what cannot be read, and where. */
export function rulesFrom(rules: HouseRules, texts: LimitText, unit: 'mm' | 'inch'): HouseRules | Unread {
  const currency = (texts.currency ?? '').trim().toUpperCase()
  if (!isCurrency(currency)) return { field: 'currency', message: 'Money has a code of three letters, such as EUR.' }
  const reader = new Reader(texts)
  const changed: Record<string, number> = {}
  for (const { field, label } of LENGTH_LIMITS) changed[field] = reader.take(field, readLimit(label, unit))
  for (const { field, label } of NUMBER_LIMITS) changed[field] = reader.take(field, readCount(label))
  const example = moneyField(1600, currency)
  for (const { field, label } of PRICES)
    changed[field] = reader.take(field, readPrice(currency, `${label}: an amount is wanted, such as ${example}.`))
  const linkPriceMinor = { ...rules.linkPriceMinor }
  for (const pitch of PITCH_CLASSES)
    linkPriceMinor[pitch] = reader.take(
      priceKey(pitch),
      readPrice(currency, `A drive link costs an amount, such as ${moneyField(42, currency)}.`),
    )
  if (reader.unread !== null) return reader.unread
  const read: HouseRules = { ...rules, ...changed, currency, linkPriceMinor }
  return { ...read, saidPrices: saidBy(rules, read) }
}

/** A limit moved this many times up or down is asked about. Starting value. */
const LIMIT_FACTOR = 6

/** What is odd about figures that a change moves, each in a sentence: a slipped decimal mark, the other unit. */
export function oddChanges(before: HouseRules, after: Partial<HouseRules>, { lengths, currency }: Figures): string[] {
  const odd: string[] = []
  for (const { field, label } of LENGTH_LIMITS) {
    const { [field]: um = before[field] } = after
    if (um === before[field] || um === 0) continue
    const expectedUm = Math.max(before[field], 20)
    const bounds = { leastUm: 0, mostUm: 60_000, expectedUm, factor: LIMIT_FACTOR }
    const check = checkFigure(um, lengths === 'inch' ? 'inch' : 'mm', bounds)
    if (!check.ok) odd.push(`${label}: ${sayFigureCheck(um, check, lengths)}`)
  }
  // In other money nothing can be held against what stood before.
  if ((after.currency ?? before.currency) !== before.currency) return odd
  const links = PITCH_CLASSES.map((pitch) => ({
    label: `A drive link of ${PITCH_PROFILES[pitch].name}`,
    from: before.linkPriceMinor[pitch],
    to: (after.linkPriceMinor ?? before.linkPriceMinor)[pitch],
  }))
  const others = PRICES.map(({ field, label }) => ({ label, from: before[field], to: after[field] ?? before[field] }))
  for (const { label, from, to } of [...others, ...links]) {
    const check = checkCount(to, priceBounds(from))
    if (from !== to && !check.ok)
      odd.push(`${label}: ${sayCountCheck(to, check, (minor) => writeMoney(minor, currency))}`)
  }
  return odd
}
