import type { LoopState } from '../state'
import { describe, expect, test } from 'vitest'
import { fold } from '../fold'
import { Log } from '../fixtures/logs'
import { DEFAULT_RULES } from '../house'
import { forecast } from './forecast'
import { decide } from './decide'
import { sayTurn } from '../words'
import { sensitivity } from './sensitivity'
import { sideBalance } from './sides'

const stateOf = (log: Log): LoopState => {
  const state = fold(log.entries)
  if (state === null) throw new Error('the loop should be registered')
  return state
}
const balanceOf = (log: Log) => {
  const state = stateOf(log)
  return sideBalance(state, DEFAULT_RULES, forecast(state, DEFAULT_RULES))
}
/** Reads some cutters; left-hand ones are odd. */
const read = (lengths: Record<number, number>): Log =>
  new Log().add('measured', {
    readings: Object.entries(lengths).map(([cutter, lengthUm]) => ({ cutter: Number(cutter), lengthUm })),
  })

describe('left against right', () => {
  // Student's 1908 sleep data as ten left and ten right cutters, in tenths of a millimetre round 6 mm:
  // mean difference -1.58, Welch's 95 % from -3.365 to 0.205 (from memory). What loops are like narrows that.
  test('lies by the mean of what was read, no wider than the cutters alone would have it', () => {
    const drug1 = [0.7, -1.6, -0.2, -1.2, -0.1, 3.4, 3.7, 0.8, 0.0, 2.0]
    const drug2 = [1.9, 0.8, 1.1, 0.1, -0.1, 4.4, 5.5, 1.6, 4.6, 3.4]
    const lengths: Record<number, number> = {}
    drug1.forEach((hours, i) => {
      lengths[2 * i + 1] = 6000 + hours * 100
    })
    drug2.forEach((hours, i) => {
      lengths[2 * i + 2] = 6000 + hours * 100
    })
    const { difference, longer } = balanceOf(read(lengths))
    expect(Math.abs((difference?.difference ?? 0) + 158)).toBeLessThan(25)
    expect(difference?.low).toBeGreaterThan(-337)
    expect(difference?.high).toBeLessThan(21)
    expect(longer).toBe('right')
  })

  test('says which is longer once it is surer than one in twenty', () => {
    // Read alike on both sides but for so much: the chance of it by strays alone is worked out from mean and deviation.
    const by = (um: number) => balanceOf(new Log().measureAll((n) => (n % 2 === 1 ? 6000 + um : 6000), 4))
    for (let um = 0; um < 400; um += 4) {
      const { difference, longer } = by(um)
      expect(longer).toBe((difference?.p ?? 1) < 0.05 ? 'left' : null)
    }
    expect([by(0).longer, by(400).longer]).toEqual([null, 'left'])
  })

  test('says which way it pulls and how many strokes even it, per school', () => {
    const { longer, beyond, remedies } = balanceOf(
      new Log().measureAll((n) => (n % 2 === 1 ? 6400 : 6000) + (n % 5) * 10),
    )
    expect({ longer, beyond }).toEqual({ longer: 'left', beyond: true })
    // 0.4 mm at 0.02 mm a stroke, by hand.
    expect(remedies).toEqual([
      { school: 'matchShortest', strokes: 20, sharpenings: 1 },
      { school: 'sameStrokes', strokes: 2, sharpenings: 10 },
      { school: 'worstSetsCount', strokes: 0, sharpenings: null },
      { school: 'extraOnBad', strokes: 0, sharpenings: null },
      { school: 'ownGauges', strokes: 0, sharpenings: null },
    ])
  })

  test('with few readings it says how many more would settle it; with enough none', () => {
    const few = balanceOf(read({ 1: 6300, 3: 6250, 2: 6100, 4: 6150 }))
    expect(few.readingsNeeded?.left).toBeGreaterThan(0)
    expect(few.readingsNeeded?.right).toBeGreaterThan(0)
    const plenty = balanceOf(new Log().measureAll((n) => 6000 + (n % 5) * 20))
    expect(plenty).toMatchObject({ within: true, readingsNeeded: { left: 0, right: 0 } })
  })

  test('the more they stray, the more readings it takes', () => {
    const needed = (stray: number) =>
      balanceOf(read({ 1: 6000 + stray, 3: 6000 - stray, 5: 6000, 2: 6100 + stray, 4: 6100 - stray, 6: 6100 }))
        .readingsNeeded
    const total = (stray: number) => (needed(stray)?.left ?? 99) + (needed(stray)?.right ?? 99)
    expect(total(60)).toBeLessThan(total(250))
  })
})

