import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { someAtOrBelow } from '../belief'
import { CUTTER_DAMAGE, CUTTER_DAMAGE_KINDS, PART_DAMAGE, PART_DAMAGE_KINDS, type DamageKind } from '../damage'
import { anyLog } from '../fixtures/anyLog'
import { Log, SPEC, stateOf } from '../fixtures/logs'
import { notFinite } from '../fixtures/notFinite'
import { DEFAULT_RULES, type HouseRules } from '../house'
import { ACTIONS, SHARPEN_METHODS, type Action } from '../log'
import type { LoopState } from '../state'
import { decide, mayOverrule } from './decide'
import { nothingBehindDamage } from './findings'
import { forecast } from './forecast'
import type { Option, Verdict } from './verdict'

const verdictOf = (log: Log, rules: Partial<HouseRules> = {}): Verdict =>
  decide(stateOf(log), { ...DEFAULT_RULES, ...rules })
const optionOf = ({ options }: Verdict, action: Action): Option | undefined =>
  options.find((option) => option.action === action)
const sound = (): Log => new Log().measureAll(7000)
const onCutter = (kind: (typeof CUTTER_DAMAGE_KINDS)[number], log = sound()): Log =>
  log.add('measured', { readings: [{ cutter: 3, damage: [{ kind, depthUm: 300 }] }] })
const onPart = (kind: (typeof PART_DAMAGE_KINDS)[number], log = sound()): Log =>
  log.add('inspected', { readings: [], parts: [{ kind, nearCutter: 3 }] })

/** Every loop that must not cut as it is, by why: common practice. */
const UNFIT: Record<string, () => Log> = {
  ...Object.fromEntries(
    CUTTER_DAMAGE_KINDS.filter((kind) => ['ends', 'unfit', 'attention'].includes(CUTTER_DAMAGE[kind].effect)).map(
      (kind) => [kind, () => onCutter(kind)],
    ),
  ),
  ...Object.fromEntries(
    PART_DAMAGE_KINDS.filter((kind) => ['ends', 'unfit', 'attention'].includes(PART_DAMAGE[kind].effect)).map(
      (kind) => [kind, () => onPart(kind)],
    ),
  ),
  'gauges too low': () => sound().add('measured', { readings: [{ cutter: 8, settingUm: 950 }] }),
  'struck and not looked at': () => sound().add('struck', { against: 'metal' }),
  'at its mark': () => new Log().measureAll(0),
  'perhaps at its mark': () => new Log().measureAll(300).file(),
  retired: () => sound().add('retired', { reason: 'worn' }),
}

describe('a loop that must not cut as it is', () => {
  test.each(Object.entries(UNFIT))('%s: is not fit for use, and nothing that puts it to work is open', (_why, log) => {
    const verdict = verdictOf(log())
    expect(verdict.fitForUse).toBe(false)
    expect(['retire', 'stop', 'inspect', 'measure']).toContain(verdict.action)
    if (stateOf(log()).retired !== null) return
    for (const action of ['runOn', 'touchUp', 'lowerGauges', 'dirtyDuty'] as const)
      expect(optionOf(verdict, action)?.feasible, action).toBe(false)
  })

  test.each(Object.entries(UNFIT))('%s: work that is due on top of it changes nothing', (_why, log) => {
    const more = log().add('ran', { tanks: 7, conditions: 'soil' })
    expect(verdictOf(more).fitForUse).toBe(false)
    // Gauges high elsewhere do not bring the file to it either.
    const high = log().add('measured', { readings: [{ cutter: 20, settingUm: 100 }] })
    expect(optionOf(verdictOf(high), 'lowerGauges')?.feasible).toBe(false)
  })

  const STAYS: DamageKind[] = ['missing', 'cracked', 'gaugeLow', 'bumperFiled', 'strapCut', 'rivetSeized']
  test.each(STAYS)('%s: no sharpening by any method takes it away', (kind) => {
    for (const method of SHARPEN_METHODS)
      for (const damageCleared of [true, false]) {
        const log = UNFIT[kind]?.().file({ method, damageCleared })
        expect(verdictOf(log ?? new Log()).fitForUse, method).toBe(false)
      }
  })

  test('one whose gauges were lowered to nobody knows what stays off until they are read', () => {
    const log = new Log().measureAll(7000).add('gaugesLowered', { settingUm: 1900 })
    expect(verdictOf(log)).toMatchObject({ action: 'measure', fitForUse: false })
    const read = { readings: Array.from({ length: 36 }, (_, i) => ({ cutter: i + 1, settingUm: 650 })) }
    expect(verdictOf(log.add('measured', read)).fitForUse).toBe(true)
  })
})

