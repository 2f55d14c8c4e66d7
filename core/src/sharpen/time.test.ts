import { describe, expect, test } from 'vitest'
import { GUIDES } from './guides'
import { sidePlateOf } from './sidePlate'
import {
  addMinutes,
  filingMinutes,
  gaugeMinutes,
  grindingMinutes,
  newLoopMinutes,
  NO_MINUTES,
  shopMinutes,
  strokesFor,
  strokesOf,
  type FilingWay,
} from './time'

const loop = (cutters: number, um: number): number[] => Array.from({ length: cutters }, () => um)

// Known results that the time model has to land near: common practice.
describe('minutes', () => {
  test('a touch-up is two to five strokes', () => {
    expect(strokesFor(100)).toBe(5)
    expect(strokesFor(0)).toBe(1)
  })

  test('both sides of a 16-inch saw are touched up in about four minutes', () => {
    const { low, high } = filingMinutes(loop(28, 80), 'field')
    expect(low).toBeLessThan(4)
    expect(high).toBeGreaterThan(4)
  })

  test('a 10-inch pole-saw chain takes about two minutes under the wheel, set-up apart', () => {
    const { low } = grindingMinutes(loop(20, 200))
    expect(low - 3 - 1).toBeCloseTo(2, 5)
  })

  // "Four or five hours" to file out a badly struck loop that a wheel cleans in minutes: common practice.
  test('a badly struck loop of a big saw takes four to five hours by file', () => {
    const { likely } = filingMinutes(loop(46, 3000), 'bench')
    expect(likely / 60).toBeGreaterThan(4)
    expect(likely / 60).toBeLessThan(5.5)
    expect(grindingMinutes(loop(46, 3000)).likely).toBeLessThan(65)
  })

  test('beyond a long filing a stroke takes half as much', () => {
    expect(strokesFor(400)).toBe(20)
    expect(strokesFor(600)).toBe(40)
    expect(strokesFor(100, 25)).toBe(4)
  })

  test('a jig is slow, freehand is quick', () => {
    const by = (guide: FilingWay['guide']) => filingMinutes(loop(36, 200), 'bench', { guide, perStrokeUm: 20 }).likely
    expect(by('jig')).toBeGreaterThan(by('topPlate'))
    expect(by('freehand')).toBeLessThan(by('topPlate'))
  })

  test('a deeply struck loop costs hours by file and well under one by wheel', () => {
    const deep = loop(72, 2500)
    expect(filingMinutes(deep, 'bench').likely).toBeGreaterThan(150)
    expect(grindingMinutes(loop(72, 2500)).likely).toBeLessThan(90)
    expect(grindingMinutes(loop(72, 2500)).likely * 2).toBeLessThan(filingMinutes(deep, 'bench').likely)
  })

  test('more cutters, more length and the bench take longer', () => {
    expect(filingMinutes(loop(36, 200), 'bench').likely).toBeGreaterThan(filingMinutes(loop(36, 200), 'field').likely)
    expect(filingMinutes(loop(36, 400), 'bench').likely).toBeGreaterThan(filingMinutes(loop(36, 200), 'bench').likely)
    expect(gaugeMinutes(36).likely).toBeGreaterThan(gaugeMinutes(20).likely)
    // Half as much again beside a bumper, setting out not.
    expect(gaugeMinutes(36, true)).toEqual({ low: 5.5, likely: 8.3, high: 11.1 })
    expect(addMinutes({ low: 1, likely: 2, high: 3 }, { low: 10, likely: 20, high: 30 })).toEqual({
      low: 11,
      likely: 22,
      high: 33,
    })
  })

  // Worked by hand from the figures above each constant.
  test('to the second', () => {
    // 36 cutters at 5 strokes: 180 × 1.2 s + 36 × 2.5 s = 5.1 min.
    const filing = filingMinutes(loop(36, 100), 'field')
    expect(filing.low).toBeCloseTo(0.5 + 5.1 * 0.85)
    expect(filing.high).toBeCloseTo(1.5 + 5.1 * 1.25)
    expect(filing.likely).toBeCloseTo((filing.low + filing.high) / 2)
    expect(filingMinutes(loop(36, 100), 'bench').low).toBeCloseTo(3 + 5.1 * 0.85)
    expect(filingMinutes(loop(36, 100), 'bench').high).toBeCloseTo(8 + 5.1 * 1.25)
    // 36 cutters, two touches of 6 to 10 s, the side turned once.
    expect(grindingMinutes(loop(36, 800))).toEqual({ low: 3 + 7.2 + 1, likely: (11.2 + 21) / 2, high: 8 + 12 + 1 })
    // Each cutter for what comes off it: 35 of one touch, one of five.
    expect(grindingMinutes([...loop(35, 200), 2000]).low).toBeCloseTo(3 + 4 + 1)
    expect(grindingMinutes(loop(36, 801)).low - grindingMinutes(loop(36, 800)).low).toBeLessThan(0.01)
    expect(grindingMinutes(loop(36, 0))).toEqual(grindingMinutes(loop(36, 400)))
    expect(gaugeMinutes(36)).toEqual({ low: 4, likely: 6.2, high: 8.4 })
    expect(shopMinutes()).toEqual({ low: 6, likely: 10.5, high: 15 })
    expect(newLoopMinutes()).toEqual({ low: 2, likely: 3.5, high: 5 })
    expect(NO_MINUTES).toEqual({ low: 0, likely: 0, high: 0 })
  })

  test('strokes at the step from usual to long', () => {
    expect([0, 20, 21, 399, 400, 401].map((um) => strokesFor(um))).toEqual([1, 1, 2, 20, 20, 21])
    expect(strokesOf([100, 600])).toBe(45)
  })

  test('guides and side plates as they ship', () => {
    expect(GUIDES).toEqual({
      topPlate: { secondsToNext: 2.5, strayUm: 40, restsOn: 'topPlate', gaugesToo: false },
      chassis: { secondsToNext: 2.5, strayUm: 40, restsOn: 'chassis', gaugesToo: false },
      twoInOne: { secondsToNext: 2.5, strayUm: 40, restsOn: 'topPlate', gaugesToo: true },
      jig: { secondsToNext: 9, strayUm: 20, restsOn: 'chassis', gaugesToo: false },
      freehand: { secondsToNext: 1.8, strayUm: 80, restsOn: 'hand', gaugesToo: false },
    })
    const plates = (['moreHook', 'neutral', 'lessHook'] as const).map((school) => sidePlateOf(school))
    expect(plates.map(({ partAbove, lasts }) => [partAbove, lasts])).toEqual([
      [0.2, 0.85],
      [0.225, 1],
      [0.25, 1.1],
    ])
  })
})
