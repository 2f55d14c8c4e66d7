import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { CUTTER_DAMAGE_KINDS, PART_DAMAGE, PART_DAMAGE_KINDS, type CutterDamage } from '../damage'
import { fold } from '../fold'
import { anyLog } from '../fixtures/anyLog'
import { Log, SPEC, stateOf } from '../fixtures/logs'
import { decide } from './decide'
import { DEFAULT_RULES } from '../house'
import { ACTION_WORDS, sayReason } from '../words'
import { ACTIONS } from '../log'
import type { Verdict } from './verdict'

const verdictOf = (log: Log): Verdict => {
  const state = fold(log.entries)
  if (state === null) throw new Error('the loop should be registered')
  return decide(state, DEFAULT_RULES)
}
const rulesOf = ({ reasons }: Verdict): string[] => reasons.map(({ rule }) => rule)
const damaged = (log: Log, cutters: number[], damage: CutterDamage, lengthUm = 7000): Log =>
  log.add('measured', { readings: cutters.map((cutter) => ({ cutter, lengthUm, damage: [damage] })) })

describe('decide', () => {
  test('a sharp, even loop runs on', () => {
    expect(verdictOf(new Log().measureAll(7000))).toMatchObject({ action: 'runOn', fitForUse: true })
  })

  test('two tanks call for a touch-up, six for the bench', () => {
    expect(verdictOf(new Log().add('ran', { tanks: 2, conditions: 'clean' })).action).toBe('touchUp')
    expect(verdictOf(new Log().add('ran', { tanks: 6, conditions: 'clean' })).action).toBe('file')
  })

  test.each(PART_DAMAGE_KINDS.filter((kind) => PART_DAMAGE[kind].effect === 'ends'))('%s ends a new loop', (kind) => {
    const verdict = verdictOf(new Log().add('inspected', { readings: [], parts: [{ kind, nearCutter: 4 }] }))
    expect(verdict).toMatchObject({ action: 'retire', fitForUse: false })
    expect(rulesOf(verdict)).toEqual(['endsLoop'])
  })

  test('a measured cutter at its mark retires the loop; an estimate only asks', () => {
    expect(rulesOf(verdictOf(new Log().measureAll((n) => (n === 5 ? 0 : 500))))[0]).toBe('atMark')
    const estimated = verdictOf(new Log().measureAll(300).file())
    expect(estimated).toMatchObject({ action: 'measure', fitForUse: false })
    expect(rulesOf(estimated)[0]).toBe('perhapsAtMark')
  })

  test('a shallow nick is filed, blued steel is not', () => {
    expect(verdictOf(damaged(new Log().measureAll(7000), [3], { kind: 'chipped', depthUm: 300 })).action).toBe('file')
    expect(rulesOf(verdictOf(damaged(new Log().measureAll(7000), [3], { kind: 'blued', depthUm: 200 })))[0]).toBe(
      'fileSkates',
    )
  })

  test('damage of unknown depth asks for it', () => {
    const verdict = verdictOf(damaged(new Log().measureAll(7000), [3], { kind: 'chipped', depthUm: null }))
    expect(verdict.action).toBe('measure')
    expect(rulesOf(verdict)).toContain('depthUnknown')
  })

  test('a strike is looked into before anything else', () => {
    expect(verdictOf(new Log().measureAll(7000).add('struck', { against: 'stone' }))).toMatchObject({
      action: 'inspect',
      fitForUse: false,
    })
  })

  test('gauges read too low stay unfit through a sharpening, until the ratio is right again', () => {
    const log = new Log().add('measured', { readings: [{ cutter: 8, settingUm: 950 }] })
    const after = verdictOf(log.file())
    expect(after).toMatchObject({ action: 'stop', fitForUse: false })
    expect(after.reasons[0]).toMatchObject({ rule: 'gaugesTooLow', known: 'estimated' })
    expect(sayReason(after.reasons[0] ?? { rule: 'nothingDue' }, { lengths: 'mm', currency: 'EUR' })).toContain(
      'about 0.28 mm too low',
    )
    for (let i = 0; i < 8; i += 1) log.file()
    expect(verdictOf(log).action).not.toBe('stop')
  })

  test('one side longer than the other pulls that way', () => {
    const verdict = verdictOf(new Log().measureAll((n) => (n % 2 === 1 ? 6400 : 6000) + (n % 5) * 10))
    expect(verdict.action).toBe('regrind')
    expect(verdict.reasons[0]).toMatchObject({ rule: 'sidesDiffer', hand: 'left' })
  })

  test('limits themselves are let run: sides, evenness, gauges', () => {
    const sides = (um: number) => new Log().measureAll((n) => (n % 2 === 1 ? 6000 + um : 6000) + ((n >> 1) % 2) * 40)
    expect(rulesOf(verdictOf(sides(250)))).toEqual(['nothingDue'])
    // Surely past it: more than a caliper may be off.
    expect(rulesOf(verdictOf(sides(300)))[0]).toBe('sidesDiffer')
    const uneven = (um: number) => new Log().measureAll((n) => (n === 4 ? 7000 - um : 7000))
    expect(rulesOf(verdictOf(uneven(500)))).toEqual(['nothingDue'])
    expect(rulesOf(verdictOf(uneven(620)))[0]).toBe('uneven')
    const gauges = (settingUm: number) => new Log().add('measured', { readings: [{ cutter: 8, settingUm }] })
    expect(verdictOf(gauges(800)).fitForUse).toBe(true)
    expect(verdictOf(gauges(801)).fitForUse).toBe(false)
  })

  test('a shop that keeps it a day is away, one that does it while one waits is not', () => {
    const dull = new Log().measureAll(7000).add('ran', { tanks: 7, conditions: 'clean' })
    const risks = (shopDays: number) => {
      const state = fold(dull.entries)
      if (state === null) throw new Error('the loop should be registered')
      return decide(state, { ...DEFAULT_RULES, shopDays }).options.find(({ action }) => action === 'shop')?.risks
    }
    expect(risks(1)).toContain('away')
    expect(risks(0)).not.toContain('away')
  })

  test('a reading that grew is asked about', () => {
    expect(rulesOf(verdictOf(new Log().measureAll(5000).measureAll(7000)))[0]).toBe('contradiction')
  })

  test('a retired loop says so', () => {
    expect(rulesOf(verdictOf(new Log().add('retired', { reason: 'worn' })))).toEqual(['alreadyRetired'])
  })
})

