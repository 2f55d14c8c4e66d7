import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { DenseLengths } from '../fixtures/denseLengths'
import type { Hand } from '../loop'
import type { Normal } from './tied'
import {
  ANY_LEAN,
  fileFactor,
  copyLengths,
  evenLengths,
  fileLengths,
  grindLengths,
  leastOf,
  lengthOf,
  looksShortest,
  newLengths,
  readLengthOf,
  restedUm,
  settleReadings,
  sideDifference,
  sideLevel,
  slowedUm,
  strokeBite,
  usualRemoval,
  wasUsed,
  type Filing,
  type LengthBelief,
  type ToLevel,
} from './lengths'

const HANDS: readonly Hand[] = Array.from({ length: 12 }, (_, i) => (i % 2 === 0 ? 'left' : 'right'))
const CALIPER = 50
const pick = ({ mean, variance }: Normal): Normal => ({ mean, variance })
const NO_DAMAGE: readonly number[] = []

type Step =
  | { readonly kind: 'read'; readonly cutters: readonly number[]; readonly offUm: number }
  | {
      readonly kind: 'file'
      readonly strokes: { readonly left: number; readonly right: number } | null
      readonly by: string | undefined
    }

const anyStep: fc.Arbitrary<Step> = fc.oneof(
  fc.record({
    kind: fc.constant('read' as const),
    cutters: fc.uniqueArray(fc.integer({ min: 0, max: HANDS.length - 1 }), { minLength: 1, maxLength: 12 }),
    offUm: fc.integer({ min: -250, max: 150 }),
  }),
  fc.record({
    kind: fc.constant('file' as const),
    // Counts that differ by side say something of the hand, which is no step of a linear filter.
    strokes: fc.option(
      fc
        .record({ count: fc.integer({ min: 0, max: 10 }), sides: fc.constantFrom('both', 'left', 'right') })
        .map(({ count, sides }) => ({ left: sides === 'right' ? 0 : count, right: sides === 'left' ? 0 : count })),
    ),
    by: fc.constantFrom('first', 'second', 'third', undefined),
  }),
)

const said = (by: string | undefined): Pick<Filing, 'by'> => (by === undefined ? {} : { by })

/** Plays the same steps to the quick belief and to the dense reference, and says whether a shift was merged. */
function play(steps: readonly Step[], assumed: boolean) {
  const quick = newLengths(HANDS, 8000, assumed)
  const people = steps.flatMap((step) => (step.kind === 'file' && step.by !== undefined ? [step.by] : []))
  const dense = new DenseLengths(HANDS, 8000, assumed, [...new Set(people)].slice(1))
  let merged = false
  for (const step of steps) {
    if (step.kind === 'read') {
      for (const cutter of step.cutters) {
        const um = Math.round(dense.figure(cutter).mean) + step.offUm + 7 * (cutter % 3)
        // What is improbable is held out, as in a log.
        if (readLengthOf(quick, cutter, um, CALIPER, 4).taken) dense.read(cutter, um, CALIPER)
      }
      const { sinceWander } = quick
      settleReadings(quick)
      if (quick.sinceWander < sinceWander) {
        dense.wander(sinceWander)
        merged = true
      }
    } else {
      const { strokes, by } = step
      const filing: Filing = { strokes, usualUm: 200, atLeastUm: HANDS.map((_, i) => (i === 3 ? 260 : 0)), ...said(by) }
      merged ||= (['left', 'right'] as const).some((hand) => quick.readSince[hand] && quick.shift[hand] !== null)
      fileLengths(quick, filing)
      dense.file(filing)
    }
  }
  return { quick, dense, merged }
}

/** How far the two are apart, in the reference's deviations, and how far the deviations are, as a part of them. */
function furthestApart({ quick, dense }: ReturnType<typeof play>) {
  let [mean, narrowest, widest] = [0, 1, 1]
  const compare = (a: Normal, b: Normal): void => {
    mean = Math.max(mean, Math.abs(a.mean - b.mean) / Math.sqrt(b.variance))
    narrowest = Math.min(narrowest, Math.sqrt(a.variance / b.variance))
    widest = Math.max(widest, Math.sqrt(a.variance / b.variance))
  }
  for (let i = 0; i < HANDS.length; i += 1) compare(lengthOf(quick, i), dense.figure(i))
  const difference = sideDifference(quick)
  if (difference !== null) compare(difference, dense.difference())
  return { mean, narrowest, widest }
}

