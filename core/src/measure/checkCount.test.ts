import fc from 'fast-check'
import { expect, test } from 'vitest'
import { checkCount, linkBounds, priceBounds, sayCountCheck } from './checkCount'

const links = linkBounds([56, 72])

test.each([
  [72, null],
  // A new saw may take what no other does.
  [60, null],
  [27, 72],
  [720, 72],
  [772, 72],
  [65, 56],
])('%d drive links where the crew has 56 and 72: meant %s', (typed, meant) => {
  const check = checkCount(typed, links)
  expect(check.ok ? null : check.meant).toBe(meant)
})

test('what no loop has is refused; what few have is asked about', () => {
  expect(checkCount(720, links)).toMatchObject({ weight: 'refuse' })
  expect(checkCount(7, linkBounds([]))).toEqual({ ok: false, weight: 'refuse', meant: 70 })
  expect(checkCount(130, linkBounds([]))).toMatchObject({ weight: 'ask' })
})

test('a price is asked about where its decimal mark slipped, and never where it moved a little', () => {
  fc.assert(
    fc.property(fc.integer({ min: 100, max: 100_000 }), fc.double({ min: 0.3, max: 3, noNaN: true }), (before, by) => {
      expect(checkCount(Math.round(before * by), priceBounds(before))).toEqual({ ok: true })
      expect(checkCount(before * 100, priceBounds(before))).toMatchObject({ weight: 'ask', meant: before })
    }),
  )
  expect(checkCount(0, priceBounds(4000))).toEqual({ ok: true })
  expect(sayCountCheck(400_000, { ok: false, weight: 'ask', meant: 4000 }, (minor) => `€${minor / 100}`)).toBe(
    '€4000? That is hardly right. Was it €40?',
  )
})
