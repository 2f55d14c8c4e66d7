import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { fold } from '../fold'
import { hour, Log, SPEC, stateOf } from '../fixtures/logs'
import type { KnownBite, KnownHand } from '../log'
import type { RemovalSample, SideRemoval } from '../state'
import { sideDifference, strokeBite } from '../belief'
import { knownBite, MOST_HANDS } from './knownBite'

const side = (um: number, more: Partial<SideRemoval> = {}): SideRemoval => ({
  um,
  sdUm: 0,
  cutters: 18,
  strokes: 10,
  ...more,
})

/** A filing of ten counted strokes by somebody. */
const filed = (
  personId: string | null,
  left: number | null,
  right: number | null = left,
  more: Partial<RemovalSample> & { readonly read?: Partial<SideRemoval> } = {},
): RemovalSample => {
  const { read, ...rest } = more
  return {
    population: 'routine',
    perSharpeningUm: left ?? right ?? 0,
    sdUm: 0,
    sharpenings: 1,
    personId,
    sides: {
      ...(left === null ? {} : { left: side(left, read) }),
      ...(right === null ? {} : { right: side(right, read) }),
    },
    ...rest,
  }
}

const handOf = (known: KnownBite | undefined, personId: string): KnownHand => {
  const hand = known?.people.find((one) => one.personId === personId)
  if (hand === undefined) throw new Error(`nothing is known of ${personId}`)
  return hand
}