describe('options', () => {
  // Both sides of a 16-inch saw (56 links, 28 cutters) touched up with a two-in-one in 4 minutes, common practice.
  // What belongs to it before and afterwards is in the figure too.
  test('a touch-up of a 16-inch saw takes about four minutes', () => {
    const log = new Log({ ...SPEC, driveLinks: 56 }).measureAll(7000, 28)
    const { options } = decide(stateOf(log), { ...DEFAULT_RULES, guide: 'twoInOne' })
    const minutes = options.find(({ action }) => action === 'touchUp')?.minutes
    expect(minutes?.low).toBeLessThan(4.5)
    expect(minutes?.high).toBeGreaterThan(4)
    expect(minutes?.likely).toBeLessThan(6)
  })
})

describe('properties', () => {
  test('every log has a verdict with words, reasons and ranges in order', () => {
    fc.assert(
      fc.property(anyLog, (log) => {
        const verdict = verdictOf(log)
        expect(ACTIONS).toContain(verdict.action)
        expect(verdict.reasons.length).toBeGreaterThan(0)
        expect(verdict.minutes.low).toBeLessThanOrEqual(verdict.minutes.high)
        for (const reason of verdict.reasons)
          expect(sayReason(reason, { lengths: 'both', currency: 'EUR' })).toMatch(/[.?]$/)
        expect(JSON.parse(JSON.stringify(verdict))).toEqual(verdict)
      }),
    )
  })

  test('deeper damage never leaves more sharpenings', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 36 }),
        fc.integer({ min: 0, max: 4000 }),
        fc.integer({ min: 0, max: 2000 }),
        (cutter, depthUm, more) => {
          const left = (depth: number) =>
            verdictOf(damaged(new Log().measureAll(6000), [cutter], { kind: 'stone', depthUm: depth }, 6000))
              .sharpeningsLeft
          expect(left(depthUm + more).likely).toBeLessThanOrEqual(left(depthUm).likely)
        },
      ),
    )
  })

  test('marking one more damage never makes an unfit loop fit', () => {
    fc.assert(
      fc.property(anyLog, fc.constantFrom(...CUTTER_DAMAGE_KINDS), (log, kind) => {
        const before = verdictOf(log)
        const state = fold(log.entries)
        const damage = [...(state?.cutters[0]?.damage ?? []), { kind, depthUm: null }]
        const after = verdictOf(log.add('measured', { readings: [{ cutter: 1, damage }] }))
        // Whoever looks at a cutter that was struck closes the strike.
        if (!before.fitForUse && state?.openStrikes.length === 0) expect(after.fitForUse).toBe(false)
      }),
    )
  })
})

test('every action has its words', () => {
  expect(new Set(Object.values(ACTION_WORDS)).size).toBe(ACTIONS.length)
})
