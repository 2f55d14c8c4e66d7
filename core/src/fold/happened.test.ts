import { describe, expect, test } from 'vitest'
import { Log, SPEC, stateOf } from '../fixtures/logs'
import { DEFAULT_RULES } from '../house'
import type { CutterReading } from '../log'
import { changedSpec, type LoopSpec } from '../profile'
import type { LoopState } from '../state'
import { decide } from '../verdict'

const read = (log: Log, cutter: number, lengthUm: number, more: { confirmed?: true } = {}): Log =>
  log.add('measured', { readings: [{ cutter, lengthUm, ...more }] })
const of = (state: LoopState, cutter: number) => state.cutters[cutter - 1]
const known = (): Log => new Log().measureAll(7000)

describe('a new loop that is longer than such loops usually are', () => {
  const round = (spec: LoopSpec, lengthUm: number): LoopState => stateOf(new Log(spec).measureAll(lengthUm))

  test.each([8600, 9200])('has the length that is read of it where the new length was only assumed: %i µm', (um) => {
    const state = round(SPEC, um)
    expect([state.held, state.doubts]).toEqual([[], []])
    for (const { length } of state.cutters) expect(Math.abs(length.um - um)).toBeLessThan(25)
  })

  test('is held against what the box says', () => {
    expect(round(changedSpec(SPEC, { newLengthUm: 8000 }, 'box'), 8600).held).toHaveLength(36)
  })

  test('once it was sharpened nothing grows', () => {
    expect(stateOf(new Log().file().measureAll(9200)).held).toHaveLength(36)
  })
})

describe('one side after the other', () => {
  test('the second comes down for its own cutters, and not a sharpening below the first', () => {
    const hurt = (cutter: number) => ([5, 6, 7].includes(cutter) ? [{ kind: 'stone' as const, depthUm: 500 }] : [])
    const readings = Array.from({ length: 36 }, (_, i) => ({ cutter: i + 1, lengthUm: 7000, damage: hurt(i + 1) }))
    const half = { method: 'fileBench', gaugesLowered: false, evened: true } as const
    const log = new Log().add('measured', { readings, chosen: 'all' })
    log.add('sharpened', {
      ...half,
      onlySide: 'left',
      strokes: { left: 40, right: 0 },
      apart: [
        { cutter: 5, strokes: 41 },
        { cutter: 7, strokes: 41 },
      ],
    })
    log.add('sharpened', {
      ...half,
      onlySide: 'right',
      strokes: { left: 0, right: 43 },
      apart: [{ cutter: 6, strokes: 44 }],
    })
    const { cutters, waitingSide } = stateOf(log)
    expect(waitingSide).toBeNull()
    const [left, right] = [cutters[0]?.length.um ?? 0, cutters[1]?.length.um ?? 0]
    expect(Math.abs(left - right)).toBeLessThan(60)
  })
})

