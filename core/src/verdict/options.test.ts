import { expect, test } from 'vitest'
import { Log, SPEC, stateOf } from '../fixtures/logs'
import { DEFAULT_RULES, type HouseRules } from '../house'
import type { Action } from '../log'
import { decide } from './decide'
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