describe('what is known of a loop', () => {
  test('a reading at the mark that nobody believes yet keeps it off the saws, until it was read again', () => {
    const slip = (): Log => sound().add('measured', { readings: [{ cutter: 4, lengthUm: 0 }] })
    expect(stateOf(slip()).cutters[3]?.length.um).toBeGreaterThan(6900)
    expect(verdictOf(slip())).toMatchObject({ action: 'measure', fitForUse: false })
    const again = (lengthUm: number): Log => slip().add('measured', { readings: [{ cutter: 4, lengthUm }] })
    expect(verdictOf(again(7010)).fitForUse).toBe(true)
    expect(verdictOf(again(10))).toMatchObject({ action: 'retire' })
  })

  test('a loop measured at its mark does not come back into use by a sharpening', () => {
    for (const method of SHARPEN_METHODS)
      expect(verdictOf(new Log().measureAll(0).file({ method })).fitForUse, method).toBe(false)
  })

  test('two chances in a hundred of a cutter at its mark are too many, whatever is likely', () => {
    const log = new Log().measureAll(2400)
    let filings = 0
    while (verdictOf(log.file({ gaugesLowered: true })).fitForUse && filings < 20) filings += 1
    // 0.2 mm each: said while half a millimetre is likely to be left.
    expect(Math.min(...stateOf(log).cutters.map(({ length }) => length.um))).toBeGreaterThan(400)
    expect(filings).toBeGreaterThan(4)
  })

  test('a flat gauge goes by the plate, not by saying that all is clean', () => {
    const flat = (): Log => onCutter('gaugeFlat').file({ damageCleared: true })
    expect(stateOf(flat()).cutters[2]?.damage).toHaveLength(1)
    expect(stateOf(flat().add('gaugesLowered', {})).cutters[2]?.damage).toEqual([])
  })
})

describe('who may overrule what', () => {
  const allowed = (fitForUse: boolean, advised: Action): Action[] =>
    ACTIONS.filter((action) => mayOverrule({ fitForUse, advised }, action))

  test('anything on a loop that is fit for use', () => {
    for (const advised of ACTIONS) expect(allowed(true, advised)).toEqual(ACTIONS)
  })

  test('nothing that puts an unfit loop to work', () => {
    for (const advised of ['stop', 'inspect', 'measure', 'file', 'regrind', 'shop'] as const)
      expect(allowed(false, advised)).toEqual(['retire', 'stop', 'inspect', 'measure', 'shop', 'regrind', 'file'])
  })

  test('of a loop that is over, only how it ends', () => {
    expect(allowed(false, 'retire')).toEqual(['retire', 'stop', 'inspect'])
  })

  // Actions × fit, unfit, retired, through the log as a lead would write it.
  test.each(ACTIONS)('settling on %s', (action) => {
    const settled = (log: Log): Action => {
      const { advised } = verdictOf(log)
      return verdictOf(log.add('decided', { action, advised, rulesVersion: 1, overruled: 'Because' })).action
    }
    const unfit = sound().add('struck', { against: 'metal' })
    const puts = ['runOn', 'touchUp', 'lowerGauges', 'dirtyDuty'].includes(action)
    expect(settled(sound())).toBe(action)
    expect(settled(unfit)).toBe(puts ? 'inspect' : action)
    const retired = sound().add('retired', { reason: 'worn' })
    expect(verdictOf(retired.add('decided', { action, advised: 'retire', rulesVersion: 1 }))).toMatchObject({
      action: 'retire',
      fitForUse: false,
      decision: null,
    })
  })
})

describe('metal is never thrown away on an estimate', () => {
  // A deep strike where a house has neither wheel nor shop: hours of filing are dearer than a new loop.
  const BY_HAND = { grinderOwned: false, shopUsed: false, dirtyDuty: false }
  const RUN = [8, 9, 10, 11, 12, 13, 14]
  const deep = (log: Log): Log =>
    log.add('measured', {
      readings: RUN.map((cutter) => ({ cutter, damage: [{ kind: 'stone', depthUm: 2600 }] })),
    })

  test('replacing costs least and every cutter is measured: it goes', () => {
    const verdict = verdictOf(deep(sound()), BY_HAND)
    expect(verdict).toMatchObject({ action: 'retire', runnerUp: { action: 'file' } })
    expect(verdict.reasons[0]?.rule).toBe('cheaperToReplace')
    expect(verdictOf(deep(sound()), { ...BY_HAND, dirtyDuty: true }).action).toBe('dirtyDuty')
  })

  test('replacing costs least and nobody has measured the lengths: they are measured first', () => {
    for (const log of [new Log(), sound().file()]) {
      const verdict = verdictOf(deep(log), BY_HAND)
      expect(verdict).toMatchObject({ action: 'measure', fitForUse: true })
      expect(verdict.reasons.slice(0, 2).map(({ rule }) => rule)).toEqual(['measureBeforeRetiring', 'cheaperToReplace'])
    }
  })

  test('a sharp loop runs on to its end: it is done with when it calls for a sharpening that it cannot have', () => {
    const last = () => new Log().measureAll(350)
    expect(verdictOf(last())).toMatchObject({ action: 'runOn', fitForUse: true })
    const dull = last().add('ran', { tanks: 7, conditions: 'clean' })
    expect(verdictOf(dull, { dirtyDuty: false })).toMatchObject({ action: 'retire' })
    expect(verdictOf(dull).action).toBe('dirtyDuty')
  })

  test('damage of which one part was only worked out counts as not looked at', () => {
    const lengths = (n: number): number => (n === 3 ? 700 : 2500)
    const state = stateOf(new Log().measureAll(lengths).measureAll(lengths))
    const withDamage = (estimated: boolean): LoopState => ({
      ...state,
      cutters: state.cutters.map((cutter) =>
        cutter.number === 3
          ? {
              ...cutter,
              damage: [
                { kind: 'chipped', depthUm: 600 },
                { kind: 'stone', depthUm: 200, ...(estimated ? { estimated: true as const } : {}) },
              ],
            }
          : cutter,
      ),
    })
    const behind = (one: LoopState) => nothingBehindDamage(one, DEFAULT_RULES, forecast(one, DEFAULT_RULES))
    expect(behind(withDamage(false)).map(({ rule }) => rule)).toEqual(['noLengthBehindDamage'])
    expect(behind(withDamage(true))).toEqual([])
  })

  test('no length left by an estimate asks for the caliper, by a reading it is over', () => {
    expect(verdictOf(new Log().measureAll(380).file())).toMatchObject({ action: 'measure' })
    expect(verdictOf(new Log().measureAll(380).file().measureAll(0))).toMatchObject({ action: 'retire' })
  })
})

