import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { neededUm, removals } from './removals'

const anyCutters = fc.array(
  fc.record({
    length: fc.record({ um: fc.integer({ min: 0, max: 8000 }) }),
    damage: fc.array(fc.record({ kind: fc.constantFrom('stone' as const, 'rounded' as const), depthUm: fc.option(fc.integer({ min: 1, max: 3000 })) }), { maxLength: 2 }),
  }),
  { minLength: 1, maxLength: 40 },
)
const usual = fc.integer({ min: 20, max: 400 })

describe('removals', () => {
  test('a file takes what each needs; a wheel runs to one stop', () => {
    const cutter = (um: number, depthUm?: number) => ({ length: { um }, damage: depthUm === undefined ? [] : [{ kind: 'stone' as const, depthUm }] })
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
      fc.property(usual, fc.integer({ min: 1, max: 3000 }), fc.integer({ min: 0, max: 500 }), (usualUm, depthUm, more) => {
        const needed = (depth: number) => neededUm({ damage: [{ kind: 'stone', depthUm: depth }] }, usualUm)
        expect(needed(depthUm + more)).toBeGreaterThanOrEqual(needed(depthUm))
        expect(needed(depthUm)).toBeGreaterThan(depthUm)
      }),
    )
  })
})
