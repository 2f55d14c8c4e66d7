import { describe, expect, test } from 'vitest'
import { admitAll } from '../admit'
import { Log, SPEC, stateOf } from '../fixtures/logs'
import { fold } from '../fold'
import { DEFAULT_RULES } from '../house'
import type { Entry, PlateUsed } from '../log'
import { specFromProfile } from '../profile'
import { decide, waysOut } from '../verdict'
import {
  endedAs,
  endingsFound,
  oddAngles,
  parcelOf,
  planSharpening,
  walkOf,
  type SharpeningPlan,
  type WalkEvent,
} from '.'

const AT = '2026-02-01T08:00:00.000Z'
const SMALL = specFromProfile({ pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 40, cutterType: 'semiChisel' })
const done = (count?: number): WalkEvent => ({ at: AT, kind: 'done', ...(count === undefined ? {} : { count }) })
const read = (cutter: number, um: number): WalkEvent => ({ at: AT, kind: 'read', cutter, um })
const planOf = (log: Log, action: 'file' | 'regrind' = 'file'): SharpeningPlan =>
  planSharpening(stateOf(log), { ...DEFAULT_RULES, unevenSchool: 'extraOnBad' }, { action, personId: null })
/** What happens until a step begins, everything as planned. */
function until(plan: SharpeningPlan, id: string, ...first: WalkEvent[]): WalkEvent[] {
  const events = [...first]
  while (walkOf(plan, events).step !== null && walkOf(plan, events).step?.id !== id) events.push(done())
  return events
}
let ids = 0
const written = { loopId: 'loop-under-test', personId: null, endedMs: Date.parse(AT), gaugesTo: null }
const parcel = (plan: SharpeningPlan, events: WalkEvent[], gaugesTo: PlateUsed | null = null) =>
  parcelOf(plan, events, { ...written, gaugesTo, newId: () => `parcel-entry-${(ids += 1)}` })

