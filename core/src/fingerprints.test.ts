import { expect, test } from 'vitest'
import { cardOf, urgencyOf } from './card'
import { Draws, madeUpLog, madeUpRules } from './fixtures/madeUp'
import { hour, stateOf } from './fixtures/logs'
import { printOf } from './fixtures/printOf'
import { decide, decideFully, lifeOf } from './verdict'
import { crewWear } from './wear'
import { sayEntry, sayReason, sayTurn } from './words'

// What core makes of made-up logs and houses, one line for each with a fingerprint of every part: whatever
// changes what a crew is told shows here, and which part of it. It says that something changed, not that it is
// right; that is for the other tests. After a change that is meant: vitest run -u, and raise STORED_VERSION.

const FIGURES = { lengths: 'mm', currency: 'EUR' } as const

test('nothing that a crew is told of a loop changes unseen', async () => {
  const lines = Array.from({ length: 50 }, (_, seed) => {
    const draws = new Draws(seed + 1)
    const log = madeUpLog(draws)
    const rules = madeUpRules(draws)
    const state = stateOf(log)
    const { verdict, turns, schools, sides, life, grinder } = decideFully(state, rules, hour(2000))
    const card = cardOf(state, rules)
    const said = [
      ...log.entries.map((entry) => sayEntry(entry, FIGURES, (id) => id)),
      ...[verdict, ...verdict.options].flatMap(({ reasons }) => reasons.map((one) => sayReason(one, FIGURES))),
      ...turns.map((turn) => sayTurn(turn, verdict.advised, FIGURES)),
    ]
    const parts = { state, card: [card, urgencyOf(card)], verdict, turns, schools, sides, life, grinder, said }
    const prints = Object.entries(parts).map(([name, value]) => `${name} ${printOf(value)}`)
    return `${String(seed + 1).padStart(3)} ${verdict.action.padEnd(11)} ${prints.join(' ')}`
  })
  await expect(lines.join('\n')).toMatchFileSnapshot('./fixtures/fingerprints/loops.txt')
})

test('nor what is decided for many more', async () => {
  const lines = Array.from({ length: 40 }, (_, ten) => {
    const told = Array.from({ length: 10 }, (_, one) => {
      const draws = new Draws(5000 + 10 * ten + one)
      const [log, rules] = [madeUpLog(draws), madeUpRules(draws)]
      const state = stateOf(log)
      return [state, cardOf(state, rules), decide(state, rules), lifeOf(state, rules, hour(2000))] as const
    })
    const part = (of: number): string => printOf(told.map((one) => one[of]))
    return `${String(ten).padStart(3)} state ${part(0)} card ${part(1)} verdict ${part(2)} life ${part(3)}`
  })
  await expect(lines.join('\n')).toMatchFileSnapshot('./fixtures/fingerprints/manyLoops.txt')
})

test('nor what it is told of all its loops together', async () => {
  const lines = Array.from({ length: 12 }, (_, seed) => {
    const draws = new Draws(1000 + seed)
    const states = Array.from({ length: 12 }, () => stateOf(madeUpLog(draws)))
    return `${String(seed).padStart(3)} ${printOf(crewWear(states))}`
  })
  await expect(lines.join('\n')).toMatchFileSnapshot('./fixtures/fingerprints/crews.txt')
})
