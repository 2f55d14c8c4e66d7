import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { Log, stateOf } from '../fixtures/logs'
import type { CutterReading } from '../log'
import type { LoopState } from '../state'
import { UM_PER_STROKE } from './lengths'

const CUTTERS = 36

/**
 * A loop that was read, filed, and read again in part, where nothing is as improbable as to be held out: what
 * comes next decides about that, so it may depend on what came first.
 */
const anyWalk = fc.record({
  first: fc.array(fc.integer({ min: 5500, max: 6500 }), { minLength: CUTTERS, maxLength: CUTTERS }),
  strokes: fc.record({ left: fc.integer({ min: 1, max: 10 }), right: fc.integer({ min: 1, max: 10 }) }),
  again: fc.uniqueArray(fc.integer({ min: 1, max: CUTTERS }), { minLength: 2, maxLength: 12 }),
  more: fc.integer({ min: -40, max: 40 }),
})
type Walk = typeof anyWalk extends fc.Arbitrary<infer W> ? W : never

const firstOf = ({ first }: Walk): CutterReading[] => first.map((lengthUm, i) => ({ cutter: i + 1, lengthUm }))
const againOf = ({ first, again, strokes, more }: Walk): CutterReading[] =>
  again.map((cutter) => {
    const took = UM_PER_STROKE * strokes[cutter % 2 === 1 ? 'left' : 'right'] + more
    return { cutter, lengthUm: (first[cutter - 1] ?? 0) - took }
  })

const lengthsOf = (state: LoopState): number[] => state.cutters.map(({ length }) => length.um)
const spreadsOf = (state: LoopState): number[] => state.cutters.map(({ length }) => length.sdUm)

function expectNear(a: readonly number[], b: readonly number[], within: number): void {
  for (const [i, one] of a.entries())
    expect(Math.abs(one - (b[i] ?? NaN)), `cutter ${i + 1}`).toBeLessThanOrEqual(within)
}

const filed = (walk: Walk, log: Log): Log => log.file({ strokes: walk.strokes })

describe('what is known of lengths', () => {
  test('is the same whether readings are written down in one entry or in two, and in whatever order', () => {
    fc.assert(
      fc.property(anyWalk, fc.integer({ min: 1, max: 11 }), (walk, at) => {
        const readings = againOf(walk)
        const after = (...parts: (readonly CutterReading[])[]): LoopState => {
          const log = filed(walk, new Log().add('measured', { readings: firstOf(walk) }))
          for (const part of parts) if (part.length > 0) log.add('measured', { readings: part })
          return stateOf(log)
        }
        const whole = after(readings)
        const split = after(readings.slice(0, at), readings.slice(at))
        expectNear(lengthsOf(whole), lengthsOf(split), 1)
        expectNear(spreadsOf(whole), spreadsOf(split), 1)
        expectNear(lengthsOf(whole), lengthsOf(after([...readings].reverse())), 1)
      }),
      { numRuns: 60 },
    )
  })

  test('does not depend on which cutter of a side it was: two that change places change their lengths', () => {
    fc.assert(
      fc.property(anyWalk, fc.integer({ min: 0, max: 17 }), fc.integer({ min: 0, max: 17 }), (walk, a, b) => {
        // Left-hand cutters are the odd ones.
        const [one, other] = [2 * a + 1, 2 * b + 1]
        const swap = (cutter: number): number => (cutter === one ? other : cutter === other ? one : cutter)
        const play = (renamed: (cutter: number) => number): LoopState => {
          const named = (readings: readonly CutterReading[]) =>
            readings.map((reading) => ({ ...reading, cutter: renamed(reading.cutter) }))
          const log = filed(walk, new Log().add('measured', { readings: named(firstOf(walk)) }))
          return stateOf(log.add('measured', { readings: named(againOf(walk)) }))
        }
        const [plain, swapped] = [lengthsOf(play((cutter) => cutter)), lengthsOf(play(swap))]
        expectNear(
          plain,
          swapped.map((_, i) => swapped[swap(i + 1) - 1] ?? NaN),
          1,
        )
      }),
      { numRuns: 60 },
    )
  })

  test('a side that gets no strokes loses nothing, and the other what its strokes take', () => {
    fc.assert(
      fc.property(anyWalk, (walk) => {
        const log = new Log().add('measured', { readings: firstOf(walk) })
        const before = lengthsOf(stateOf(log))
        const after = lengthsOf(stateOf(log.file({ strokes: { left: walk.strokes.left, right: 0 } })))
        for (const [i, um] of before.entries()) {
          if (i % 2 === 1) expect(after[i]).toBe(um)
          else expect(um - (after[i] ?? 0)).toBeGreaterThan(15 * walk.strokes.left)
        }
      }),
      { numRuns: 40 },
    )
  })

  test('differences that were measured outlive any number of filings', () => {
    fc.assert(
      fc.property(anyWalk, fc.integer({ min: 1, max: 8 }), (walk, times) => {
        const log = new Log().add('measured', { readings: firstOf(walk) })
        const before = lengthsOf(stateOf(log))
        for (let i = 0; i < times; i += 1) log.file({ strokes: { left: 5, right: 5 } })
        const after = lengthsOf(stateOf(log))
        for (let i = 2; i < CUTTERS; i += 2)
          expect(Math.abs((before[i] ?? 0) - (before[0] ?? 0) - (after[i] ?? 0) + (after[0] ?? 0))).toBeLessThanOrEqual(
            2,
          )
      }),
      { numRuns: 40 },
    )
  })
})
