import type { LoopState, RemovalSample } from '../state'
import { describe, expect, test } from 'vitest'
import { fold } from '../fold'
import { hour, Log } from '../fixtures/logs'
import { crewWear } from './crewWear'
import { endDate } from './ending'
import { learnBy } from './learnBy'
import { learnPerStroke } from './perStroke'
import { learnSharpness } from './sharpness'

const stateOf = (log: Log): LoopState => {
  const state = fold(log.entries)
  if (state === null) throw new Error('the loop should be registered')
  return state
}
const sample = (personId: string, left: number, right: number, strokes?: number): RemovalSample => {
  const side = (um: number) => ({ um, sdUm: 5, cutters: 4, ...(strokes === undefined ? {} : { strokes }) })
  return {
    population: 'touchUp',
    perSharpeningUm: (left + right) / 2,
    sdUm: 5,
    sharpenings: 1,
    personId,
    method: 'fileField',
    sides: { left: side(left), right: side(right) },
  }
}
const times = <T>(count: number, one: T): T[] => Array.from({ length: count }, () => one)

describe('what comes off, told apart', () => {
  test('the one who takes more off one side shows, with an interval that says how sure that is', () => {
    const samples = [...times(12, sample('tobe', 90, 150)), ...times(12, sample('iska', 100, 100))]
    const { person, personSide, sideGap } = learnBy(samples, 'touchUp')
    expect(person.map(({ group }) => group)).toEqual(['tobe', 'iska'])
    const of = (group: string) => personSide.find((one) => one.group === group)
    expect(of('tobe|right')?.low).toBeGreaterThan(of('tobe|left')?.high ?? 0)
    expect(sideGap.find(({ group }) => group === 'tobe')?.low).toBeGreaterThan(40)
    expect(Math.abs((of('iska|right')?.mean ?? 0) - (of('iska|left')?.mean ?? 0))).toBeLessThan(5)
  })

  test('both sides of one sharpening are compared with each other: few show what many means would not', () => {
    const { sideGap } = learnBy(
      [...times(4, sample('tobe', 90, 140)), ...times(4, sample('iska', 100, 104))],
      'touchUp',
    )
    const of = (group: string) => sideGap.find((one) => one.group === group)
    expect(of('tobe')?.low).toBeGreaterThan(0)
    expect(of('iska')?.low).toBeLessThan(0)
    expect(of('iska')?.high).toBeGreaterThan(0)
  })

  test('one figure is not believed against common practice', () => {
    const [once] = learnBy([sample('tobe', 300, 300)], 'touchUp').person
    expect(once?.mean).toBeLessThan(200)
    expect(once?.low).toBeLessThan(100 + 60)
  })

  test('method and age of the file are told apart where they were said', () => {
    const worn: RemovalSample = { ...sample('iska', 60, 60), fileAge: 'worn' }
    const fresh: RemovalSample = { ...sample('iska', 140, 140), fileAge: 'fresh' }
    expect(learnBy([...times(8, worn), ...times(8, fresh)], 'touchUp').fileAge.map(({ group }) => group)).toEqual([
      'fresh',
      'worn',
    ])
    expect(learnBy([worn], 'touchUp').method).toMatchObject([{ group: 'fileField' }])
    // A figure that may be off by as much as single sharpenings stray counts for half of one.
    const vague = { ...worn, sdUm: 40 }
    expect(learnBy([vague], 'touchUp').method[0]?.own).toBeCloseTo(0.5, 6)
    expect(learnBy([worn], 'touchUp').method[0]?.own).toBeGreaterThan(0.97)
    expect(learnBy([worn], 'grind').method).toEqual([])
  })

  test('a stroke is learned from counted filings', () => {
    expect(learnPerStroke([])).toMatchObject({ meanUm: 20, own: 0 })
    const { meanUm, own } = learnPerStroke(times(20, sample('iska', 120, 120, 4)))
    expect(own).toBe(40)
    expect(meanUm).toBeGreaterThan(28)
    expect(meanUm).toBeLessThan(30)
    // A single stroke tells, none does not.
    expect(learnPerStroke([sample('iska', 25, 25, 1)]).own).toBe(2)
    expect(learnPerStroke([sample('iska', 25, 25, 0)]).own).toBe(0)
  })
})

describe('how long it lasts', () => {
  test('sharpening early is not dulling early', () => {
    const spell = (dulled: boolean) => ({ tanks: 2, wearTanks: 2, dulled, conditions: 'clean' as const })
    expect(learnSharpness(times(6, spell(false))).mean).toBeGreaterThan(learnSharpness([]).mean)
    expect(learnSharpness(times(6, spell(true))).mean).toBeLessThan(learnSharpness([]).mean)
  })

  test('curves by cutter type and wood, over all loops', () => {
    const log = () =>
      new Log()
        .add('ran', { tanks: 2, conditions: 'gritty' })
        .file({ wasDull: true })
        .add('ran', { tanks: 3, conditions: 'clean' })
        .file()
    const { curves } = crewWear([stateOf(log()), stateOf(log())])
    expect(curves).toMatchObject([
      { cutterType: 'semiChisel', conditions: 'clean', spells: 2, ended: 0, medianTanks: null },
      { cutterType: 'semiChisel', conditions: 'gritty', spells: 2, ended: 2, medianTanks: 2 },
    ])
  })

  test('two weeks are the least that a rate rests on', () => {
    const after = (days: number) =>
      endDate(
        { low: 8, likely: 10, high: 13 },
        9,
        hour(0),
        new Date(Date.parse(hour(0)) + days * 86_400_000).toISOString(),
      )
    expect(after(13.9)).toBeNull()
    expect(after(14)).not.toBeNull()
  })

  test("the date of the end is sharpenings left by this loop's own rate", () => {
    // 20 sharpenings in 120 days are one in six; ten more take sixty days. By hand.
    const end = endDate({ low: 8, likely: 10, high: 13 }, 20, '2026-01-01T00:00:00.000Z', '2026-05-01T00:00:00.000Z')
    expect(end?.likely).toBe('2026-06-30T00:00:00.000Z')
    expect((end?.from ?? '') < (end?.likely ?? '')).toBe(true)
    expect((end?.to ?? '') > (end?.likely ?? '')).toBe(true)
    expect(end?.aMonth).toBeCloseTo(5, 10)
    expect(
      endDate({ low: 8, likely: 10, high: 13 }, 2, '2026-01-01T00:00:00.000Z', '2026-05-01T00:00:00.000Z'),
    ).toBeNull()
    expect(
      endDate({ low: 8, likely: 10, high: 13 }, 9, '2026-05-01T00:00:00.000Z', '2026-05-05T00:00:00.000Z'),
    ).toBeNull()
  })
})

test('a loop that was registered by mistake teaches nothing; one that is worn out does', () => {
  const ended = (reason: 'mistake' | 'worn') =>
    stateOf(
      new Log()
        .add('ran', { tanks: 3, conditions: 'clean' })
        .add('sharpened', { method: 'fileField', gaugesLowered: false, wasDull: true })
        .add('retired', { reason }),
    )
  expect(crewWear([ended('worn')]).curves).toHaveLength(1)
  expect(crewWear([ended('mistake')]).curves).toEqual([])
})