describe('what the crew’s files are known to take off', () => {
  test('is common practice where nothing was read, or only of a wheel, or on sides without strokes', () => {
    expect(knownBite([])).toBeUndefined()
    expect(knownBite([filed('a', 300, 300, { population: 'grind' })])).toBeUndefined()
    expect(knownBite([filed('a', 0, 0, { read: { strokes: 0 } })])).toBeUndefined()
    expect(knownBite([{ population: 'routine', perSharpeningUm: 200, sharpenings: 1, sdUm: 5 }])).toBeUndefined()
  })

  test('by hand: one counted filing of 0.3 mm where 0.2 is usual, a tenth less on the right', () => {
    const known = knownBite([filed('a', 330, 270)])
    // A stroke took 33 and 27 µm, 30 on the whole. The day strays by 12 % of 20 for both sides and 8 % for each, so
    // the mean is off by √(2.4² + 1.6² ÷ 2) = 2.65; crews by √(4.2² · 1.69 ÷ 2) = 3.86.
    const trust = 3.8608 ** 2 / (3.8608 ** 2 + 2.4 ** 2 + 1.6 ** 2 / 2)
    expect(known?.strokeUm).toBeCloseTo(20 + trust * 10, 2)
    // Another loop strays by 8 % of 20.
    expect(known?.strokeSdUm).toBeCloseTo(Math.sqrt(3.8608 ** 2 * (1 - trust) + 1.6 ** 2), 2)
    // Half of what left goes beyond right is 3 µm; people lean by √(4.2² · 0.31 ÷ 2) = 1.65, a day by 1.6 ÷ √2.
    const leans = 1.6535 ** 2 / (1.6535 ** 2 + 1.6 ** 2 / 2)
    expect(handOf(known, 'a').leanUm).toBeCloseTo(leans * 3, 2)
    expect(handOf(known, 'a').leanSdUm).toBeCloseTo(Math.sqrt(1.6535 ** 2 * (1 - leans) + 0.6 ** 2), 2)
    // Who files alone takes what all take, and of those who do not count nothing was seen.
    expect(known).toMatchObject({ uncounted: 0, uncountedSd: 0.16, people: [{ factor: 1, factorSd: 0 }] })
  })

  test('is written down to hundredths of a micrometre, and parts to thousandths', () => {
    const known = knownBite([filed('a', 331, 273), filed('b', 187, 191, { read: { strokes: undefined } as never })])
    if (known === undefined) throw new Error('something is known')
    const digitsOf = (value: number): number => (String(value).split('.')[1] ?? '').length
    const { strokeUm, strokeSdUm, uncounted, uncountedSd, people } = known
    expect(
      [strokeUm, strokeSdUm, ...people.flatMap(({ leanUm, leanSdUm }) => [leanUm, leanSdUm])].map(digitsOf),
    ).toEqual(Array.from({ length: 6 }, () => 2))
    expect(Math.max(...[uncounted, uncountedSd, ...people.map(({ factor }) => factor)].map(digitsOf))).toBe(3)
  })

  test('readings that are vague say little, several filings at once say more, and age of the file counts', () => {
    const strokeOf = (...args: Parameters<typeof filed>): number => knownBite([filed(...args)])?.strokeUm ?? NaN
    expect(strokeOf('a', 300, 300, { read: { sdUm: 100 } })).toBeLessThan(strokeOf('a', 300))
    expect(strokeOf('a', 300, 300, { sharpenings: 5 })).toBeGreaterThan(strokeOf('a', 300) + 1)
    // Worn, it took that for four fifths of a usual bite.
    expect(strokeOf('a', 240, 240, { fileAge: 'worn' })).toBeCloseTo(strokeOf('a', 300), 2)
  })

  test('where nobody counts, it is the habit that is learned first, with strokes counted what a stroke takes', () => {
    const uncounted = { read: { strokes: undefined } }
    const known = knownBite(Array.from({ length: 6 }, () => filed('a', 300, 300, uncounted as never)))
    expect(known?.uncounted).toBeGreaterThan(0.05)
    expect(known?.strokeUm).toBeGreaterThan(22)
    expect(known?.uncountedSd).toBeLessThan(0.16)
    const touchedUp = filed('a', 150, 150, { population: 'touchUp', ...uncounted } as never)
    expect(knownBite([touchedUp])?.strokeUm).toBeCloseTo(
      knownBite([filed('a', 300, 300, uncounted as never)])?.strokeUm ?? 0,
      2,
    )
  })

  test('people lean each on their own, and take more or less than the others', () => {
    const of = (id: string, left: number, right: number) => Array.from({ length: 8 }, () => filed(id, left, right))
    const known = knownBite([...of('a', 260, 220), ...of('b', 180, 140), ...of('c', 180, 220)])
    expect(handOf(known, 'a').leanUm).toBeGreaterThan(1.2)
    expect(handOf(known, 'b').leanUm).toBeGreaterThan(1.2)
    expect(handOf(known, 'c').leanUm).toBeLessThan(-1.2)
    expect(handOf(known, 'a').factor).toBeGreaterThan(1.1)
    expect(handOf(known, 'b').factor).toBeLessThan(0.9)
    expect(known?.strokeUm).toBeCloseTo(20, 0)
  })

  test('one side alone tells of the stroke and the lean together; by nobody in particular of the stroke only', () => {
    const left = knownBite([filed('a', 300, null)])
    const right = knownBite([filed('a', null, 300)])
    expect(handOf(left, 'a').leanUm).toBeGreaterThan(0.3)
    expect(handOf(right, 'a').leanUm).toBeCloseTo(-handOf(left, 'a').leanUm, 2)
    expect(left?.strokeUm).toBeCloseTo(right?.strokeUm ?? 0, 2)
    const nobody = knownBite([filed(null, 300, null)])
    expect(nobody?.people).toEqual([])
    expect(nobody?.strokeUm).toBeCloseTo(left?.strokeUm ?? 0, 1)
    expect(knownBite([filed(null, 330, 270)])?.people).toEqual([])
  })

  test('of more people than a registration takes, those stand in it of whom most is known', () => {
    const many = Array.from({ length: MOST_HANDS + 3 }, (_, i) =>
      filed(`person-${i}`, 200, 200, { sharpenings: i + 1 }),
    )
    const { people = [] } = knownBite(many) ?? {}
    expect(people).toHaveLength(MOST_HANDS)
    expect(people[0]?.personId).toBe(`person-${MOST_HANDS + 2}`)
    expect(people.map(({ personId }) => personId)).not.toContain('person-2')
  })

  test('it is never vaguer than common practice, and always a figure', () => {
    const anySide = fc.record({
      um: fc.integer({ min: 1, max: 2000 }),
      sdUm: fc.integer({ min: 0, max: 100 }),
      cutters: fc.constant(18),
      strokes: fc.integer({ min: 0, max: 60 }),
    })
    const anySample = fc.record({
      population: fc.constantFrom('touchUp' as const, 'routine' as const, 'grind' as const),
      perSharpeningUm: fc.integer({ min: 1, max: 2000 }),
      sdUm: fc.integer({ min: 0, max: 100 }),
      sharpenings: fc.integer({ min: 1, max: 20 }),
      personId: fc.constantFrom('a', 'b', null),
      sides: fc.record({ left: anySide, right: anySide }, { requiredKeys: [] }),
    })
    fc.assert(
      fc.property(fc.array(anySample, { maxLength: 30 }), (samples) => {
        const known = knownBite(samples)
        if (known === undefined) return
        const figures = [known.strokeUm, known.strokeSdUm, known.uncounted, known.uncountedSd]
        const hands = known.people.flatMap(({ personId: _, ...hand }) => Object.values(hand))
        for (const figure of [...figures, ...hands]) expect(Number.isFinite(figure)).toBe(true)
        expect(known.strokeSdUm).toBeLessThanOrEqual(3.87)
        expect(known.strokeSdUm).toBeGreaterThan(0)
        expect(known.uncountedSd).toBeLessThanOrEqual(0.16)
        for (const { leanSdUm } of known.people) expect(leanSdUm).toBeLessThanOrEqual(1.66)
      }),
      { numRuns: 200 },
    )
  })
})

