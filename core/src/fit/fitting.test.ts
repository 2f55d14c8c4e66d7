import { describe, expect, test } from 'vitest'
import { Log, stateOf } from '../fixtures/logs'
import { DEFAULT_RULES } from '../house'
import { fittingRefusal, type FittedSaw } from './fitting'

const SAW: FittedSaw = { pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72, nosePitchClass: 'threeEighths' }
const refusal = (log: Log, saw: Partial<FittedSaw> = {}, overruled = false) =>
  fittingRefusal(stateOf(log), { ...SAW, ...saw }, DEFAULT_RULES, overruled)?.why ?? null

describe('what may go on a saw', () => {
  test('a loop that fits in every part and is fit for use', () => {
    expect(refusal(new Log().measureAll(7000))).toBeNull()
  })

  test('one with a drawback only where somebody said why', () => {
    expect(refusal(new Log(), { due: ['sprocketNow'] })).toBe('overruleNeeded')
    expect(refusal(new Log(), { due: ['sprocketNow'] }, true)).toBeNull()
  })

  test('no word of anybody’s puts on what does not fit', () => {
    for (const wrong of [{ pitchClass: 'p325' }, { gaugeUm: 1300 }, { driveLinks: 70 }] as const)
      expect(refusal(new Log(), wrong, true)).toBe('mustNot')
  })

  // Each must not cut as it is: common practice.
  test.each([
    ['retired', new Log().add('retired', { reason: 'worn' })],
    ['cracked', new Log().add('inspected', { readings: [], parts: [{ kind: 'strapCracked', nearCutter: 3 }] })],
    ['struck and not looked at', new Log().add('struck', { against: 'metal' })],
    [
      'with a cutter missing',
      new Log().add('measured', { readings: [{ cutter: 3, damage: [{ kind: 'missing', depthUm: null }] }] }),
    ],
    ['with gauges too low', new Log().add('measured', { readings: [{ cutter: 3, settingUm: 1100 }] })],
    ['measured at the mark', new Log().measureAll(0)],
  ])('no word puts on a loop that is %s', (_what, log) => {
    expect(refusal(log, {}, true)).toBe('mustNot')
  })
})
