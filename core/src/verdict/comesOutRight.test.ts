import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import type { CutterDamage } from '../damage'
import { anyLog } from '../fixtures/anyLog'
import { Log, stateOf } from '../fixtures/logs'
import { DEFAULT_RULES, UNEVEN_SCHOOLS, type HouseRules } from '../house'
import type { Action } from '../log'
import { decide } from './decide'
import { decideFully } from './fullDecision'
import type { Option, Verdict } from './verdict'

const verdictOf = (log: Log, rules: Partial<HouseRules> = {}): Verdict =>
  decide(stateOf(log), { ...DEFAULT_RULES, ...rules })
const optionOf = ({ options }: Verdict, action: Action): Option => {
  const option = options.find((one) => one.action === action)
  if (option === undefined) throw new Error(`there is no option ${action}`)
  return option
}
const rate = (option: Option): number => option.perHourMinor?.likely ?? Infinity
const RUN = [8, 9, 10, 11, 12, 13, 14]
const struck = (lengthUm: number, depthUm: number | null = 2600, cutters = RUN): Log => {
  const damage: CutterDamage[] = [{ kind: 'stone', depthUm }]
  return new Log()
    .measureAll(lengthUm)
    .add('measured', { readings: cutters.map((cutter) => ({ cutter, lengthUm, damage })) })
}