const KNOWN: KnownBite = {
  strokeUm: 26,
  strokeSdUm: 1.5,
  uncounted: 0.1,
  uncountedSd: 0.05,
  people: [{ personId: 'a', factor: 1.2, factorSd: 0.05, leanUm: 2, leanSdUm: 0.8 }],
}

describe('a loop that comes when something is known', () => {
  const begun = (known: KnownBite | undefined, ...by: (string | null)[]): Log => {
    const log = new Log()
    log.entries.length = 0
    log.add('registered', { tag: 'T1', spec: SPEC, ...(known === undefined ? {} : { knownBite: known }) })
    log.measureAll(7900)
    for (const personId of by)
      log.add(
        'sharpened',
        { method: 'fileBench', gaugesLowered: false, strokes: { left: 10, right: 10 } },
        { personId },
      )
    return log
  }
  const meanOf = (log: Log, hand: 'left' | 'right'): number => {
    const of = stateOf(log).cutters.filter((cutter) => cutter.hand === hand)
    return of.reduce((sum, { length }) => sum + length.um, 0) / of.length
  }

  test('begins with what a stroke is known to take, and its deviation', () => {
    const bite = strokeBite(stateOf(begun(KNOWN)).lengths)
    expect(bite.mean).toBeCloseTo(26, 6)
    expect(Math.sqrt(bite.variance)).toBeCloseTo(1.5, 5)
    // Ten strokes of 26 µm by somebody of whom nothing is known.
    const log = begun(KNOWN, 'b')
    expect(7900 - (meanOf(log, 'left') + meanOf(log, 'right')) / 2).toBeCloseTo(260, -1)
  })

  test('whose hand is known takes as much more and leans as they do, whoever filed it first', () => {
    for (const first of [[], ['b']]) {
      const [before, after] = [begun(KNOWN, ...first), begun(KNOWN, ...first, 'a')]
      const took = (hand: 'left' | 'right'): number => meanOf(before, hand) - meanOf(after, hand)
      expect(took('left')).toBeCloseTo(10 * 1.2 * (26 + 2), -1)
      expect(took('right')).toBeCloseTo(10 * 1.2 * (26 - 2), -1)
    }
    const sdOf = (...by: string[]): number =>
      Math.sqrt(sideDifference(stateOf(begun(KNOWN, ...by)).lengths)?.variance ?? NaN)
    expect(sdOf('a')).toBeLessThan(sdOf('b') - 2)
  })

  test('those who do not count take as much more as is known', () => {
    const file = (known: KnownBite | undefined): number => {
      const log = begun(known)
      log.add('sharpened', { method: 'fileBench', gaugesLowered: false }, { personId: 'b' })
      return 7900 - (meanOf(log, 'left') + meanOf(log, 'right')) / 2
    }
    expect(file(undefined)).toBeCloseTo(200, -1)
    expect(file(KNOWN)).toBeCloseTo(10 * 26 + 10 * 20 * 0.1, -1)
  })

  test('a loop of which the crew’s own readings told begins where they left off', () => {
    const old = new Log().measureAll(7900)
    for (let i = 1; i <= 6; i += 1) {
      old.add(
        'sharpened',
        { method: 'fileBench', gaugesLowered: false, strokes: { left: 10, right: 10 } },
        { personId: 'a' },
      )
      old.measureAll((cutter) => 7900 - i * (cutter % 2 === 1 ? 300 : 260))
    }
    const known = knownBite(stateOf(old).removals)
    expect(Math.abs((known?.strokeUm ?? 0) - 28)).toBeLessThan(1)
    expect(handOf(known, 'a').leanUm).toBeCloseTo(2, 0)
    const bite = strokeBite(stateOf(begun(known)).lengths)
    expect(bite.mean).toBeCloseTo(known?.strokeUm ?? 0, 2)
  })

  test('is asked nothing of it, and says it in its state no further', () => {
    const log = begun(KNOWN, 'a')
    const state = fold(log.entries, hour(10))
    expect(state?.questions).toEqual([])
    expect(state).not.toHaveProperty('hands')
  })
})
