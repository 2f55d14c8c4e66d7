import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { PITCH_PROFILES } from '../profile'
import { layoutLoop, loopLength, pitchFromSpan } from './layout'
import { SEQUENCES } from './sequence'

const anySpec = fc.record({
  pitchUm: fc.constantFrom(...Object.values(PITCH_PROFILES).map(({ pitchUm }) => pitchUm.value)),
  driveLinks: fc.integer({ min: 20, max: 250 }),
  sequence: fc.constantFrom(...SEQUENCES),
  firstHand: fc.constantFrom('left' as const, 'right' as const),
})

describe('pitch', () => {
  // Pitch is half the span of three rivets (USDA Forest Service saw course, from memory); the
  // classes are inch sizes at 25.4 mm exactly (NIST SP 811, from memory).
  test.each([
    ['quarter', 6350],
    ['lowProfile', 9525],
    ['p325', 8255],
    ['threeEighths', 9525],
    ['p404', 10_262],
  ] as const)('%s is half of its three-rivet span', (pitchClass, pitchUm) => {
    expect(PITCH_PROFILES[pitchClass].pitchUm.value).toBe(pitchUm)
    expect(pitchFromSpan(2 * pitchUm)).toBe(pitchUm)
  })
})

describe('layoutLoop', () => {
  test('a 72-link full-complement loop has 36 cutters on 1.37 m and closes evenly', () => {
    const { cutters, joint, lengthUm } = layoutLoop({ pitchUm: 9525, driveLinks: 72, sequence: 'full' })
    expect(cutters).toHaveLength(36)
    expect(lengthUm).toBe(1_371_600)
    expect(joint).toEqual({ regular: true, gapDriveLinks: 2, sameHand: false })
  })

  test('an odd count leaves an irregular joint', () => {
    expect(layoutLoop({ pitchUm: 9525, driveLinks: 73, sequence: 'full' }).joint).toMatchObject({
      regular: false,
      gapDriveLinks: 3,
    })
    expect(layoutLoop({ pitchUm: 9525, driveLinks: 70, sequence: 'full' }).joint).toMatchObject({
      regular: false,
      sameHand: true,
    })
  })

  // A cutter every 2, 2.5 and 3 drive links: common practice.
  test.each([
    ['full', 2],
    ['semiSkip', 2.5],
    ['fullSkip', 3],
  ] as const)('%s has a cutter every %d drive links', (sequence, every) => {
    const { cutters } = layoutLoop({ pitchUm: 9525, driveLinks: 240, sequence })
    expect(240 / cutters.length).toBeCloseTo(every, 1)
  })

  test('semi-skip goes two links and three in turn, and closes evenly where the pattern does', () => {
    const links = (driveLinks: number) => layoutLoop({ pitchUm: 9525, driveLinks, sequence: 'semiSkip' })
    expect(links(20).cutters.map(({ driveLink }) => driveLink)).toEqual([0, 2, 5, 7, 10, 12, 15, 17])
    expect(links(20).joint).toEqual({ regular: true, gapDriveLinks: 3, sameHand: false })
    expect(links(22).joint).toEqual({ regular: false, gapDriveLinks: 2, sameHand: true })
    expect(layoutLoop({ pitchUm: 9525, driveLinks: 24, sequence: 'fullSkip' }).joint.regular).toBe(true)
    expect(layoutLoop({ pitchUm: 9525, driveLinks: 26, sequence: 'fullSkip' }).joint).toMatchObject({
      regular: false,
      gapDriveLinks: 2,
    })
  })

  test('hands alternate, places rise, and the gaps add up to the loop', () => {
    fc.assert(
      fc.property(anySpec, (spec) => {
        const { cutters, joint, lengthUm } = layoutLoop(spec)
        expect(cutters[0]?.hand).toBe(spec.firstHand)
        let sum = 0
        cutters.forEach((cutter, i) => {
          const before = cutters[i - 1]
          expect(cutter.number).toBe(i + 1)
          if (before === undefined) return
          expect(cutter.hand).not.toBe(before.hand)
          const gap = cutter.driveLink - before.driveLink
          expect([2, 3]).toContain(gap)
          sum += gap
        })
        expect(sum + joint.gapDriveLinks).toBe(spec.driveLinks)
        expect(joint.gapDriveLinks).toBeGreaterThanOrEqual(2)
        expect(lengthUm).toBe(loopLength(spec.pitchUm, spec.driveLinks))
        expect(joint.sameHand).toBe(cutters.length % 2 === 1)
      }),
    )
  })

  test.each([[0], [-9525], [NaN]])('a pitch of %d is refused', (pitchUm) => {
    expect(() => layoutLoop({ pitchUm, driveLinks: 72, sequence: 'full' })).toThrow(RangeError)
  })

  test.each([[20], [250]])('%d drive links are taken', (driveLinks) => {
    expect(layoutLoop({ pitchUm: 9525, driveLinks, sequence: 'full' }).cutters).toHaveLength(driveLinks / 2)
  })

  test.each([[19], [251], [72.5], [NaN]])('%d drive links are refused', (driveLinks) => {
    expect(() => layoutLoop({ pitchUm: 9525, driveLinks, sequence: 'full' })).toThrow(RangeError)
  })
})
