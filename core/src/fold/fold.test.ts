import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { anyLog } from '../fixtures/anyLog'
import { hour, Log, SPEC } from '../fixtures/logs'
import { notFinite } from '../fixtures/notFinite'
import type { Conditions } from '../log'
import { OVER_ASSUMED_ALLOWED } from '../measure'
import type { CutterType } from '../profile'
import { fold } from './fold'

const state = (log: Log, until?: string) => {
  const folded = fold(log.entries, until)
  if (folded === null) throw new Error('the loop should be registered')
  return folded
}

describe('fold', () => {
  test('a loop is as new until something happens to it', () => {
    const { cutters, sharpenings, life } = state(new Log())
    expect(cutters).toHaveLength(36)
    expect(cutters[0]).toMatchObject({ number: 1, hand: 'left', length: { um: 8000, known: 'new' }, damage: [] })
    expect(sharpenings).toBe(0)
    expect(life).toHaveLength(1)
  })

  test('nothing is known before it was registered', () => {
    expect(fold([])).toBeNull()
    expect(fold(new Log().entries, hour(-1))).toBeNull()
  })

  test('a sharpening makes measured lengths estimates, shorter by common practice', () => {
    const { cutters } = state(new Log().measureAll(6000).file())
    for (const { length } of cutters) expect(length).toMatchObject({ um: 5800, known: 'estimated' })
  })

  test('before and after pairs are measurements and teach the loop its own removal', () => {
    const { cutters, removals } = state(new Log().file({ pairs: [{ cutter: 3, beforeUm: 7900, afterUm: 7600 }] }))
    expect(cutters[2]?.length).toMatchObject({ known: 'measured' })
    expect(Math.abs((cutters[2]?.length.um ?? 0) - 7600)).toBeLessThan(35)
    expect(cutters[3]?.length.known).toBe('estimated')
    expect(removals).toMatchObject([
      {
        population: 'routine',
        sharpenings: 1,
        at: hour(1),
        personId: null,
        method: 'fileBench',
        sides: { left: { cutters: 1 } },
      },
    ])
    // What was read to come off, and nothing of what was expected.
    expect(Math.abs((removals[0]?.perSharpeningUm ?? 0) - 300)).toBeLessThan(10)
  })

  test('two full sets teach what came off between them', () => {
    const { removals } = state(new Log().measureAll(7000).file().file().measureAll(6500))
    expect(removals).toMatchObject([
      {
        population: 'routine',
        sharpenings: 2,
        sides: { left: { cutters: 18 }, right: { cutters: 18 } },
      },
    ])
    expect(Math.abs((removals[0]?.perSharpeningUm ?? 0) - 250)).toBeLessThan(4)
    expect(removals[0]?.sdUm).toBeLessThan(15)
  })

  test('a grind and a filing between two sets cannot be told apart', () => {
    const log = new Log().measureAll(7000).file().file({ method: 'grinder' }).measureAll(6500)
    expect(state(log).removals).toEqual([])
  })

  test('of touch-ups and filings between two sets, each took as much more than usual as all of them together', () => {
    const strokes = (each: number) => ({ strokes: { left: each, right: each } })
    const log = (by: readonly (string | null)[]): Log => {
      const given = new Log().measureAll(7000)
      const kinds = [
        { method: 'fileField' as const, ...strokes(5) },
        strokes(10),
        { method: 'fileField' as const, ...strokes(5) },
      ]
      for (const [i, kind] of kinds.entries())
        given.add('sharpened', { method: 'fileBench', gaugesLowered: false, ...kind }, { personId: by[i] ?? null })
      return given.measureAll(6400)
    }
    // 0.6 mm with 5, 10 and 5 strokes: by hand 0.15 mm each touch-up, 0.3 mm the filing.
    const [touchUp, routine, ...others] = state(log(['a', 'a', 'a'])).removals
    expect(others).toEqual([])
    expect(touchUp).toMatchObject({
      population: 'touchUp',
      sharpenings: 2,
      personId: 'a',
      sides: { left: { strokes: 5 } },
    })
    expect(routine).toMatchObject({
      population: 'routine',
      sharpenings: 1,
      personId: 'a',
      sides: { right: { strokes: 10 } },
    })
    expect(Math.abs((touchUp?.perSharpeningUm ?? 0) - 150)).toBeLessThanOrEqual(4)
    expect(Math.abs((routine?.perSharpeningUm ?? 0) - 300)).toBeLessThanOrEqual(8)
    expect(routine?.sdUm ?? 0).toBeGreaterThan(touchUp?.sdUm ?? 0)
    // Which of several hands took it nobody knows.
    expect(state(log(['a', 'b', 'a'])).removals.map(({ personId }) => personId)).toEqual([null, null])
  })

  test('pairs of cutters that the loop has not end no count of what was done', () => {
    const pairs = [{ cutter: 99, beforeUm: 7000, afterUm: 6800 }]
    const { removals } = state(new Log().measureAll(7000).file().file({ pairs }).measureAll(6600))
    expect(removals).toMatchObject([{ sharpenings: 2 }])
  })

  test('a side that got no strokes tells nothing of what they take', () => {
    const log = new Log().measureAll(7000).file({ strokes: { left: 10, right: 0 } })
    const [one, ...others] = state(log.measureAll((n) => (n % 2 === 1 ? 6800 : 7000))).removals
    expect(others).toEqual([])
    expect(one?.sides).toMatchObject({ left: { strokes: 10 } })
    expect(one?.sides?.right).toBeUndefined()
    // Nor where other sharpenings gave it some.
    const both = new Log().measureAll(7000).file({ strokes: { left: 10, right: 10 } })
    both.file({ method: 'fileField', strokes: { left: 5, right: 0 } })
    const sides = state(both.measureAll(6750)).removals.map((sample) => [
      sample.population,
      Object.keys(sample.sides ?? {}),
    ])
    expect(sides).toEqual([
      ['routine', ['left', 'right']],
      ['touchUp', ['left']],
    ])
  })

  test('a partial set moves the cutters that nobody read, of its own side most; one that was hit moves none', () => {
    const readings = [1, 3, 5].map((cutter) => ({ cutter, lengthUm: cutter === 5 ? 3000 : 7000 }))
    const { cutters, doubts } = state(new Log().add('measured', { readings }))
    expect(Math.abs((cutters[6]?.length.um ?? 0) - 7000)).toBeLessThan(25)
    expect(cutters[6]?.length.known).toBe('estimated')
    expect(Math.abs((cutters[1]?.length.um ?? 0) - 7000)).toBeLessThan(50)
    expect(cutters[1]?.length.sdUm).toBeGreaterThan(cutters[6]?.length.sdUm ?? Infinity)
    expect(doubts).toMatchObject([{ kind: 'shrank', cutter: 5 }])
  })

  test('a partial set leaves what was measured and not sharpened since', () => {
    const { cutters } = state(new Log().measureAll(7000).add('measured', { readings: [{ cutter: 1, lengthUm: 6500 }] }))
    expect(cutters[2]?.length).toMatchObject({ um: 7000, known: 'measured' })
  })

  test('a wheel brings all cutters down to the one that needs it most', () => {
    const log = new Log().measureAll(7000).add('measured', {
      readings: [{ cutter: 4, lengthUm: 7000, damage: [{ kind: 'stone', depthUm: 900 }] }],
    })
    const { cutters } = state(log.file({ method: 'grinder', damageCleared: true }))
    for (const { length, damage } of cutters) {
      expect(length.um).toBe(6000)
      expect(damage).toEqual([])
    }
  })

  test('filing makes damage shallower, takes dullness and leaves what is not known', () => {
    const damage = [
      { kind: 'stone' as const, depthUm: 500 },
      { kind: 'rounded' as const, depthUm: null },
      { kind: 'chipped' as const, depthUm: null },
    ]
    const log = new Log().add('measured', { readings: [{ cutter: 1, lengthUm: 7000, damage }] }).file()
    expect(state(log).cutters[0]?.damage).toEqual([
      { kind: 'stone', depthUm: 300, catchingUp: true },
      { kind: 'chipped', depthUm: null },
    ])
  })

  test('no sharpening clears a crack', () => {
    const damage = [{ kind: 'cracked' as const, depthUm: null }]
    const log = new Log()
      .add('inspected', { readings: [{ cutter: 1, damage }], parts: [] })
      .file({ method: 'grinder', damageCleared: true })
    expect(state(log).cutters[0]?.damage).toEqual(damage)
  })

  test('every sharpening brings the edge down to the gauges; lowering them restores the setting', () => {
    const log = new Log().file().file()
    // 0.4 mm at a fall of 7° is 0.05 mm.
    expect(Math.abs((state(log).cutters[0]?.setting.um ?? 0) - 600)).toBeLessThanOrEqual(1)
    expect(state(log).sharpeningsSinceGauges).toBe(2)
    const lowered = state(log.add('gaugesLowered', {}))
    expect(lowered.cutters[0]?.setting).toMatchObject({ um: 650, known: 'estimated' })
    expect(lowered.sharpeningsSinceGauges).toBe(0)
  })

  test('gauges that stand too low cannot be put back', () => {
    const log = new Log()
      .add('measured', { readings: [{ cutter: 1, settingUm: 950 }] })
      .add('gaugesLowered', { settingUm: 650 })
    expect(state(log).cutters[0]?.setting.um).toBe(950)
    expect(state(log).cutters[1]?.setting.um).toBe(650)
  })

  test('angles that differ go by a wheel, or by a file where somebody saw to it', () => {
    const seen = () =>
      new Log().add('inspected', {
        readings: [],
        parts: (['anglesDiffer', 'strapCut'] as const).map((kind) => ({ kind, nearCutter: null })),
      })
    const left = (more: Parameters<Log['file']>[0]) => state(seen().file(more)).parts.map(({ kind }) => kind)
    expect(left({})).toEqual(['anglesDiffer', 'strapCut'])
    expect(left({ damageCleared: false })).toEqual(['anglesDiffer', 'strapCut'])
    expect(left({ damageCleared: true })).toEqual(['strapCut'])
    expect(left({ method: 'grinder' })).toEqual(['strapCut'])
  })

  test('a strike stays open until the struck cutters have been looked at', () => {
    const log = new Log().add('struck', { against: 'stone', cutters: [3, 4] })
    expect(state(log).openStrikes).toHaveLength(1)
    log.add('measured', { readings: [{ cutter: 3, damage: [] }] })
    expect(state(log).openStrikes).toHaveLength(1)
    log.add('measured', { readings: [3, 4].map((cutter) => ({ cutter, damage: [] })) })
    expect(state(log).openStrikes).toEqual([])
  })

  test('an inspection closes every strike and replaces what was known of the parts', () => {
    const log = new Log()
      .add('struck', { against: 'metal' })
      .add('inspected', { readings: [], parts: [{ kind: 'strapCut', nearCutter: 2 }] })
    expect(state(log)).toMatchObject({ openStrikes: [], parts: [{ kind: 'strapCut', nearCutter: 2 }] })
    expect(state(log.add('inspected', { readings: [], parts: [] })).parts).toEqual([])
  })

  test('a cutter read longer than anything allows is kept and doubted, until it is read again', () => {
    const log = new Log().measureAll(5000).measureAll(7000)
    expect(state(log).doubts).toHaveLength(36)
    expect(state(log).held).toHaveLength(36)
    expect(state(log).cutters[0]?.length.um).toBe(5000)
    const settled = state(log.measureAll(7000))
    expect(settled).toMatchObject({ doubts: [], held: [] })
    expect(settled.cutters[0]?.length.um).toBe(7000)
  })

  test('what dirt adds to the wear of a rounded corner is a third of what it adds to a square one', () => {
    const worn = (cutterType: CutterType, conditions: Conditions): number =>
      state(new Log({ ...SPEC, cutterType }).add('ran', { tanks: 2, conditions })).wearTanksSinceSharpened
    expect(worn('fullChisel', 'soil')).toBe(6)
    expect(worn('semiChisel', 'soil')).toBeCloseTo(2 + 4 / 3, 9)
    expect(worn('chipper', 'gritty')).toBeCloseTo(2 + 2 / 3, 9)
    for (const type of ['fullChisel', 'semiChisel', 'chipper'] as const) expect(worn(type, 'clean')).toBe(2)
    expect(state(new Log().add('ran', { tanks: 2, conditions: 'soil' }).file()).tanksSinceSharpened).toBe(0)
  })

  test('on and off a saw, and retired', () => {
    const log = new Log().add('fitted', { sawId: 'a-saw-of-ours' })
    expect(state(log).sawId).toBe('a-saw-of-ours')
    expect(state(log.add('retired', { reason: 'worn' }))).toMatchObject({ sawId: null, retired: { reason: 'worn' } })
  })
})