describe('a shorter cutter', () => {
  test('that nothing explains is held out and asked about, and nobody knows yet what it is', () => {
    const state = stateOf(read(known(), 9, 6500))
    expect(state.held.map(({ cutter }) => cutter)).toEqual([9])
    expect(of(state, 9)?.length.um).toBeGreaterThan(6900)
    expect(state.explained).toEqual([])
  })

  test.each(['stone', 'metal'] as const)('after a strike on %s it is taken, and put down to that', (against) => {
    const state = stateOf(read(known().add('struck', { against }), 9, 6500))
    expect(state.held).toEqual([])
    expect(of(state, 9)?.length).toMatchObject({ um: 6500, known: 'measured' })
    expect(state.explained).toMatchObject([{ cutter: 9, to: 'struck' }])
    // It says nothing of the cutters beside it.
    expect(Math.abs((of(state, 11)?.length.um ?? 0) - 7000)).toBeLessThan(40)
  })

  test('soil shortens no cutter', () => {
    expect(stateOf(read(known().add('struck', { against: 'soil' }), 9, 6500)).held).toHaveLength(1)
  })

  test('a strike explains it no more once somebody looked and found that cutter sound', () => {
    const looked = known()
      .add('struck', { against: 'stone' })
      .add('inspected', { readings: [{ cutter: 5, damage: [{ kind: 'stone', depthUm: 400 }] }], parts: [] })
    const state = stateOf(read(read(looked, 9, 6400), 5, 6500))
    expect(state.held.map(({ cutter }) => cutter)).toEqual([9])
    expect(of(state, 5)?.length.um).toBe(6500)
  })

  test('read once more on the spot it stands', () => {
    const state = stateOf(read(known(), 9, 6500, { confirmed: true }))
    expect(of(state, 9)?.length.um).toBe(6500)
    expect(state.explained).toMatchObject([{ cutter: 9, to: 'confirmed' }])
  })

  test.each(['in one entry', 'in two, by two people'])('in a whole round it stands: %s', (how) => {
    const all = Array.from({ length: 36 }, (_, i) => ({ cutter: i + 1, lengthUm: i === 8 ? 7400 : 7800 }))
    const log =
      how === 'in one entry'
        ? new Log().add('measured', { readings: all, chosen: 'all' })
        : new Log().add('measured', { readings: all.slice(0, 17) }).add('measured', { readings: all.slice(17) })
    const state = stateOf(log)
    expect(state.held).toEqual([])
    expect(of(state, 9)?.length.um).toBe(7400)
  })
})

describe('one cutter that a whole round has shorter than all others', () => {
  type Of17 = Pick<CutterReading, 'damage' | 'confirmed'>
  /** A round after a strike, in which cutter 17 is read 0.9 mm shorter. */
  const struck = (of17: Of17 = {}): Log => {
    const readings = Array.from({ length: 36 }, (_, i) => ({
      cutter: i + 1,
      lengthUm: i === 16 ? 6100 : 7000,
      ...(i === 16 ? of17 : {}),
    }))
    return known().add('struck', { against: 'stone' }).add('measured', { readings, chosen: 'all' })
  }
  const ground = (log: Log) => of(stateOf(log.add('sharpened', { method: 'grinder', gaugesLowered: false })), 1)?.length
  const [WIDE, NARROW] = [350, 130]

  test('sets the level of a grind only as far as it is known: it was broken, or the reading slipped', () => {
    const level = ground(struck())
    expect(level?.sdUm).toBeGreaterThan(WIDE)
    const within = 2 * (level?.sdUm ?? 0)
    expect((level?.um ?? 0) - within).toBeLessThan(6100 - 250)
    expect((level?.um ?? 0) + within).toBeGreaterThan(7000 - 250)
  })

  test.each<[string, () => Log]>([
    ['read once more', () => read(struck(), 17, 6120)],
    ['read twice on the spot', () => struck({ confirmed: true })],
    ['seen to be broken', () => struck({ damage: [{ kind: 'stone', depthUm: 0 }] })],
  ])('sets it once it was %s', (_, log) => {
    const level = ground(log())
    expect(level?.sdUm).toBeLessThan(NARROW)
    expect(level?.um).toBeLessThan(6000)
  })

  test('sets no later level once all stand at one', () => {
    const log = struck().add('sharpened', { method: 'grinder', gaugesLowered: false })
    const before = of(stateOf(log), 1)?.length.sdUm ?? 0
    expect(Math.abs((ground(log)?.sdUm ?? 0) - before)).toBeLessThan(60)
  })
})

test('a strike is seen to once all were looked at, in however many entries', () => {
  const sound = (from: number, to: number) =>
    Array.from({ length: to - from + 1 }, (_, i) => ({ cutter: from + i, damage: [] }))
  const half = known()
    .add('struck', { against: 'stone' })
    .add('measured', { readings: sound(1, 20) })
  expect(stateOf(half).openStrikes).toHaveLength(1)
  expect(decide(stateOf(half), DEFAULT_RULES).action).toBe('inspect')
  expect(stateOf(half.add('measured', { readings: sound(21, 36) })).openStrikes).toEqual([])
})

