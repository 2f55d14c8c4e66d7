import { describe, expect, test } from 'vitest'
import type { Hand } from '../loop'
import { someAtOrBelow } from './extremes'
import { fileLengths, lengthOf, newLengths, readLengthOf } from './lengths'
import { addShared, noTies, readFigure } from './tied'

const HANDS: readonly Hand[] = Array.from({ length: 12 }, (_, i) => (i % 2 === 0 ? 'left' : 'right'))

/** A seeded source of standard normal figures (Box and Muller; mulberry32). */
function normals(seed: number): () => number {
  let state = seed
  const uniform = (): number => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return (((t ^ (t >>> 14)) >>> 0) + 0.5) / 2 ** 32
  }
  return () => Math.sqrt(-2 * Math.log(uniform())) * Math.cos(2 * Math.PI * uniform())
}

test('a reading is of a cutter that there is, and has a spread', () => {
  const tied = noTies(2)
  tied.ownVar.fill(100)
  for (const cutter of [-1, 2]) expect(() => readFigure(tied, cutter, 5, 1)).toThrow(`there is no cutter ${cutter}`)
  expect(() => readFigure(tied, 0, 5, 0)).toThrow(RangeError)
  expect(() => readFigure(tied, 0, NaN, 1)).toThrow(RangeError)
  expect(readFigure(tied, 1, 5, 1).taken).toBe(true)
})

describe('the chance that some cutter is at a limit', () => {
  test.each([
    [100, 60, 700],
    [100, 60, 850],
    [20, 80, 900],
    [150, 10, 800],
  ])(
    'shared by %d and each by %d, limit %d: as often as in a hundred thousand draws, or a little more',
    (common, own, limit) => {
      const tied = noTies(HANDS.length)
      for (const hand of ['left', 'right'] as const)
        addShared(tied, { mean: 0, variance: common ** 2 }, (i) => (HANDS[i] === hand ? 1 : 0))
      tied.own.fill(1000)
      tied.ownVar.fill(own ** 2)
      const draw = normals(7)
      let hits = 0
      for (let n = 0; n < 100_000; n += 1) {
        const shift = { left: common * draw(), right: common * draw() }
        if (HANDS.some((hand) => 1000 + shift[hand] + own * draw() <= limit)) hits += 1
      }
      const chance = someAtOrBelow(tied, HANDS, () => limit)
      expect(Math.abs(chance - hits / 100_000)).toBeLessThan(0.03)
    },
  )

  test('a side that is far off takes nothing from the other', () => {
    // One cutter by itself, a deviation of its own and none shared: 0.1587 of normal figures lie that far below.
    const tied = noTies(2)
    tied.own[0] = 1000
    tied.own[1] = 9000
    tied.ownVar.fill(100 ** 2)
    expect(someAtOrBelow(tied, ['left', 'right'], () => 900)).toBeCloseTo(0.1587, 3)
    expect(someAtOrBelow(tied, ['right', 'left'], () => 900)).toBeCloseTo(0.1587, 3)
  })

  test('far away it is none, and past it all', () => {
    const belief = newLengths(HANDS, 8000, false)
    expect(someAtOrBelow(belief.tied, HANDS, () => 0)).toBe(0)
    expect(someAtOrBelow(belief.tied, HANDS, () => 9000)).toBeGreaterThan(0.999)
  })

  test('one cutter that was read short is enough, and each is held to its own limit', () => {
    const belief = newLengths(HANDS, 2000, false)
    readLengthOf(belief, 3, 1500, 50)
    readLengthOf(belief, 3, 1500, 50)
    const { mean } = lengthOf(belief, 3)
    expect(someAtOrBelow(belief.tied, HANDS, () => mean)).toBeGreaterThan(0.49)
    expect(someAtOrBelow(belief.tied, HANDS, (i) => (i === 3 ? mean - 400 : mean - 600))).toBeLessThan(0.001)
  })

  test('it grows with every filing that nobody measures', () => {
    const belief = newLengths(HANDS, 2500, false)
    let before = 0
    for (let i = 0; i < 10; i += 1) {
      fileLengths(belief, { strokes: null, usualUm: 200, atLeastUm: [] })
      const now = someAtOrBelow(belief.tied, HANDS, () => 0)
      expect(now).toBeGreaterThanOrEqual(before)
      before = now
    }
    // 0.5 mm left by the mean of it: to be measured long before.
    expect(before).toBeGreaterThan(0.02)
  })
})
