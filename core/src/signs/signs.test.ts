import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { Log, SPEC, stateOf } from '../fixtures/logs'
import { DEFAULT_RULES } from '../house'
import { CAUSES, SIGNS, type Cause, type EntryBodies } from '../log'
import { specFromProfile } from '../profile'
import { decide } from '../verdict'
import { sawState, type SawState } from '../saw'
import { countSigns, diagnose, learnedSigns, LOOK_FACTS, type Diagnosis } from '.'
import { showsBy } from './learned'
import { noisyOr, type Fault } from './noisyOr'

const RIPPING = specFromProfile({ pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72, cutterType: 'ripping' })
const FIT = { pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72 } as const

/** What is thought of the last thing that a log noticed. */
function thoughtOf(log: Log, saw: SawState | null = null): Diagnosis {
  const state = stateOf(log)
  const open = state.signs.at(-1)
  if (open === undefined) throw new Error('the log should have noticed something')
  return diagnose({ state, saw, rules: DEFAULT_RULES }, open)
}
const chance = ({ causes }: Diagnosis, cause: Cause): number => causes.find((one) => one.cause === cause)?.chance ?? 0
const notice = (log: Log, body: EntryBodies['noticed']): Log => log.add('noticed', body)
/** Answers the last thing that was noticed. */
function look(log: Log, what: EntryBodies['looked']['look'], found: readonly Cause[] = []): Log {
  const into = log.entries.findLast(({ kind }) => kind === 'noticed')?.id ?? ''
  return log.add('looked', { into, look: what, found })
}
const ran = (log: Log, tanks: number): Log => log.add('ran', { tanks, conditions: 'clean' })

describe('the network of causes and signs', () => {
  /** Everything that may be there and not, one after the other. */
  function byCounting(faults: readonly Fault[], leaks: readonly number[]): number[] {
    const sums = faults.map(() => 0)
    let all = 0
    for (let world = 0; world < 2 ** faults.length; world += 1) {
      const isThere = (i: number): boolean => (world & (1 << i)) !== 0
      let weight = faults.reduce((product, { there, absent }, i) => product * (isThere(i) ? there : absent), 1)
      leaks.forEach((leak, sign) => {
        const hidden = faults.reduce((left, { shows }, i) => (isThere(i) ? left * (1 - (shows[sign] ?? 0)) : left), 1)
        weight *= 1 - (1 - leak) * hidden
      })
      all += weight
      faults.forEach((_, i) => {
        if (isThere(i)) sums[i] = (sums[i] ?? 0) + weight
      })
    }
    return sums.map((sum) => sum / all)
  }
  const part = fc.double({ min: 0.01, max: 0.97, noNaN: true })

  test('chances are those that counting every case gives', () => {
    const anyNetwork = fc.integer({ min: 1, max: 4 }).chain((signs) =>
      fc.record({
        leaks: fc.array(part, { minLength: signs, maxLength: signs }),
        faults: fc.array(
          fc.record({ there: part, absent: part, shows: fc.array(part, { minLength: signs, maxLength: signs }) }),
          { minLength: 1, maxLength: 7 },
        ),
      }),
    )
    fc.assert(
      fc.property(anyNetwork, ({ faults, leaks }) => {
        const counted = byCounting(faults, leaks)
        noisyOr(faults, leaks).chances.forEach((one, i) => {
          // Signs that are as good as impossible together leave half of a number's digits.
          expect(one).toBeCloseTo(counted[i] ?? NaN, 6)
        })
      }),
    )
  })

  test('without a sign nothing is any likelier than before', () => {
    expect(noisyOr([{ there: 0.2, absent: 0.8, shows: [] }], []).chances[0]).toBeCloseTo(0.2, 12)
  })
})

