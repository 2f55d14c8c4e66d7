import { describe, expect, test } from 'vitest'
import type { NewEntry } from '../log'
import { hour, Log, SPEC } from '../fixtures/logs'
import type { LoopSpec } from '../profile'
import { admit } from './admit'
import { MOST_SETTING_UM } from '../measure'
import { admitAll } from './admitAll'
import { numberProblems } from './problem'

const NOW = Date.parse(hour(100))
const problems = (log: Log, entry: Partial<NewEntry> & { kind: NewEntry['kind'] }) =>
  admit(
    { id: 'a-new-entry', loopId: 'loop-under-test', happenedAt: hour(50), personId: null, ...entry } as NewEntry,
    log.entries,
    NOW,
  )
const codes = (...given: Parameters<typeof problems>): string[] => problems(...given).map(({ code }) => code)
const log = () => new Log().measureAll(6000)

describe('admit', () => {
  test('a plain entry joins', () => {
    expect(codes(log(), { kind: 'ran', tanks: 1, conditions: 'clean' })).toEqual([])
  })

  test('time: not before registration, not in the future; a clock a little ahead is believed', () => {
    expect(codes(log(), { kind: 'takenOff', happenedAt: hour(-1) })).toEqual(['before-registration'])
    expect(problems(log(), { kind: 'takenOff', happenedAt: hour(-1) })[0]?.message).toBe(
      'That is before loop T1 was registered (2026-01-05).',
    )
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

  test.each([
    'decided',
    'ran',
    'fitted',
    'takenOff',
    'moved',
    'sentOut',
    'sharpened',
    'gaugesLowered',
    'struck',
    'retired',
    'dutyChanged',
  ] as const)('nothing puts a retired loop to work again: %s', (kind) => {
    const retired = log().add('retired', { reason: 'worn' })
    const entry = { kind, tanks: 1, to: 'bench', action: 'runOn', advised: 'runOn' } as never
    expect(codes(retired, entry)).toEqual(['after-retirement'])
  })

  test.each(['measured', 'inspected'] as const)('a retired loop may still be looked at: %s', (kind) => {
    const retired = log().add('retired', { reason: 'worn' })
    expect(codes(retired, { kind, readings: [{ cutter: 1, lengthUm: 5000 }], parts: [] })).toEqual([])
    expect(codes(retired, { kind: 'retagged', tag: 'T9' })).toEqual([])
    expect(codes(retired, { kind: 'specChanged', changes: { settingUm: 600 }, origin: 'box' })).toEqual([])
  })

  test('no figure that is not finite comes in, wherever it stands', () => {
    for (const wrong of [NaN, Infinity, -Infinity]) {
      expect(codes(log(), { kind: 'ran', tanks: wrong, conditions: 'clean' })).toEqual(['not-a-number'])
      expect(codes(log(), { kind: 'measured', readings: [{ cutter: 1, lengthUm: wrong }] })).toEqual(['not-a-number'])
      const damage = [{ kind: 'stone', depthUm: wrong }] as const
      expect(codes(log(), { kind: 'inspected', readings: [{ cutter: 1, damage }], parts: [] })).toEqual([
        'not-a-number',
      ])
    }
    const problems = numberProblems({ readings: [{ cutter: 1 }, { cutter: 2, lengthUm: NaN }], tanks: Infinity })
    expect(problems.map(({ field }) => field)).toEqual(['readings[1].lengthUm', 'tanks'])
  })

  test('limits themselves are let in', () => {
    const measured = (reading: object) =>
      codes(log(), { kind: 'measured', readings: [{ cutter: 36, ...reading }] } as never)
    expect(measured({ settingUm: MOST_SETTING_UM })).toEqual([])
    expect(measured({ settingUm: MOST_SETTING_UM + 1 })).toEqual(['length-cannot-be'])
    expect(MOST_SETTING_UM).toBe(4000)
    expect(measured({ damage: [{ kind: 'stone', depthUm: 8000 }] })).toEqual([])
    expect(measured({ damage: [{ kind: 'stone', depthUm: 8001 }] })).toEqual(['damage-too-deep'])
    expect(measured({ damage: [{ kind: 'stone', depthUm: null }] })).toEqual([])
    expect(codes(log(), { kind: 'takenOff', happenedAt: hour(0) })).toEqual([])
    const struck = { kind: 'struck', against: 'stone', cutters: [36], deepest: { cutter: 36, depthUm: 8000 } } as const
    expect(codes(log(), struck)).toEqual([])
    expect(codes(log(), { ...struck, cutters: [36, 37] })).toEqual(['no-such-cutter'])
    const pair = (cutter: number) =>
      ({
        kind: 'sharpened',
        method: 'fileBench',
        gaugesLowered: false,
        pairs: [{ cutter, beforeUm: 5000, afterUm: 4800 }],
      }) as const
    expect(codes(log(), pair(36))).toEqual([])
    expect(codes(log(), pair(37))).toEqual(['no-such-cutter'])
  })

  test('what is at a shop comes back before it goes anywhere, and only that comes back', () => {
    const away = log().add('sentOut', { shop: 'Quay works' })
    for (const kind of ['fitted', 'takenOff', 'moved', 'sentOut'] as const)
      expect(codes(away, { kind, to: 'bench' } as never), kind).toEqual(['at-a-shop'])
    expect(codes(away, { kind: 'cameBack', to: 'bench' })).toEqual([])
    expect(codes(log(), { kind: 'cameBack', to: 'bench' })).toEqual(['not-at-a-shop'])
    expect(codes(log(), { kind: 'moved', to: 'truck' })).toEqual([])
  })

  test('a spec goes with the log that was written under another', () => {
    const change = (changes: object) => codes(log(), { kind: 'specChanged', changes, origin: 'box' } as never)
    expect(change({ driveLinks: 74 })).toEqual([])
    expect(change({ driveLinks: 70 })).toEqual(['spec-cannot-be'])
    expect(change({ driveLinks: 7 })).toEqual(['spec-cannot-be'])
    expect(change({ markLengthUm: 7999 })).toEqual([])
    expect(change({ markLengthUm: 8000 })).toEqual(['spec-cannot-be'])
    // Every kind of entry that names a cutter counts.
    for (const entry of [
      [
        'sharpened',
        { method: 'fileBench', gaugesLowered: false, pairs: [{ cutter: 36, beforeUm: 6000, afterUm: 5800 }] },
      ],
      ['struck', { against: 'stone', cutters: [36] }],
      ['inspected', { readings: [{ cutter: 36, damage: [] }], parts: [] }],
    ] as const) {
      const named = new Log().add(entry[0] as 'struck', entry[1] as never)
      expect(codes(named, { kind: 'specChanged', changes: { driveLinks: 70 }, origin: 'box' }), entry[0]).toEqual([
        'spec-cannot-be',
      ])
    }
    // Striking out a change brings the old spec back: it has to go with the log as well.
    const longer = new Log().add('specChanged', { changes: { driveLinks: 74 }, origin: 'box' }).measureAll(6000, 37)
    expect(codes(longer, { kind: 'corrected', strikes: 'entry0001' })).toEqual(['spec-cannot-be'])
  })

  test('a reason of blanks is none', () => {
    const decided = { kind: 'decided', action: 'file', advised: 'regrind', rulesVersion: 1, overruled: '  ' } as const
    expect(codes(log(), decided)).toEqual(['overrule-needed'])
  })
})

describe('admitAll', () => {
  test('each entry meets the log of its own loop, and what is wrong says where it stood', () => {
    const [registered, measured] = log().entries
    if (registered === undefined || measured === undefined) throw new Error('there should be two entries')
    const other = { ...measured, loopId: 'another-loop' }
    const { logs, problems } = admitAll([registered, other, measured], NOW)
    expect(logs.get('loop-under-test')).toEqual([registered, measured])
    expect(logs.get('another-loop')).toEqual([])
    expect(problems).toEqual([expect.objectContaining({ code: 'not-registered', at: 1 })])
  })
})

describe('a file that suits no loop of the pitch', () => {
  const change = (fileUm: number, origin: 'box' | 'crew' | 'measured') =>
    codes(new Log(), { kind: 'specChanged', changes: { fileUm }, origin })

  test('is asked about, and taken once it is said to be from the box or measured', () => {
    // 3/8": 5.2 and 5.5 mm in use, and a quarter of a millimetre either way.
    expect([4949, 4950, 5750, 5751].map((um) => change(um, 'crew'))).toEqual([
      ['file-does-not-fit'],
      [],
      [],
      ['file-does-not-fit'],
    ])
    expect([change(4000, 'box'), change(4000, 'measured'), change(4000, 'crew')]).toEqual([
      [],
      [],
      ['file-does-not-fit'],
    ])
  })

  test('and says whether it is too small or too large', () => {
    const said = (fileUm: number) =>
      problems(new Log(), { kind: 'specChanged', changes: { fileUm }, origin: 'crew' }).map(({ message }) => message)
    expect(said(4000)).toEqual([expect.stringContaining('A file of 4.0 mm is smaller than any for 3/8"')])
    expect(said(6500)).toEqual([expect.stringContaining('A file of 6.5 mm is larger than any for 3/8"')])
  })

  test('that is too large for a loop as worn as it is, too', () => {
    const worn = (lengthUm: number, fileUm: number) =>
      codes(new Log().measureAll(lengthUm), { kind: 'specChanged', changes: { fileUm }, origin: 'crew' })
    expect([worn(7000, 5500), worn(3000, 5500), worn(3000, 5200)]).toEqual([[], ['file-does-not-fit'], []])
    // Its shortest cutter decides.
    const one = new Log().measureAll((cutter) => (cutter === 5 ? 3000 : 4000))
    expect(codes(one, { kind: 'specChanged', changes: { fileUm: 5500 }, origin: 'crew' })).toEqual([
      'file-does-not-fit',
    ])
  })

  test('what was probably meant is told by the cutter that was read', () => {
    const two = new Log().measureAll((cutter) => (cutter === 3 ? 3000 : 4000))
    const said = (cutter: number) =>
      problems(two, { kind: 'measured', readings: [{ cutter, lengthUm: 26_000 }] }).map(({ message }) => message)
    expect(said(3)).toEqual([expect.stringContaining('Was it 2.60 mm?')])
    expect(said(2)).toEqual([expect.not.stringContaining('Was it')])
  })

  test('on registering a loop too; square-ground chisel takes no round file at all', () => {
    const empty = new Log()
    empty.entries.length = 0
    const register = (spec: Partial<LoopSpec>) =>
      codes(empty, { kind: 'registered', tag: 'T9', spec: { ...SPEC, ...spec } })
    expect(register({})).toEqual([])
    expect(register({ fileUm: 4000 })).toEqual(['file-does-not-fit'])
    expect(register({ fileUm: 4000, origins: { fileUm: 'box' } })).toEqual([])
    expect(register({ fileUm: 4000, cutterType: 'squareGround' })).toEqual([])
  })
})

describe('signs', () => {
  const noticed = (): Log => new Log().add('noticed', { signs: ['dust'] })

  test('only a pull has a side, and it has one; a sign is said once', () => {
    expect(codes(log(), { kind: 'noticed', signs: ['pulls'], toward: 'left' })).toEqual([])
    expect(codes(log(), { kind: 'noticed', signs: ['pulls'] })).toEqual(['which-side'])
    expect(codes(log(), { kind: 'noticed', signs: ['dust'], toward: 'left' })).toEqual(['which-side'])
    expect(codes(log(), { kind: 'noticed', signs: ['dust', 'dust'] })).toEqual(['sign-twice'])
  })

  test('a look belongs to a sign that stands, and shows what such a look can', () => {
    const into = noticed().entries[1]?.id ?? ''
    expect(codes(noticed(), { kind: 'looked', into, look: 'edge', found: ['dull'] })).toEqual([])
    expect(codes(noticed(), { kind: 'looked', into, look: 'oil', found: ['dull'] })).toEqual(['look-shows-no-such'])
    expect(codes(noticed(), { kind: 'traced', into: 'another', cause: null })).toEqual(['no-such-sign'])
    const struck = noticed().add('corrected', { strikes: into })
    expect(codes(struck, { kind: 'traced', into, cause: 'dull' })).toEqual(['no-such-sign'])
  })
})
