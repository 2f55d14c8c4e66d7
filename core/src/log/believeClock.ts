import type { Instant } from './entry'

/** A device's clock may differ from the server's by this and still be believed, in ms. Starting value. */
export const CLOCK_SLACK_MS = 5 * 60_000

/** What is said to have happened at some time, and what a device said of it where its clock was not believed. */
export interface Timed {
  readonly happenedAt: Instant
  readonly saidAt?: Instant
}

type Believed = Pick<Timed, 'saidAt'>

const earlier = <T extends Timed>(entry: T, byMs: number): T & Believed => ({
  ...entry,
  happenedAt: new Date(Date.parse(entry.happenedAt) - byMs).toISOString(),
  saidAt: entry.saidAt ?? entry.happenedAt,
})

/**
 * Entries with the times that the server believes. A device whose clock differs from the server's by
 * more than {@link CLOCK_SLACK_MS} has all its times put right by that difference; without a word of
 * its clock, what lies ahead is put back to the present. The order among them stays, and `saidAt` keeps
 * what the device said.
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
  const put: (T & Believed)[] = entries.map((entry) =>
    Math.abs(offMs) > CLOCK_SLACK_MS ? earlier(entry, offMs) : entry,
  )
  const aheadMs = (entry: Timed): number => Date.parse(entry.happenedAt) - nowMs
  const furthestMs = put.reduce((most, entry) => Math.max(most, aheadMs(entry)), 0)
  if (furthestMs <= CLOCK_SLACK_MS) return put
  return put.map((entry) => (aheadMs(entry) <= CLOCK_SLACK_MS ? entry : earlier(entry, furthestMs)))
}
