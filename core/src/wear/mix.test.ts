import { describe, expect, test } from 'vitest'
import { Log, stateOf } from '../fixtures/logs'
import { DEFAULT_RULES } from '../house'
import { lifeOf } from '../verdict'
import { LENGTH_SPREADS, UM_PER_STROKE } from '../belief'
import { learnMix, tanksLeft, usingUp } from './mix'
import { learnRemoval } from './removal'

const mixOf = (log: Log) => {
  const state = stateOf(log)
  const removal = {
    touchUp: learnRemoval(state, 'touchUp'),
    routine: learnRemoval(state, 'routine'),
    grind: learnRemoval(state, 'grind'),
  }
  return learnMix(removal, state.sharpenedBy)
}
const touchedUp = (times: number): Log => {
  const log = new Log().measureAll(7000)
  for (let i = 0; i < times; i += 1) log.add('sharpened', { method: 'fileField', gaugesLowered: false })
  return log
}

describe('the mix that a loop gets', () => {
  test('is a routine filing while it got nothing, and moves toward what it got', () => {
    expect(mixOf(new Log()).meanUm).toBeCloseTo(200, 6)
    // Four of each, at 100 and 200 µm by common practice.
    expect(mixOf(touchedUp(4))).toMatchObject({ parts: { touchUp: 0.5, routine: 0.5, grind: 0 } })
    expect(mixOf(touchedUp(4)).meanUm).toBeCloseTo(150, 6)
    expect(mixOf(touchedUp(36)).meanUm).toBeCloseTo(110, 6)
    const ground = new Log().measureAll(7000).add('sharpened', { method: 'grinder', gaugesLowered: false })
    expect(mixOf(ground).meanUm).toBeCloseTo((4 * 200 + 250) / 5, 6)
  })

  test('strays by what kinds differ, too, and is not known better than they are', () => {
    const one = mixOf(new Log())
    const both = mixOf(touchedUp(4))
    expect(both.withinUm / both.meanUm).toBeGreaterThan(one.withinUm / one.meanUm)
    expect(both.lowUm).toBeLessThan(both.meanUm)
    expect(both.highUm).toBeGreaterThan(both.meanUm)
  })

  test('strokes that take more than is thought have taken more before: the two hang together', () => {
    const used = touchedUp(8)
    const state = stateOf(used)
    const { withRemoval, lowerBy } = usingUp(state.lengths, 0, mixOf(used))
    // Eight touch-ups of five strokes took 40 bites off, and the mix takes as many µm as bites of 20.
    const bite = LENGTH_SPREADS.bite ** 2
    const strokes = mixOf(used).meanUm / UM_PER_STROKE
    expect(withRemoval).toBeLessThan(-40 * strokes * bite * 0.8)
    expect(usingUp(stateOf(new Log()).lengths, 0, mixOf(new Log())).withRemoval).toBe(0)
    // Cutters stray from one another by what filings add, until a grind makes them equal.
    expect(lowerBy(0)).toBeGreaterThan(0)
    expect(lowerBy(20)).toBeGreaterThan(lowerBy(5))
    const ground = new Log().measureAll(7000).add('sharpened', { method: 'grinder', gaugesLowered: false })
    const after = usingUp(stateOf(ground).lengths, 0, mixOf(ground))
    expect(after.lowerBy(20)).toBe(after.lowerBy(10))
  })

  test('a loop that is only touched up lasts for more of them, and says so in tanks', () => {
    const now = '2026-03-01T00:00:00.000Z'
    const life = (log: Log) => lifeOf(stateOf(log), DEFAULT_RULES, now)
    const filed = new Log().measureAll(7000).file().file().file().file().measureAll(7000)
    expect(life(touchedUp(4).measureAll(7000)).sharpeningsLeft.likely).toBeGreaterThan(
      1.2 * life(filed).sharpeningsLeft.likely,
    )
    // Four sharpenings that ran no tanks, against four of four tanks by common practice: two a sharpening.
    const { tanksLeft: tanks, sharpeningsLeft: left } = life(filed)
    expect(tanks.likely).toBe(2 * left.likely)
    expect(tanks.low).toBe(2 * left.low)
    expect(tanksLeft({ low: 8, likely: 10, high: 13 }, { taughtTanks: 12, sharpenings: 4 })).toEqual({
      low: 28,
      likely: 35,
      high: 46,
    })
  })
})