describe('what must come out right', () => {
  test('a ripping saw that makes dust along the grain is not called dull on dust alone', () => {
    const log = ran(new Log(RIPPING).file(), 1)
    const before = chance(thoughtOf(notice(ran(new Log(RIPPING).file(), 1), { signs: ['hot'] })), 'dull')
    const after = thoughtOf(notice(log, { signs: ['dust'], along: true }))
    expect(chance(after, 'dull')).toBeLessThan(0.2)
    expect(chance(after, 'dull')).toBeLessThan(before + 0.05)
    expect(after.actOn).toBe('grain')
    // The same across the grain, in sound wood, says something.
    const across = thoughtOf(
      notice(ran(new Log(RIPPING).file(), 1), { signs: ['dust'], along: false, wood: 'ordinary' }),
    )
    expect(chance(across, 'dull')).toBeGreaterThan(2 * chance(after, 'dull'))
  })

  test('a bar that stayed as it was for several changes is turned first when the saw pulls', () => {
    const pulls = (unturned: number) => {
      const state = stateOf(notice(ran(new Log().file(), 1), { signs: ['pulls'], toward: 'left' }))
      const open = state.signs.at(-1)
      if (open === undefined) throw new Error('it pulls')
      const saw = { fit: FIT, due: [], tension: null, unturned }
      return diagnose({ state, saw, rules: DEFAULT_RULES }, open)
    }
    expect(pulls(4)).toMatchObject({ actOn: 'bar', look: null })
    expect(chance(pulls(2), 'bar')).toBeGreaterThan(2 * chance(pulls(0), 'bar'))
    expect(pulls(0).actOn).not.toBe('bar')
  })

  test('a saw that nobody read off may not take the loop; that is no sign that it does not', () => {
    const state = stateOf(notice(ran(new Log().file(), 1), { signs: ['sparks'] }))
    const open = state.signs.at(-1)
    if (open === undefined) throw new Error('it throws sparks')
    const mismatched = (fit: { gaugeUm: number | null; pitchClass: 'threeEighths' | null }): number =>
      chance(
        diagnose({ state, saw: { fit: { ...FIT, ...fit }, due: [], tension: null }, rules: DEFAULT_RULES }, open),
        'gaugeMismatch',
      )
    const [agrees, unread, other] = [
      mismatched({ gaugeUm: 1500, pitchClass: 'threeEighths' }),
      mismatched({ gaugeUm: null, pitchClass: null }),
      mismatched({ gaugeUm: 1600, pitchClass: 'threeEighths' }),
    ]
    expect(agrees).toBeLessThan(unread)
    expect(unread).toBeLessThan(0.6 * other)
  })

  test('dry wood is never the reason before anybody looked', () => {
    const dry = notice(ran(new Log().file(), 1), { signs: ['dust'], wood: 'dry', along: false })
    expect(thoughtOf(dry)).toMatchObject({ actOn: null })
    expect(thoughtOf(dry).look).not.toBeNull()
  })

  test('dry and frozen wood explain dust away', () => {
    const dust = (wood: 'ordinary' | 'frozen') =>
      chance(thoughtOf(notice(ran(new Log().file(), 2), { signs: ['dust'], wood, along: false })), 'dull')
    expect(dust('frozen')).toBeLessThan(0.6 * dust('ordinary'))
  })

  test('dust right after a touch-up, gauges believed 0.2 mm high: gauges first, and the plate as the look', () => {
    const log = new Log().measureAll(6000)
    log.add('measured', {
      readings: Array.from({ length: 36 }, (_, i) => ({ cutter: i + 1, settingUm: 450 })),
    })
    log.file({ method: 'fileField', strokes: { left: 3, right: 3 } })
    const thought = thoughtOf(notice(log, { signs: ['dust'], wood: 'ordinary', along: false }))
    expect(thought.causes[0]?.cause).toBe('gaugesHigh')
    expect(thought.actOn ?? thought.look?.look).toMatch(/plate|gaugesHigh/)
  })

  test('pulls right with right cutters sharper: the left is touched up; with them longer: the right is evened', () => {
    const sharper = new Log().measureAll(6000).file({ method: 'fileField', strokes: { left: 1, right: 5 } })
    const first = thoughtOf(notice(sharper, { signs: ['pulls'], toward: 'right' }))
    expect(first.causes[0]?.cause).toBe('rightSharper')
    const longer = new Log().measureAll((cutter) => (cutter % 2 === 1 ? 5600 : 6000))
    const second = thoughtOf(notice(longer, { signs: ['pulls'], toward: 'right' }))
    expect(second.causes[0]?.cause).toBe('rightLonger')
    expect(second).toMatchObject({ actOn: 'rightLonger', isSure: true })
    // Mirrored it is the other side.
    const left = thoughtOf(
      notice(
        new Log().measureAll((cutter) => (cutter % 2 === 1 ? 6000 : 5600)),
        { signs: ['pulls'], toward: 'left' },
      ),
    )
    expect(left.actOn).toBe('leftLonger')
  })

  test('a curve that turns with the bar is the bar', () => {
    const log = look(notice(new Log().measureAll(6000), { signs: ['pulls'], toward: 'left' }), 'turnBar', ['bar'])
    expect(thoughtOf(log).causes[0]?.cause).toBe('bar')
    const stays = look(notice(new Log().measureAll(6000), { signs: ['pulls'], toward: 'left' }), 'turnBar')
    expect(chance(thoughtOf(stays), 'bar')).toBeLessThan(0.1)
  })

  test('a bar that is due to be turned is suspected sooner', () => {
    const pull = (saw: SawState) =>
      thoughtOf(notice(new Log().measureAll(6000), { signs: ['pulls'], toward: 'left' }), saw)
    const base = { writtenAt: '', personId: null, writtenBy: null, sawId: 'saw', id: 'one', happenedAt: '2026-01-01' }
    const burred = sawState(FIT, [{ ...base, kind: 'barChecked', burrs: true }], [])
    expect(chance(pull(burred), 'bar')).toBeGreaterThan(chance(pull(sawState(FIT, [], [])), 'bar'))
  })

  test('smaller shavings from sharpening to sharpening, gauges never lowered: gauges', () => {
    const log = new Log()
    for (let i = 0; i < 6; i += 1) ran(log, 1).file()
    const thought = thoughtOf(notice(log, { signs: ['smallerShavings'] }))
    expect(thought.causes[0]?.cause).toBe('gaugesHigh')
    expect(thought.actOn ?? thought.look?.look).toMatch(/gaugesHigh|plate/)
  })

  test('snatches after gauges by eye: too low, and the saw rests', () => {
    const log = new Log().measureAll(6000).add('gaugesLowered', { gaugesByEye: true })
    const thought = thoughtOf(notice(log, { signs: ['snatches'] }))
    expect(thought.causes[0]?.cause).toBe('gaugesLow')
    expect(thought.rests).toBe(true)
    // By the plate nobody thinks of that first.
    const plated = new Log().measureAll(6000).add('gaugesLowered', { settingUm: 650 })
    expect(thoughtOf(notice(plated, { signs: ['snatches'] })).rests).toBe(false)
  })

  test('dull at once after a heavy grind: blued, and the colour is the look', () => {
    const log = new Log().measureAll(7000)
    log.add('sharpened', {
      method: 'grinder',
      gaugesLowered: false,
      pairs: [1, 2, 3, 4].map((cutter) => ({ cutter, beforeUm: 7000, afterUm: 6200 })),
    })
    const thought = thoughtOf(notice(log, { signs: ['dullAtOnce'] }))
    expect(thought.causes[0]?.cause).toBe('blued')
    expect(thought.look?.look ?? 'colour').toBe('colour')
  })
})

