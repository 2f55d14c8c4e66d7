import { expect, test } from 'vitest'
import { SPEC } from '../fixtures/logs'
import { DEFAULT_RULES } from './rules'
import { gaugeOffUm, gaugeStanding } from './gaugeStanding'

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