describe('against a plain Kalman filter of the full covariance', () => {
  test('while no shift was made one with another, means and deviations are the same', () => {
    fc.assert(
      fc.property(fc.array(anyStep, { maxLength: 5 }), fc.boolean(), (steps, assumed) => {
        const played = play(steps, assumed)
        fc.pre(!played.merged)
        const { mean, narrowest, widest } = furthestApart(played)
        // Less than a micrometre of the widest deviation there is.
        expect(mean).toBeLessThan(1e-6)
        expect(widest - narrowest).toBeLessThan(1e-6)
      }),
      { numRuns: 200 },
    )
  })

  test('once shifts were made one, it stays near: nearly always within half a deviation', () => {
    const apart: ReturnType<typeof furthestApart>[] = []
    fc.assert(
      fc.property(fc.array(anyStep, { minLength: 10, maxLength: 40 }), fc.boolean(), (steps, assumed) => {
        const { mean, narrowest, widest } = furthestApart(play(steps, assumed))
        apart.push({ mean, narrowest, widest })
        // Of 60,000 drawn, one in a thousand is beyond one deviation; the worst were 3.1, 0.57 and 4.9. Furthest off
        // where one cutter is read over and over between filings of all.
        expect(mean).toBeLessThan(5)
        expect(narrowest).toBeGreaterThan(0.4)
        expect(widest).toBeLessThan(10)
      }),
      { numRuns: 200 },
    )
    const near = apart.filter(({ mean, narrowest, widest }) => mean < 0.5 && narrowest > 0.9 && widest < 1.25)
    expect(near.length / apart.length).toBeGreaterThan(0.9)
  })
})

const ALL = HANDS.map((_, i) => i)
const isLeft = (i: number): boolean => HANDS[i] === 'left'
const sd = ({ variance }: Normal): number => Math.sqrt(variance)
const counted = (left: number, right: number) => ({ strokes: { left, right }, usualUm: 200, atLeastUm: NO_DAMAGE })
const UNCOUNTED = { strokes: null, usualUm: 200, atLeastUm: NO_DAMAGE }
/** A loop whose cutters have all been read. */
function read(um: (cutter: number) => number, cutters: readonly number[] = ALL): LengthBelief {
  const belief = newLengths(HANDS, 8000, true)
  wasUsed(belief, new Map())
  for (const cutter of cutters) readLengthOf(belief, cutter, um(cutter), CALIPER)
  return belief
}

const gapOf = (belief: LengthBelief): Normal => sideDifference(belief) ?? { mean: NaN, variance: NaN }