describe('a walk', () => {
  const log = new Log(SMALL).measureAll(6500, 20)
  const plan = planOf(log)

  test('goes through every step and every cutter once, the weaker side first', () => {
    const seen: number[] = []
    const events: WalkEvent[] = []
    for (let walk = walkOf(plan, events); walk.step !== null; walk = walkOf(plan, events)) {
      if (walk.cutter !== null) seen.push(walk.cutter.number)
      events.push(done())
    }
    expect(seen).toHaveLength(20)
    expect(new Set(seen).size).toBe(20)
    expect(seen.slice(0, 10).every((cutter) => cutter % 2 === 1)).toBe(true)
    expect(endedAs(plan, walkOf(plan, events))).toBe('both')
  })

  test('undo is a walk with one event less, whatever happened', () => {
    const events = [
      ...until(plan, 'firstSide'),
      read(1, 6490),
      done(6),
      done(5),
      read(1, 6380),
      { at: AT, kind: 'skip' as const },
    ]
    const stood = events.map((_event, i) => walkOf(plan, events.slice(0, i)))
    walkOf(plan, events)
    expect(events.map((_event, i) => walkOf(plan, events.slice(0, i)))).toEqual(stood)
    expect(stood.at(-1)).not.toEqual(walkOf(plan, events))
    const walk = walkOf(plan, events)
    expect(walk.work.get(1)).toMatchObject({ beforeUm: 6490, afterUm: 6380, count: 6, done: true })
    expect(walk.work.get(5)).toMatchObject({ skipped: true, done: false })
  })

  test('what readings say of a stroke changes the count of the next cutter at once', () => {
    const planned = walkOf(plan, until(plan, 'firstSide')).cutter?.count ?? 0
    const events = until(plan, 'firstSide')
    // 12 µm a stroke today, where 20 were expected.
    for (const cutter of [1, 3, 5, 7]) events.push(done(10), read(cutter, 6500 - 120))
    const walk = walkOf(plan, events)
    expect(walk.worth.left.meanUm).toBeLessThan(18)
    expect(walk.cutter?.number).toBe(9)
    expect(walk.cutter?.count).toBeGreaterThan(planned)
  })

  test('the other side follows before anything of it was read: the day and the file are one for both', () => {
    const planned = walkOf(plan, until(plan, 'recheck')).cutter?.count ?? 0
    const countAfter = (perStrokeUm: number): number => {
      const events = until(plan, 'firstSide')
      for (const cutter of [1, 3, 5, 7]) events.push(done(10), read(cutter, 6500 - 10 * perStrokeUm))
      const walk = walkOf(plan, until(plan, 'recheck', ...events))
      expect(walk.step?.id).toBe('recheck')
      // Some of it may be the hand: the other side is not thought to be quite so far off.
      expect(Math.abs(walk.worth.right.meanUm - 20)).toBeLessThan(Math.abs(walk.worth.left.meanUm - 20))
      return walk.cutter?.count ?? 0
    }
    expect(countAfter(12)).toBeGreaterThan(planned)
    expect(countAfter(30)).toBeLessThan(planned)
  })

  test('a reading that was asked about and said to be right stands in the log as that', () => {
    const events = [...until(plan, 'firstSide'), done(10), { ...read(1, 6000), confirmed: true }]
    const written = { loopId: 'l', personId: null, newId: () => 'id', endedMs: 0, gaugesTo: null }
    for (const cutter of [3, 5, 7, 9, 11, 13, 15, 17, 19]) events.push(done(10), read(cutter, 6390))
    const measured = parcelOf(plan, events, written).find((entry) => entry.kind === 'measured')
    const readings = measured?.kind === 'measured' ? measured.readings : []
    expect(readings).toContainEqual({ cutter: 1, lengthUm: 6000, confirmed: true })
    expect(readings).toContainEqual({ cutter: 3, lengthUm: 6390 })
    // A reading before the strokes is said to be right by itself, and read anew it is asked about anew.
    const before = { ...read(1, 6300), confirmed: true }
    expect([...(walkOf(plan, [...until(plan, 'firstSide'), before]).work.get(1)?.confirmed ?? [])]).toEqual([
      'beforeUm',
    ])
    const both = walkOf(plan, [...until(plan, 'firstSide'), before, done(10), read(1, 6200)]).work.get(1)
    expect([...(both?.confirmed ?? [])]).toEqual(['beforeUm'])
  })

  test('a cutter that is done got what it was shown to get then, and that is what is logged', () => {
    const events = until(plan, 'firstSide')
    for (const cutter of [1, 3, 5, 7]) events.push(done(10), read(cutter, 6500 - 120))
    const shown = walkOf(plan, events).cutter
    events.push({ at: AT, kind: 'done' })
    expect(walkOf(plan, events).work.get(9)).toMatchObject({ done: true, count: shown?.count })
    expect(shown?.count).not.toBe(plan.sides[0]?.cutters.find(({ number }) => number === 9)?.count)
  })

  test('a stop that shifted in the turn is caught by one cutter of the second side', () => {
    const grind = planOf(log, 'regrind')
    const stop = grind.stopUm ?? 0
    const events = [
      ...until(grind, 'recheck'),
      read(walkOf(grind, until(grind, 'recheck')).cutter?.number ?? 0, stop + 150),
    ]
    expect(walkOf(grind, events).check).toMatchObject({ offUm: 150, alike: false, stop: { way: 'in', byUm: 150 } })
    const skipped = walkOf(grind, [...until(grind, 'recheck'), { at: AT, kind: 'unchecked' }])
    expect(skipped).toMatchObject({ unchecked: true, check: null })
    expect(skipped.step?.id).toBe('secondSide')
  })
})