describe('looks', () => {
  test('the look that is proposed is the best for its minutes, and none is proposed twice', () => {
    const log = notice(ran(new Log().file(), 1), { signs: ['push'] })
    const seen = new Set<string>()
    for (let i = 0; i < 3; i += 1) {
      const thought = thoughtOf(log)
      if (thought.look === null) break
      expect(seen.has(thought.look.look)).toBe(false)
      expect(thought.look.bits).toBeGreaterThan(0)
      seen.add(thought.look.look)
      look(log, thought.look.look)
    }
    const last = thoughtOf(log)
    expect(last.look).toBeNull()
    expect(last.settled).toBe(true)
    // After looks that found nothing, nothing is told as if it were known.
    expect(last.isSure).toBe(false)
  })

  test('whatever is noticed and found, chances are chances and three looks are enough', () => {
    fc.assert(
      fc.property(
        fc.subarray([...SIGNS], { minLength: 1, maxLength: 4 }),
        fc.constantFrom('left' as const, 'right' as const),
        fc.boolean(),
        fc.nat({ max: 6 }),
        (signs, toward, finds, tanks) => {
          const log = new Log().file()
          if (tanks > 0) ran(log, tanks)
          notice(log, { signs, ...(signs.includes('pulls') ? { toward } : {}) })
          for (let i = 0; i < 4; i += 1) {
            const thought = thoughtOf(log)
            for (const { chance: one } of thought.causes) expect(one >= 0 && one <= 1).toBe(true)
            if (thought.look === null) {
              expect(thought.settled).toBe(true)
              return
            }
            expect(i).toBeLessThan(3)
            look(log, thought.look.look, finds ? LOOK_FACTS[thought.look.look].shows.slice(0, 1) : [])
          }
        },
      ),
      { numRuns: 60 },
    )
  })

  test('what a look finds gets likelier, and what it passes less likely', () => {
    for (const [what, { shows }] of Object.entries(LOOK_FACTS))
      for (const cause of shows) {
        const sign = SIGNS.find((one) => one !== 'pulls' && showsBy(one, cause, {}, false) > 0)
        const noticed =
          sign === undefined
            ? ({ signs: ['pulls'], toward: cause.startsWith('left') ? 'left' : 'right' } as const)
            : ({ signs: [sign] } as const)
        const before = chance(thoughtOf(notice(new Log(), noticed)), cause)
        const found = chance(thoughtOf(look(notice(new Log(), noticed), what as never, [cause])), cause)
        const passed = chance(thoughtOf(look(notice(new Log(), noticed), what as never)), cause)
        expect(found).toBeGreaterThan(before)
        expect(passed).toBeLessThan(before)
      }
  })
})