describe('counts that differ by side', () => {
  const filedAt = (belief: LengthBelief, left: number, right: number, times: number): Normal => {
    for (let i = 0; i < times; i += 1) fileLengths(belief, { ...counted(left, right), by: 'anna' })
    return gapOf(belief)
  }

  test.each([
    [5, 3],
    [3, 5],
    [4, 3],
    [11, 9],
    [6, 2],
  ])(
    '%i : %i every time moves the sides by nothing, and holds both that they stayed and that they came apart',
    (...counts) => {
      const even = sd(
        filedAt(
          read(() => 7900),
          4,
          4,
          1,
        ),
      )
      let before = even
      for (let times = 1; times <= 8; times += 1) {
        const gap = filedAt(
          read(() => 7900),
          ...counts,
          times,
        )
        expect(gap.mean).toBeCloseTo(0, 6)
        expect(sd(gap), 'wider with every one').toBeGreaterThan(before)
        before = sd(gap)
        const apart = 20 * (counts[1] - counts[0]) * times
        expect(Math.abs(apart), `${times} times`).toBeLessThan(2.2 * sd(gap))
      }
    },
  )

  test('even out sides that are known to differ', () => {
    const uneven = read((i) => (isLeft(i) ? 7900 : 7820))
    expect(Math.abs(gapOf(uneven).mean - 80)).toBeLessThan(2)
    expect(Math.abs(filedAt(uneven, 7, 3, 1).mean)).toBeLessThan(2)
    expect(Math.abs(filedAt(uneven, 7, 3, 3).mean), 'and no further').toBeLessThan(2)
  })

  test('counts that readings set on the way say nothing of the hand: those readings follow', () => {
    const belief = read(() => 7900)
    fileLengths(belief, { ...counted(7, 5), by: 'anna', asRead: true })
    expect(gapOf(belief).mean).toBeCloseTo(-40, 0)
  })

  test('one side alone loses what its strokes take', () => {
    expect(
      filedAt(
        read(() => 7900),
        5,
        0,
        1,
      ).mean,
    ).toBeCloseTo(-100, 0)
    const only = read(() => 7900)
    fileLengths(only, { ...counted(5, 3), only: 'left' })
    expect(gapOf(only).mean).toBeCloseTo(-100, 0)
  })

  /** Filed 5 : 3 and read every time: the sides stay, or come apart. */
  function inRounds(apart: boolean): LengthBelief {
    const belief = read(() => 7900)
    for (let round = 1; round <= 6; round += 1) {
      filedAt(belief, 5, 3, 1)
      for (const i of ALL) readLengthOf(belief, i, 7900 - round * (apart ? (isLeft(i) ? 100 : 60) : 80), CALIPER)
      settleReadings(belief)
    }
    return belief
  }

  test('readings say which it was: a hand that bites less on the left, or sides that come apart', () => {
    const [weak, plain] = [inRounds(false), inRounds(true)]
    const [before, beforePlain] = [gapOf(weak).mean, gapOf(plain).mean]
    // So many strokes on each side from such a hand leave the left longer; from the other the sides stay as they are.
    expect(filedAt(copyLengths(weak), 10, 10, 1).mean - before).toBeGreaterThan(60)
    expect(Math.abs(filedAt(copyLengths(plain), 10, 10, 1).mean - beforePlain)).toBeLessThan(25)
    // And counts are believed as they are once the hand is known.
    const gone = filedAt(copyLengths(plain), 5, 3, 1).mean - beforePlain
    expect(gone).toBeLessThan(-20)
  })

  test('what it takes off both sides together stays', () => {
    const belief = read(() => 7900)
    const before = sideLevel(belief, 'left')?.mean ?? NaN
    filedAt(belief, 5, 3, 1)
    const [left, right] = [sideLevel(belief, 'left')?.mean ?? NaN, sideLevel(belief, 'right')?.mean ?? NaN]
    expect(before * 2 - left - right).toBeGreaterThan(130)
    expect(before * 2 - left - right).toBeLessThan(170)
  })
})

