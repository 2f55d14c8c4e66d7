import { describe, expect, test } from 'vitest'
import { addMinutes, filingMinutes, gaugeMinutes, grindingMinutes, strokesFor, type FilingWay } from './time'

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
    const { low } = grindingMinutes(20, 200)
    expect(low - 3 - 1).toBeCloseTo(2, 5)
  })

  // "Four or five hours" to file out a badly struck loop that a wheel cleans in minutes: common practice.
  test('a badly struck loop of a big saw takes four to five hours by file', () => {
    const { likely } = filingMinutes(loop(46, 3000), 'bench')
    expect(likely / 60).toBeGreaterThan(4)
    expect(likely / 60).toBeLessThan(5.5)
    expect(grindingMinutes(46, 3000).likely).toBeLessThan(65)
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
    expect(grindingMinutes(72, 2500).likely).toBeLessThan(90)
    expect(grindingMinutes(72, 2500).likely * 2).toBeLessThan(filingMinutes(deep, 'bench').likely)
  })

  test('more cutters, more length and the bench take longer', () => {
    expect(filingMinutes(loop(36, 200), 'bench').likely).toBeGreaterThan(filingMinutes(loop(36, 200), 'field').likely)
    expect(filingMinutes(loop(36, 400), 'bench').likely).toBeGreaterThan(filingMinutes(loop(36, 200), 'bench').likely)
    expect(gaugeMinutes(36).likely).toBeGreaterThan(gaugeMinutes(20).likely)
    expect(addMinutes({ low: 1, likely: 2, high: 3 }, { low: 10, likely: 20, high: 30 })).toEqual({
      low: 11,
      likely: 22,
      high: 33,
    })
  })
})