test('what is dated before it was registered says nothing of it', () => {
  const log = new Log().measureAll(7000)
  const early = new Log().add('ran', { tanks: 3, conditions: 'clean' }, { id: 'early', happenedAt: hour(-5) })
  expect(fold([...log.entries, ...early.entries.slice(1)])).toEqual(fold(log.entries))
})

test('a loop is registered once, whoever writes it down again, and what was said of it first holds', () => {
  const log = new Log().measureAll(7000)
  const again = new Log({ ...SPEC, settingUm: 900 }).entries.map((entry) => ({
    ...entry,
    id: 'again',
    happenedAt: hour(3),
  }))
  expect(fold([...log.entries, ...again])).toEqual(fold(log.entries))
})

describe('time', () => {
  test('a struck-out entry never happened', () => {
    const log = new Log().measureAll(6000)
    const before = state(log)
    log.file().add('corrected', { strikes: 'entry0002' })
    expect(state(log)).toEqual(before)
  })

  test('a late entry falls into its place', () => {
    const log = new Log().measureAll(6000).file()
    log.add('ran', { tanks: 3, conditions: 'clean' }, { happenedAt: hour(1.5) })
    expect(state(log)).toMatchObject({ tanks: 3, tanksSinceSharpened: 0 })
  })

  test('the state at any past instant is that of the entries up to then', () => {
    const log = new Log().measureAll(6000).file().add('ran', { tanks: 1, conditions: 'clean' }).file().measureAll(5500)
    for (let h = 0; h < log.entries.length; h += 1) {
      expect(fold(log.entries, hour(h))).toEqual(fold(log.entries.slice(0, h + 1)))
    }
  })
})

