import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import type { TimedWork } from '../state'
import { crewPace, learnPace, paceGroups } from './pace'

const work = (minutes: number, more: Partial<TimedWork> = {}): TimedWork => ({
  at: '2026-02-01T08:00:00.000Z',
  personId: 'tove',
  tool: 'plateGuide',
  population: 'routine',
  cutters: 36,
  minutes,
  startingMinutes: 10,
  ...more,
})
const many = (n: number, minutes: number, more: Partial<TimedWork> = {}): TimedWork[] =>
  Array.from({ length: n }, () => work(minutes, more))

describe('pace', () => {
  test('before anything was timed it is what the starting times say, within wide bounds', () => {
    const before = learnPace([])({})
    expect(before).toMatchObject({ times: 1, own: 0 })
    expect(before.low).toBeLessThan(0.6)
    expect(before.high).toBeGreaterThan(1.7)
    expect(crewPace([])).toEqual({ touchUp: 1, routine: 1, grind: 1 })
  })

  test('one slow sharpening moves it a part of the way, many move it there', () => {
    const of = { personId: 'tove', tool: 'plateGuide', population: 'routine' } as const
    const one = learnPace([work(20)])(of)
    expect(one.times).toBeGreaterThan(1.2)
    expect(one.times).toBeLessThan(1.9)
    const forty = learnPace(many(40, 20))(of)
    expect(forty.times).toBeGreaterThan(1.93)
    expect(forty.times).toBeLessThanOrEqual(2)
    expect(forty.high / forty.low).toBeLessThan(one.high / one.low)
  })

  test('what one person shows says a little of the others, and what a tool shows little of another', () => {
    const paceOf = learnPace(many(20, 20))
    const mine = paceOf({ personId: 'tove', tool: 'plateGuide', population: 'routine' }).times
    const another = paceOf({ personId: 'jorun', tool: 'plateGuide', population: 'routine' }).times
    const elsewhere = paceOf({ personId: 'jorun', tool: 'benchGrinder', population: 'grind' }).times
    expect(mine).toBeGreaterThan(another)
    expect(another).toBeGreaterThan(elsewhere)
    expect(elsewhere).toBeGreaterThan(1)
  })

  test('one and the same work tells two people apart', () => {
    const paceOf = learnPace([...many(10, 20), ...many(10, 8, { personId: 'jorun' })])
    const of = (personId: string) => paceOf({ personId, tool: 'plateGuide', population: 'routine' }).times
    expect(of('tove')).toBeGreaterThan(1.7)
    expect(of('jorun')).toBeLessThan(0.95)
  })

  test('the order does not matter, and nothing is ever no time or without end', () => {
    const some = fc.record({
      minutes: fc.integer({ min: 1, max: 1440 }),
      personId: fc.constantFrom('a', 'b', null),
      tool: fc.constantFrom('plateGuide' as const, 'benchGrinder' as const),
      population: fc.constantFrom('touchUp' as const, 'grind' as const),
    })
    fc.assert(
      fc.property(fc.array(some, { maxLength: 12 }), (drawn) => {
        const timed = drawn.map(({ minutes, ...rest }) => work(minutes, rest))
        const there = learnPace(timed)({ population: 'grind' })
        const back = learnPace([...timed].reverse())({ population: 'grind' })
        expect(back.times).toBeCloseTo(there.times, 8)
        expect(there.times).toBeGreaterThan(0.2)
        expect(there.times).toBeLessThan(5)
        expect(there.low).toBeLessThan(there.times)
        expect(there.high).toBeGreaterThan(there.times)
      }),
    )
  })

  test('every person, tool and kind of work that was seen is a group, and what was seen of it says most', () => {
    const groups = paceGroups(many(12, 20))
    const of = (personId: string | null, tool: string | null, population: string | null) =>
      groups.find((one) => one.personId === personId && one.tool === tool && one.population === population)
    const all = [of('tove', 'plateGuide', 'routine'), of(null, 'plateGuide', null), of(null, null, 'routine')]
    const [own = 0, tool = 0, kind = 0] = all.map((one) => one?.times)
    expect(own).toBeGreaterThan(tool)
    expect(Math.min(tool, kind)).toBeGreaterThan(1)
    expect(all.map((one) => one?.own)).toEqual([12, 12, 12])
    expect(of('tove', 'benchGrinder', 'grind')).toBeUndefined()
  })
})
