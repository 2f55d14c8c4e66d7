import type { Instant } from '../log'

/** How a crew writes a day. */
export const DATE_ORDERS = ['dayFirst', 'monthFirst', 'yearFirst'] as const
export type DateOrder = (typeof DATE_ORDERS)[number]

/** The languages whose way of writing a day each order is. */
const WRITTEN_AS: Readonly<Record<DateOrder, string>> = { dayFirst: 'en-GB', monthFirst: 'en-US', yearFirst: 'sv-SE' }

interface DayWriting {
  /** Its year is left out where the day is near and nobody wonders; never where the year comes first. */
  readonly year?: boolean
  /** Where the day begins; the device's own clock when left out. */
  readonly timeZone?: string
}

/**
 * A day as the crew writes it, its month by name unless the year comes first, so that nobody takes one for the other.
 *
 * @example
 * sayDay('2026-11-24T12:00:00.000Z', 'monthFirst') // 'Nov 24, 2026'
 * sayDay('2026-11-24T12:00:00.000Z', 'yearFirst') // '2026-11-24'
 */
export function sayDay(at: Instant | Date, order: DateOrder, { year = true, timeZone }: DayWriting = {}): string {
  const zone = timeZone === undefined ? {} : { timeZone }
  if (order === 'yearFirst') return new Date(at).toLocaleDateString(WRITTEN_AS.yearFirst, zone)
  return new Date(at).toLocaleDateString(WRITTEN_AS[order], {
    ...{ day: 'numeric', month: 'short', ...zone },
    ...(year ? { year: 'numeric' } : {}),
  })
}

/**
 * A moment with its day of the week, as the crew writes it.
 *
 * @example
 * sayMoment(new Date(2026, 10, 24, 14, 30), 'dayFirst') // 'Tue, 24 Nov 2026, 14:30'
 */
export function sayMoment(at: Date, order: DateOrder): string {
  const weekday = at.toLocaleDateString('en-GB', { weekday: 'short' })
  const time = at.toLocaleTimeString(order === 'monthFirst' ? 'en-US' : 'en-GB', {
    ...{ hour: order === 'monthFirst' ? 'numeric' : '2-digit', minute: '2-digit' },
  })
  return `${weekday}, ${sayDay(at, order)}, ${time}`
}

/**
 * How long ago something was, roughly.
 *
 * @param ms how many milliseconds ago
 * @example
 * sayAgo(7_200_000) // '2 h ago'
 */
export function sayAgo(ms: number): string {
  return ms < 30_000 ? 'just now' : `${saySpan(ms)} ago`
}

/**
 * A span of time to the nearest minute, hour or day.
 *
 * @param ms milliseconds; less than nothing is taken as far the other way
 * @example
 * saySpan(-172_800_000) // '2 days'
 */
export function saySpan(ms: number): string {
  const minutes = Math.round(Math.abs(ms) / 60_000)
  if (minutes < 60) return `${minutes} min`
  return minutes < 48 * 60 ? `${Math.round(minutes / 60)} h` : `${Math.round(minutes / 1440)} days`
}
