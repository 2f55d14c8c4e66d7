import { expect, test } from 'vitest'
import { SPEC } from '../fixtures/logs'
import { DEFAULT_RULES } from './rules'
import { chanceTooLow, gaugeOffUm, gaugeStanding } from './gaugeStanding'

const at = (um: number) => ({ length: { um: 8000 }, setting: { um } })

// Target 0.65 mm, a tenth high and 0.15 mm low still let run: the figures that ship.
test.each([
  [549, 'high'],
  [550, 'fine'],
  [650, 'fine'],
  [800, 'fine'],
  [801, 'low'],
] as const)('a setting of %i µm is %s', (um, standing) => {
  expect(gaugeStanding(SPEC, at(um), DEFAULT_RULES)).toBe(standing)
  expect(gaugeOffUm(SPEC, at(um), DEFAULT_RULES)).toBe(um - 650)
})

test('it is judged by the loop’s own target and the house’s own limits', () => {
  expect(gaugeStanding({ ...SPEC, settingUm: 900 }, at(801), DEFAULT_RULES)).toBe('fine')
  expect(gaugeStanding(SPEC, at(801), { ...DEFAULT_RULES, gaugeLowUm: 200 })).toBe('fine')
  expect(gaugeStanding(SPEC, at(549), { ...DEFAULT_RULES, gaugeHighUm: 150 })).toBe('fine')
})

test('how likely a gauge is too low, by how well it is known', () => {
  const chance = (um: number, sdUm?: number) =>
    chanceTooLow(
      SPEC,
      { length: { um: 8000 }, setting: { um, ...(sdUm === undefined ? {} : { sdUm }) } },
      DEFAULT_RULES,
    )
  // At the limit of 0.80 mm and with nothing said of how it strays it is not past it.
  expect([chance(800), chance(801), chance(800, 0)]).toEqual([0, 1, 0])
  expect(chance(800, 30)).toBeCloseTo(0.5, 9)
  // One deviation past it: 0.8413 of normal figures lie below that.
  expect(chance(830, 30)).toBeCloseTo(0.8413, 4)
})
