import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { kaplanMeier, learnLifetime, medianSurvival, shrunkGroups, survivalAt, type Spell } from '.'

// Freireich et al., Blood 21 (1963): weeks of remission of the patients on 6-mercaptopurine; + is
// censored. S(10) = 0.753, S(23) = 0.448, median 23. Data and results from memory.
const SIX_MP = '6 6 6 6+ 7 9+ 10 10+ 11+ 13 16 17+ 19+ 20+ 22 23 25+ 32+ 32+ 34+ 35+'
const spells: Spell[] = SIX_MP.split(' ').map((week) => ({ time: parseFloat(week), ended: !week.endsWith('+') }))

const anySpells = fc.array(fc.record({ time: fc.integer({ min: 1, max: 40 }), ended: fc.boolean() }), { maxLength: 40 })

describe('kaplanMeier', () => {
  test('agrees with the published curve of the 6-MP group', () => {
    const steps = kaplanMeier(spells)
    expect(steps.map(({ time }) => time)).toEqual([6, 7, 10, 13, 16, 22, 23])
    expect(survivalAt(steps, 10)).toBeCloseTo(0.753, 3)
    expect(survivalAt(steps, 23)).toBeCloseTo(0.448, 3)
    expect(survivalAt(steps, 6)).toBeCloseTo(0.857, 3)
    expect(medianSurvival(steps)).toBe(23)
    // Standard error of S(10) by Greenwood is 0.0963 (from memory); on the log-log scale 0.503 to 0.889.
    const at10 = steps.find(({ time }) => time === 10)
    expect(at10?.low).toBeCloseTo(0.503, 2)
    expect(at10?.high).toBeCloseTo(0.889, 2)
  })

  test('with nothing censored it is the part that is left', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 20 }), { minLength: 1, maxLength: 30 }),
        fc.integer({ min: 0, max: 21 }),
        (times, at) => {
          const steps = kaplanMeier(times.map((time) => ({ time, ended: true })))
          expect(survivalAt(steps, at)).toBeCloseTo(times.filter((time) => time > at).length / times.length, 10)
        },
      ),
    )
  })

  test('never rises, and lies within its interval', () => {
    fc.assert(
      fc.property(anySpells, (any) => {
        let before = 1
        for (const { survival, low, high } of kaplanMeier(any)) {
          expect(survival).toBeLessThanOrEqual(before)
          expect(low).toBeLessThanOrEqual(survival + 1e-12)
          expect(high).toBeGreaterThanOrEqual(survival - 1e-12)
          before = survival
        }
      }),
    )
  })

  test('while more than half last there is no median, and no time is below nothing', () => {
    expect(
      medianSurvival(
        kaplanMeier([
          { time: 2, ended: true },
          { time: 3, ended: false },
          { time: 4, ended: false },
        ]),
      ),
    ).toBeNull()
    expect(() => kaplanMeier([{ time: -1, ended: true }])).toThrow(RangeError)
    expect(kaplanMeier([{ time: 0, ended: true }])).toMatchObject([{ time: 0, survival: 0 }])
  })
})

describe('learnLifetime', () => {
  // The mean lifetime with a constant hazard is time at risk ÷ ends: 359 weeks ÷ 9 = 39.9 (6-MP group, by hand).
  test('many spells: time at risk by ends', () => {
    const { mean } = learnLifetime(spells, { mean: 40, worth: 0.001 })
    expect(mean).toBeCloseTo(359 / 9, 1)
  })

  test('with none it is what was expected, and every censored hour makes it longer', () => {
    expect(learnLifetime([], { mean: 4, worth: 3 })).toMatchObject({ mean: 4, ended: 0 })
    fc.assert(
      fc.property(anySpells, fc.integer({ min: 1, max: 30 }), (any, time) => {
        const prior = { mean: 4, worth: 3 }
        const before = learnLifetime(any, prior)
        const after = learnLifetime([...any, { time, ended: false }], prior)
        expect(after.mean).toBeGreaterThan(before.mean)
        expect(before.low).toBeLessThan(before.mean)
        expect(before.high).toBeGreaterThan(before.mean)
      }),
    )
  })

  // Gamma(9, 1): 95 % from 4.115 to 15.763 (half of chi-square with 18 degrees of
  // freedom, 8.231 and 31.526; from memory).
  test('the interval is that of the gamma distribution', () => {
    const { low, high } = learnLifetime(spells, { mean: 1, worth: 1e-9 })
    expect(low).toBeCloseTo(359 / 15.763, 1)
    expect(high).toBeCloseTo(359 / 4.115, 1)
  })
})

describe('shrunkGroups', () => {
  const prior = { mean: 200, sd: 60 }

  test('few figures are drawn toward what is expected, many are believed', () => {
    const mean = (weight: number) => shrunkGroups([{ group: 'a', value: 300, weight }], prior, 80)[0]?.mean ?? 0
    expect(mean(1)).toBeGreaterThan(200)
    expect(mean(1)).toBeLessThan(260)
    expect(mean(200)).toBeGreaterThan(295)
  })

  test('others of the crew move what is expected of one of whom little is known', () => {
    const alone = shrunkGroups([{ group: 'new', value: 200, weight: 1 }], prior, 80)
    const among = shrunkGroups(
      [
        { group: 'new', value: 200, weight: 1 },
        { group: 'a', value: 300, weight: 20 },
        { group: 'b', value: 310, weight: 20 },
      ],
      prior,
      80,
    )
    const of = (groups: readonly { group: string; mean: number }[]) =>
      groups.find(({ group }) => group === 'new')?.mean ?? 0
    expect(of(among)).toBeGreaterThan(of(alone))
  })

  test('every belief lies within its interval, and its own share between nothing and all', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            group: fc.constantFrom('a', 'b', 'c'),
            value: fc.integer({ min: 20, max: 800 }),
            weight: fc.integer({ min: 1, max: 30 }),
          }),
          { maxLength: 12 },
        ),
        (seen) => {
          for (const { mean, low, high, weightOfOwn } of shrunkGroups(seen, prior, 80)) {
            expect(low).toBeLessThan(mean)
            expect(high).toBeGreaterThan(mean)
            expect(weightOfOwn).toBeGreaterThanOrEqual(0)
            expect(weightOfOwn).toBeLessThan(1)
          }
        },
      ),
    )
  })
})
