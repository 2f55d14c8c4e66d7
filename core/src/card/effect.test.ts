import { expect, test } from 'vitest'
import { Log, stateOf } from '../fixtures/logs'
import { DEFAULT_RULES } from '../house'
import { cardOf } from './card'
import { shedEffect } from './effect'

const logs = [
  new Log().measureAll(6500),
  new Log().measureAll(6500).add('ran', { tanks: 3, conditions: 'clean' }),
  new Log().measureAll(3000).add('retired', { reason: 'worn' }),
]
const cards = (rules: typeof DEFAULT_RULES) =>
  logs.map((log, i) => ({ ...cardOf(stateOf(log), rules), loopId: `loop-${i}`, tag: `L${i}` }))

test('the effect of rules is the verdicts that turn, with minutes and money of the whole shed', () => {
  const same = shedEffect(cards(DEFAULT_RULES), cards(DEFAULT_RULES))
  expect(same).toMatchObject({ turned: [], loops: 2 })
  expect(same.minutes.before).toBe(same.minutes.after)
  const late = { ...DEFAULT_RULES, touchUpTanks: 20, benchTanks: 40 }
  const effect = shedEffect(cards(DEFAULT_RULES), cards(late))
  expect(effect.turned).toEqual([{ tag: 'L1', from: 'touchUp', to: 'runOn' }])
  expect(effect.minutes.after).toBeLessThan(effect.minutes.before)
  expect(effect.costMinor.after).toBeLessThan(effect.costMinor.before)
})