describe('properties', () => {
  test('the order in which entries are gathered does not matter', () => {
    fc.assert(
      fc.property(anyLog, fc.infiniteStream(fc.double({ min: 0, max: 1, noNaN: true })), (log, keys) => {
        const shuffled = log.entries
          .map((entry) => ({ entry, key: keys.next().value as number }))
          .sort((a, b) => a.key - b.key)
          .map(({ entry }) => entry)
        expect(fold(shuffled)).toEqual(fold(log.entries))
      }),
    )
  })

  test('folding changes nothing it is given, and gives lengths that can be', () => {
    fc.assert(
      fc.property(anyLog, (log) => {
        const before = JSON.stringify(log.entries)
        const folded = state(log)
        expect(JSON.stringify(log.entries)).toBe(before)
        expect(notFinite(folded)).toEqual([])
        for (const { length, setting } of folded.cutters) {
          // What is only assumed of a new one gives way to what is read.
          expect(
            Number.isInteger(length.um) &&
              length.um >= 0 &&
              length.um <= folded.spec.newLengthUm * OVER_ASSUMED_ALLOWED + 1,
          ).toBe(true)
          expect(Number.isInteger(setting.um)).toBe(true)
          expect(length.sdUm).toBeGreaterThan(0)
        }
      }),
    )
  })

  test('striking out the last entry undoes it', () => {
    fc.assert(
      fc.property(anyLog, (log) => {
        const before = fold(log.entries)
        const id = `entry${String(log.entries.length).padStart(4, '0')}`
        log.file().add('corrected', { strikes: id })
        expect(fold(log.entries)).toEqual(before)
      }),
    )
  })
})