// How an old hand decides each of these: common practice.
describe('what must come out right', () => {
  test('a stone-struck run that would take hours to file: regrind, filing feasible and dearer', () => {
    const verdict = verdictOf(struck(7000))
    const filing = optionOf(verdict, 'file')
    expect(verdict).toMatchObject({ action: 'regrind', fitForUse: true })
    expect(filing.feasible).toBe(true)
    expect(filing.minutes.likely).toBeGreaterThan(120)
    expect(rate(filing)).toBeGreaterThan(2 * rate(optionOf(verdict, 'regrind')))
    expect(verdict.reasons[0]).toMatchObject({
      rule: 'damageToClean',
      value: { unit: 'um', amount: 2600 },
      takes: { unit: 'um', amount: 2700 },
    })
    expect(verdict.reasons.at(-1)).toMatchObject({ rule: 'cheapestPerHour', against: verdict.runnerUp?.action })
  })

  test('the same loop a millimetre from the mark: retire, and dirty duty is no way round', () => {
    const spent = verdictOf(struck(1000))
    expect(spent.action).toBe('retire')
    expect(optionOf(spent, 'regrind').feasible).toBe(false)
    expect(spent.reasons[0]?.rule).toBe('noLengthBehindDamage')
    expect(optionOf(spent, 'dirtyDuty').reasons.map(({ rule }) => rule)).toEqual(['noLengthBehindDamage'])
  })

  test('matching the worst never throws away a loop with most of its life left: the same strokes, in stages', () => {
    const gone = (cutters: number, lengthUm: number): Log =>
      new Log().add('measured', {
        readings: Array.from({ length: 36 }, (_, i) => ({
          cutter: i + 1,
          lengthUm,
          damage: i < cutters ? [{ kind: 'cornerGone' as const, depthUm: lengthUm - 200 }] : [],
        })),
      })
    const one = verdictOf(gone(1, 7000), { grinderOwned: false, shopUsed: false })
    expect(one).toMatchObject({ action: 'touchUp', fitForUse: true })
    const filing = optionOf(one, 'file')
    expect(filing).toMatchObject({ way: 'sameStrokes', damagedLeft: 1, feasible: true, risks: ['cuttersLeftDull'] })
    // 6.8 mm and a tenth behind it, at 0.2 mm a filing: 35 of them with 1 cutter in 36 blunt.
    expect(filing.stages?.sharpenings).toBe(35)
    expect(filing.stages?.lostHours).toBeCloseTo((34 * filing.sharpHours.likely) / 35, 2)
    expect(filing.deepestUm).toBeLessThan(300)
    // What is left of it calls for no work of its own: it cuts on.
    const filed = gone(1, 7000).file()
    expect(stateOf(filed).cutters[0]?.damage).toMatchObject([{ kind: 'cornerGone', depthUm: 6600 }])
    expect(verdictOf(filed)).toMatchObject({ action: 'runOn', fitForUse: true })
    expect(verdictOf(gone(1, 7000).file({ strokes: { left: 0, right: 9 } })).action).toBe('touchUp')
    // Two cutters in three have to cut; and near its mark it is matched, and spent.
    expect(verdictOf(gone(13, 7000)).action).toBe('retire')
    expect(verdictOf(gone(1, 3500)).reasons[0]?.rule).toBe('noLengthBehindDamage')
    // Most of its life is more than half of the 8 mm that a new one has to its mark.
    expect(verdictOf(gone(1, 4200)).action).toBe('touchUp')
    expect(verdictOf(gone(1, 3900)).action).not.toBe('touchUp')
    expect(optionOf(verdictOf(struck(7000)), 'file')).toMatchObject({ way: 'matchShortest', stages: null })
  })

  test('for dirt: length behind the damage, and two cutters in three with a corner', () => {
    const nicked = (cutters: number, lengthUm: number): Log =>
      new Log().add('measured', {
        readings: Array.from({ length: 36 }, (_, i) => ({
          cutter: i + 1,
          lengthUm,
          damage: i < cutters ? [{ kind: 'chipped' as const, depthUm: 600 }] : [],
        })),
      })
    const against = (cutters: number, lengthUm: number) =>
      optionOf(verdictOf(nicked(cutters, lengthUm)), 'dirtyDuty').reasons.map(({ rule }) => rule)
    expect(against(12, 1000)).toEqual([])
    expect(against(13, 1000)).toEqual(['tooFewCut'])
    expect(against(12, 700)).toEqual(['noLengthBehindDamage'])
    expect(verdictOf(nicked(12, 1000), { grinderOwned: false, shopUsed: false })).toMatchObject({ action: 'dirtyDuty' })
  })

  test('sharp with gauges high: gauges only', () => {
    const log = new Log().add('measured', {
      readings: Array.from({ length: 36 }, (_, i) => ({ cutter: i + 1, lengthUm: 7000, settingUm: 450, damage: [] })),
    })
    expect(verdictOf(log)).toMatchObject({ action: 'lowerGauges', also: [] })
    expect(optionOf(verdictOf(log), 'lowerGauges').deepestUm).toBe(0)
    log.add('ran', { tanks: 2, conditions: 'clean' })
    expect(verdictOf(log)).toMatchObject({ action: 'touchUp', also: ['lowerGauges'] })
  })

  test('gauges 0.3 mm too low: not fit for use, with the length to take off', () => {
    const low = (lengthUm: number) =>
      new Log().measureAll(lengthUm).add('measured', { readings: [{ cutter: 8, settingUm: 950 }] })
    const verdict = verdictOf(low(7000))
    expect(verdict).toMatchObject({ action: 'stop', fitForUse: false })
    // 0.3 mm less the 0.15 mm that is let run, ÷ tan 7°, by hand.
    expect(verdict.reasons[0]).toMatchObject({
      rule: 'gaugesTooLow',
      cutter: 8,
      value: { amount: 300 },
      takes: { unit: 'um', amount: 1222 },
    })
    expect(verdictOf(low(1300))).toMatchObject({ action: 'retire', fitForUse: false })
  })

  test('a cracked tie strap on a new chain: retire, whatever the money says', () => {
    const log = new Log().add('inspected', { readings: [], parts: [{ kind: 'strapCracked', nearCutter: 4 }] })
    for (const link of [1, 1_000_000]) {
      const verdict = verdictOf(log, { linkPriceMinor: { ...DEFAULT_RULES.linkPriceMinor, threeEighths: link } })
      expect(verdict).toMatchObject({ action: 'retire', fitForUse: false })
      expect(optionOf(verdict, 'dirtyDuty').feasible).toBe(false)
    }
  })

  test('one nicked cutter on an even loop: each school does what it says', () => {
    const nicked = struck(7000, 500, [9])
    const filing = Object.fromEntries(
      UNEVEN_SCHOOLS.map((unevenSchool) => [unevenSchool, optionOf(verdictOf(nicked, { unevenSchool }), 'file')]),
    )
    expect(filing.matchShortest).toMatchObject({ meanUm: 600, spreadUm: 0, damagedLeft: 0 })
    expect(filing.sameStrokes).toMatchObject({
      deepestUm: 200,
      spreadUm: 0,
      damagedLeft: 1,
      risks: ['cuttersLeftDull'],
    })
    expect(filing.worstSetsCount).toMatchObject({ meanUm: 600, damagedLeft: 0 })
    expect(filing.extraOnBad).toMatchObject({ deepestUm: 600, meanUm: 211, spreadUm: 400, damagedLeft: 0 })
    expect(verdictOf(nicked, { unevenSchool: 'sameStrokes' }).action).not.toBe(verdictOf(nicked).action)
  })

  test('damage of unknown depth: asks for it, and says meanwhile what it may come to', () => {
    const verdict = verdictOf(struck(3000, null))
    expect(verdict.action).toBe('measure')
    expect(verdict.reasons[0]?.rule).toBe('depthUnknown')
    expect(verdict.bounds).toMatchObject({ least: { depthUm: 200 }, most: { depthUm: 3000, action: 'retire' } })
    expect(verdict.bounds?.least.action).not.toBe(verdict.bounds?.most.action)
  })

  test('a strike nobody has looked into has bounds too', () => {
    const verdict = verdictOf(new Log().measureAll(7000).add('struck', { against: 'stone', cutters: RUN }))
    expect(verdict).toMatchObject({ action: 'inspect', fitForUse: false })
    expect(verdict.bounds?.most.sharpeningsLeft.likely).toBeLessThan(verdict.bounds?.least.sharpeningsLeft.likely ?? 0)
  })

  test('a strike on nobody knows which cutter: at best nothing, at worst the shortest is hit deep', () => {
    const { bounds, options } = verdictOf(
      new Log().measureAll((n) => (n === 7 ? 6800 : 7000)).add('struck', { against: 'metal' }),
    )
    expect(bounds).toMatchObject({
      least: { depthUm: 0, action: 'runOn' },
      most: { depthUm: 3000, action: 'dirtyDuty' },
    })
    expect(options.filter(({ feasible }) => feasible).map(({ action }) => action)).toEqual(['retire'])
  })

  test('what is over is over for every job, and what must not cut does not run on', () => {
    const cracked = verdictOf(
      new Log()
        .add('inspected', { readings: [], parts: [{ kind: 'driveLinkCracked', nearCutter: null }] })
        .add('ran', { tanks: 8, conditions: 'clean' }),
    )
    expect(cracked.options.filter(({ feasible }) => feasible).map(({ action }) => action)).toEqual(['retire'])
    expect(optionOf(cracked, 'regrind').reasons[0]).toMatchObject({ rule: 'endsLoop', damage: 'driveLinkCracked' })
    const missing = verdictOf(
      new Log()
        .measureAll(7000)
        .add('measured', { readings: [{ cutter: 3, damage: [{ kind: 'missing', depthUm: null }] }] }),
    )
    expect(optionOf(missing, 'runOn').reasons[0]?.rule).toBe('notFitForAnything')
  })

  test('spent and unfit at once: retired, and off the saws until it is', () => {
    const gaugesLow = struck(1000).add('measured', { readings: [{ cutter: 20, settingUm: 1050 }] })
    expect(verdictOf(gaugesLow)).toMatchObject({ action: 'retire', fitForUse: false })
    expect(verdictOf(struck(1000).add('struck', { against: 'metal' }))).toMatchObject({
      action: 'retire',
      fitForUse: false,
    })
    expect(verdictOf(struck(1000), { dirtyDuty: false })).toMatchObject({ action: 'retire', fitForUse: true })
  })

  test('a house without grinder or shop files what it can', () => {
    const verdict = verdictOf(struck(7000, 300), { grinderOwned: false, shopUsed: false })
    expect(verdict.action).toBe('file')
    expect(optionOf(verdict, 'regrind').reasons).toContainEqual({ rule: 'noGrinder', limitFrom: 'house' })
    expect(verdictOf(struck(7000), { grinderOwned: false }).action).toBe('shop')
    // Hours of filing are dearer than a new loop.
    expect(verdictOf(struck(7000), { grinderOwned: false, shopUsed: false, dirtyDuty: false })).toMatchObject({
      action: 'retire',
      reasons: [{ rule: 'cheaperToReplace' }, {}, {}, {}, {}, {}, {}, {}],
    })
  })

  test('when no way meets every limit, the one that comes nearest is said as such, and metal is kept', () => {
    const uneven = new Log().measureAll((n) => (n === 4 ? 6000 : 7000))
    const verdict = verdictOf(uneven, { grinderOwned: false, shopUsed: false, unevenSchool: 'sameStrokes' })
    expect(verdict.action).toBe('touchUp')
    expect(verdict.reasons.map(({ rule }) => rule)).toContain('noWayWithinLimits')
  })

  test('an estimate never throws a loop away', () => {
    const verdict = verdictOf(new Log().measureAll(700).file(), {
      linkPriceMinor: { ...DEFAULT_RULES.linkPriceMinor, threeEighths: 1 },
      labourPerHourMinor: 90_000,
    })
    expect(['measure', 'runOn']).toContain(verdict.action)
  })

  test('gauges seen high or flat are for the plate, not for the file; seen too low they stop it', () => {
    const seen = (kind: 'gaugeHigh' | 'gaugeFlat' | 'gaugeLow') =>
      new Log().measureAll(7000).add('measured', { readings: [{ cutter: 6, damage: [{ kind, depthUm: null }] }] })
    for (const kind of ['gaugeHigh', 'gaugeFlat'] as const) {
      const verdict = verdictOf(seen(kind))
      expect(verdict).toMatchObject({
        action: 'lowerGauges',
        reasons: [{ rule: 'gaugeToPutRight', cutter: 6, damage: kind }],
      })
      expect(verdictOf(seen(kind).add('gaugesLowered', {})).action).toBe('runOn')
      expect(verdictOf(seen(kind).add('ran', { tanks: 3, conditions: 'clean' }))).toMatchObject({
        action: 'touchUp',
        also: ['lowerGauges'],
      })
    }
    expect(verdictOf(seen('gaugeLow'))).toMatchObject({ action: 'stop', fitForUse: false })
  })

  test('left and right angles that differ go to the bench, and a wheel puts them right', () => {
    const log = new Log()
      .measureAll(7000)
      .add('inspected', { readings: [], parts: [{ kind: 'anglesDiffer', nearCutter: null }] })
    expect(verdictOf(log)).toMatchObject({
      action: 'file',
      reasons: [{ rule: 'shapeToPutRight', damage: 'anglesDiffer' }, {}],
    })
    expect(verdictOf(log.file({ method: 'grinder' })).action).toBe('runOn')
  })

  test('damage that was only worked out from a neighbour throws nothing away', () => {
    const log = new Log()
      .measureAll((n) => (n === 9 ? 900 : 2500))
      .add('struck', { against: 'stone', cutters: [8, 9, 10], deepest: { cutter: 10, depthUm: 1500 } })
    expect(verdictOf(log).action).toBe('inspect')
  })

  test('kept for dirt, it need not be even', () => {
    const log = struck(7000).add('dutyChanged', { duty: 'dirty' })
    expect(verdictOf(log).action).toBe('runOn')
    // Dirt dulls it at once: it is sharpened when the bench is due, or when too few of its cutters cut.
    expect(verdictOf(log.add('ran', { tanks: 1, conditions: 'soil' })).action).toBe('runOn')
    expect(verdictOf(log.add('ran', { tanks: 6, conditions: 'soil' })).reasons[0]?.rule).toBe('benchDue')
    const blunt = Array.from({ length: 13 }, (_, i) => ({
      cutter: i + 1,
      damage: [{ kind: 'rounded' as const, depthUm: null }],
    }))
    const dull = new Log().measureAll(7000).add('dutyChanged', { duty: 'dirty' })
    expect(verdictOf(dull.add('inspected', { readings: blunt.slice(1), parts: [] })).action).toBe('runOn')
    expect(verdictOf(dull.add('inspected', { readings: blunt, parts: [] })).reasons[0]?.rule).toBe('tooFewCut')
  })
})

