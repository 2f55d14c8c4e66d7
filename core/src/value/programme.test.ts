import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { solveProgramme, type LoopKind } from './programme'

const plain: LoopKind = {
  usableUm: 8000,
  newLoopMinor: 3000,
  jobs: [{ takesUm: 200, costMinor: () => 500, spells: 1 }],
  strikes: [],
}

test('without chance a spell costs what a loop and its sharpenings come to, by hand', () => {
  // 40 sharpenings and the first spell: (3000 + 40 × 500) ÷ 41.
  expect(solveProgramme(plain).spellMinor).toBeCloseTo(23_000 / 41, 6)
})

test('a new loop that is due is worth what it saves against another new one', () => {
  const { worthMinor, spellMinor } = solveProgramme(plain)
  // Its first spell is gone; all the rest is there.
  expect(worthMinor(8000)).toBeCloseTo(3000 - spellMinor, 6)
  expect(worthMinor(0)).toBe(0)
  // One sharpening is left, and nothing where there is length for none.
  expect(worthMinor(200)).toBeCloseTo(spellMinor - 500, 6)
  expect(worthMinor(100)).toBe(0)
})

test('a sharpening that costs more than a new loop for every spell is never done', () => {
  const { spellMinor, worthMinor } = solveProgramme({
    ...plain,
    jobs: [{ takesUm: 200, costMinor: () => 3500, spells: 1 }],
  })
  expect(spellMinor).toBe(3000)
  expect(worthMinor(8000)).toBe(0)
})

test('a loop and an hour for nothing cost nothing', () => {
  const { spellMinor, worthMinor } = solveProgramme({
    ...plain,
    newLoopMinor: 0,
    jobs: [{ takesUm: 200, costMinor: () => 0, spells: 1 }],
  })
  expect([spellMinor, worthMinor(5000)]).toEqual([0, 0])
})

test('strikes that come more than once in a spell are refused', () => {
  const strikes = [0.6, 0.5].map((chance, i) => ({ chance, depthUm: 300 * (i + 1), part: 0.1 }))
  expect(() => solveProgramme({ ...plain, strikes })).toThrow(RangeError)
})

describe('a deep strike', () => {
  const struck = (wheelMinor: number): LoopKind => ({
    ...plain,
    strikes: [{ chance: 0.1, depthUm: 1500, part: 3 / 36 }],
    jobs: [{ takesUm: 200, costMinor: (offUm) => (offUm <= 200 ? 500 : wheelMinor), spells: 1 }],
  })

  test('costs at most a few blunt cutters for a while: nobody throws a loop away for it', () => {
    const [dear, none] = [solveProgramme(struck(1e9)), solveProgramme(plain)]
    // By hand: 1.5 mm at 0.2 mm a time, a twelfth of a spell each time, one strike in ten.
    expect(dear.spellMinor - none.spellMinor).toBeGreaterThan(0)
    expect(dear.spellMinor / none.spellMinor).toBeLessThan(1 + 0.1 * 7.5 * (1 / 12) * 1.2)
  })

  test('that comes in every spell leaves its cutters blunt in every spell but the first, by hand', () => {
    const always = { ...struck(1e9), strikes: [{ chance: 1, depthUm: 400, part: 0.25 }] }
    expect(solveProgramme(always).spellMinor).toBeCloseTo(23_000 / (1 + 40 * 0.75), 6)
  })

  test('costs more for being deeper, since what is left hurt stays so for longer', () => {
    const at = (depthUm: number): number =>
      solveProgramme({ ...struck(1e9), strikes: [{ chance: 0.1, depthUm, part: 3 / 36 }] }).spellMinor
    expect(at(1500)).toBeGreaterThan(at(400) + 1)
  })

  test('is cleaned where that is next to nothing and length is dear to nobody', () => {
    const cheap = { ...struck(500), newLoopMinor: 1 }
    expect(solveProgramme(cheap).spellMinor).toBeLessThan(solveProgramme({ ...cheap, ...struck(1e9) }).spellMinor)
  })
})

/** Any kind of loop that a house may have. */
const kinds = fc.record({
  usableUm: fc.integer({ min: 300, max: 12_000 }),
  newLoopMinor: fc.integer({ min: 0, max: 20_000 }),
  jobs: fc.array(
    fc
      .record({
        takesUm: fc.integer({ min: 60, max: 500 }),
        fixed: fc.integer({ min: 0, max: 3000 }),
        perUm: fc.double({ min: 0, max: 5, noNaN: true }),
        spells: fc.double({ min: 0.3, max: 1, noNaN: true }),
      })
      .map(({ takesUm, fixed, perUm, spells }) => ({
        takesUm,
        costMinor: (offUm: number) => fixed + perUm * offUm,
        spells,
      })),
    { maxLength: 4 },
  ),
  strikes: fc
    .array(fc.integer({ min: 100, max: 2500 }), { maxLength: 3 })
    .map((depths) =>
      [...new Set(depths)].sort((a, b) => a - b).map((depthUm) => ({ chance: 0.05, depthUm, part: 0.1 })),
    ),
})

test('what is left is never worth less for being more, nor more than a new loop', () => {
  fc.assert(
    fc.property(kinds, (kind) => {
      const { worthMinor, spellMinor, rounds } = solveProgramme(kind)
      expect(rounds).toBeLessThan(30)
      expect(spellMinor).toBeLessThanOrEqual(kind.newLoopMinor + 1e-6)
      let before = 0
      for (let um = 0; um <= kind.usableUm; um += kind.usableUm / 50) {
        const worth = worthMinor(um)
        expect(worth).toBeGreaterThanOrEqual(before - 1e-6 * Math.max(1, kind.newLoopMinor))
        before = worth
      }
      expect(before).toBeLessThanOrEqual(kind.newLoopMinor + 1e-6)
    }),
  )
})

test('no job alone does better than all that the house has', () => {
  fc.assert(
    fc.property(kinds, fc.nat(3), (kind, which) => {
      // The others stay, so that what is left goes by the same steps, and cost more than anybody has.
      const alone = kind.jobs.map((job, i) => (i === which ? job : { ...job, costMinor: () => 1e9 }))
      const [all, one] = [solveProgramme(kind), solveProgramme({ ...kind, jobs: alone })]
      expect(all.spellMinor).toBeLessThanOrEqual(one.spellMinor * (1 + 1e-8) + 1e-8)
    }),
  )
})

test('what does not go by whole steps is off by less than the last sharpening', () => {
  fc.assert(
    fc.property(fc.integer({ min: 61, max: 900 }), (takesUm) => {
      const { spellMinor } = solveProgramme({ ...plain, jobs: [{ takesUm, costMinor: () => 500, spells: 1 }] })
      const after = (sharpenings: number): number => (3000 + sharpenings * 500) / (1 + sharpenings)
      const whole = Math.floor(8000 / takesUm)
      expect(spellMinor).toBeLessThanOrEqual(after(whole - 1))
      expect(spellMinor).toBeGreaterThanOrEqual(after(whole + 1))
    }),
  )
})
