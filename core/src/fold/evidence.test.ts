import type { LoopState } from '../state'
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { anyLog } from '../fixtures/anyLog'
import { lengthOf } from '../belief'
import { hour, Log } from '../fixtures/logs'
import { READING_SD_UM } from '../measure'
import { fold } from './fold'

const stateOf = (log: Log): LoopState => {
  const state = fold(log.entries)
  if (state === null) throw new Error('the loop should be registered')
  return state
}
const read = (log: Log, cutter: number, lengthUm: number, personId: string | null = null): Log =>
  log.add('measured', { readings: [{ cutter, lengthUm }] }, { personId })

describe('contradictions are kept and flagged, never averaged', () => {
  test('shorter than it was measured, with no sharpening in between', () => {
    const { doubts, cutters } = stateOf(read(new Log().measureAll(7000), 4, 6400))
    expect(doubts).toMatchObject([{ kind: 'shrank', cutter: 4, byUm: 600 }])
    // Held out: what was known before stands until a second reading says which it was.
    expect(cutters[3]?.length).toMatchObject({ um: 7000, known: 'measured' })
    expect(stateOf(read(new Log().measureAll(7000).file(), 4, 6550)).doubts).toEqual([])
  })

  test('two people who disagree, whichever way', () => {
    const log = () => read(new Log(), 4, 7000, 'one-of-them')
    expect(stateOf(read(log(), 4, 6500, 'the-other')).doubts).toMatchObject([{ kind: 'disagree', byUm: 500 }])
    expect(stateOf(read(log(), 4, 7500, 'the-other')).doubts).toMatchObject([{ kind: 'disagree', byUm: 500 }])
    expect(stateOf(read(log(), 4, 6900, 'the-other')).doubts).toEqual([])
    expect(stateOf(read(log(), 4, 6500, 'one-of-them')).doubts).toMatchObject([{ kind: 'shrank' }])
  })

  test('a third reading that agrees settles it', () => {
    expect(stateOf(read(read(read(new Log(), 4, 7000), 4, 6400), 4, 6420)).doubts).toEqual([])
  })

  test('a reading is held out from four deviations on, no sooner and no later', () => {
    const known = stateOf(new Log().measureAll(7000).file())
    const { mean, variance } = lengthOf(known.lengths, 3)
    const spread = Math.hypot(Math.sqrt(variance), READING_SD_UM)
    for (const sign of [-1, 1]) {
      const heldAt = (deviations: number) =>
        stateOf(read(new Log().measureAll(7000).file(), 4, Math.round(mean + sign * deviations * spread))).held
      expect([3.9, 4.1].map((deviations) => heldAt(deviations).length)).toEqual([0, 1])
    }
  })

  test('one that was held out is not taken because time went by, or because it was sharpened since', () => {
    const log = () => read(new Log().measureAll(7000), 4, 6500)
    const looked = { readings: [{ cutter: 9, damage: [{ kind: 'rounded' as const, depthUm: null }] }] }
    expect(stateOf(log().add('measured', looked)).held).toHaveLength(1)
    const ground = log().file({ method: 'grinder' }).file({ method: 'grinder' }).file({ method: 'grinder' })
    expect(stateOf(read(ground, 8, 6300)).held).toMatchObject([{ cutter: 4, known: 'estimated' }])
    // What was read of its neighbours makes it probable, in either order.
    const [one, other] = [read(new Log().file(), 1, 7100), read(new Log().file(), 3, 7100)]
    expect(stateOf(read(one, 3, 7100)).held).toEqual(stateOf(read(other, 1, 7100)).held)
  })

  test('one cutter far below is held out; a whole round far below says that a sharpening was forgotten', () => {
    const readTwice = (cutters: number, um: number): LoopState =>
      stateOf(new Log().measureAll(7000, 12).file().file().file().measureAll(um, cutters))
    const one = readTwice(1, 4000)
    expect(one.held).toHaveLength(1)
    expect(one.cutters[0]?.length.um).toBeGreaterThan(6000)
    const round = readTwice(12, 4000)
    expect(round.doubts).toEqual([])
    expect(round.held).toEqual([])
    for (const { length } of round.cutters.slice(0, 12)) expect(Math.abs(length.um - 4000)).toBeLessThan(60)
    // Those that nobody read have gone the same way, as far as anybody can tell.
    expect(round.cutters[20]?.length.um).toBeLessThan(4400)
    // What was measured before is no measurement any more, so that the mark is asked of it again.
    const some = stateOf(new Log().measureAll(7000).measureAll(4000, 6))
    expect(some.cutters.map(({ length }) => length.known === 'measured').lastIndexOf(true)).toBe(5)
    // Three filings did not take off three millimetres.
    expect(round.removals).toEqual([])
  })

  test('half of four readings far below say so too; one of four does not', () => {
    const after = (below: number) => {
      const readings = [1, 2, 3, 4].map((cutter) => ({ cutter, lengthUm: cutter <= below ? 4000 : 7000 }))
      return stateOf(new Log().measureAll(7000).add('measured', { readings })).held.length
    }
    expect([1, 2, 3, 4].map(after)).toEqual([1, 0, 0, 0])
  })

  test('a pair that grows: flagged, and nothing is learned from it', () => {
    const pairs = [
      { cutter: 3, beforeUm: 7000, afterUm: 7200 },
      { cutter: 4, beforeUm: 7000, afterUm: 6800 },
    ]
    const { doubts, removals } = stateOf(new Log().measureAll(7000).file({ pairs }))
    expect(doubts).toMatchObject([{ kind: 'pairGrew', cutter: 3, byUm: 200 }])
    expect(removals).toMatchObject([{ perSharpeningUm: 200 }])
  })

  test('a setting finer than the plate it was just filed to', () => {
    const lowered = () => new Log().add('gaugesLowered', { settingUm: 650 })
    const set = (log: Log, settingUm: number) =>
      stateOf(log.add('measured', { readings: [{ cutter: 5, settingUm }] })).doubts
    expect(set(lowered(), 500)).toMatchObject([{ kind: 'belowPlate', cutter: 5, byUm: 150 }])
    expect(set(lowered(), 620)).toEqual([])
    expect(set(lowered().file(), 500)).toEqual([])
  })
})

