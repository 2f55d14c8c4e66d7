import fc from 'fast-check'
import { expect, test } from 'vitest'
import {
  costsForNothing,
  countNow,
  oddReading,
  recheck,
  strokeWorth,
  turnsFor,
  worthBefore,
  worthBeside,
} from './progress'

const stroked = (perStroke: number, strokes = 5) => ({
  beforeUm: 6500,
  beforeSdUm: 20,
  afterUm: 6500 - perStroke * strokes,
  strokes,
})

test('a worn file shows after a few readings: more strokes for the same length', () => {
  const before = worthBefore(20)
  const job = { lengthUm: 6500, targetUm: 6400, damageUm: 0 }
  expect(countNow(job, before)).toBe(5)
  const one = strokeWorth(before, [stroked(12)])
  const after = (reads: number) =>
    strokeWorth(
      before,
      Array.from({ length: reads }, () => stroked(12)),
    )
  const four = after(4)
  expect(one.meanUm).toBeLessThan(20)
  expect(four.meanUm).toBeLessThan(one.meanUm)
  expect(after(40).meanUm).toBeCloseTo(12.6, 0)
  expect(four.sdUm).toBeLessThan(one.sdUm)
  expect(countNow(job, four)).toBeGreaterThan(countNow(job, one))
  expect(countNow(job, after(40))).toBe(8)
})

test('what is learned lies between what was known and what was read, however many', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 8, max: 35, noNaN: true }),
      fc.array(fc.double({ min: 5, max: 40, noNaN: true }), { minLength: 1, maxLength: 20 }),
      (bite, reads) => {
        const { meanUm } = strokeWorth(
          worthBefore(bite),
          reads.map((each) => stroked(each)),
        )
        expect(meanUm).toBeGreaterThanOrEqual(Math.min(bite, ...reads) - 1e-9)
        expect(meanUm).toBeLessThanOrEqual(Math.max(bite, ...reads) + 1e-9)
      },
    ),
  )
  expect(strokeWorth(worthBefore(20), [{ ...stroked(20), strokes: 0 }])).toEqual(strokeWorth(worthBefore(20), []))
})

test('one side tells of the other by what is one for both, and many estimates of one side no more than one', () => {
  expect(worthBeside(20, 22, [])).toEqual(worthBefore(20))
  const exact = { ...stroked(33), beforeSdUm: 0 }
  const [none, one, many] = [[], [exact], Array.from({ length: 12 }, () => exact)].map((read) =>
    worthBeside(20, 22, read),
  )
  expect(none?.meanUm).toBeLessThan(one?.meanUm ?? 0)
  expect(one?.meanUm).toBeLessThan(many?.meanUm ?? 0)
  // Half more on the other side: on this one as much of it as the day and the file have in common.
  expect(many?.meanUm).toBeLessThan(20 * 1.5)
  expect(many?.sdUm).toBeLessThan(none?.sdUm ?? 0)
  expect(many?.sdUm).toBeGreaterThan(1)
  const estimates = (reads: number) =>
    worthBeside(
      20,
      20,
      Array.from({ length: reads }, () => stroked(30)),
    )
  expect(estimates(12).meanUm - estimates(1).meanUm).toBeLessThan(1.5)
})

test('a stop left from the other side is caught: how far, which way, how much of a turn', () => {
  expect(recheck(6000, 6150, 20)).toEqual({ offUm: 150, alike: false, stop: { way: 'in', byUm: 150 }, strokes: 8 })
  expect(recheck(6000, 5800, 20)).toMatchObject({ stop: { way: 'out', byUm: 200 }, strokes: -10 })
  expect(recheck(6000, 6030, 20)).toMatchObject({ alike: true, stop: null, strokes: 0 })
  expect(turnsFor(150)).toBe(0.125)
  expect(turnsFor(240)).toBe(0.25)
  expect(turnsFor(20)).toBe(0.125)
})

test('what is clean and down to where it was to go gets no further stroke', () => {
  expect(costsForNothing({ targetUm: 6400 }, 6395, true)).toBe(true)
  expect(costsForNothing({ targetUm: 6400 }, 6395, false)).toBe(false)
  expect(costsForNothing({ targetUm: 6400 }, 6450, true)).toBe(false)
})

test('a reading that cannot be of this cutter is asked about', () => {
  const job = { lengthUm: 6500, lengthSdUm: 20, targetUm: 6300 }
  expect(oddReading(job, 6310, true)).toBeNull()
  expect(oddReading(job, 6540, true)).toBeNull()
  expect(oddReading(job, 6700, true)).toBe('grew')
  expect(oddReading(job, 5900, true)).toBe('tooShort')
  expect(oddReading(job, 6480, false)).toBeNull()
  expect(oddReading(job, 6200, false)).toBe('tooShort')
  // Of an estimate much is possible.
  expect(oddReading({ ...job, lengthSdUm: 400 }, 7200, false)).toBeNull()
})
