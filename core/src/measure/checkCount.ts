import { DRIVE_LINKS } from '../loop'

/** Within what a count or a price can be true, and where it usually is. */
export interface CountBounds {
  readonly least: number
  readonly most: number
  /** It usually is no less than the first and no more than the second. */
  readonly usual: readonly [number, number]
  /** What the crew has already; a slip is likely to have been one of these. */
  readonly known: readonly number[]
}

/** Whether a count or a price can be true, and is likely to be. */
export type CountCheck =
  | { readonly ok: true }
  | { readonly ok: false; readonly weight: 'refuse' | 'ask'; readonly meant: number | null }

/** What else a number may have been before a finger slipped: neighbours swapped, a digit too many, a decimal mark. */
function slipsOf(value: number): number[] {
  const digits = String(value)
  if (!/^\d+$/.test(digits)) return [value * 10, value * 100, value / 10, value / 100]
  const places = Array.from(digits, (_digit, i) => i)
  /** The digits with those from the i-th to before the j-th written otherwise. */
  const instead = (i: number, j: number, text: string): string => digits.slice(0, i) + text + digits.slice(j)
  const swapped = places.slice(1).map((i) => instead(i - 1, i + 1, digits.charAt(i) + digits.charAt(i - 1)))
  const without = places.map((i) => instead(i, i + 1, ''))
  return [...[...swapped, ...without].filter(Boolean).map(Number), value / 10, value / 100, value * 10, value * 100]
}

/**
 * Whether a count or a price can be true, and what was probably meant where it is unlike what the crew has.
 *
 * @example
 * checkCount(27, linkBounds([72])) // { ok: false, weight: 'ask', meant: 72 }
 */
export function checkCount(value: number, { least, most, usual: [low, high], known }: CountBounds): CountCheck {
  if (known.includes(value) || value === 0)
    return least > value ? { ok: false, weight: 'refuse', meant: null } : { ok: true }
  const off = (one: number): number => Math.abs(Math.log((one * one) / (low * high)))
  const slips = slipsOf(value).filter((one) => one !== value && one >= least && one <= most)
  const had = slips.find((one) => known.includes(one)) ?? null
  if (value >= low && value <= high && had === null) return { ok: true }
  const usual = slips.filter((one) => one >= low && one <= high).sort((a, b) => off(a) - off(b))
  const can = value >= least && value <= most
  return {
    ok: false,
    weight: can ? 'ask' : 'refuse',
    meant: had ?? usual[0] ?? null,
  }
}

/** Of a loop's drive links, by those of the crew's other loops and bars. Starting values. */
export const linkBounds = (known: readonly number[]): CountBounds => ({
  least: DRIVE_LINKS.least,
  most: DRIVE_LINKS.most,
  usual: [30, 115],
  known,
})

/** Of a price in minor units, by what stood before. The factor is a starting value. */
export const priceBounds = (beforeMinor: number): CountBounds => ({
  least: 0,
  most: 100_000_000,
  usual: beforeMinor === 0 ? [1, 100_000_000] : [beforeMinor / 6, beforeMinor * 6],
  known: [],
})

/**
 * What is odd about a count or a price, and what was probably meant.
 *
 * @param said the number as it is read
 * @example
 * sayCountCheck(27, { ok: false, weight: 'ask', meant: 72 }, String) // '27? That is hardly right. Was it 72?'
 */
export function sayCountCheck(
  value: number,
  { weight, meant }: CountCheck & { readonly ok: false },
  said: (value: number) => string,
): string {
  const asked = meant === null ? '' : ` Was it ${said(meant)}?`
  return `${said(value)}? That ${weight === 'refuse' ? 'cannot be' : 'is hardly right'}.${asked}`
}