describe('whoever files it', () => {
  /** Filed and read in turns by people who take so much more on the left than on the right, for each of ten strokes. */
  function inTurns(leans: Readonly<Record<string, number>>, rounds = 6): LengthBelief {
    const belief = read(() => 7900)
    const level = { left: 7900, right: 7900 }
    for (let i = 0; i < rounds; i += 1)
      for (const [by, lean] of Object.entries(leans)) {
        fileLengths(belief, { ...counted(10, 10), by })
        level.left -= 10 * (20 + lean / 2)
        level.right -= 10 * (20 - lean / 2)
        for (const i of ALL) readLengthOf(belief, i, isLeft(i) ? level.left : level.right, CALIPER)
        settleReadings(belief)
      }
    return belief
  }
  const tookMore = (belief: LengthBelief, by: string | null): number => {
    const after = copyLengths(belief)
    fileLengths(after, { ...counted(10, 10), by })
    return gapOf(belief).mean - gapOf(after).mean
  }

  test('leans to a side in a way of their own, learned from their own filings', () => {
    const belief = inTurns({ anna: 5, ben: -5, carl: 0 })
    expect(tookMore(belief, 'anna')).toBeGreaterThan(30)
    expect(tookMore(belief, 'ben')).toBeLessThan(-30)
    expect(Math.abs(tookMore(belief, 'carl'))).toBeLessThan(10)
    // Of somebody new, and of nobody in particular, as little is known as ever.
    expect(tookMore(belief, 'dora')).toBeCloseTo(0, 6)
    expect(belief.filers.map(({ by }) => by)).toEqual(['anna', 'ben', 'carl'])
  })

  test('how somebody leans outlives a grind, and filing down to the shortest', () => {
    const belief = inTurns({ anna: 5, ben: -5 })
    grindLengths(belief)
    expect(tookMore(belief, 'ben')).toBeLessThan(-30)
    evenLengths(belief, 200)
    expect(tookMore(belief, 'ben')).toBeLessThan(-30)
    expect(tookMore(belief, 'anna')).toBeGreaterThan(30)
  })

  test('two people whose leans nobody knows leave the sides less uncertain than one does twice', () => {
    const after = (...by: (string | null)[]): number => {
      const belief = read(() => 7900)
      for (const one of by) fileLengths(belief, { ...counted(20, 20), by: one })
      return gapOf(belief).variance
    }
    const [once, same, others] = [after('a'), after('a', 'a'), after('a', 'b')]
    expect(others).toBeLessThan(same * 0.7)
    expect(others).toBeGreaterThan(once)
    // Whoever was not named is one of them.
    expect(after('a', null)).toBeCloseTo(others, 6)
    expect(after(null, null)).toBeCloseTo(same, 6)
  })

  test('the fourth and all who come after lean as one: the belief does not grow with every name', () => {
    const belief = read(() => 7900)
    for (let i = 0; i < 12; i += 1) fileLengths(belief, { ...counted(5, 5), by: `person-${i}` })
    const { size } = belief.tied
    expect(belief.filers).toHaveLength(4)
    for (let i = 0; i < 12; i += 1) fileLengths(belief, { ...counted(5, 5), by: `other-${i}` })
    expect(belief.tied.size).toBe(size)
    const [fourth, later] = ['person-3', 'somebody'].map((by) => {
      const after = copyLengths(belief)
      fileLengths(after, { ...counted(10, 10), by })
      return gapOf(after).variance
    })
    expect(later).toBeCloseTo(fourth ?? NaN, 6)
  })

  test('what is known of them before counts, for the first as for the second', () => {
    const lean = { mean: 3, variance: 0.25 }
    const after = (...filings: readonly Partial<Filing>[]): Normal => {
      const belief = read(() => 7900)
      for (const one of filings) fileLengths(belief, { ...counted(10, 10), ...one })
      return gapOf(belief)
    }
    expect(after({ by: 'a', lean }).mean).toBeCloseTo(-60, 6)
    expect(after({ by: 'b' }, { by: 'a', lean }).mean).toBeCloseTo(-60, 6)
    // Half a micrometre of each of ten strokes, on either side: 2² · 10² · (1.65² less 0.5²).
    const steady = { mean: 0, variance: 0.25 }
    const gain = 400 * (ANY_LEAN.variance - 0.25)
    expect(after({ by: 'a' }).variance - after({ by: 'a', lean: steady }).variance).toBeCloseTo(gain, 3)
    const second = (one: Partial<Filing>): number => after({ by: 'b' }, { by: 'a', ...one }).variance
    expect(second({}) - second({ lean: steady })).toBeCloseTo(gain, 3)
  })
})

describe('what comes off', () => {
  test('is what the strokes take, and from a hurt cutter what its damage takes, if that is more', () => {
    const belief = read(() => 7000)
    const off = fileLengths(belief, { ...counted(5, 5), atLeastUm: ALL.map((i) => (i === 3 ? 500 : i === 4 ? 60 : 0)) })
    expect(off[0]).toBeCloseTo(100, 0)
    expect(off[3]).toBe(500)
    expect(off[4]).toBe(off[0])
    expect(lengthOf(belief, 3).mean).toBeCloseTo(lengthOf(belief, 5).mean - 400, -1)
    expect(fileLengths(belief, counted(0, 5))[0]).toBe(0)
  })

  test('one that was read because it looked shortest is taken as the least of its like, in its own deviations', () => {
    const known = newLengths(HANDS, 8000, false)
    const before = lengthOf(known, 0).mean
    looksShortest(known, 0)
    // 45 µm is how far a new cutter strays from the next, and the least of twelve lies 1.63 deviations down.
    expect(before - lengthOf(known, 0).mean).toBeCloseTo(-leastOf(12).mean * 45, 6)
  })
})

