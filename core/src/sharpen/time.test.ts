import { describe, expect, test } from 'vitest'
import type { SharpeningTool } from '../log'
import { GUIDES } from './guides'
import { sidePlateOf } from './sidePlate'
import { evenLoad, partMinutes, sideMinutes, startingMinutes, workMinutes } from './toolTimes'
import { addMinutes, gaugeMinutes, newLoopMinutes, NO_MINUTES, shopMinutes, strokesFor, strokesOf } from './time'

const filed = (cutters: number, um: number) => workMinutes('plateGuide', evenLoad(cutters, um))
const ground = (cutters: number, um: number) => workMinutes('benchGrinder', evenLoad(cutters, um, { findsStop: true }))

// Known results that the time model has to land near: common practice.
describe('minutes', () => {
  test('a touch-up is two to five strokes', () => {
    expect(strokesFor(100)).toBe(5)
    expect(strokesFor(0)).toBe(1)
  })

  test('both sides of a 16-inch saw are touched up in about four minutes', () => {
    // The work on the cutters alone: what belongs to it before and afterwards comes on top.
    const { sides } = partMinutes('twoInOne', evenLoad(28, 80, { inField: true, gaugesOnTheWay: true }))
    const minutes = sides.reduce((sum, { likely }) => sum + likely, 0)
    expect(minutes).toBeGreaterThan(3)
    expect(minutes).toBeLessThan(4.5)
  })

  test('a 10-inch pole-saw chain takes about two minutes under the wheel, set-up apart', () => {
    const { sides } = partMinutes('benchGrinder', evenLoad(20, 200))
    expect(sides.reduce((sum, { low }) => sum + low, 0)).toBeCloseTo(2, 5)
  })

  // "Four or five hours" to file out a badly struck loop that a wheel cleans in minutes: common practice.
  test('a badly struck loop of a big saw takes four to five hours by file', () => {
    const { likely } = filed(46, 3000)
    expect(likely / 60).toBeGreaterThan(4)
    expect(likely / 60).toBeLessThan(5.5)
    expect(ground(46, 3000).likely).toBeLessThan(70)
  })

  test('beyond a long filing a stroke takes half as much', () => {
    expect(strokesFor(400)).toBe(20)
    expect(strokesFor(600)).toBe(40)
    expect(strokesFor(100, 25)).toBe(4)
  })

  test('a jig is slow, freehand is quick', () => {
    const by = (tool: SharpeningTool) => workMinutes(tool, evenLoad(36, 200)).likely
    expect(by('jig')).toBeGreaterThan(by('plateGuide'))
    expect(by('freehand')).toBeLessThan(by('plateGuide'))
  })

  test('a deeply struck loop costs hours by file and well under one by wheel', () => {
    expect(filed(72, 2500).likely).toBeGreaterThan(150)
    expect(ground(72, 2500).likely).toBeLessThan(90)
    expect(ground(72, 2500).likely * 2).toBeLessThan(filed(72, 2500).likely)
  })

  test('more cutters, more length and the bench take longer', () => {
    const inField = workMinutes('plateGuide', evenLoad(36, 200, { inField: true }))
    expect(filed(36, 200).likely).toBeGreaterThan(inField.likely)
    expect(filed(36, 400).likely).toBeGreaterThan(filed(36, 200).likely)
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
    // 36 cutters at 5 strokes: 180 × 1.2 s + 36 × 2.5 s = 5.1 min, half of it on each side.
    const parts = partMinutes('plateGuide', evenLoad(36, 100, { inField: true }))
    expect(parts.sides.map(({ likely }) => likely)).toEqual([2.55, 2.55])
    expect(parts.setUp).toEqual({ low: 0.5, likely: 1, high: 1.5 })
    expect(partMinutes('plateGuide', evenLoad(36, 100)).setUp).toEqual({ low: 3, likely: 5.5, high: 8 })
    // 36 cutters, two touches of 6 to 10 s.
    expect(sideMinutes('benchGrinder', { cutters: 36, strokes: 0, touches: 72 })).toEqual({
      low: 7.2,
      likely: 9.6,
      high: 12,
    })
    expect(ground(36, 801).low - ground(36, 800).low).toBeLessThan(0.01)
    expect(ground(36, 0)).toEqual(ground(36, 400))
    // The parts are all that there is: 5.5 set-up, 5.1 cutters, 0.5 turn, 0.35 re-check, 0.35 gauges, 0.65, 2.
    expect(filed(36, 100).likely).toBeCloseTo(5.5 + 5.1 + 0.5 + 0.35 + 0.35 + 0.65 + 2)
    expect(workMinutes('plateGuide', evenLoad(36, 100, { gauges: 36 })).likely).toBeCloseTo(14.45 - 0.35 + 6.2)
    const given = Array.from(
      { length: 36 },
      (_, i) => ({ hand: i % 2 === 0 ? 'left' : 'right', offUm: 100, strokes: 5 }) as const,
    )
    expect(startingMinutes('plateGuide', 'bench', given)).toBeCloseTo(filed(36, 100).likely)
    expect(gaugeMinutes(36)).toEqual({ low: 4, likely: 6.2, high: 8.4 })
    expect(shopMinutes()).toEqual({ low: 7.3, likely: 13.15, high: 19 })
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
    const plates = (['moreHook', 'neutral', 'lessHook', 'third'] as const).map((school) => sidePlateOf(school))
    expect(plates.map(({ partAbove, lasts }) => [partAbove, lasts])).toEqual([
      [0.2, 0.85],
      [0.225, 1],
      [0.25, 1.1],
      [1 / 3, 1.15],
    ])
  })
})