describe('counts that are always more on one side', () => {
  const LENGTHS = Object.fromEntries(Array.from({ length: 36 }, (_, i) => [i + 1, 7000]))
  /** So many touch-ups, each with these counts, and a tank after each. */
  const touchedUp = (left: number, right: number, times: number): Log => {
    const log = read(LENGTHS)
    for (let i = 0; i < times; i += 1)
      log
        .add('sharpened', { method: 'fileField', strokes: { left, right }, gaugesLowered: false }, { personId: 'anna' })
        .add('ran', { tanks: 1, conditions: 'clean' })
    return log
  }

  test('are a weak hand before they are uneven sides: nothing moves, and less is sure with every one', () => {
    const even = balanceOf(touchedUp(4, 4, 8))
    for (const [left, right] of [
      [5, 3],
      [3, 5],
    ] as const) {
      const few = balanceOf(touchedUp(left, right, 2))
      const many = balanceOf(touchedUp(left, right, 8))
      expect(Math.abs(many.difference?.difference ?? NaN)).toBeLessThan(20)
      expect(many.difference?.standardError).toBeGreaterThan((few.difference?.standardError ?? NaN) * 2)
      expect(many.difference?.standardError).toBeGreaterThan((even.difference?.standardError ?? NaN) * 1.3)
      expect(many.within).toBe(false)
      const { reasons } = decide(stateOf(touchedUp(left, right, 8)), DEFAULT_RULES)
      expect(reasons.map(({ rule }) => rule)).not.toContain('sidesDiffer')
    }
  })

  test('and one round of readings says which it was', () => {
    const apart = touchedUp(5, 3, 8).add('measured', {
      readings: Object.keys(LENGTHS).map((cutter) => ({
        cutter: Number(cutter),
        lengthUm: Number(cutter) % 2 === 1 ? 6200 : 6520,
      })),
    })
    expect(balanceOf(apart).difference?.difference).toBeLessThan(-280)
    expect(stateOf(apart).held).toEqual([])
  })
})

describe('what would change the answer', () => {
  const struck = (lengthUm: number) =>
    new Log().measureAll(lengthUm).add('measured', {
      readings: [9, 10, 11].map((cutter) => ({
        cutter,
        lengthUm,
        damage: [{ kind: 'stone' as const, depthUm: 1500 }],
      })),
    })
  const turnsOf = (log: Log) => {
    const state = stateOf(log)
    const verdict = decide(state, DEFAULT_RULES)
    return { verdict, turns: sensitivity(state, DEFAULT_RULES, verdict), state }
  }

  test('the price at which grinding is no longer worth it is the price at which the verdict turns', () => {
    const { turns, state, verdict } = turnsOf(struck(6000))
    const turn = turns.find(({ by }) => by === 'loopPrice')
    if (turn?.by !== 'loopPrice') throw new Error('a price should turn it')
    expect(verdict.advised).toBe('regrind')
    expect(turn).toMatchObject({ from: 'below', turnsTo: 'dirtyDuty' })
    expect(sayTurn(turn, 'regrind', { currency: 'EUR' })).toMatch(/^Regrind as long as a new loop costs more than €/)
    const at = (minor: number) => {
      const linkPriceMinor = { ...DEFAULT_RULES.linkPriceMinor, threeEighths: minor / 72 }
      return decide(state, { ...DEFAULT_RULES, linkPriceMinor }).advised
    }
    expect(at(turn.atMinor * 1.1)).toBe('regrind')
    expect(at(turn.atMinor * 0.9)).toBe('dirtyDuty')
  })

  test('so is the price of an hour of work', () => {
    const { turns, state } = turnsOf(struck(6000))
    const turn = turns.find(({ by }) => by === 'labour')
    if (turn?.by !== 'labour') throw new Error('an hour of work should turn it')
    const at = (labourPerHourMinor: number) => decide(state, { ...DEFAULT_RULES, labourPerHourMinor }).advised
    expect(at(turn.atMinor * (turn.from === 'above' ? 1.1 : 0.9))).toBe(turn.turnsTo)
    expect(at(turn.atMinor * (turn.from === 'above' ? 0.9 : 1.1))).toBe('regrind')
  })

  test('estimated cutters: measuring them is said to matter only where it does', () => {
    expect(turnsOf(new Log().measureAll(6000)).turns.filter(({ by }) => by === 'measuring')).toEqual([])
    const near = new Log().measureAll(1000).file().file().file().add('ran', { tanks: 7, conditions: 'clean' })
    expect(turnsOf(near).turns.some(({ by }) => by === 'measuring')).toBe(true)
  })

  test('readings that would settle them go to the side that is known least', () => {
    expect(balanceOf(read({ 1: 6300, 3: 6250, 5: 6280, 7: 6350, 2: 6100, 4: 6220 })).readingsNeeded).toEqual({
      left: 0,
      right: 1,
    })
    expect(balanceOf(new Log().measureAll(6300)).readingsNeeded).toEqual({ left: 0, right: 0 })
  })

  test('sides that are not settled ask for readings of either side, as many as can turn it', () => {
    const { turns, verdict } = turnsOf(read({ 1: 6400, 3: 6350, 5: 6380, 7: 6450, 2: 6100, 4: 6180 }))
    const turn = turns.find(({ by }) => by === 'sides')
    if (turn?.by !== 'sides') throw new Error('the sides should turn it')
    expect(verdict.advised).toBe('runOn')
    expect(turn.turnsTo).toEqual(['regrind'])
    // Four of the left were read and two of the right.
    expect(turn.readings.right).toBeGreaterThan(0)
    expect(turnsOf(new Log().measureAll((n) => 6300 + (n % 2) * 150)).turns.filter(({ by }) => by === 'sides')).toEqual(
      [],
    )
  })
})