describe('lengths', () => {
  test('read, all stand at their readings within the caliper, and the sides by what was read', () => {
    const belief = read((i) => (isLeft(i) ? 7000 : 6500))
    for (const i of ALL) {
      expect(Math.abs(lengthOf(belief, i).mean - (isLeft(i) ? 7000 : 6500))).toBeLessThan(CALIPER / 2)
      expect(sd(lengthOf(belief, i))).toBeLessThan(CALIPER)
    }
    expect(sideDifference(belief)?.mean).toBeGreaterThan(450)
    expect(sd(sideDifference(belief) ?? { mean: 0, variance: Infinity })).toBeLessThan(30)
  })

  test('one reading moves its own cutter most, its side less and the other side least', () => {
    const belief = read((i) => 8000 - 10 * i)
    fileLengths(belief, UNCOUNTED)
    const before = ALL.map((i) => lengthOf(belief, i).mean)
    readLengthOf(belief, 0, (before[0] ?? 0) - 150, CALIPER)
    const moved = ALL.map((i) => (before[i] ?? 0) - lengthOf(belief, i).mean)
    expect(moved[0]).toBeGreaterThan(moved[2] ?? Infinity)
    expect(moved[2]).toBeGreaterThan(moved[1] ?? Infinity)
    expect(moved[1]).toBeGreaterThan(20)
  })

  test('a new length that is only assumed is set by the first reading', () => {
    const assumed = newLengths(HANDS, 8000, true)
    const known = newLengths(HANDS, 8000, false)
    for (const belief of [assumed, known]) readLengthOf(belief, 0, 7500, CALIPER)
    expect(lengthOf(assumed, 5).mean).toBeLessThan(7650)
    expect(lengthOf(known, 5).mean).toBeGreaterThan(7800)
  })

  test('a side with no strokes loses nothing', () => {
    const belief = read(() => 7000)
    const right = lengthOf(belief, 1)
    fileLengths(belief, counted(10, 0))
    expect(lengthOf(belief, 1)).toEqual(right)
    expect(7000 - lengthOf(belief, 0).mean).toBeCloseTo(200, -1)
  })

  test('differences outlive filings, a little blurred; a grind makes a side equal and leaves the turn open', () => {
    const belief = read((i) => (i === 4 ? 6400 : isLeft(i) ? 7000 : 6700))
    for (let i = 0; i < 5; i += 1) fileLengths(belief, counted(5, 5))
    expect(lengthOf(belief, 0).mean - lengthOf(belief, 4).mean).toBeGreaterThan(530)
    expect(sideDifference(belief)?.mean).toBeGreaterThan(150)
    grindLengths(belief)
    const [first] = ALL.map((i) => lengthOf(belief, i).mean)
    for (const i of ALL) expect(lengthOf(belief, i).mean).toBeCloseTo(first ?? 0, 6)
    // Down to the shortest, and what a usual grind takes.
    expect(first).toBeLessThan(6400 - 500 - 50)
    // The turn of the clamp, and what six ground cutters of a side stray by.
    expect(sd(sideDifference(belief) ?? { mean: 0, variance: 0 })).toBeCloseTo(
      Math.sqrt(95 ** 2 + (2 * 25 ** 2) / 6),
      6,
    )
  })

  test('a grind goes through the damage that reaches deepest, and behind it', () => {
    const belief = read(() => 7000)
    grindLengths(belief, { atLeastUm: HANDS.map((_, i) => (i === 3 ? 1300 : 0)) })
    expect(lengthOf(belief, 0).mean).toBeLessThan(5720)
    expect(lengthOf(belief, 0).mean).toBeGreaterThan(5550)
  })

  test('a level set by a cutter of which one reading is all there is, is as wide as a slip would have it', () => {
    const shortOne = (): LengthBelief => read((i) => (i === 4 ? 6000 : 7000))
    const doubtful = new Set([4])
    for (const level of [
      (belief: LengthBelief, how?: ToLevel) => grindLengths(belief, how),
      (belief: LengthBelief, how?: ToLevel) => evenLengths(belief, 200, how),
    ]) {
      const [sure, unsure, slipped] = [shortOne(), shortOne(), read(() => 7000)]
      level(sure)
      level(slipped)
      level(unsure, { doubtful })
      const [short, open, long] = [lengthOf(sure, 0), lengthOf(unsure, 0), lengthOf(slipped, 0)]
      // Both of what may be lie within.
      expect(open.mean).toBeCloseTo((short.mean + long.mean) / 2, -2)
      expect(open.mean - 2 * sd(open)).toBeLessThan(short.mean)
      expect(open.mean + 2 * sd(open)).toBeGreaterThan(long.mean)
      const asBoth = (short.variance + long.variance) / 2 + ((long.mean - short.mean) / 2) ** 2
      expect(open.variance / asBoth).toBeCloseTo(1, 1)
      // One that sets no level says nothing.
      const deeper = shortOne()
      level(deeper, { doubtful: new Set([7]) })
      expect(lengthOf(deeper, 0)).toEqual(lengthOf(sure, 0))
    }
  })

  test('filed down to the shortest, all stand level, as far as eye and caliper tell', () => {
    const belief = read((i) => (i === 4 ? 6400 : isLeft(i) ? 7000 : 6800))
    const off = evenLengths(belief, 200)
    for (const i of ALL) expect(lengthOf(belief, i).mean).toBeCloseTo(lengthOf(belief, 0).mean, 6)
    expect(lengthOf(belief, 0).mean).toBeCloseTo(6220, -2)
    expect(off[0]).toBeGreaterThan((off[4] ?? Infinity) + 400)
    expect(sd(sideDifference(belief) ?? { mean: 0, variance: 0 })).toBeGreaterThan(50)
    const nicked = read(() => 7000)
    evenLengths(nicked, 200, { atLeastUm: HANDS.map((_, i) => (i === 3 ? 900 : 0)) })
    expect(lengthOf(nicked, 0).mean).toBeCloseTo(6100, -2)
  })

  test('damage that was cleared took what it needed, on its own cutter', () => {
    const belief = read(() => 7000)
    fileLengths(belief, { ...counted(10, 10), atLeastUm: HANDS.map((_, i) => (i === 2 ? 800 : 0)) })
    expect(lengthOf(belief, 2).mean).toBeCloseTo(6200, -2)
    expect(lengthOf(belief, 4).mean).toBeCloseTo(6800, -2)
  })

  test('what a stroke takes is learned, by side, from readings before and after', () => {
    const belief = read(() => 7500)
    for (let round = 1; round <= 4; round += 1) {
      fileLengths(belief, counted(8, 8))
      for (const i of ALL) readLengthOf(belief, i, 7500 - round * 8 * (isLeft(i) ? 30 : 24), CALIPER)
    }
    expect(strokeBite(belief).mean).toBeGreaterThan(24)
    expect(sd(strokeBite(belief))).toBeLessThan(3)
    const { mean } = usualRemoval(belief, 'file', 200)
    expect(mean).toBeGreaterThan(235)
    fileLengths(belief, counted(10, 10))
    expect(lengthOf(belief, 1).mean - lengthOf(belief, 0).mean).toBeGreaterThan(4 * 48)
  })

  test('one that was read because it looked shortest does not drag its side down', () => {
    const shortest = newLengths(HANDS, 8000, false)
    const random = newLengths(HANDS, 8000, false)
    looksShortest(shortest, 4)
    for (const belief of [shortest, random]) readLengthOf(belief, 4, 7900, CALIPER)
    expect(lengthOf(shortest, 6).mean).toBeGreaterThan(lengthOf(random, 6).mean + 10)
    expect(lengthOf(shortest, 4).mean).toBeLessThan(lengthOf(shortest, 6).mean)
  })

  test('it makes no difference whether an entry comes in one or in two', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray([...ALL], { minLength: 2 }), (order) => {
        const one = read((i) => 7000 + 11 * i, [...ALL])
        const other = read((i) => 7000 + 11 * i, [...order, ...ALL.filter((i) => !order.includes(i))])
        for (const i of ALL) {
          expect(lengthOf(one, i).mean).toBeCloseTo(lengthOf(other, i).mean, 6)
          expect(sd(lengthOf(one, i))).toBeCloseTo(sd(lengthOf(other, i)), 6)
        }
      }),
    )
  })

  test('cutters of a side may change places', () => {
    const belief = read((i) => 7000 - (i === 2 ? 90 : i === 6 ? 30 : 0), [2, 6, 3])
    const other = read((i) => 7000 - (i === 6 ? 90 : i === 2 ? 30 : 0), [6, 2, 3])
    for (const b of [belief, other]) fileLengths(b, UNCOUNTED)
    expect(lengthOf(belief, 2).mean).toBeCloseTo(lengthOf(other, 6).mean, 6)
    expect(lengthOf(belief, 6).mean).toBeCloseTo(lengthOf(other, 2).mean, 6)
    expect(lengthOf(belief, 8)).toEqual(lengthOf(other, 8))
  })

  test('the shorter looking of two lies below what both were, one alone where it was', () => {
    const after = (hands: readonly Hand[]) => {
      const belief = newLengths(hands, 8000, false)
      looksShortest(belief, 0)
      return lengthOf(belief, 0).mean
    }
    // The least of two lies 0.56 of its own deviation, 0.045 mm, below their mean (by simulation 0.56).
    expect(after(['left', 'right'])).toBeCloseTo(8000 - leastOf(2).mean * -45, 9)
    expect(after(['left', 'right'])).toBeLessThan(7980)
    expect(after(['left'])).toBe(8000)
  })

  test('new, a length strays as common practice has it, by hand', () => {
    // All of them 0.04 mm where the box was read, else 0.27; a side 0.015 against the other; a cutter 0.045.
    const sdOf = (assumed: boolean) => Math.sqrt(lengthOf(newLengths(['left', 'right'], 8000, assumed), 0).variance)
    expect(sdOf(false)).toBeCloseTo(Math.sqrt(40 ** 2 + 15 ** 2 / 4 + 45 ** 2), 9)
    expect(sdOf(true)).toBeCloseTo(Math.sqrt(270 ** 2 + 15 ** 2 / 4 + 45 ** 2), 9)
    expect(sideDifference(newLengths(['left', 'right'], 8000, true))?.variance).toBeCloseTo(15 ** 2 + 2 * 45 ** 2, 9)
  })

  test('a side of one cutter stands where that cutter does; one of none nowhere', () => {
    const belief = newLengths(['left', 'right', 'left'], 8000, false)
    readLengthOf(belief, 1, 7000, CALIPER)
    expect(sideLevel(belief, 'right')).toEqual(pick(lengthOf(belief, 1)))
    expect(sideLevel(newLengths(['left'], 8000, false), 'right')).toBeNull()
    const { mean } = lengthOf(belief, 0)
    expect(sideDifference(belief)?.mean).toBeCloseTo(mean - lengthOf(belief, 1).mean, 9)
    expect(sideDifference(newLengths(['left', 'left'], 8000, false))).toBeNull()
    expect(sideDifference(newLengths(['right'], 8000, false))).toBeNull()
    expect(() => readLengthOf(belief, 3, 7000, CALIPER)).toThrow('there is no cutter 4')
  })

  test('a reading that is no figure is refused', () => {
    const belief = newLengths(HANDS, 8000, false)
    expect(() => readLengthOf(belief, 0, NaN, CALIPER)).toThrow(RangeError)
    expect(() => readLengthOf(belief, 0, 7000, 0)).toThrow(RangeError)
    expect(() => readLengthOf(belief, 99, 7000, CALIPER)).toThrow(RangeError)
  })
})

