import { expect, test } from 'vitest'
import { cardOf, urgencyOf } from './card'
import { Draws, madeUpLog, madeUpRules } from './fixtures/madeUp'
import { hour, stateOf } from './fixtures/logs'
import { printOf } from './fixtures/printOf'
import { decideFully } from './verdict'
import { crewWear } from './wear'
import { sayEntry, sayReason, sayTurn } from './words'

// What core makes of made-up logs and houses, one line for each with a fingerprint of every part: whatever
// changes what a crew is told shows here, and which part of it. It says that something changed, not that it is
// right; that is for the other tests. After a change that is meant: vitest run -u, and raise STORED_VERSION.

const FIGURES = { lengths: 'mm', currency: 'EUR' } as const

test('nothing that a crew is told of a loop changes unseen', async () => {
  const lines = Array.from({ length: 70 }, (_, seed) => {
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

test('nor what it is told of all its loops together', async () => {
  const lines = Array.from({ length: 12 }, (_, seed) => {
    const draws = new Draws(1000 + seed)
    const states = Array.from({ length: 12 }, () => stateOf(madeUpLog(draws)))
    return `${String(seed).padStart(3)} ${printOf(crewWear(states))}`
  })
  await expect(lines.join('\n')).toMatchFileSnapshot('./fixtures/fingerprints/crews.txt')
})
