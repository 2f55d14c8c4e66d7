import { describe, expect, test } from 'vitest'
import { admitAll } from '../admit'
import { Log, SPEC, stateOf } from '../fixtures/logs'
import { fold } from '../fold'
import { DEFAULT_RULES } from '../house'
import type { Entry } from '../log'
import { specFromProfile } from '../profile'
import { decide, waysOut } from '../verdict'
import { endedAs, parcelOf, planSharpening, walkOf, type SharpeningPlan, type WalkEvent } from '.'

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
const written = { loopId: 'loop-under-test', personId: null, endedMs: Date.parse(AT), gaugesToUm: null }
const parcel = (plan: SharpeningPlan, events: WalkEvent[], gaugesToUm: number | null = null) =>
  parcelOf(plan, events, { ...written, gaugesToUm, newId: () => `parcel-entry-${(ids += 1)}` })

describe('a walk', () => {
  const log = new Log(SMALL).measureAll(6500, 20)
  const plan = planOf(log)

  test('goes through every step and every cutter once, the weaker side first', () => {
    const seen: number[] = []
    const events: WalkEvent[] = []
    for (let walk = walkOf(plan, events); walk.step !== null; walk = walkOf(plan, events)) {
      if (walk.step.hand !== null && walk.cutter !== null) seen.push(walk.cutter.number)
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
    events.push(...until(plan, 'secondSide', ...events).slice(events.length))
    for (let i = 0; i < 10; i += 1) events.push(done(6))
    events.push(read(2, 6380), done())
    const entries = parcel(plan, events, 650)
    expect(entries.map(({ kind }) => kind)).toEqual(['sharpened', 'measured', 'gaugesLowered'])
    expect(entries[0]).toMatchObject({ strokes: { left: 7, right: 6 }, method: 'fileBench', gaugesLowered: false })
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
})
