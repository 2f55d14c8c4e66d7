import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { GAUGES_UM, PITCH_CLASSES, PITCH_PROFILES } from '../profile'
import { likelyDriveLinks } from './driveLinks'
import { gaugeCandidates } from './gauge'
import { identifyPitch, type Clues } from './pitch'

const span = (um: number, instrument: 'caliper' | 'ruler' = 'caliper'): Clues => ({ span: { um, instrument } })
const found = (clues: Clues) => {
  const finding = identifyPitch(clues)
  if (!finding.ok) throw new Error(finding.reason)
  return finding
}
const best = (clues: Clues) => found(clues).candidates[0]?.pitchClass

describe('pitch', () => {
  // Three-rivet spans are twice the pitch (USDA Forest Service saw course, from memory), and the
  // pitches inch sizes at 25.4 mm exactly: 12.70, 16.51, 19.05, 20.52 mm.
  test.each([
    [12_700, 'quarter'],
    [16_510, 'p325'],
    [20_524, 'p404'],
  ] as const)('a caliper span of %d µm is %s', (um, pitchClass) => {
    expect(found(span(um))).toMatchObject({ sure: true, next: 'thickness' })
    expect(best(span(um))).toBe(pitchClass)
  })

  test('3/8" is not told from low profile by its span; thickness and build do it', () => {
    const plain = found(span(19_050))
    expect(plain).toMatchObject({ sure: false, next: 'thickness' })
    expect(plain.candidates[0]?.probability).toBeCloseTo(plain.candidates[1]?.probability ?? 0, 10)
    const thick = { um: 1570, instrument: 'caliper' } as const
    expect(best({ ...span(19_050), thickness: thick })).toBe('threeEighths')
    expect(found({ ...span(19_050), thickness: thick }).sure).toBe(true)
    // 1.3 mm is usual for both: the build decides.
    const shared = { ...span(19_050), thickness: { um: 1270, instrument: 'caliper' } } as const
    expect(found(shared)).toMatchObject({ sure: false, next: 'build' })
    expect(best({ ...shared, build: 'low' })).toBe('lowProfile')
    expect(found({ ...shared, build: 'tall' })).toMatchObject({ sure: true, next: 'none' })
  })

  test('a ruler reading between two pitches says so and asks for the caliper', () => {
    expect(found({ ...span(19_850, 'ruler'), build: 'tall' })).toMatchObject({ sure: false, next: 'caliperSpan' })
  })

  test('by ruler it is likely at best, and the caliper is asked for', () => {
    expect(found(span(16_510, 'ruler'))).toMatchObject({ likely: true, sure: false, next: 'caliperSpan' })
    expect(best(span(16_510, 'ruler'))).toBe('p325')
    expect(found(span(16_510))).toMatchObject({ likely: true, sure: true })
  })

  test('one gap, the wrong unit and no pitch at all are recognised', () => {
    expect(identifyPitch(span(8300))).toEqual({ ok: false, reason: 'oneGap', meantUm: 16_600 })
    expect(identifyPitch(span(650))).toEqual({ ok: false, reason: 'wrongUnit', meantUm: 16_510 })
    expect(identifyPitch(span(60_000))).toEqual({ ok: false, reason: 'noSuchPitch', meantUm: null })
  })

  test('every pitch is found from its own span, a little worn, and probabilities add up to one', () => {
    fc.assert(
      fc.property(fc.constantFrom(...PITCH_CLASSES), fc.integer({ min: -100, max: 200 }), (pitchClass, off) => {
        const pitchUm = PITCH_PROFILES[pitchClass].pitchUm.value
        const { candidates } = found(span(2 * pitchUm + off))
        expect(PITCH_PROFILES[candidates[0]?.pitchClass ?? 'p404'].pitchUm.value).toBe(pitchUm)
        expect(candidates.reduce((sum, { probability }) => sum + probability, 0)).toBeCloseTo(1, 9)
      }),
    )
  })
})

test('a span belongs to a pitch up to three and a half deviations of caliper and wear', () => {
  // .404": two gaps are 20 523 µm; caliper 100, wear 1 % of it: 228 together, so 799 µm.
  expect(identifyPitch(span(20_523 + 795)).ok).toBe(true)
  expect(identifyPitch(span(20_523 + 805)).ok).toBe(false)
})

describe('gauge', () => {
  test.each(GAUGES_UM.map((gaugeUm) => [gaugeUm] as const))(
    'a link of %d µm, new or a few hundredths worn, is its own gauge',
    (gaugeUm) => {
      for (const worn of [0, 20, 40]) {
        const finding = gaugeCandidates({ um: gaugeUm - worn, instrument: 'caliper' })
        expect(finding.ok && finding.candidates[0]?.gaugeUm).toBe(gaugeUm)
      }
    },
  )

  test('between 1.5 and 1.6 nobody can be sure, and a ruler is never sure', () => {
    expect(gaugeCandidates({ um: 1520, instrument: 'caliper' })).toMatchObject({ ok: true, sure: false })
    expect(gaugeCandidates({ um: 1500, instrument: 'ruler' })).toMatchObject({ ok: true, sure: false })
  })

  test('a ruler tells neighbours apart by no more than its spread allows', () => {
    const finding = gaugeCandidates({ um: 1300 - 30, instrument: 'ruler' })
    const chance = (gaugeUm: number): number =>
      (finding.ok ? finding.candidates.find((one) => one.gaugeUm === gaugeUm)?.probability : undefined) ?? NaN
    // By hand: exp(½ · 200² / (300² + 30²)).
    expect(chance(1300) / chance(1500)).toBeCloseTo(1.246, 3)
  })

  test('what is no drive link is told', () => {
    expect(gaugeCandidates({ um: 500, instrument: 'caliper' })).toEqual({ ok: false, reason: 'tooThin' })
    expect(gaugeCandidates({ um: 4000, instrument: 'caliper' })).toEqual({ ok: false, reason: 'tooThick' })
  })
})

// Bars and the counts stamped on many of them: common practice.
test.each([
  [16, 9525, 56],
  [20, 9525, 72],
  [16, 8255, 66],
  [12, 9525, 45],
])('a %d-inch bar at pitch %d takes about %d links', (inches, pitchUm, links) => {
  const { least, most } = likelyDriveLinks(inches * 25_400, pitchUm)
  expect(least).toBeLessThanOrEqual(links)
  expect(most).toBeGreaterThanOrEqual(links)
})

test('a thickness so far from every gauge that it is no drive link', () => {
  // Six deviations of caliper and worn links, 0.025 and 0.03 mm, beyond the thinnest (worn) and the thickest. By hand.
  const at = (um: number) => gaugeCandidates({ um, instrument: 'caliper' })
  expect([835, 836, 2234, 2235].map((um) => at(um).ok)).toEqual([false, true, true, false])
  expect([at(835), at(2235)]).toEqual([
    { ok: false, reason: 'tooThin' },
    { ok: false, reason: 'tooThick' },
  ])
})