describe('a parcel', () => {
  const log = new Log(SMALL).measureAll(6500, 20)
  const plan = planOf(log)

  test('is admitted, folds to what was done, and the count that was given is what is written', () => {
    const events = until(plan, 'firstSide')
    for (let i = 0; i < 10; i += 1) events.push(done(7))
    events.push(...until(plan, 'recheck', ...events).slice(events.length))
    // The cutter of the check has its strokes then, and does not come by again.
    for (let i = 0; i < 10; i += 1) events.push(done(6))
    expect(walkOf(plan, events).step?.id).toBe('gauges')
    events.push(read(2, 6380), done())
    const entries = parcel(plan, events, { rests: 'constant' })
    expect(entries.map(({ kind }) => kind)).toEqual(['sharpened', 'measured', 'gaugesLowered'])
    expect(entries[0]).toMatchObject({ strokes: { left: 7, right: 6 }, method: 'fileBench', gaugesLowered: false })
    expect(entries[0], 'a reading on the way set them').toMatchObject({ countsRead: true })
    const unread = parcel(plan, [...events.slice(0, -2), done()], { rests: 'constant' })
    expect(unread[0]).toMatchObject({ strokes: { left: 7, right: 6 } })
    expect(unread[0]).not.toHaveProperty('countsRead')
    const all = [...log.entries, ...entries.map((entry) => ({ ...entry, writtenAt: AT, writtenBy: null }))]
    expect(admitAll(all, Infinity).problems).toEqual([])
    const state = fold(all)
    expect(state?.sharpenings).toBe(1)
    expect(state?.cutters[1]?.length).toMatchObject({ um: 6380, known: 'measured' })
    expect(state?.sharpeningsSinceGauges).toBe(0)
  })

  test('where every cutter came down to one length it says so', () => {
    const matched = planSharpening(stateOf(log), DEFAULT_RULES, { action: 'file', personId: null })
    expect(DEFAULT_RULES.unevenSchool).toBe('matchShortest')
    expect(parcel(matched, until(matched, 'none'))[0]).toMatchObject({ kind: 'sharpened', evened: true })
    expect(parcel(plan, until(plan, 'none'))[0]).not.toHaveProperty('evened')
  })

  test('one side alone is written as that side, the loop is not fit, and the other side follows it', () => {
    const events = until(plan, 'turn')
    expect(endedAs(plan, walkOf(plan, events))).toBe('oneSide')
    expect(parcel(plan, until(plan, 'firstSide'))).toEqual([])
    const [half, ...more] = parcel(plan, events)
    expect(more).toEqual([])
    expect(half).toMatchObject({ kind: 'sharpened', onlySide: 'left', strokes: { right: 0 } })
    const written = { writtenAt: AT, writtenBy: null }
    const entries = [...log.entries, { ...half, ...written } as Entry]
    const after = fold(entries)
    if (after === null) throw new Error('it is registered')
    expect(after.waitingSide).toBe('right')
    expect(after.cutters[1]?.length).toEqual(stateOf(log).cutters[1]?.length)
    const verdict = decide(after, DEFAULT_RULES)
    expect(verdict).toMatchObject({ fitForUse: false, action: 'stop' })
    expect(waysOut(after, DEFAULT_RULES, verdict)[0]?.way).toBe('otherSide')

    const rest = planSharpening(
      after,
      { ...DEFAULT_RULES, unevenSchool: 'extraOnBad' },
      { action: 'file', personId: null },
    )
    expect(rest).toMatchObject({ waiting: 'right', refusal: null })
    expect(rest.steps.map(({ id }) => id)).not.toContain('firstSide')
    const walked = until(rest, 'none')
    expect(walkOf(rest, walked).work.has(1)).toBe(false)
    const [other] = parcel(rest, walked)
    expect(other).toMatchObject({ onlySide: 'right', strokes: { left: 0 } })
    const whole = fold([...entries, { ...other, happenedAt: '2026-02-01T09:00:00.000Z', ...written } as Entry])
    expect(whole).toMatchObject({ waitingSide: null, sharpenings: 1, sharpeningsSinceGauges: 1 })
    expect(decide(whole ?? after, DEFAULT_RULES).fitForUse).toBe(true)
    // The check of the second side is against what the first one stands at.
    const level = after.cutters[0]?.length.um ?? 0
    const at = until(rest, 'recheck')
    const number = walkOf(rest, at).cutter?.number ?? 0
    expect(walkOf(rest, [...at, read(number, level + 150)]).check?.offUm).toBeCloseTo(150, -1)
  })

  test('a grind says whether its stop was checked after the turn, and clears the damage behind it', () => {
    const struck = new Log().add('measured', {
      readings: Array.from({ length: 36 }, (_, i) => ({
        cutter: i + 1,
        lengthUm: 6500,
        damage: i === 8 ? [{ kind: 'stone' as const, depthUm: 900 }] : [],
      })),
    })
    expect(SPEC.driveLinks).toBe(72)
    const grind = planOf(struck, 'regrind')
    const checked = until(grind, 'recheck')
    const after = [...checked, read(walkOf(grind, checked).cutter?.number ?? 0, grind.stopUm ?? 0), done()]
    const [entry] = parcel(grind, until(grind, 'none', ...after)).filter(({ kind }) => kind === 'sharpened')
    expect(entry).toMatchObject({ method: 'grinder', stopChecked: true, damageCleared: true })
    const unchecked = parcel(grind, until(grind, 'none', ...checked, { at: AT, kind: 'unchecked' }))
    expect(unchecked.find(({ kind }) => kind === 'sharpened')).toMatchObject({ stopChecked: false })
  })

  test('by file, damage counts as gone only where somebody found the cutter clean', () => {
    const hurt = new Log(SMALL).add('measured', {
      readings: [{ cutter: 1, lengthUm: 6500, damage: [{ kind: 'stone', depthUm: 600 }] }],
    })
    const filing = planOf(hurt)
    const start = until(filing, 'firstSide')
    expect(walkOf(filing, start).cutter).toMatchObject({ number: 1, untilClean: true })
    const sharpenedOf = (events: WalkEvent[]) =>
      parcel(filing, until(filing, 'none', ...events)).find(({ kind }) => kind === 'sharpened')
    expect(sharpenedOf([...start, { at: AT, kind: 'clean' }])).toMatchObject({ damageCleared: true })
    expect(sharpenedOf(start)).not.toHaveProperty('damageCleared')
  })

  test('by hand-held grinder going on says that it is clean, and one that was left out is not', () => {
    const hurt = new Log(SMALL).add('measured', {
      readings: [{ cutter: 1, lengthUm: 6500, damage: [{ kind: 'stone', depthUm: 600 }] }],
    })
    const speeds = { markedRpm: 9000, spindleRpm: 3000 }
    const wanted = { action: 'regrind', personId: null, tool: 'handGrinder', speeds } as const
    const grinding = planSharpening(stateOf(hurt), DEFAULT_RULES, wanted)
    const start = until(grinding, 'firstSide')
    expect(walkOf(grinding, start).cutter).toMatchObject({ number: 1, untilClean: true })
    const sharpenedOf = (events: WalkEvent[]) =>
      parcel(grinding, until(grinding, 'none', ...events)).find(({ kind }) => kind === 'sharpened')
    expect(sharpenedOf(start)).toMatchObject({ damageCleared: true })
    expect(sharpenedOf([...start, { at: AT, kind: 'skip' }])).not.toHaveProperty('damageCleared')
  })
})

