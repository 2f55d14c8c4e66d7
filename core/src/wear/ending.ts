import type { Instant } from '../log'
import type { CountRange } from './life'

const DAY_MS = 86_400_000

/** Days that a rate has to rest on before a date is said. Starting value. */
const LEAST_DAYS = 14
const LEAST_SHARPENINGS = 3

/** When a loop comes to its end, at its own rate of use. */
export interface EndDate {
  readonly from: Instant
  readonly likely: Instant
  readonly to: Instant | null
  /** Sharpenings in thirty days. */
  readonly aMonth: number
}

/**
 * The date on which a loop is used up: sharpenings left ÷ sharpenings a day so far. Both are
 * uncertain; the count of a season strays by its square root (Poisson).
 *
 * @param sharpenings so far, since `since`
 * @param now the present
 * @returns null while the loop has seen too little use to tell
 * @example
 * const [since, now] = ['2026-01-01T00:00:00.000Z', '2026-05-01T00:00:00.000Z'] as const
 * // 20 in 120 days: the 10 that are left take 60
 * endDate({ low: 8, likely: 10, high: 13 }, 20, since, now)?.likely // '2026-06-30T00:00:00.000Z'
 */
export function endDate(left: CountRange, sharpenings: number, since: Instant, now: Instant): EndDate | null {
  const days = (Date.parse(now) - Date.parse(since)) / DAY_MS
  if (days < LEAST_DAYS || sharpenings < LEAST_SHARPENINGS) return null
  const rate = sharpenings / days
  const spread = 1.96 / Math.sqrt(sharpenings)
  const at = (count: number, perDay: number): Instant =>
    new Date(Date.parse(now) + (count / perDay) * DAY_MS).toISOString()
  return {
    from: at(left.low, rate * (1 + spread)),
    likely: at(left.likely, rate),
    to: spread >= 1 ? null : at(left.high, rate * (1 - spread)),
    aMonth: rate * 30,
  }
}
