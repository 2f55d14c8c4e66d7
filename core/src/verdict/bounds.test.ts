import { describe, expect, test } from 'vitest'
import { Log, SPEC, stateOf } from '../fixtures/logs'
import { CUTTER_DAMAGE } from '../damage'
import { atBound, depthOpen } from './bounds'

const MARK_UM = 800
const near = (): Log => new Log({ ...SPEC, markLengthUm: MARK_UM }).measureAll(MARK_UM + 700)
const chipped = (log: Log): Log =>
  log.add('measured', { readings: [{ cutter: 4, damage: [{ kind: 'stone', depthUm: null }] }] })

describe('what nobody knows yet, at either end of what it can be', () => {
  test('damage reaches from the least to the most of its kind, and never past the mark', () => {
    const depth = (log: Log, end: 'least' | 'most') => atBound(stateOf(log), end).cutters[3]?.damage[0]?.depthUm
    const [least, most] = CUTTER_DAMAGE.stone.boundsUm ?? [NaN, NaN]
    const long = new Log().measureAll(7000)
    expect(depth(chipped(long), 'least')).toBe(least)
    expect(depth(chipped(long), 'most')).toBe(most)
    expect(most).toBeGreaterThan(700)
    expect(Math.abs((depth(chipped(near()), 'most') ?? NaN) - 700)).toBeLessThan(60)
  })

  test('a strike that nobody looked into may have hurt the cutters that it met, and none else', () => {
    const struck = new Log().measureAll(7000).add('struck', { against: 'stone', cutters: [4, 5] })
    const damaged = (log: Log, end: 'least' | 'most') =>
      atBound(stateOf(log), end).cutters.flatMap(({ number, damage }) => (damage.length > 0 ? [number] : []))
    expect(damaged(struck, 'most')).toEqual([4, 5])
    expect(damaged(struck, 'least')).toEqual([4, 5])
    const somewhere = new Log().measureAll((cutter) => (cutter === 7 ? 6900 : 7000)).add('struck', { against: 'metal' })
    expect(damaged(somewhere, 'most')).toEqual([7])
    const kinds = (log: Log) =>
      atBound(stateOf(log), 'most').cutters.flatMap(({ damage }) => damage.map(({ kind }) => kind))
    expect(kinds(somewhere)).toEqual(['metal'])
    expect(kinds(struck)).toEqual(['stone', 'stone'])
    expect(damaged(somewhere, 'least')).toEqual([])
    expect(damaged(new Log().measureAll(7000).add('struck', { against: 'soil', cutters: [4] }), 'most')).toEqual([])
    // What was found already is not found twice.
    const seen = struck.add('measured', { readings: [{ cutter: 4, damage: [{ kind: 'chipped', depthUm: 300 }] }] })
    expect(atBound(stateOf(seen), 'most').cutters[3]?.damage).toEqual([{ kind: 'chipped', depthUm: 300 }])
  })

  test('there is something to bound while a depth or a strike is open', () => {
    expect(depthOpen(stateOf(new Log().measureAll(7000)))).toBe(false)
    expect(depthOpen(stateOf(chipped(near())))).toBe(true)
    expect(depthOpen(stateOf(near().add('struck', { against: 'metal' })))).toBe(true)
    const dull = new Log().add('measured', { readings: [{ cutter: 4, damage: [{ kind: 'rounded', depthUm: null }] }] })
    expect(depthOpen(stateOf(dull))).toBe(false)
  })
})
