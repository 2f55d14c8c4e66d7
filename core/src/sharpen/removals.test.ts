import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { UNEVEN_SCHOOLS } from '../house'
import { filingRemovals, neededUm, removals, soundUm } from './removals'
import { sidePlateOf } from './sidePlate'

const anyCutters = fc.array(
  fc.record({
    length: fc.record({ um: fc.integer({ min: 0, max: 8000 }) }),
    damage: fc.array(
      fc.record({
        kind: fc.constantFrom('stone' as const, 'rounded' as const),
        depthUm: fc.option(fc.integer({ min: 1, max: 3000 })),
      }),
      { maxLength: 2 },
    ),
  }),
  { minLength: 1, maxLength: 40 },
)
const usual = fc.integer({ min: 20, max: 400 })

describe('removals', () => {
  test('a file takes what each needs; a wheel runs to one stop', () => {
    const cutter = (um: number, depthUm?: number) => ({
      length: { um },
      damage: depthUm === undefined ? [] : [{ kind: 'stone' as const, depthUm }],
    })
    const cutters = [cutter(7000), cutter(7000), cutter(6900, 900), cutter(7100)]
    expect(removals(cutters, 'file', 200, true)).toEqual([200, 200, 1000, 200])
    expect(removals(cutters, 'file', 200, false)).toEqual([200, 200, 200, 200])
    expect(removals(cutters, 'wheel', 200, true)).toEqual([1100, 1100, 1000, 1200])
  })

  test('never more than a cutter has, and a wheel never less than a file', () => {
    fc.assert(
      fc.property(anyCutters, usual, fc.boolean(), (cutters, usualUm, throughDamage) => {
        const file = removals(cutters, 'file', usualUm, throughDamage)
        const wheel = removals(cutters, 'wheel', usualUm, throughDamage)
        cutters.forEach(({ length }, i) => {
          expect(file[i]).toBeLessThanOrEqual(length.um)
          expect(wheel[i]).toBeLessThanOrEqual(length.um)
          expect(wheel[i]).toBeGreaterThanOrEqual(file[i] ?? 0)
        })
      }),
    )
  })

  test('after the wheel the loop is even', () => {
    fc.assert(
      fc.property(anyCutters, usual, (cutters, usualUm) => {
        const off = removals(cutters, 'wheel', usualUm, true)
        expect(new Set(cutters.map(({ length }, i) => length.um - (off[i] ?? 0))).size).toBe(1)
      }),
    )
  })

  test('deeper damage never asks for less', () => {
    fc.assert(
      fc.property(
        usual,
        fc.integer({ min: 1, max: 3000 }),
        fc.integer({ min: 0, max: 500 }),
        (usualUm, depthUm, more) => {
          const needed = (depth: number) => neededUm({ damage: [{ kind: 'stone', depthUm: depth }] }, usualUm)
          expect(needed(depthUm + more)).toBeGreaterThanOrEqual(needed(depthUm))
          expect(needed(depthUm)).toBeGreaterThan(depthUm)
        },
      ),
    )
  })
})

describe('schools for uneven and damaged cutters', () => {
  const sound = { length: { um: 7000 }, damage: [] }
  const nicked = { length: { um: 7000 }, damage: [{ kind: 'chipped' as const, depthUm: 500 }] }
  const short = { length: { um: 6800 }, damage: [] }

  // What each school says of one nicked cutter on an even loop: common practice.
  test('one nicked cutter: each school does what it says', () => {
    const cutters = [sound, nicked, sound, sound]
    expect(filingRemovals(cutters, 200, 'matchShortest')).toEqual([600, 600, 600, 600])
    expect(filingRemovals(cutters, 200, 'sameStrokes')).toEqual([200, 200, 200, 200])
    expect(filingRemovals(cutters, 200, 'worstSetsCount')).toEqual([600, 600, 600, 600])
    expect(filingRemovals(cutters, 200, 'extraOnBad')).toEqual([200, 600, 200, 200])
  })

  test('one short cutter: only matching the shortest takes the others down to it', () => {
    const cutters = [sound, short, sound]
    expect(filingRemovals(cutters, 200, 'matchShortest')).toEqual([400, 200, 400])
    expect(filingRemovals(cutters, 200, 'worstSetsCount')).toEqual([200, 200, 200])
    expect(filingRemovals(cutters, 200, 'sameStrokes')).toEqual([200, 200, 200])
  })

  test('a wrong shape takes its own length', () => {
    expect(soundUm({ damage: [{ kind: 'wrongAngle', depthUm: null }] }, 200)).toBe(400)
  })

  test('no school takes more than a cutter has; the same strokes take least, and matching leaves all even', () => {
    fc.assert(
      fc.property(anyCutters, usual, (cutters, usualUm) => {
        const least = filingRemovals(cutters, usualUm, 'sameStrokes')
        for (const school of UNEVEN_SCHOOLS) {
          filingRemovals(cutters, usualUm, school).forEach((um, i) => {
            expect(um).toBeLessThanOrEqual(cutters[i]?.length.um ?? 0)
            expect(um).toBeGreaterThanOrEqual(least[i] ?? 0)
          })
        }
        const matched = filingRemovals(cutters, usualUm, 'matchShortest')
        expect(new Set(cutters.map(({ length }, i) => length.um - (matched[i] ?? 0))).size).toBe(1)
      }),
    )
  })
})

// A file a fifth to a quarter above the plate leaves a bevel of about 50 to 60°: common practice.
test('more hook is a lower file and a thinner edge', () => {
  expect(sidePlateOf('moreHook').bevelDeg).toBeCloseTo(53.13, 2)
  expect(sidePlateOf('lessHook').bevelDeg).toBeCloseTo(60, 6)
  expect(sidePlateOf('moreHook').lasts).toBeLessThan(sidePlateOf('lessHook').lasts)
})
