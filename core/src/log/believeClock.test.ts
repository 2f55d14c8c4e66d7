import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { believeClock, CLOCK_SLACK_MS } from './believeClock'

const NOW = Date.parse('2026-03-01T09:00:00.000Z')
const DAY = 86_400_000
const at = (ms: number): { happenedAt: string } => ({ happenedAt: new Date(ms).toISOString() })
const times = (entries: readonly { happenedAt: string }[]): number[] =>
  entries.map(({ happenedAt }) => Date.parse(happenedAt))

describe('a clock that is not believed', () => {
  test.each([DAY, -DAY, 400 * DAY])('is put right where the device says what it shows: %d ms off', (off) => {
    const sent = [at(NOW + off - 7000), at(NOW + off)]
    const believed = believeClock(sent, NOW, NOW + off)
    expect(times(believed)).toEqual([NOW - 7000, NOW])
    expect(believed.map(({ saidAt }) => saidAt)).toEqual(sent.map(({ happenedAt }) => happenedAt))
  })

  test('a little off, it is believed as it is', () => {
    const sent = [at(NOW + CLOCK_SLACK_MS), at(NOW - 3 * DAY)]
    expect(believeClock(sent, NOW, NOW + CLOCK_SLACK_MS)).toEqual(sent)
    expect(believeClock(sent, NOW, null)).toEqual(sent)
    expect(believeClock(sent, NOW, NOW - CLOCK_SLACK_MS)).toEqual(sent)
  })

  test('without a word of it, what lies ahead comes to the present in its order, and what lies behind stays', () => {
    const sent = [at(NOW + DAY - 2000), at(NOW - DAY), at(NOW + DAY)]
    const believed = believeClock(sent, NOW, null)
    expect(times(believed)).toEqual([NOW - 2000, NOW - DAY, NOW])
    expect(believed[1]).not.toHaveProperty('saidAt')
    expect(believed[0]?.saidAt).toBe(sent[0]?.happenedAt)
  })

  test('what lies ahead of a clock that was put right comes to the present, and keeps what was said first', () => {
    const sent = [at(NOW + 3 * DAY)]
    const [believed] = believeClock(sent, NOW, NOW + DAY)
    expect(Date.parse(believed?.happenedAt ?? '')).toBe(NOW)
    expect(believed?.saidAt).toBe(sent[0]?.happenedAt)
  })

  test.each([0, Date.UTC(1980, 0, 1), Date.UTC(2126, 0, 1), 999_999_999_999_999, -8.64e15, 8.64e15])(
    'of any year is put right where the device says what it shows: %d',
    (shown) => {
      const [believed] = believeClock([at(shown)], NOW, shown)
      expect(Date.parse(believed?.happenedAt ?? '')).toBe(NOW)
      expect(believed?.saidAt).toMatch(/^\d{4}-/)
    },
  )

  test('a day that a clock of 1970 cannot have shown was meant, and one that 2126 makes impossible too', () => {
    const meant = [at(NOW - 90 * DAY)]
    expect(believeClock(meant, NOW, 0)).toEqual(meant)
    expect(believeClock(meant, NOW, Date.UTC(2126, 0, 1))).toEqual(meant)
  })

  test('a time that cannot be is the present where nothing is known of the clock', () => {
    for (const ms of [0, -8.64e15, 8.64e15])
      expect(times(believeClock([at(ms), at(NOW - DAY)], NOW, null))).toEqual([NOW, NOW - DAY])
  })

  test('whatever is said, what is believed can be and can be written', () => {
    const ms = fc.integer({ min: -8.64e15, max: 8.64e15 })
    fc.assert(
      fc.property(fc.array(ms, { minLength: 1, maxLength: 5 }), fc.option(ms), (said, deviceMs) => {
        for (const { happenedAt, saidAt } of believeClock(said.map(at), NOW, deviceMs)) {
          expect(happenedAt >= '1990' && Date.parse(happenedAt) <= NOW + CLOCK_SLACK_MS).toBe(true)
          expect(saidAt ?? happenedAt).toMatch(/^\d{4}-/)
        }
      }),
    )
  })

  test('nothing lies ahead, nothing is lost, and the order of what one clock said stays', () => {
    const ms = fc.integer({ min: NOW - 400 * DAY, max: NOW + 400 * DAY })
    fc.assert(
      fc.property(fc.array(ms, { minLength: 1, maxLength: 8 }), fc.option(ms), (said, deviceMs) => {
        const sent = said.map(at)
        const believed = believeClock(sent, NOW, deviceMs)
        expect(believed.map((one) => one.saidAt ?? one.happenedAt)).toEqual(sent.map(({ happenedAt }) => happenedAt))
        expect(Math.max(...times(believed))).toBeLessThanOrEqual(NOW + CLOCK_SLACK_MS)
        if (deviceMs !== null) return
        const moved = said.map((one, i) => [one, times(believed)[i] ?? 0] as const).filter(([one, put]) => one !== put)
        const put = moved.sort(([a], [b]) => a - b).map(([, one]) => one)
        expect(put).toEqual([...put].sort((a, b) => a - b))
      }),
    )
  })
})