describe('learning from what was found', () => {
  test('what a crew finds behind a sign moves how often that cause shows so', () => {
    const traced = Array.from({ length: 12 }, () => ({ signs: ['hot'], toward: null, cause: 'dull' }) as const)
    const counts = countSigns(traced)
    expect(counts).toEqual({ dull: 12, 'dull hot': 12 })
    expect(showsBy('hot', 'dull', counts, false)).toBeGreaterThan(showsBy('hot', 'dull', {}, false))
    expect(showsBy('dust', 'dull', counts, false)).toBeLessThan(showsBy('dust', 'dull', {}, false))
  })

  test('what was found is told by sign, the most often first, with what it moved', () => {
    const of = (sign: 'dust' | 'hot', cause: Cause, times: number) =>
      Array.from({ length: times }, () => ({ signs: [sign], toward: null, cause }) as const)
    const pulled = { signs: ['pulls'], toward: 'left', cause: 'bar' } as const
    const counts = countSigns([
      ...of('hot', 'noOil', 2),
      ...of('dust', 'gaugesHigh', 4),
      ...of('dust', 'dull', 1),
      pulled,
    ])
    const signs = learnedSigns(counts)
    expect(signs.map(({ told, found }) => [told, found])).toEqual([
      ['dust', 5],
      ['hot', 2],
      ['pullsLeft', 1],
    ])
    expect(signs[0]?.shows.map(({ cause, seen }) => [cause, seen])).toEqual([
      ['gaugesHigh', 4],
      ['dull', 1],
    ])
    expect(signs[1]?.shows[0]).toMatchObject({ starts: 0.8, now: showsBy('hot', 'noOil', counts, false) })
    expect(learnedSigns({})).toEqual([])
  })

  test('findings that come as often as is expected move nothing', () => {
    const shows = SIGNS.filter((sign) => sign !== 'pulls').map(
      (sign) => [sign, showsBy(sign, 'dull', {}, false)] as const,
    )
    const all = shows.reduce((sum, [, one]) => sum + one, 0)
    const counts = {
      dull: 1000,
      ...Object.fromEntries(shows.map(([sign, one]) => [`dull ${sign}`, (1000 * one) / all])),
    }
    for (const [sign, one] of shows) expect(showsBy(sign, 'dull', counts, false)).toBeCloseTo(one, 6)
  })
})

