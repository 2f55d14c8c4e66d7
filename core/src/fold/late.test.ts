import { describe, expect, test } from 'vitest'
import { hour, Log, stateOf } from '../fixtures/logs'
import type { Entry } from '../log'
import { fold } from './fold'

const settled = (log = new Log().measureAll(6000)): Log =>
  log.add('decided', { action: 'file', advised: 'runOn', rulesVersion: 1, overruled: 'Saturday is long' })

/** An entry that happened at an hour of the log and was written down at another. */
const late = (log: Log, kind: Entry['kind'], body: object, happened: number, written: number): readonly Entry[] => [
  ...log.entries,
  {
    id: 'late-entry-1',
    loopId: 'loop-under-test',
    personId: null,
    writtenBy: null,
    happenedAt: hour(happened),
    writtenAt: hour(written),
    kind,
    ...body,
  } as Entry,
]

describe('what came in late', () => {
  const decision = (entries: readonly Entry[]) => fold(entries)?.decision ?? null
  const ran = { tanks: 1, conditions: 'clean' }

  test('ends a decision that rested on the log without it', () => {
    const log = settled()
    expect(decision(log.entries)).toMatchObject({ action: 'file' })
    // The decision is the third entry, of hour 2.
    expect(decision(late(log, 'ran', ran, 1.5, 3))).toBeNull()
    expect(decision(late(log, 'ran', ran, 1.5, 1.5))).toMatchObject({ action: 'file' })
    // Where it lies changes nothing about its steel.
    expect(decision(late(log, 'moved', { to: 'truck' }, 1.5, 3))).toMatchObject({ action: 'file' })
  })

  test('so does striking out what it rested on, and nothing else', () => {
    const log = settled()
    const measured = log.entries[1]?.id ?? ''
    expect(decision(late(log, 'corrected', { strikes: measured }, 3, 3))).toBeNull()
    const moved = settled(new Log().measureAll(6000).add('moved', { to: 'truck' }))
    expect(decision(late(moved, 'corrected', { strikes: moved.entries[2]?.id ?? '' }, 4, 4))).not.toBeNull()
  })

  test('what was written later still is not yet known at an earlier time', () => {
    const log = settled()
    expect(fold(late(log, 'ran', ran, 5, 5), hour(3))?.decision).toMatchObject({ action: 'file' })
    // What came in late ends it at any time after, too.
    expect(fold(late(log, 'ran', ran, 1.5, 3), hour(3))?.decision).toBeNull()
  })
})

describe('the same sharpening by two people', () => {
  const by = (minutes: number, who: string, between = (log: Log): Log => log): Log => {
    const at = (after: number): string => new Date(Date.parse(hour(4)) + after * 60_000).toISOString()
    const first = new Log()
      .measureAll(6000)
      .file()
      .add('sharpened', FILED, { happenedAt: at(0), personId: 'one' })
    return between(first).add('sharpened', FILED, { happenedAt: at(minutes), personId: who })
  }
  const FILED = { method: 'fileBench', gaugesLowered: false } as const
  const kinds = (log: Log) => stateOf(log).questions.map(({ kind }) => kind)

  test('is asked about within minutes; one person, an hour, or work in between is not', () => {
    expect(kinds(by(10, 'two'))).toEqual(['sharpenedTwice'])
    expect(kinds(by(20, 'two'))).toEqual(['sharpenedTwice'])
    expect(kinds(by(21, 'two'))).toEqual([])
    expect(kinds(by(10, 'one'))).toEqual([])
    const ran = (log: Log): Log =>
      log.add(
        'ran',
        { tanks: 1, conditions: 'clean' },
        { happenedAt: new Date(Date.parse(hour(4)) + 60_000).toISOString() },
      )
    expect(kinds(by(10, 'two', ran))).toEqual([])
  })

  test('striking one out or measuring it answers', () => {
    const log = by(10, 'two')
    const [, twice] = [log.entries.at(-2), log.entries.at(-1)]
    expect(stateOf(by(10, 'two').measureAll(5600)).questions).toEqual([])
    expect(stateOf(log.add('corrected', { strikes: twice?.id ?? '' })).questions).toEqual([])
  })
})

