import fc from 'fast-check'
import { expect, test } from 'vitest'
import { cardOf, urgencyOf } from './card'
import { anyLog } from './fixtures/anyLog'
import { Draws, madeUpLog, madeUpRules } from './fixtures/madeUp'
import { hour, stateOf } from './fixtures/logs'
import { printOf } from './fixtures/printOf'
import { fold } from './fold'
import type { HouseRules } from './house'
import { decide, decideFully, forecast, lifeOf, type Verdict } from './verdict'
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

test('nor what comes of logs of every kind, at the end and on the way, with entries that came in late', async () => {
  const logs = fc.sample(anyLog, { seed: 1, numRuns: 400 })
  const lines = Array.from({ length: 40 }, (_, ten) => {
    const told = logs.slice(10 * ten, 10 * ten + 10).map(({ entries }, one) => {
      const late = entries.map((entry, i) => (i === 1 + one ? { ...entry, writtenAt: hour(entries.length) } : entry))
      const rules = madeUpRules(new Draws(9000 + 10 * ten + one))
      const [state, halfway] = [fold(late), fold(late, hour(entries.length >> 1))]
      if (state === null) throw new Error('every loop is registered')
      return [state, halfway, cardOf(state, rules), decide(state, rules)] as const
    })
    const part = (of: number): string => printOf(told.map((one) => one[of]))
    return `${String(ten).padStart(3)} state ${part(0)} halfway ${part(1)} card ${part(2)} verdict ${part(3)}`
  })
  await expect(lines.join('\n')).toMatchFileSnapshot('./fixtures/fingerprints/anyLogs.txt')
})

test('nor what is decided right at a limit of the house, a hair below it and a hair beyond it', async () => {
  const short = ({ action, reasons, options }: Verdict) => [
    action,
    reasons.map(({ rule }) => rule),
    options.map((option) => [option.feasible, option.gauges, option.risks, option.reasons.map(({ rule }) => rule)]),
  ]
  const lines = Array.from({ length: 60 }, (_, seed) => {
    const draws = new Draws(7000 + seed)
    const [state, rules] = [stateOf(madeUpLog(draws)), madeUpRules(draws)]
    const { summary, settingUm, targetUm } = forecast(state, rules)
    const [deepest, ...others] = decide(state, rules).options.map(({ deepestUm }) => deepestUm)
    const at: Partial<Record<keyof HouseRules, number>> = {
      evennessUm: summary.spreadUm,
      sideDifferenceUm: Math.round(Math.abs(summary.difference?.difference ?? 0)),
      reserveUm: summary.worstAfterUm - state.spec.markLengthUm,
      largestFilingUm: Math.max(deepest ?? 0, ...others),
      gaugeHighUm: targetUm - settingUm,
      gaugeLowUm: settingUm - targetUm,
      touchUpTanks: state.tanksSinceSharpened,
      benchTanks: state.tanksSinceSharpened,
    }
    const told = Object.entries(at).map(([limit, value]) =>
      [-1, 0, 1].map((by) => short(decide(state, { ...rules, [limit]: Math.max(0, value + by) }))),
    )
    return `${String(seed).padStart(3)} ${told.map(printOf).join(' ')}`
  })
  await expect(lines.join('\n')).toMatchFileSnapshot('./fixtures/fingerprints/atLimits.txt')
})
