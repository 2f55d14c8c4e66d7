import { describe, expect, test } from 'vitest'
import { Log, stateOf } from '../fixtures/logs'
import type { Hand } from '../loop'
import type { RemovalSample } from '../state'
import { personBite } from './personBite'

/** One counted filing of ten strokes by somebody, which took so much off both sides. */
const filed = (personId: string | null, um: number, more: Partial<RemovalSample> = {}): RemovalSample => {
  const side = { um, sdUm: 0, cutters: 18, strokes: 10 }
  return {
    population: 'routine',
    perSharpeningUm: um,
    sdUm: 0,
    sharpenings: 1,
    personId,
    sides: { left: side, right: side },
    ...more,
  }
}

describe('what one of several people takes off', () => {
  test('begins with what other loops showed of them: exactly, where nobody else filed those', () => {
    const known = { factor: 1.2, sd: 0.05 }
    expect(personBite([], 'a', known)).toEqual(known)
    expect(personBite([filed('a', 300)], 'a', known)).toEqual(known)
    const both = [filed('a', 200), filed('b', 200)]
    // 1 was seen of each: 1.2 gives way by 0.05² ÷ (0.05² + 0.2²) of the difference.
    expect(personBite(both, 'a', known).factor).toBeCloseTo(1.2 - 0.2 * (0.05 ** 2 / (0.05 ** 2 + 0.2 ** 2)), 10)
    expect(personBite(both, 'a', { factor: 1, sd: 0 })).toEqual({ factor: 1, sd: 0 })
  })

  test('by hand: one sharpening each, half as much again and half of what is usual', () => {
    // 1.5 and 0.5 of 0.2 mm are 1.5 and 0.5 of their mean; the trust is 0.15² ÷ (0.15² + 0.2²) = 0.36.
    const both = [filed('a', 300), filed('b', 100)]
    expect(personBite(both, 'a').factor).toBeCloseTo(1.18, 10)
    expect(personBite(both, 'b').factor).toBeCloseTo(0.82, 10)
    // Its deviation is 1 ÷ √(1 ÷ 0.15² + 1 ÷ 0.2²) = 0.12; half of what was seen of the loop was theirs.
    expect(personBite(both, 'a').sd).toBeCloseTo(0.06, 10)
  })

  test('is what everybody takes while nobody else was seen at it, or nobody was named', () => {
    const usual = { factor: 1, sd: 0 }
    expect(personBite([], 'a')).toEqual(usual)
    expect(personBite([filed('a', 300), filed('a', 280)], 'a')).toEqual(usual)
    expect(personBite([filed('a', 300), filed('b', 100)], null)).toEqual(usual)
    expect(personBite([filed('a', 300), filed(null, 100)], 'a')).toEqual(usual)
    // A wheel takes what its stop says, and a side without strokes nothing.
    expect(personBite([filed('a', 300), filed('b', 100, { population: 'grind' })], 'a')).toEqual(usual)
    const none = { um: 0, sdUm: 0, cutters: 18, strokes: 0 }
    expect(personBite([filed('a', 300), filed('b', 0, { sides: { left: none } })], 'a')).toEqual(usual)
  })

  test('is open for one who was never seen at it', () => {
    expect(personBite([filed('a', 300)], 'b')).toEqual({ factor: 1, sd: 0.15 })
  })

  test('is known the better the more was seen of it, and what was seen vaguely counts for little', () => {
    const again = (count: number, sdUm = 0) =>
      personBite(
        Array.from({ length: count }, () => [
          filed('a', 300, { sides: { left: { um: 300, sdUm, cutters: 2, strokes: 10 } } }),
          filed('b', 100, { sides: { left: { um: 100, sdUm, cutters: 2, strokes: 10 } } }),
        ]).flat(),
        'a',
      )
    expect(again(4).factor).toBeGreaterThan(again(2).factor)
    expect(again(4).factor).toBeLessThan(1.5)
    expect(again(4).sd).toBeLessThan(again(2).sd)
    expect(again(2, 80).factor).toBeLessThan(again(2).factor)
  })

  test('what nobody counted is taken against what is usual for it, and a worn file by its age', () => {
    const uncounted = { um: 120, sdUm: 0, cutters: 18 }
    const touchUps = [
      filed('a', 120, { population: 'touchUp', sides: { left: uncounted, right: uncounted } }),
      filed('b', 240),
    ]
    expect(personBite(touchUps, 'a').factor).toBeCloseTo(1, 10)
    // Ten strokes of a worn file take 0.16 mm.
    expect(personBite([filed('a', 160, { fileAge: 'worn' }), filed('b', 200)], 'a').factor).toBeCloseTo(1, 10)
  })
})

describe('of one loop', () => {
  const read = (log: Log, um: number): Log => log.measureAll(um)
  /** Two who take turns, one of whom takes 0.3 mm and the other 0.1 mm with ten strokes; each is measured. */
  const turns = (log = new Log()): Log => {
    let um = 8000
    read(log, um)
    for (let i = 0; i < 3; i += 1)
      for (const [personId, off] of [
        ['a', 300],
        ['b', 100],
      ] as const) {
        log.add(
          'sharpened',
          { method: 'fileBench', gaugesLowered: false, strokes: { left: 10, right: 10 } },
          { personId },
        )
        read(log, (um -= off))
      }
    return log
  }
  const offBy = (personId: string | null, hand: Hand = 'left') => {
    const [before, after] = [stateOf(turns()), stateOf(filedBy(personId))]
    const place = before.cutters.findIndex((cutter) => cutter.hand === hand)
    const [was, is] = [before.cutters[place]?.length, after.cutters[place]?.length]
    return { um: (was?.um ?? 0) - (is?.um ?? 0), sdUm: is?.sdUm ?? 0 }
  }
  const filedBy = (personId: string | null): Log =>
    turns().add(
      'sharpened',
      { method: 'fileBench', gaugesLowered: false, strokes: { left: 10, right: 10 } },
      { personId },
    )

  test('who did it decides what is thought to have come off', () => {
    const [a, b, somebody] = [offBy('a'), offBy('b'), offBy(null)]
    expect(a.um).toBeGreaterThan(somebody.um + 20)
    expect(b.um).toBeLessThan(somebody.um - 20)
    expect(a.um).toBeLessThanOrEqual(300)
    expect(b.um).toBeGreaterThanOrEqual(100)
  })

  test('of a stranger it is known less well', () => {
    expect(offBy('stranger').sdUm).toBeGreaterThan(offBy(null).sdUm)
    expect(offBy('stranger').um).toBe(offBy(null).um)
  })
})
