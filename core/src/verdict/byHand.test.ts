import { expect, test } from 'vitest'
import { fold } from '../fold'
import { loopLength } from '../loop'
import { Log } from '../fixtures/logs'
import { decide } from './decide'
import { forecast } from './forecast'
import { DEFAULT_RULES } from '../house'

// The loop that docs/model.md carries through by hand.
test('the worked example of the docs', () => {
  const log = new Log().measureAll(7000)
  log.add('measured', { readings: [{ cutter: 9, lengthUm: 7000, damage: [{ kind: 'stone', depthUm: 1200 }] }] })
  const state = fold(log.entries)
  if (state === null) throw new Error('the loop should be registered')

  expect(loopLength(9525, 72)).toBe(1_371_600)
  const ahead = forecast(state, DEFAULT_RULES)
  expect(ahead.summary.worstAfterUm).toBe(5800)
  expect(ahead.usableUm).toBe(5600)
  expect(ahead.sharpeningsLeft.likely).toBe(28)

  const verdict = decide(state, DEFAULT_RULES)
  expect(verdict.action).toBe('regrind')
  expect(verdict.options.find(({ action }) => action === 'file')).toMatchObject({ feasible: true, deepestUm: 1300 })
  const wheel = verdict.options.find(({ action }) => action === 'regrind')
  expect(wheel).toMatchObject({ feasible: true, deepestUm: 1300, meanUm: 1300, leftUm: 5700 })
  expect(wheel?.minutes.low).toBeCloseTo(18.4 + 4, 10)
  expect(wheel?.minutes.high).toBeCloseTo(33 + 8.4, 10)
})