describe('signs in the log', () => {
  test('a sign is open until it is traced, or the work that it called for is done', () => {
    const log = notice(new Log(), { signs: ['dust', 'hot'] })
    expect(stateOf(log).signs[0]?.signs).toEqual(['dust', 'hot'])
    expect(stateOf(log.file()).signs[0]?.signs).toEqual(['hot'])
    log.add('traced', { into: log.entries[1]?.id ?? '', cause: 'groove' })
    expect(stateOf(log).signs).toEqual([])
    expect(stateOf(log).standing).toEqual(['groove'])
    expect(stateOf(log.add('fitted', { sawId: 'another' })).standing).toEqual([])
  })

  test('what was found to be dull ends its spell, and a sharpening puts it right', () => {
    const log = notice(ran(new Log().file(), 2), { signs: ['dust'] })
    log.add('traced', { into: log.entries.at(-1)?.id ?? '', cause: 'dull' })
    expect(stateOf(log).spells.at(-1)).toMatchObject({ tanks: 2, dulled: true })
    expect(stateOf(log).standing).toEqual(['dull'])
    expect(stateOf(log.file()).standing).toEqual([])
    expect(stateOf(log).traced).toEqual([{ signs: ['dust'], toward: null, cause: 'dull' }])
  })

  test('gauges by eye are not known until somebody reads one', () => {
    const log = new Log().measureAll(6000).add('gaugesLowered', { gaugesByEye: true })
    const spread = (one: Log): number => stateOf(one).cutters[0]?.setting.sdUm ?? 0
    expect(stateOf(log).gaugesByEye).toBe(true)
    expect(spread(log)).toBeGreaterThan(2 * spread(new Log().measureAll(6000).add('gaugesLowered', {})))
    log.add('measured', { readings: [{ cutter: 1, settingUm: 650 }] })
    expect(stateOf(log).gaugesByEye).toBe(false)
  })

  test('what was looked at before it was registered, or of another sign, says nothing', () => {
    const log = notice(new Log(SPEC), { signs: ['dust'] })
    log.add('looked', { into: 'another-sign', look: 'edge', found: ['dull'] })
    expect(stateOf(log).signs[0]?.looks).toEqual([])
  })
})

test('every cause is shown by a sign and by a look', () => {
  for (const cause of CAUSES) {
    const told = [...SIGNS.filter((sign) => sign !== 'pulls'), 'pullsLeft', 'pullsRight'] as const
    expect(told.some((sign) => showsBy(sign as never, cause, {}, false) > 0)).toBe(true)
    expect(Object.values(LOOK_FACTS).some(({ shows }) => shows.includes(cause))).toBe(true)
  }
})

describe('the way back to work', () => {
  const adviceOn = (log: Log) => decide(stateOf(log), DEFAULT_RULES)
  const plate = (log: Log, settingUm: number): Log =>
    log.add('measured', {
      readings: Array.from({ length: 36 }, (_, i) => ({ cutter: i + 1, settingUm })),
    })

  test('gauges that a plate found too low keep it off until they are read, and read low they still do', () => {
    const low = (): Log => {
      const log = notice(new Log().measureAll(6000).add('gaugesLowered', { gaugesByEye: true }), {
        signs: ['snatches'],
      })
      return look(log, 'plate', ['gaugesLow'])
    }
    expect(adviceOn(low()).fitForUse).toBe(false)
    expect(adviceOn(plate(low(), 650)).fitForUse).toBe(true)
    expect(adviceOn(plate(low(), 900)).fitForUse).toBe(false)
    const traced = (): Log => {
      const log = low()
      return log.add('traced', {
        into: log.entries.findLast(({ kind }) => kind === 'noticed')?.id ?? '',
        cause: 'gaugesLow',
      })
    }
    expect(adviceOn(traced()).fitForUse).toBe(false)
    expect(adviceOn(plate(traced(), 650)).fitForUse).toBe(true)
  })

  test.each(['struck', 'blued', 'tangs'] as const)('%s is looked over, and an inspection brings it back', (cause) => {
    const log = notice(new Log().measureAll(6000), { signs: ['push'] })
    log.add('traced', { into: log.entries.at(-1)?.id ?? '', cause })
    expect(adviceOn(log)).toMatchObject({ action: 'inspect', fitForUse: false })
    log.add('inspected', { readings: [], parts: [] })
    expect(adviceOn(log).fitForUse).toBe(true)
  })

  test('a strike that a look showed is answered by an inspection too', () => {
    const log = look(notice(new Log().measureAll(6000), { signs: ['cornerBright', 'push'] }), 'edge', ['struck'])
    expect(adviceOn(log)).toMatchObject({ action: 'inspect', fitForUse: false })
    expect(adviceOn(log.add('inspected', { readings: [], parts: [] })).fitForUse).toBe(true)
  })
})