describe('what a person settles on', () => {
  const decided = (log: Log, action: Action, advised: Action) =>
    log.add('decided', { action, advised, rulesVersion: 1, overruled: 'Because' })

  test('takes the place of the verdict, which is still told', () => {
    expect(verdictOf(decided(struck(7000), 'file', 'regrind'))).toMatchObject({
      action: 'file',
      advised: 'regrind',
      decision: { overruled: 'Because' },
    })
  })

  test('never puts an unfit loop to work', () => {
    const cracked = new Log().add('inspected', { readings: [], parts: [{ kind: 'strapCracked', nearCutter: null }] })
    expect(verdictOf(decided(cracked, 'runOn', 'retire'))).toMatchObject({ action: 'retire', decision: null })
    const strikeOpen = new Log().add('struck', { against: 'metal' })
    expect(verdictOf(decided(strikeOpen, 'touchUp', 'inspect')).action).toBe('inspect')
  })
})

describe('properties', () => {
  const anyRun = fc.record({
    lengthUm: fc.integer({ min: 400, max: 7800 }),
    depthUm: fc.integer({ min: 0, max: 3500 }),
    more: fc.integer({ min: 0, max: 2000 }),
  })
  const gone = ({ advised }: Verdict): boolean => advised === 'retire' || advised === 'dirtyDuty'

  test('more damage never lengthens life, under any option', () => {
    fc.assert(
      fc.property(anyRun, fc.constantFrom(...UNEVEN_SCHOOLS), ({ lengthUm, depthUm, more }, unevenSchool) => {
        const less = verdictOf(struck(lengthUm, depthUm), { unevenSchool })
        const worse = verdictOf(struck(lengthUm, depthUm + more), { unevenSchool })
        expect(worse.sharpeningsLeft.likely).toBeLessThanOrEqual(less.sharpeningsLeft.likely)
        for (const action of ['file', 'regrind', 'shop'] as const) {
          expect(optionOf(worse, action).sharpeningsLeft.likely).toBeLessThanOrEqual(
            optionOf(less, action).sharpeningsLeft.likely,
          )
        }
      }),
    )
  })

  test('a dearer chain never makes replacing likelier', () => {
    const anyCase = fc.record({
      log: anyLog,
      price: fc.integer({ min: 1, max: 200 }),
      times: fc.integer({ min: 2, max: 40 }),
      labour: fc.integer({ min: 0, max: 20_000 }),
    })
    fc.assert(
      fc.property(anyCase, ({ log, price, times, labour }) => {
        const at = (threeEighths: number) =>
          verdictOf(log, {
            linkPriceMinor: { ...DEFAULT_RULES.linkPriceMinor, threeEighths },
            labourPerHourMinor: labour,
          })
        if (!gone(at(price))) expect(gone(at(price * times))).toBe(false)
      }),
      { numRuns: 300 },
    )
  })

  test('a stricter limit never admits a worse result', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 5600, max: 6400 }), { minLength: 36, maxLength: 36 }),
        fc.integer({ min: 100, max: 2000 }),
        fc.integer({ min: 0, max: 1000 }),
        fc.constantFrom(...UNEVEN_SCHOOLS),
        (lengths, strict, looser, unevenSchool) => {
          const log = new Log().measureAll((n) => lengths[n - 1] ?? 5000).add('ran', { tanks: 7, conditions: 'clean' })
          const after = (evennessUm: number) => {
            const verdict = verdictOf(log, { evennessUm, sideDifferenceUm: 100_000, unevenSchool })
            return optionOf(verdict, verdict.advised).spreadUm
          }
          expect(after(strict)).toBeLessThanOrEqual(after(strict + looser))
        },
      ),
    )
  })

  test('what is kept above the mark is kept: no job that is chosen passes it', () => {
    fc.assert(
      fc.property(
        anyRun,
        fc.integer({ min: 0, max: 1500 }),
        fc.constantFrom(...UNEVEN_SCHOOLS),
        ({ lengthUm, depthUm }, reserveUm, unevenSchool) => {
          const verdict = verdictOf(struck(lengthUm, depthUm).add('ran', { tanks: 7, conditions: 'clean' }), {
            reserveUm,
            unevenSchool,
          })
          const chosen = verdict.options.find(({ action }) => action === verdict.advised)
          if (chosen !== undefined && chosen.deepestUm > 0) expect(chosen.leftUm).toBeGreaterThanOrEqual(reserveUm)
        },
      ),
    )
  })

  test('every figure of a full decision is in order, and it is data', () => {
    fc.assert(
      fc.property(anyLog, fc.constantFrom(...UNEVEN_SCHOOLS), (log, unevenSchool) => {
        const full = decideFully(stateOf(log), { ...DEFAULT_RULES, unevenSchool }, '2026-06-01T00:00:00.000Z')
        for (const { perHourMinor, money, minutes, sharpHours } of full.verdict.options) {
          expect(minutes.low).toBeLessThanOrEqual(minutes.high)
          expect(sharpHours.low).toBeLessThanOrEqual(sharpHours.high)
          expect(money.totalMinor).toBe(
            money.labourMinor +
              money.consumablesMinor +
              money.shopMinor +
              money.metalMinor +
              money.newLoopMinor +
              money.upkeepMinor,
          )
          if (perHourMinor === null) continue
          expect(perHourMinor.low).toBeLessThanOrEqual(perHourMinor.likely)
          expect(perHourMinor.likely).toBeLessThanOrEqual(perHourMinor.high)
        }
        expect(JSON.parse(JSON.stringify(full))).toEqual(full)
      }),
      { numRuns: 60 },
    )
  })
})