test('soil that every cutter was touched up after is no open strike; a stone is', () => {
  for (const [against, open] of [
    ['soil', 0],
    ['stone', 1],
  ] as const) {
    const log = known()
      .add('struck', { against })
      .file({ method: 'fileField', strokes: { left: 4, right: 4 } })
    expect(stateOf(log).openStrikes).toHaveLength(open)
  }
})

describe('a sharpening that was begun', () => {
  const begun = (): Log => known().add('begun', { side: 'left' })

  test('keeps the loop off every saw from the first cutter on, and says which side waits', () => {
    const verdict = decide(stateOf(begun()), DEFAULT_RULES)
    expect(verdict.fitForUse).toBe(false)
    expect(verdict.reasons).toContainEqual(expect.objectContaining({ rule: 'begunNotEnded', hand: 'right' }))
  })

  test('is over once both sides are done; after one, the other waits', () => {
    const both = stateOf(begun().file({ strokes: { left: 4, right: 4 } }))
    expect(both.begun).toBeNull()
    expect(decide(both, DEFAULT_RULES).fitForUse).toBe(true)
    const half = stateOf(begun().file({ onlySide: 'left', strokes: { left: 4, right: 0 } }))
    expect(half).toMatchObject({ begun: null, waitingSide: 'right' })
    expect(decide(half, DEFAULT_RULES).fitForUse).toBe(false)
  })
})

describe('gauges', () => {
  const high = (): Log =>
    known().add('measured', { readings: Array.from({ length: 36 }, (_, i) => ({ cutter: i + 1, settingUm: 450 })) })

  test('come down with every stroke of a two-in-one, whatever its entry says of them', () => {
    const state = stateOf(high().file({ method: 'fileField', tool: 'twoInOne', strokes: { left: 5, right: 5 } }))
    expect(of(state, 1)?.setting.um).toBeGreaterThan(550)
    expect(state.sharpeningsSinceGauges).toBe(0)
    const plain = stateOf(high().file({ method: 'fileField', tool: 'plateGuide', strokes: { left: 5, right: 5 } }))
    expect(of(plain, 1)?.setting.um).toBeLessThan(500)
    expect(plain.sharpeningsSinceGauges).toBe(1)
  })

  test('a progressive plate leaves what its step does at this wear, softer more than harder', () => {
    const down = (step: 'softer' | 'harder') =>
      of(stateOf(high().add('gaugesLowered', { plate: { rests: 'progressive', step } })), 1)?.setting.um ?? 0
    expect(down('softer')).toBeGreaterThan(down('harder') + 50)
  })
})

describe('a stop', () => {
  const ground = (body: { stopUm: number; stopRead?: true }) =>
    stateOf(known().file({ method: 'grinder', tool: 'benchGrinder', ...body }))

  test('that was read is where every cutter stands, however far from what was planned', () => {
    for (const stopUm of [6600, 6200]) {
      const { cutters } = ground({ stopUm, stopRead: true })
      for (const { length } of cutters) expect(Math.abs(length.um - stopUm)).toBeLessThan(120)
    }
  })

  test('that was only meant is known less well', () => {
    const sd = (state: LoopState): number => of(state, 1)?.length.sdUm ?? 0
    expect(sd(ground({ stopUm: 6600 }))).toBeGreaterThan(1.5 * sd(ground({ stopUm: 6600, stopRead: true })))
  })

  test('a cutter that was shorter than it before does not grow', () => {
    const log = new Log().measureAll((n) => (n === 4 ? 6000 : 7000))
    const state = stateOf(log.file({ method: 'grinder', tool: 'benchGrinder', stopUm: 6600, stopRead: true }))
    expect(of(state, 4)?.length.um).toBeLessThan(6050)
  })
})

test('who goes through it faster than anybody works teaches no pace', () => {
  const timed = (minutes: number) =>
    stateOf(known().file({ method: 'fileBench', tool: 'plateGuide', strokes: { left: 6, right: 6 }, minutes })).timed
  expect(timed(1)).toEqual([])
  expect(timed(15)).toHaveLength(1)
})
