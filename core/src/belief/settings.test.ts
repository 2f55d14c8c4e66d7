import { describe, expect, test } from 'vitest'
import type { Hand } from '../loop'
import { lowerSettings, newSettings, readSettingOf, settingOf, sinkSettings, type SettingBelief } from './settings'

const HANDS: readonly Hand[] = Array.from({ length: 12 }, (_, i) => (i % 2 === 0 ? 'left' : 'right'))
const PLATE = 30
const sd = (variance: number): number => Math.sqrt(variance)

/** Edges sink by so much. */
const sinkBy = (belief: SettingBelief, dropUm: readonly number[]): void => {
  sinkSettings(belief, dropUm, 1)
}

describe('settings of depth gauges', () => {
  test('one reading says most of its own gauge and something of all', () => {
    const belief = newSettings(HANDS, 650)
    readSettingOf(belief, 0, 500, PLATE)
    expect(settingOf(belief, 0).mean).toBe(500)
    expect(settingOf(belief, 2).mean).toBeLessThan(620)
    expect(settingOf(belief, 2).mean).toBeLessThan(settingOf(belief, 1).mean)
    expect(sd(settingOf(belief, 0).variance)).toBe(PLATE)
  })

  test('each edge sinks by its own, and what is known becomes vaguer', () => {
    const belief = newSettings(HANDS, 650)
    const before = settingOf(belief, 0).variance
    sinkBy(
      belief,
      HANDS.map((_, i) => (i === 0 ? 100 : 25)),
    )
    expect(settingOf(belief, 0).mean).toBeCloseTo(550)
    expect(settingOf(belief, 1).mean).toBeCloseTo(625)
    expect(settingOf(belief, 0).variance).toBeGreaterThan(before)
  })

  test('shifts that are made one leave what each gauge is known as, and the latest of each side open', () => {
    const belief = newSettings(HANDS, 650)
    const off = (hand: Hand, um: number) => HANDS.map((one) => (one === hand ? um : 0))
    const all = () => HANDS.map((_, i) => settingOf(belief, i))
    // Each reading closes a shift, so that the next filing of its side begins another: seven of them, and more.
    for (let round = 0; round < 6; round += 1) {
      for (const [hand, gauge] of [
        ['left', 0],
        ['right', 1],
      ] as const) {
        const before = all()
        sinkBy(belief, off(hand, 20))
        for (const [i, { mean, variance }] of all().entries()) {
          expect(mean).toBeCloseTo((before[i]?.mean ?? 0) - (HANDS[i] === hand ? 20 : 0), 6)
          // 2 µm of its own, 5 of its side: a quarter and a tenth of what it sank.
          const more = HANDS[i] === hand ? 2 ** 2 + 5 ** 2 : 0
          expect(variance).toBeCloseTo((before[i]?.variance ?? 0) + more, 4)
        }
        readSettingOf(belief, gauge, settingOf(belief, gauge).mean, PLATE)
      }
    }
    // Filed twice without a reading between, a side shifts further by the same figure.
    const before = settingOf(belief, 2).variance
    sinkBy(belief, off('left', 20))
    sinkBy(belief, off('left', 20))
    expect(settingOf(belief, 2).variance).toBeCloseTo(before + 2 * (2 ** 2 + 5 ** 2), 4)
  })

  test('a shift that was open while many of the other side were made one is not added to any more', () => {
    const belief = newSettings(HANDS, 650)
    const off = (hand: Hand, um: number) => HANDS.map((one) => (one === hand ? um : 0))
    sinkBy(belief, off('left', 40))
    for (let round = 0; round < 9; round += 1) {
      sinkBy(belief, off('right', 20))
      readSettingOf(belief, 1, settingOf(belief, 1).mean, PLATE)
    }
    const before = HANDS.map((_, i) => settingOf(belief, i).variance)
    sinkBy(belief, off('left', 20))
    for (const [i, hand] of HANDS.entries())
      expect(settingOf(belief, i).variance).toBeCloseTo((before[i] ?? 0) + (hand === 'left' ? 2 ** 2 + 5 ** 2 : 0), 4)
  })

  test('a side that was not filed does not sink', () => {
    const belief = newSettings(HANDS, 650)
    const before = settingOf(belief, 1)
    sinkBy(
      belief,
      HANDS.map((_, i) => (i % 2 === 0 ? 25 : 0)),
    )
    expect(settingOf(belief, 1).mean).toBeCloseTo(before.mean, 9)
    expect(settingOf(belief, 1).variance).toBeCloseTo(before.variance, 6)
  })

  test('a pass brings to the plate what stands above it, and leaves what stands below', () => {
    const belief = newSettings(HANDS, 500)
    readSettingOf(belief, 3, 950, PLATE)
    expect(settingOf(belief, 5).mean).toBe(500)
    expect(
      lowerSettings(
        belief,
        HANDS.map(() => 650),
      ),
    ).toEqual(HANDS.map((_, i) => i !== 3))
    expect(settingOf(belief, 3).mean).toBe(950)
    expect(settingOf(belief, 4).mean).toBe(650)
    expect(sd(settingOf(belief, 4).variance)).toBeLessThan(40)
  })

  test('after a pass one gauge that reads off the plate says that the others may be too', () => {
    const belief = newSettings(HANDS, 500)
    lowerSettings(
      belief,
      HANDS.map(() => 650),
    )
    readSettingOf(belief, 0, 590, PLATE)
    expect(settingOf(belief, 5).mean).toBeLessThan(645)
    expect(settingOf(belief, 5).mean).toBeGreaterThan(610)
  })

  test('it stays a handful however long the loop is filed', () => {
    const belief = newSettings(HANDS, 650)
    for (let i = 0; i < 50; i += 1) {
      sinkBy(
        belief,
        HANDS.map(() => 25),
      )
      readSettingOf(belief, i % 12, 640 - 20 * (i % 5), PLATE)
      if (i % 6 === 5)
        lowerSettings(
          belief,
          HANDS.map(() => 650),
        )
    }
    expect(belief.tied.size).toBeLessThanOrEqual(7)
    for (const [i] of HANDS.entries()) {
      expect(Number.isFinite(settingOf(belief, i).mean)).toBe(true)
      expect(settingOf(belief, i).variance).toBeGreaterThan(0)
    }
  })
})