test('strokes with a worn file, and beyond a long filing, take less', () => {
  expect(fileFactor({})).toBe(1)
  expect(fileFactor({ fileAge: 'fresh' })).toBeCloseTo(1.1)
  expect(fileFactor({ fileAge: 'worn' })).toBeCloseTo(0.8)
  expect(fileFactor({ fileAge: 'fresh', fileBite: 0.3 })).toBe(0.3)
  expect(slowedUm(600)).toBe(500)
  for (const um of [100, 400, 700]) expect(restedUm(slowedUm(um))).toBeCloseTo(um)
})

test('it is the length filed off that tires the hand, and not the strokes of a file that hardly bites', () => {
  const off = (strokes: number, fileBite: number): number =>
    fileLengths(
      read(() => 7000),
      { ...counted(strokes, strokes), fileBite },
    )[0] ?? 0
  // 40 strokes at a third of the bite are not yet a long filing; twice as many take as much again.
  expect(off(60, 1 / 3) / off(20, 1)).toBeCloseTo(1, 6)
  expect(off(40, 0.25) * 2).toBeCloseTo(off(80, 0.25), 6)
  expect(off(40, 1)).toBeLessThan(1.6 * off(20, 1))
  // Who does not count goes on until it cuts: no more is left than with any other file.
  expect(
    fileLengths(
      read(() => 7000),
      { ...UNCOUNTED, fileBite: 0.2 },
    ),
  ).toEqual(
    fileLengths(
      read(() => 7000),
      UNCOUNTED,
    ),
  )
})

// Expected least of n standard normal figures: 2 -0.564, 10 -1.539, 36 -2.118.
// Tables of order statistics, from memory.
test.each([
  [1, 0, 1],
  [2, -0.564, 0.682],
  [10, -1.539, 0.344],
  [36, -2.118, 0.23],
])('the least of %d', (n, mean, variance) => {
  const least = leastOf(n)
  expect(Math.abs(least.mean - mean)).toBeLessThan(0.03)
  expect(Math.abs(least.variance - variance)).toBeLessThan(0.06)
})
