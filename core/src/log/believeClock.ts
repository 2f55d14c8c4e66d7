import type { Instant } from './entry'

/** A device's clock may differ from the server's by this and still be believed, in ms. Starting value. */
export const CLOCK_SLACK_MS = 5 * 60_000

/** What is said to have happened at some time, and what a device said of it where its clock was not believed. */
export interface Timed {
  readonly happenedAt: Instant
  readonly saidAt?: Instant
}

type Believed = Pick<Timed, 'saidAt'>

/** No clock that is right has shown an earlier time to anybody who keeps a log here. Starting value. */
export const EARLIEST_MS = Date.UTC(1990, 0, 1)
/** The first and the last moment that four figures of a year can say, as every format writes it. */
const [FIRST, LAST] = ['0000-01-01T00:00:00.000Z', '9999-12-31T23:59:59.999Z']

/** The nearest time that can be written. */
const writable = (ms: number): Instant =>
  new Date(Math.min(Date.parse(LAST), Math.max(Date.parse(FIRST), ms))).toISOString()

const putAt = <T extends Timed>(entry: T, ms: number): T & Believed => ({
  ...entry,
  happenedAt: writable(ms),
  saidAt: entry.saidAt ?? writable(Date.parse(entry.happenedAt)),
})

/**
 * Entries with the times that the server believes. A device whose clock differs from the server's by
 * more than {@link CLOCK_SLACK_MS} has all its times put right by that difference, but for those that it could not
 * have shown and that are right as they are; without a word of its clock, what lies ahead is put back to the present.
 * A time that cannot be, whichever way it is read, is the present. The order among them stays, and `saidAt` keeps what
 * the device said, in four figures of a year.
 *
 * @param nowMs the server's present, milliseconds since 1970
 * @param deviceMs the device's present when it sent them; null when it did not say
 * @example
 * // A telephone whose clock is an hour ahead, and says so.
 * believeClock([{ happenedAt: '2026-03-01T10:00:00.000Z' }], 1_772_355_600_000, 1_772_359_200_000)[0]?.happenedAt
 * // '2026-03-01T09:00:00.000Z'
 */
export function believeClock<T extends Timed>(
  entries: readonly T[],
  nowMs: number,
  deviceMs: number | null,
): (T & Believed)[] {
  const offMs = deviceMs === null ? 0 : deviceMs - nowMs
  const canBe = (ms: number): boolean => ms >= EARLIEST_MS && ms <= nowMs + CLOCK_SLACK_MS
  const put = entries.map((entry): T & Believed => {
    const saidMs = Date.parse(entry.happenedAt)
    if (Math.abs(offMs) <= CLOCK_SLACK_MS) return entry
    const rightMs = saidMs - offMs
    const shown = deviceMs === null || saidMs <= deviceMs + CLOCK_SLACK_MS
    if (canBe(saidMs) && (!shown || rightMs < EARLIEST_MS)) return entry
    return putAt(entry, rightMs)
  })
  const aheadMs = (entry: Timed): number => Date.parse(entry.happenedAt) - nowMs
  const furthestMs = put.reduce((most, entry) => Math.max(most, aheadMs(entry)), 0)
  return put.map((entry) => {
    const back = aheadMs(entry) > CLOCK_SLACK_MS ? putAt(entry, Date.parse(entry.happenedAt) - furthestMs) : entry
    return Date.parse(back.happenedAt) < EARLIEST_MS ? putAt(back, nowMs) : back
  })
}
