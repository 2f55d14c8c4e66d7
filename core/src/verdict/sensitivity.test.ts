import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { lengthOf } from '../belief'
import { Log, stateOf } from '../fixtures/logs'
import { DEFAULT_RULES, type HouseRules } from '../house'
import type { Action } from '../log'
import type { LoopState } from '../state'
import { advise, decide } from './decide'
import { sensitivity, type Turn } from './sensitivity'
import { readAt } from './supposed'

/** A loop that money decides: of some length, struck or not, dull, and read once or a few filings ago. */
const anyCase = fc.record({
  lengthUm: fc.integer({ min: 500, max: 7500 }),
  unevenUm: fc.integer({ min: 0, max: 500 }),
  depthUm: fc.integer({ min: 0, max: 2600 }),
  tanks: fc.integer({ min: 0, max: 9 }),
  filings: fc.integer({ min: 0, max: 4 }),
  rules: fc.record({
    grinderOwned: fc.boolean(),
    shopUsed: fc.boolean(),
    dirtyDuty: fc.boolean(),
    bench: fc.constantFrom(...(['fileForRoutine', 'wheelAtBench', 'cheapest'] as const)),
    labourPerHourMinor: fc.integer({ min: 200, max: 9000 }),
  }),
})

function loopOf({
  lengthUm,
  unevenUm,
  depthUm,
  tanks,
  filings,
}: Omit<typeof anyCase extends fc.Arbitrary<infer C> ? C : never, 'rules'>): LoopState {
  const log = new Log().measureAll((n) => lengthUm + (n % 2) * unevenUm + (n % 5) * 7)
  for (let i = 0; i < filings; i += 1) log.file()
  if (depthUm > 0)
    log.add('measured', {
      readings: [8, 9, 10, 11, 12].map((cutter) => ({ cutter, damage: [{ kind: 'stone', depthUm }] })),
    })
  return stateOf(log.add('ran', { tanks, conditions: 'clean' }))
}

const turnsOf = (state: LoopState, rules: HouseRules): readonly Turn[] =>
  sensitivity(state, rules, decide(state, rules))

/** What is advised when a new loop, or an hour of work, costs so much. */
function adviceAt(state: LoopState, rules: HouseRules, by: 'loopPrice' | 'labour', minor: number): Action {
  const { pitchClass, driveLinks } = state.spec
  return by === 'labour'
    ? advise(state, { ...rules, labourPerHourMinor: minor }).advised
    : advise(state, { ...rules, linkPriceMinor: { ...rules.linkPriceMinor, [pitchClass]: minor / driveLinks } }).advised
}

interface Turned {
  readonly state: LoopState
  readonly rules: HouseRules
  readonly advised: Action
}

/**
 * Looks at the turns of many loops.
 *
 * @param check says whether it was about this kind of turn
 * @returns how many were looked at
 */
function everyTurn(runs: number, check: (turn: Turn, on: Turned) => boolean): number {
  let looked = 0
  fc.assert(
    fc.property(anyCase, ({ rules: some, ...loop }) => {
      const rules = { ...DEFAULT_RULES, ...some }
      const state = loopOf(loop)
      const on = { state, rules, advised: advise(state, rules).advised }
      for (const turn of turnsOf(state, rules)) if (check(turn, on)) looked += 1
    }),
    { numRuns: runs },
  )
  return looked
}

describe('what would change it is true when it is applied', () => {
  test('two parts in a hundred before a price the advice stands, as much beyond it is what was said', () => {
    const looked = everyTurn(150, (turn, { state, rules, advised }) => {
      if (turn.by !== 'loopPrice' && turn.by !== 'labour') return false
      // A price in whole cents may lie a little off where it turns.
      const by = Math.max(0.021, 1.5 / turn.atMinor) * (turn.from === 'above' ? 1 : -1)
      expect(adviceAt(state, rules, turn.by, turn.atMinor * (1 - by))).toBe(advised)
      expect(adviceAt(state, rules, turn.by, turn.atMinor * (1 + by))).toBe(turn.turnsTo)
      return true
    })
    expect(looked).toBeGreaterThan(30)
  })

  test('measuring what it names can give what it says', () => {
    const looked = everyTurn(100, (turn, { state, rules, advised }) => {
      if (turn.by !== 'reading') return false
      const place = turn.cutter - 1
      const { mean, variance } = lengthOf(state.lengths, place)
      const after = (deviations: number): Action => {
        const um = Math.max(0, Math.round(mean + deviations * Math.sqrt(variance + 50 ** 2)))
        return advise(readAt(state, new Map([[place, um]])), rules).advised
      }
      const found = new Set([-2.5, -1.7321, -1, 0, 1, 1.7321, 2.5].map(after))
      for (const action of turn.turnsTo) expect(found).toContain(action)
      expect(turn.turnsTo).not.toContain(advised)
      // Three readings stand for all: a sixth, two thirds, a sixth.
      expect([1, 2, 4, 5, 6].some((sixths) => Math.abs(turn.chance * 6 - sixths) < 1e-9)).toBe(true)
      expect(state.cutters[place]?.length.known).not.toBe('measured')
      expect(turn.hand).toBe(state.cutters[place]?.hand)
      expect(turn.savesMinor).toBeGreaterThanOrEqual(0)
      return true
    })
    expect(looked).toBeGreaterThan(10)
  })

  test('where every cutter was measured no reading is named; the one that decides is named where it was not', () => {
    const measured = loopOf({ lengthUm: 700, unevenUm: 0, depthUm: 0, tanks: 7, filings: 0 })
    expect(turnsOf(measured, DEFAULT_RULES).filter(({ by }) => by === 'reading' || by === 'measuring')).toEqual([])
    const guessed = stateOf(
      new Log().measureAll(1100).file().file().file().add('ran', { tanks: 7, conditions: 'clean' }),
    )
    const reading = turnsOf(guessed, DEFAULT_RULES).find(({ by }) => by === 'reading')
    expect(reading).toBeDefined()
  })
})

test('a supposed reading moves its own cutter most, and the log stays what it is', () => {
  const state = stateOf(new Log().measureAll(6000).file().file())
  const before = state.cutters.map(({ length }) => length.um)
  const after = readAt(state, new Map([[0, (before[0] ?? 0) - 200]]))
  const moved = after.cutters.map(({ length }, i) => (before[i] ?? 0) - length.um)
  expect(Math.max(...moved)).toBe(moved[0])
  expect(moved[0]).toBeGreaterThan(moved[2] ?? 0)
  // Its own side goes with it further than the other.
  expect(moved[2]).toBeGreaterThan(moved[1] ?? 0)
  expect(after.cutters[0]?.length.known).toBe('measured')
  expect(after.cutters[1]?.length.known).toBe('estimated')
  expect(state.cutters.map(({ length }) => length.um)).toEqual(before)
})