describe('any loop at all', () => {
  test('no figure of a verdict is anything but a finite number', () => {
    fc.assert(
      fc.property(anyLog, (log) => {
        expect(notFinite(verdictOf(log))).toEqual([])
      }),
    )
  })

  test('a verdict that calls a loop fit has nothing against it that ends, stops or has to be looked at', () => {
    fc.assert(
      fc.property(anyLog, (log) => {
        const state = stateOf(log)
        const grave = [
          ...state.parts.map(({ kind }) => PART_DAMAGE[kind].effect),
          ...state.cutters.flatMap(({ damage }) => damage.map(({ kind }) => CUTTER_DAMAGE[kind].effect)),
        ].some((effect) => effect === 'ends' || effect === 'unfit' || effect === 'attention')
        if (grave || state.openStrikes.length > 0 || state.retired !== null) {
          expect(verdictOf(log).fitForUse).toBe(false)
        }
      }),
    )
  })
})

test('no loop loses more than half on trust: until a reading shows what its sharpenings take, it is measured', () => {
  const asks = (log: Log): boolean => {
    const { reasons, fitForUse, action } = verdictOf(log)
    const asked = reasons.some(({ rule }) => rule === 'longUnmeasured')
    if (asked) expect({ fitForUse, action }).toEqual({ fitForUse: false, action: 'measure' })
    return asked
  }
  const touchedUp = (log: Log, times: number): Log => {
    for (let i = 0; i < times; i += 1)
      log.add('sharpened', { method: 'fileField', gaugesLowered: i % 5 === 0, strokes: { left: 5, right: 5 } })
    return log
  }
  const goneOf = (log: Log): number => 8000 - Math.min(...stateOf(log).cutters.map(({ length }) => length.um))
  for (let times = 36; times <= 44; times += 1) {
    const log = touchedUp(new Log(), times)
    expect(asks(log), `${times}`).toBe(goneOf(log) >= 4000)
  }
  expect(asks(touchedUp(new Log(), 44))).toBe(true)
  // Read once when it came, it goes by what it was then; read since it was filed, by what was seen to come off.
  expect(asks(touchedUp(new Log().measureAll(7000), 34))).toBe(false)
  expect(asks(touchedUp(new Log().measureAll(7000), 36))).toBe(true)
  expect(asks(touchedUp(touchedUp(new Log().measureAll(7900), 5).measureAll(7400), 38))).toBe(false)
  expect(asks(touchedUp(new Log(), 44).measureAll(3600))).toBe(false)
})

test('a loop is measured before anybody runs it, once with two in a hundred a cutter is at its mark', () => {
  const rules = { ...DEFAULT_RULES, reserveUm: 0 }
  const chances: number[] = []
  for (let um = 200; um < 700; um += 3) {
    const { lengths, spec, ...state } = stateOf(new Log({ ...SPEC, markLengthUm: 800 }).measureAll(800 + um).file())
    const chance = someAtOrBelow(lengths.tied, lengths.hands, () => spec.markLengthUm)
    const asked = decide({ lengths, spec, ...state }, rules).reasons.some(({ rule }) => rule === 'perhapsAtMark')
    expect(asked).toBe(chance > 0.02)
    chances.push(chance)
  }
  // Right up to it on both sides.
  expect(Math.min(...chances.filter((one) => one > 0.02))).toBeLessThan(0.024)
  expect(Math.max(...chances.filter((one) => one <= 0.02))).toBeGreaterThan(0.017)
})
