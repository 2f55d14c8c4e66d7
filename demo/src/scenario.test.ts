import {
  asWritten,
  admit,
  cardOf,
  decide,
  DEFAULT_RULES,
  fitCheck,
  fold,
  type Entry,
  type LoopCard,
} from '@undercliff/core'
import { describe, expect, test } from 'vitest'
import { scenario } from './scenario'

const NOW = new Date('2026-03-20T09:00:00.000Z')
const season = scenario(NOW)
const logs = new Map<string, Entry[]>()
for (const entry of season.entries) {
  const log = logs.get(entry.loopId) ?? []
  logs.set(entry.loopId, log)
  log.push({ ...entry, writtenBy: null, writtenAt: entry.happenedAt })
}
const cards = new Map<string, LoopCard>()
for (const log of logs.values()) {
  const state = fold(log)
  if (state !== null) cards.set(state.tag, cardOf(state, DEFAULT_RULES))
}

describe('the demo', () => {
  test('is at least 9 saws and 30 loops, the same every time', () => {
    expect(season.saws.length).toBeGreaterThanOrEqual(9)
    expect(cards.size).toBeGreaterThanOrEqual(30)
    expect(scenario(NOW)).toEqual(season)
    expect(scenario(NOW, 7).entries).not.toEqual(season.entries)
  })

  test('every entry may join its log', () => {
    for (const log of logs.values()) {
      log.forEach((entry, i) => {
        expect(admit(entry, log.slice(0, i), NOW.getTime())).toEqual([])
      })
    }
  })

  test('no saw has two loops and every saw has one', () => {
    const on = [...cards.values()].flatMap(({ sawId }) => (sawId === null ? [] : [sawId]))
    expect(new Set(on).size).toBe(on.length)
    expect(on.length).toBe(season.saws.length)
  })

  test.each([
    ['K1, filed short on the right', 'K1', 'regrind', 'sidesDiffer'],
    ['K2, gauges never lowered', 'K2', 'lowerGauges', 'gaugesHigh'],
    ['K3, struck and worth grinding', 'K3', 'regrind', 'damageToClean'],
    ['K4, struck and not worth it', 'K4', 'retire', 'noLengthBehindDamage'],
    ['B2, mixed up with another', 'B2', 'measure', 'contradiction'],
    ['M3, blued', 'M3', 'regrind', 'fileSkates'],
    ['K6, nearly new and dull at once', 'K6', 'touchUp', 'touchUpDue'],
    ['T2, new and cracked', 'T2', 'retire', 'endsLoop'],
    ['T3, gauges too low', 'T3', 'stop', 'gaugesTooLow'],
    ['P4, struck and not looked at', 'P4', 'inspect', 'struckUnseen'],
    ['S3, depth not measured', 'S3', 'measure', 'depthUnknown'],
  ])('%s', (_story, tag, action, rule) => {
    expect(cards.get(tag)).toMatchObject({ action, reason: { rule } })
  })
})

test('no loop is put on a saw that it must not go on, in any season', () => {
  for (const seed of [1, 2, 3]) {
    const { saws, entries } = scenario(new Date('2026-03-20T12:00:00.000Z'), seed)
    const logs = new Map<string, Entry[]>()
    for (const entry of entries) {
      const log = logs.get(entry.loopId) ?? []
      logs.set(entry.loopId, log)
      const state = fold(log)
      const saw = entry.kind === 'fitted' ? saws.find(({ id }) => id === entry.sawId) : undefined
      if (saw !== undefined && state !== null) {
        expect(
          fitCheck(state.spec, saw, {}, decide(state, DEFAULT_RULES).fitForUse).level,
          `${state.tag}, seed ${seed}`,
        ).toBe('fits')
      }
      log.push(asWritten(entry))
    }
  }
})
