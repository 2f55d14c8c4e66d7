import { describe, expect, test } from 'vitest'
import type { NewEntry } from '../log'
import { hour, Log, SPEC } from '../fixtures/logs'
import { admit } from './admit'

const NOW = Date.parse(hour(100))
const codes = (log: Log, entry: Partial<NewEntry> & { kind: NewEntry['kind'] }): string[] =>
  admit(
    { id: 'a-new-entry', loopId: 'loop-under-test', happenedAt: hour(50), personId: null, ...entry } as NewEntry,
    log.entries,
    NOW,
  ).map(({ code }) => code)
const log = () => new Log().measureAll(6000)

describe('admit', () => {
  test('a plain entry joins', () => {
    expect(codes(log(), { kind: 'ran', tanks: 1, conditions: 'clean' })).toEqual([])
  })

  test('time: not before registration, not in the future; a clock a little ahead is believed', () => {
    expect(codes(log(), { kind: 'takenOff', happenedAt: hour(-1) })).toEqual(['before-registration'])
    expect(codes(log(), { kind: 'takenOff', happenedAt: hour(101) })).toEqual(['in-the-future'])
    expect(codes(log(), { kind: 'takenOff', happenedAt: new Date(NOW + 60_000).toISOString() })).toEqual([])
  })

  test('a loop is registered first, and once', () => {
    const empty = new Log()
    empty.entries.length = 0
    expect(codes(empty, { kind: 'takenOff' })).toEqual(['not-registered'])
    expect(codes(empty, { kind: 'registered', tag: 'T2', spec: SPEC })).toEqual([])
    expect(codes(log(), { kind: 'registered', tag: 'T2', spec: SPEC })).toEqual(['registered-already'])
  })

  test('readings: cutters that are there, once each, with lengths that can be', () => {
    const measured = (readings: unknown) => codes(log(), { kind: 'measured', readings } as never)
    expect(measured([{ cutter: 37, lengthUm: 5000 }])).toEqual(['no-such-cutter'])
    expect(
      measured([
        { cutter: 1, lengthUm: 5000 },
        { cutter: 1, lengthUm: 5100 },
      ]),
    ).toEqual(['cutter-twice'])
    expect(measured([{ cutter: 1, lengthUm: 52_000 }])).toEqual(['length-cannot-be'])
    expect(measured([{ cutter: 1, settingUm: 9000 }])).toEqual(['length-cannot-be'])
    expect(measured([{ cutter: 1, damage: [{ kind: 'stone', depthUm: 9000 }] }])).toEqual(['damage-too-deep'])
    expect(measured([{ cutter: 1, lengthUm: 100 }])).toEqual([])
  })

  test('the message of a slipped decimal says what was probably meant', () => {
    const entry = {
      id: 'a-new-entry',
      loopId: 'loop-under-test',
      happenedAt: hour(50),
      personId: null,
      kind: 'measured',
      readings: [{ cutter: 1, lengthUm: 58_000 }],
    } as const
    expect(admit(entry, log().entries, NOW)).toEqual([
      {
        code: 'length-cannot-be',
        field: 'readings[0].lengthUm',
        message: 'Cutter 1: 58.00 mm is longer than a new one (8.00 mm). Was it 5.80 mm?',
      },
    ])
  })

  test('a pair that grows is kept, to be asked about; one that cannot be is refused', () => {
    const sharpened = (afterUm: number) =>
      ({
        kind: 'sharpened',
        method: 'fileBench',
        gaugesLowered: false,
        pairs: [{ cutter: 1, beforeUm: 5000, afterUm }],
      }) as const
    expect(codes(log(), sharpened(5100))).toEqual([])
    expect(codes(log(), sharpened(51_000))).toEqual(['length-cannot-be'])
  })

  test('the deepest place of a strike is on a cutter that was struck', () => {
    const struck = (cutter: number, depthUm: number) =>
      ({ kind: 'struck', against: 'stone', cutters: [3, 4], deepest: { cutter, depthUm } }) as const
    expect(codes(log(), struck(4, 900))).toEqual([])
    expect(codes(log(), struck(5, 900))).toEqual(['deepest-elsewhere'])
    expect(codes(log(), struck(4, 9000))).toEqual(['damage-too-deep'])
  })

  test('settling on something else than the verdict needs a reason', () => {
    const decided = (action: 'file' | 'regrind', overruled?: string) =>
      ({
        kind: 'decided',
        action,
        advised: 'regrind',
        rulesVersion: 1,
        ...(overruled === undefined ? {} : { overruled }),
      }) as const
    expect(codes(log(), decided('regrind'))).toEqual([])
    expect(codes(log(), decided('file'))).toEqual(['overrule-needed'])
    expect(codes(log(), decided('file', 'Grinder is away'))).toEqual([])
  })

  test('no cutter beyond the loop', () => {
    expect(codes(log(), { kind: 'struck', against: 'stone', cutters: [40] })).toEqual(['no-such-cutter'])
  })

  test('corrections: of an entry of this log, once, not of a correction or the registration', () => {
    const corrected = log().add('corrected', { strikes: 'entry0001' })
    const strike = (strikes: string) => codes(corrected, { kind: 'corrected', strikes })
    expect(strike('entry0000')).toEqual(['registration-stays'])
    expect(strike('entry0001')).toEqual(['struck-out-already'])
    expect(strike('entry0002')).toEqual(['correction-of-correction'])
    expect(strike('entry0009')).toEqual(['no-such-entry'])
  })

  test('a retired loop takes no more work', () => {
    const retired = log().add('retired', { reason: 'worn' })
    expect(codes(retired, { kind: 'takenOff' })).toEqual(['after-retirement'])
    expect(codes(retired, { kind: 'corrected', strikes: 'entry0002' })).toEqual([])
    expect(codes(retired, { kind: 'ran', tanks: 1, conditions: 'clean', happenedAt: hour(1.5) })).toEqual([])
  })
})
