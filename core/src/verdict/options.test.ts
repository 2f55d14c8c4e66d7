import { expect, test } from 'vitest'
import { Log, SPEC, stateOf } from '../fixtures/logs'
import { DEFAULT_RULES, type HouseRules } from '../house'
import type { Action } from '../log'
import { decide } from './decide'
import { forecast } from './forecast'
import { sensitivity } from './sensitivity'
import type { Option } from './verdict'

const optionOf = (log: Log, action: Action, rules: Partial<HouseRules> = {}): Option => {
  const found = decide(stateOf(log), { ...DEFAULT_RULES, ...rules }).options.find((option) => option.action === action)
  if (found === undefined) throw new Error(`there should be an option to ${action}`)
  return found
}
const MARK_UM = 800
const aboveMark = (um: number): Log =>
  new Log({ ...SPEC, markLengthUm: MARK_UM }).measureAll(MARK_UM + um).add('ran', { tanks: 4, conditions: 'soil' })

test('what is too little is counted from the mark, wherever it lies', () => {
  const option = optionOf(aboveMark(300), 'file', { reserveUm: 500 })
  const tooLittle = option.reasons.find(({ rule }) => rule === 'tooLittleLeft')
  expect(tooLittle?.value).toEqual({ unit: 'um', amount: option.leftUm })
  expect(tooLittle?.limit).toEqual({ unit: 'um', amount: 500 })
  expect(option.leftUm).toBeLessThan(300)
  expect(option.leftUm).toBeGreaterThan(0)
})

test('a file leaves a loop uneven from just beyond half of what is let run', () => {
  const log = new Log().measureAll((cutter) => 7000 - 10 * (cutter % 20)).add('ran', { tanks: 4, conditions: 'soil' })
  const spreadUm = optionOf(log, 'file', { unevenSchool: 'sameStrokes' }).spreadUm
  expect(spreadUm).toBeGreaterThan(0)
  const risksAt = (evennessUm: number) => optionOf(log, 'file', { unevenSchool: 'sameStrokes', evennessUm }).risks
  expect(risksAt(2 * spreadUm)).not.toContain('unevenUntilGround')
  expect(risksAt(2 * spreadUm - 1)).toContain('unevenUntilGround')
})

test('who settles on a sharpening is told of the gauges that are due with it', () => {
  const high = (): Log =>
    new Log()
      .measureAll(7000)
      .add('measured', { readings: Array.from({ length: 36 }, (_, i) => ({ cutter: i + 1, settingUm: 400 })) })
  const settledOn = (log: Log, action: Action) => {
    const { advised } = decide(stateOf(log), DEFAULT_RULES)
    log.add('decided', { action, advised, rulesVersion: 1, overruled: 'Because' })
    return decide(stateOf(log), DEFAULT_RULES)
  }
  expect(settledOn(high(), 'regrind').also).toEqual(['lowerGauges'])
  expect(settledOn(high().file({ gaugesLowered: true }), 'file').also).toEqual([])
  expect(settledOn(high(), 'lowerGauges').also).toEqual([])
  expect(settledOn(high(), 'measure').also).toEqual([])
})

test('bumpers are never filed off: gauges beside them take longer, and no two-in-one does them on the way', () => {
  const high = (links: 'plain' | 'bumper') =>
    new Log({ ...SPEC, links }).add('measured', {
      readings: Array.from({ length: 36 }, (_, i) => ({ cutter: i + 1, lengthUm: 7000, settingUm: 400 })),
    })
  const minutes = (log: Log, action: Action, rules: Partial<HouseRules> = {}) =>
    optionOf(log, action, rules).minutes.likely
  // 36 gauges of 5 to 9 s each: 4.2 min, and half as much again.
  expect(minutes(high('bumper'), 'lowerGauges') - minutes(high('plain'), 'lowerGauges')).toBeCloseTo(2.1, 6)
  // A plate guide is taken instead, which takes a moment more to change sides.
  const twoInOne = { guide: 'twoInOne' } as const
  const due = (links: 'plain' | 'bumper') => high(links).add('ran', { tanks: 7, conditions: 'clean' })
  expect(minutes(due('bumper'), 'file', twoInOne) - minutes(due('plain'), 'file', twoInOne)).toBeCloseTo(8.3 + 0.2, 6)
})