describe('what a length was read with', () => {
  const readings = Array.from({ length: 36 }, (_, i) => ({ cutter: i + 1, lengthUm: 6000 }))
  const by = (readWith?: 'caliper' | 'ruler' | 'eye') =>
    stateOf(
      new Log()
        .add('measured', { readings, ...(readWith === undefined ? {} : { readWith }) })
        .file()
        .add('measured', {
          readings: [{ cutter: 1, lengthUm: 5600 }],
          ...(readWith === undefined ? {} : { readWith }),
        }),
    ).cutters[0]

  test('a caliper unless somebody says otherwise', () => {
    expect(by()).toEqual(by('caliper'))
    expect(by('ruler')).not.toEqual(by())
  })

  test('a ruler moves it less than a caliper, an eye less still, and says so in its spread', () => {
    const [caliper, ruler, eye] = [by('caliper'), by('ruler'), by('eye')]
    expect(caliper?.length.um).toBeLessThan(ruler?.length.um ?? 0)
    expect(ruler?.length.um).toBeLessThan(eye?.length.um ?? 0)
    expect(caliper?.length.sdUm).toBeLessThan(ruler?.length.sdUm ?? 0)
  })

  test('what an eye says is never a measurement, and takes none back', () => {
    expect(by('ruler')?.length.known).toBe('measured')
    expect(by('eye')?.length.known).toBe('estimated')
    const looked = new Log()
      .measureAll(6000)
      .add('measured', { readings: [{ cutter: 1, lengthUm: 5900 }], readWith: 'eye' })
    expect(stateOf(looked).cutters[0]?.length.known).toBe('measured')
    expect(stateOf(looked).cutters[0]?.length.um).toBeGreaterThan(5980)
  })
})

describe('what was settled', () => {
  const decided = (log: Log) =>
    log.add('decided', { action: 'file', advised: 'regrind', rulesVersion: 1, overruled: 'Grinder away' })

  test('holds while the loop only moves, and ends with anything that happens to its steel', () => {
    expect(stateOf(decided(new Log()).add('moved', { to: 'bench' })).decision).toMatchObject({
      action: 'file',
      overruled: 'Grinder away',
    })
    expect(stateOf(decided(new Log()).file()).decision).toBeNull()
    expect(stateOf(decided(new Log()).add('ran', { tanks: 1, conditions: 'clean' })).decision).toBeNull()
  })

  test('duty stays until it is changed again', () => {
    const log = new Log().add('dutyChanged', { duty: 'dirty' })
    expect(stateOf(log.file()).duty).toBe('dirty')
    expect(stateOf(log.add('dutyChanged', { duty: 'clean' })).duty).toBe('clean')
  })
})