describe('what is found on the way', () => {
  const log = new Log(SMALL).measureAll(6500, 20)
  const plan = planOf(log)
  const begun = until(plan, 'firstSide')
  const first = walkOf(plan, begun).cutter?.number ?? 0

  test('damage is worked through on that cutter, and written down beside what was known', () => {
    const known = new Log(SMALL).add('measured', {
      readings: Array.from({ length: 20 }, (_, i) => ({
        cutter: i + 1,
        lengthUm: 6500,
        damage: i === 0 ? [{ kind: 'rounded' as const, depthUm: null }] : [],
      })),
    })
    const hurt = planOf(known)
    const chip = { at: AT, kind: 'damage', cutter: 1, damage: { kind: 'chipped', depthUm: 500 } } as const
    const events = [...until(hurt, 'firstSide'), chip]
    const before = walkOf(hurt, until(hurt, 'firstSide')).cutter
    const job = walkOf(hurt, events).cutter
    expect(job).toMatchObject({ number: 1, untilClean: true, damageUm: 500 })
    // Sound steel a tenth behind it.
    expect(job?.removeUm).toBe(600)
    expect(job?.count).toBeGreaterThan(before?.count ?? 0)
    const cleared = [...events, { at: AT, kind: 'clean' as const }]
    const [reading, sharpened] = parcel(hurt, until(hurt, 'none', ...cleared))
    expect(reading).toMatchObject({
      kind: 'measured',
      readings: [{ cutter: 1, damage: [{ kind: 'rounded' }, { kind: 'chipped', depthUm: 500 }] }],
    })
    expect(sharpened).toMatchObject({ damageCleared: true })
    expect(parcel(hurt, until(hurt, 'none', ...events))[1]).not.toHaveProperty('damageCleared')
  })

  test('a crack ends it, on whichever cutter it is', () => {
    const crack = { at: AT, kind: 'damage', cutter: 6, damage: { kind: 'cracked', depthUm: null } } as const
    expect(endingsFound(walkOf(plan, begun))).toEqual([])
    expect(endingsFound(walkOf(plan, [...begun, crack]))).toEqual([6])
  })

  // Ripping chain jumps by one degree between cutters: common practice.
  test('ripping chain at 10° with a cutter measured at 11° is said to jump; other chain is not', () => {
    const ripping = specFromProfile({ pitchClass: 'p404', gaugeUm: 1600, driveLinks: 60, cutterType: 'ripping' })
    const rip = planSharpening(stateOf(new Log(ripping)), DEFAULT_RULES, { action: 'regrind', personId: null })
    const at = (deg: number) => walkOf(rip, [{ at: AT, kind: 'angle', cutter: 7, deg }])
    expect(oddAngles(ripping, rip, at(11))).toEqual([{ cutter: 7, deg: 11, wantedDeg: 10 }])
    expect(oddAngles(ripping, rip, at(10.5))).toEqual([])
    expect(oddAngles(SMALL, plan, walkOf(plan, [{ at: AT, kind: 'angle', cutter: 7, deg: 31 }]))).toEqual([])
  })

  test('back goes to the cutter before, and from the first one to the step before', () => {
    const back = { at: AT, kind: 'back' } as const
    expect(walkOf(plan, [...begun, done(), back]).cutter?.number).toBe(first)
    expect(walkOf(plan, [...begun, back]).step?.id).toBe('setUp')
    const second = until(plan, 'turn')
    expect(walkOf(plan, [...second, back])).toMatchObject({ step: { id: 'firstSide' }, place: 9 })
    expect(walkOf(plan, [back]).at).toBe(0)
  })
})