test('the same strokes for all are said as stages: how many, and what they cost meanwhile', () => {
  const nicked = new Log().add('measured', {
    readings: Array.from({ length: 36 }, (_, i) => ({
      cutter: i + 1,
      lengthUm: 7000,
      damage: i < 3 ? [{ kind: 'chipped' as const, depthUm: 500 }] : [],
    })),
  })
  const { stages, way, perHourMinor, sharpHours } = optionOf(nicked, 'file', { unevenSchool: 'sameStrokes' })
  // 500 and 100 behind it at 200 a filing; 3 of 36 blunt after the first and the second.
  expect({ way, sharpenings: stages?.sharpenings }).toEqual({ way: 'sameStrokes', sharpenings: 3 })
  expect(stages?.lostHours).toBeCloseTo((6 * sharpHours.likely) / 33, 6)
  expect(stages?.lostMinor).toBe(Math.round((stages?.lostHours ?? 0) * (perHourMinor?.likely ?? 0)))
  expect(optionOf(nicked, 'file')).toMatchObject({ way: 'matchShortest', stages: null })
  expect(optionOf(nicked, 'regrind')).toMatchObject({ way: null, stages: null })
})

test('what is spent by estimate alone is measured first, and may run until then', () => {
  // A house that keeps a great reserve: nobody doubts that the mark is far, and no sharpening leaves the reserve.
  const log = new Log().measureAll(3000).file().add('ran', { tanks: 7, conditions: 'clean' })
  const verdict = decide(stateOf(log), { ...DEFAULT_RULES, reserveUm: 2750 })
  expect(verdict).toMatchObject({ action: 'measure', fitForUse: true })
  expect(verdict.reasons[0]).toMatchObject({ rule: 'tooLittleLeft', limit: { amount: 2750 } })
  expect(decide(stateOf(log.measureAll(2800)), { ...DEFAULT_RULES, reserveUm: 2750 }).action).toBe('dirtyDuty')
})

test('a loop of which next to nothing is known is not called uneven', () => {
  const log = new Log().measureAll(7900)
  for (let i = 0; i < 8; i += 1) log.file({ strokes: { left: 500, right: 500 } })
  const state = stateOf(log)
  expect(Math.max(...state.cutters.map(({ length }) => length.sdUm))).toBeGreaterThan(6000)
  const { reasons, options } = decide(state, DEFAULT_RULES)
  for (const list of [reasons, ...options.map((option) => option.reasons)])
    expect(list.map(({ rule }) => rule)).not.toContain('uneven')
})

test('nothing would change what ends a loop', () => {
  const cracked = new Log()
    .measureAll(7000)
    .file()
    .add('measured', { readings: [{ cutter: 3, damage: [{ kind: 'cracked', depthUm: null }] }] })
  const state = stateOf(cracked)
  expect(sensitivity(state, DEFAULT_RULES, decide(state, DEFAULT_RULES))).toEqual([])
})

test.each([
  ['left', 400],
  ['right', -400],
] as const)('what a filing leaves longer on the %s is said of that side', (hand, by) => {
  const log = new Log().measureAll((n) => 6000 + (n % 2 === 1 ? by : 0)).add('ran', { tanks: 4, conditions: 'soil' })
  const { reasons } = optionOf(log, 'file', { unevenSchool: 'sameStrokes' })
  expect(reasons.find(({ rule }) => rule === 'sidesDiffer')).toMatchObject({ hand, limitFrom: 'house' })
})

test('damage is said before a shape that takes less than that', () => {
  const log = new Log().measureAll(7000).add('measured', {
    readings: [
      { cutter: 3, damage: [{ kind: 'hook', depthUm: null }] },
      { cutter: 8, damage: [{ kind: 'chipped', depthUm: 300 }] },
      { cutter: 9, damage: [{ kind: 'chipped', depthUm: 350 }] },
    ],
  })
  const { reasons } = decide(stateOf(log), DEFAULT_RULES)
  const said = reasons.filter(({ rule }) => rule === 'damageToClean' || rule === 'shapeToPutRight')
  expect(said.map(({ cutter }) => cutter)).toEqual([9, 8, 3])
})

test('gauges count as measured once every one of them is', () => {
  const log = (count: number): Log =>
    new Log().add('measured', {
      readings: Array.from({ length: count }, (_, i) => ({ cutter: i + 1, settingUm: 600 })),
    })
  const measured = (count: number) => forecast(stateOf(log(count)), DEFAULT_RULES).settingMeasured
  expect([1, 35, 36].map(measured)).toEqual([false, false, true])
})