describe('back from a shop', () => {
  const away = (): Log => new Log().measureAll(6000).add('sentOut', { shop: 'The shop' })
  const asked = (log: Log): boolean => stateOf(log).questions.some(({ kind }) => kind === 'shopWorkUnsaid')
  const shopped = { method: 'shop', gaugesLowered: false } as const

  test('what was done there is asked, until it is logged, measured or looked at', () => {
    expect(asked(away().add('cameBack', { to: 'bench' }))).toBe(true)
    expect(asked(away().add('cameBack', { to: 'bench' }).add('sharpened', shopped))).toBe(false)
    expect(asked(away().add('sharpened', shopped).add('cameBack', { to: 'bench' }))).toBe(false)
    expect(asked(away().add('cameBack', { to: 'bench' }).measureAll(5800))).toBe(false)
    expect(asked(away().add('cameBack', { to: 'bench' }).add('inspected', { readings: [], parts: [] }))).toBe(false)
    expect(asked(away().add('cameBack', { to: 'bench' }).add('moved', { to: 'truck' }))).toBe(true)
  })

  test('work of before it went says nothing of the shop', () => {
    const before = new Log().measureAll(6000).file().add('sentOut', { shop: 'The shop' })
    expect(asked(before.add('cameBack', { to: 'bench' }))).toBe(true)
  })
})

describe('a sharpening that nobody wrote down', () => {
  test('teaches nothing about how long an edge lasts', () => {
    const spells = (tanks: number) =>
      stateOf(new Log().add('ran', { tanks, conditions: 'clean' }).file({ wasDull: true })).spells
    expect(spells(25)).toHaveLength(1)
    expect(spells(26)).toEqual([])
  })

  test('runs after a strike that nobody looked into are counted with it', () => {
    const log = new Log().measureAll(6000).add('struck', { against: 'stone', cutters: [3] })
    log.add('ran', { tanks: 2, conditions: 'clean' }).add('ran', { tanks: 1.5, conditions: 'soil' })
    expect(stateOf(log).openStrikes).toMatchObject([{ cutters: [3], tanksSince: 3.5 }])
    expect(stateOf(log).tanks).toBe(3.5)
  })
})

describe('what cannot be', () => {
  const kinds = (log: Log): string[] => stateOf(log).questions.map(({ kind }) => kind)

  test('more filed off than there was is kept, and asked about until it is measured or struck out', () => {
    const filed = (left: number): Log => new Log().measureAll(900).file({ strokes: { left, right: 0 } })
    expect(kinds(filed(20))).toEqual([])
    expect(kinds(filed(90))).toEqual(['moreThanThere'])
    expect(stateOf(filed(90)).cutters[0]?.length.um).toBe(0)
    expect(kinds(filed(90).measureAll(300))).toEqual([])
    expect(kinds(filed(90).add('corrected', { strikes: 'entry0002' }))).toEqual([])
    // What an eye says is no answer.
    const eye = { readings: [{ cutter: 1, lengthUm: 300 }], readWith: 'eye' } as const
    expect(kinds(filed(90).add('measured', eye))).toEqual(['moreThanThere'])
  })

  test('a plate that no house owns is asked about, and gauges are not thought to stand at it', () => {
    // 0.65 mm new: plates of half of it to two and a half times.
    const lowered = (settingUm: number): Log => new Log().measureAll(7000).add('gaugesLowered', { settingUm })
    expect([324, 325, 1625, 1626].map((um) => kinds(lowered(um)))).toEqual([
      ['plateUnheardOf'],
      [],
      [],
      ['plateUnheardOf'],
    ])
    expect(stateOf(lowered(1900)).cutters[4]?.setting).toMatchObject({ um: 650, known: 'estimated' })
    expect(kinds(new Log().file({ gaugesLowered: true, settingUm: 65 }))).toEqual(['plateUnheardOf'])
    expect(kinds(lowered(1900).add('gaugesLowered', {}))).toEqual([])
    // One side says little of what was done to the other.
    const read = (...cutters: readonly number[]) =>
      kinds(lowered(1900).add('measured', { readings: cutters.map((cutter) => ({ cutter, settingUm: 700 })) }))
    expect([read(3), read(3, 5), read(4), read(3, 4)]).toEqual([
      ['plateUnheardOf'],
      ['plateUnheardOf'],
      ['plateUnheardOf'],
      [],
    ])
    // What was read before says nothing of what that plate left.
    const before = new Log().measureAll(7000)
    before.add('measured', { readings: [3, 4].map((cutter) => ({ cutter, settingUm: 800 })) })
    before.add('gaugesLowered', { settingUm: 1900 }).add('measured', { readings: [{ cutter: 5, settingUm: 800 }] })
    expect(kinds(before)).toEqual(['plateUnheardOf'])
    const apart = lowered(1900).add('measured', { readings: [{ cutter: 3, settingUm: 700 }] })
    expect(kinds(apart.add('measured', { readings: [{ cutter: 4, settingUm: 700 }] }))).toEqual([])
    expect(kinds(lowered(1900).measureAll(7000))).toEqual(['plateUnheardOf'])
  })
})
