import { describe, expect, test } from 'vitest'
import type { NewSawEntry, SawEntry } from '../saw'
import { admitSaw } from './admitSaw'
import { CLOCK_SLACK_MS } from '../log'

const FIRST = { pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72 } as const
const NOW = Date.UTC(2026, 2, 1)
const AT = new Date(NOW).toISOString()
const entry = (body: object): NewSawEntry =>
  ({ id: 'new', sawId: 'saw', happenedAt: AT, personId: null, ...body }) as NewSawEntry
const written = (id: string, body: object): SawEntry => ({ ...entry(body), id, writtenAt: AT, writtenBy: null })
const codes = (body: object, log: readonly SawEntry[] = []): string[] =>
  admitSaw(entry(body), log, FIRST, NOW).map(({ code }) => code)

describe('what may join a saw’s log', () => {
  test.each([
    { kind: 'barFlipped' },
    { kind: 'railsDressed' },
    { kind: 'sprocketRenewed', pitchClass: 'p325' },
    { kind: 'barFitted', gaugeUm: 1600, driveLinks: 84, nosePitchClass: null },
    { kind: 'barChecked', burrs: true },
    { kind: 'fitRead', gaugeUm: 1300 },
    { kind: 'fitRead', nosePitchClass: null },
  ])('$kind', (body) => {
    expect(codes(body)).toEqual([])
  })

  test('a groove measures no less than it was made, a tenth let go', () => {
    expect(codes({ kind: 'barChecked', grooveWidthUm: 1400 })).toEqual([])
    expect(codes({ kind: 'barChecked', grooveWidthUm: 1399 })).toEqual(['groove-cannot-be'])
    const bar = written('bar', { kind: 'barFitted', gaugeUm: 1300, driveLinks: 72, nosePitchClass: null })
    expect(codes({ kind: 'barChecked', grooveWidthUm: 1250 }, [bar])).toEqual([])
  })

  test('read off is something', () => {
    expect(codes({ kind: 'fitRead' })).toEqual(['nothing-read'])
  })

  test('figures are finite, and nothing happens later than a clock may run ahead', () => {
    expect(codes({ kind: 'barChecked', grooveWidthUm: NaN })).toEqual(['not-a-number'])
    const at = (ms: number) => ({ kind: 'barFlipped', happenedAt: new Date(NOW + ms).toISOString() })
    expect(codes(at(CLOCK_SLACK_MS))).toEqual([])
    expect(codes(at(CLOCK_SLACK_MS + 1))).toEqual(['in-the-future'])
    expect(CLOCK_SLACK_MS).toBe(5 * 60 * 1000)
  })

  test('a tank comes to what a tank can: what is said of several is shared among them', () => {
    const said = (tanks: number, hours: number) => codes({ kind: 'hoursSaid', tanks, hours })
    expect(said(4, 3)).toEqual([])
    expect(said(1, 6)).toEqual([])
    expect(said(10, 1)).toEqual([])
    expect(said(1, 6.1)).toEqual(['hours-cannot-be'])
    expect(said(30, 2)).toEqual(['hours-cannot-be'])
  })

  test('an entry of this log is struck out once, and a correction never', () => {
    const flipped = written('flipped', { kind: 'barFlipped' })
    const correction = written('correction', { kind: 'sawCorrected', strikes: 'flipped' })
    const strike = (strikes: string, log: readonly SawEntry[]) => codes({ kind: 'sawCorrected', strikes }, log)
    expect(strike('flipped', [flipped])).toEqual([])
    expect(strike('other', [flipped])).toEqual(['no-such-entry'])
    expect(strike('flipped', [flipped, correction])).toEqual(['struck-out-already'])
    expect(strike('correction', [flipped, correction])).toEqual(['correction-of-correction'])
    expect(strike('flipped', [flipped, written('dressed', { kind: 'railsDressed' })])).toEqual([])
  })
})