describe('how long it stayed sharp', () => {
  const run = (log: Log, tanks: number) => log.add('ran', { tanks, conditions: 'clean' })

  test('sharpened while it still cut is censored; dull is an end', () => {
    const { spells } = stateOf(run(run(new Log(), 2).file(), 3).file({ wasDull: true }))
    expect(spells).toEqual([
      { tanks: 2, wearTanks: 2, dulled: false, conditions: 'clean' },
      { tanks: 3, wearTanks: 3, dulled: true, conditions: 'clean' },
    ])
  })

  test('seen dull before it was sharpened: it ended then, once', () => {
    const log = run(new Log(), 2).add('measured', {
      readings: [{ cutter: 1, damage: [{ kind: 'rounded', depthUm: null }] }],
    })
    expect(stateOf(run(log, 1).file({ wasDull: true })).spells).toEqual([
      { tanks: 2, wearTanks: 2, dulled: true, conditions: 'clean' },
    ])
  })

  test('a strike ends a spell without its having gone dull; no work is no spell', () => {
    expect(stateOf(run(new Log(), 1.5).add('struck', { against: 'stone' })).spells).toMatchObject([
      { tanks: 1.5, dulled: false },
    ])
    expect(stateOf(new Log().file().file()).spells).toEqual([])
  })
})

describe('the fall of the top plate', () => {
  const both = (log: Log, lengthUm: number, settingUm: number) =>
    log.add('measured', { readings: Array.from({ length: 8 }, (_, i) => ({ cutter: i + 1, lengthUm, settingUm })) })

  test('is learned from lengths and settings read together between lowerings', () => {
    const before = stateOf(both(new Log(), 7800, 640)).slope
    const after = stateOf(both(both(new Log(), 7800, 640).file().file().file().file().file(), 6800, 440)).slope
    expect(before.own).toBe(0)
    expect(after.own).toBe(4)
    expect(after.mean).toBeGreaterThan(before.mean)
    expect(after.mean).toBeLessThan(0.2)
    expect(after.sd).toBeLessThan(before.sd)
  })

  test('less than 0.3 mm off a cutter says nothing of it', () => {
    const lost = (um: number) => stateOf(both(both(new Log(), 7800, 640).file(), 7800 - um, 600)).slope.own
    expect([299, 300].map(lost)).toEqual([0, 4])
  })

  test('nothing is learned across a lowering', () => {
    const log = both(new Log(), 7800, 640).file().file().file().add('gaugesLowered', {})
    expect(stateOf(both(log, 7000, 650)).slope.own).toBe(0)
  })
})

describe('a strike over a run', () => {
  test('a strike takes the place of a shallower one and of no other damage', () => {
    const before = [
      { kind: 'chipped' as const, depthUm: 300 },
      { kind: 'stone' as const, depthUm: 200 },
    ]
    const log = new Log().measureAll(7000).add('measured', { readings: [{ cutter: 8, damage: before }] })
    const hit = (depthUm: number) =>
      log.add('struck', { against: 'stone', cutters: [8], deepest: { cutter: 8, depthUm } })
    expect(stateOf(hit(150)).cutters[7]?.damage).toEqual(before)
    expect(stateOf(hit(1200)).cutters[7]?.damage).toEqual([before[0], { kind: 'stone', depthUm: 1200 }])
  })

  const struck = () =>
    new Log()
      .measureAll(7000)
      .add('struck', { against: 'stone', cutters: [7, 8, 9], deepest: { cutter: 8, depthUm: 1200 } })

  test('marks every cutter, only the one that was looked at as seen', () => {
    const { cutters, openStrikes } = stateOf(struck())
    expect(cutters[7]?.damage).toEqual([{ kind: 'stone', depthUm: 1200 }])
    expect(cutters[6]?.damage).toEqual([{ kind: 'stone', depthUm: 300, estimated: true }])
    expect(openStrikes).toHaveLength(1)
  })

  test('an inspection that does not find what was estimated drops it, and keeps what was seen', () => {
    const { cutters, openStrikes } = stateOf(
      struck().add('inspected', { readings: [{ cutter: 9, damage: [{ kind: 'stone', depthUm: 400 }] }], parts: [] }),
    )
    expect(cutters[6]?.damage).toEqual([])
    expect(cutters[7]?.damage).toEqual([{ kind: 'stone', depthUm: 1200 }])
    expect(cutters[8]?.damage).toEqual([{ kind: 'stone', depthUm: 400 }])
    expect(openStrikes).toEqual([])
  })
})

test('entries of one instant count the same in whatever order they come', () => {
  fc.assert(
    fc.property(anyLog, fc.integer({ min: 0, max: 1000 }), (log, turn) => {
      const same = log.entries.map((entry) => ({ ...entry, happenedAt: hour(5), writtenAt: hour(6) }))
      const at = turn % same.length
      expect(fold([...same.slice(at), ...same.slice(0, at)])).toEqual(fold(same))
      expect(fold([...same].reverse())).toEqual(fold(same))
    }),
  )
})
