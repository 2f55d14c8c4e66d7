import { describe, expect, test } from 'vitest'
import { fitCheck } from '../fit'
import { sawName, sawState, type LoopStint } from './sawState'
import { unreadOf } from './sawEntry'
import type { SawEntry, SawEntryBodies, SawEntryKind } from './sawEntry'

const FIRST = { pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72 } as const
const day = (n: number): string => new Date(Date.UTC(2026, 0, n)).toISOString()
let made = 0
function entry<K extends SawEntryKind>(kind: K, n: number, body: SawEntryBodies[K]): SawEntry {
  made += 1
  return {
    id: `saw-entry-${made}`,
    sawId: 'saw',
    happenedAt: day(n),
    writtenAt: day(n),
    personId: null,
    writtenBy: null,
    kind,
    ...body,
  } as SawEntry
}
const stint = (loopId: string, from: number, to: number | null, more: Partial<LoopStint> = {}): LoopStint => ({
  loopId,
  sawId: 'saw',
  from: day(from),
  to: to === null ? null : day(to),
  tanks: 2,
  flipped: true,
  worn: 0.1,
  ...more,
})

test('a saw that nothing happened to takes what it was added with', () => {
  expect(sawState(FIRST, [], [])).toMatchObject({ fit: FIRST, due: [], sprocket: { hours: 0, loops: 0, loopsWorn: 0 } })
})

// Common practice: a sprocket is renewed about every two to three loops worn out.
test('a sprocket is due after three loops worn out, and its clock starts again when it is renewed', () => {
  const worn = [stint('a', 1, 2, { worn: 1 }), stint('b', 3, 4, { worn: 0.9 }), stint('a', 5, 6, { worn: 0.2 })]
  expect(sawState(FIRST, [], worn).due).toContain('sprocketSoon')
  const more = [...worn, stint('c', 7, 8, { worn: 1 })]
  const { sprocket, due } = sawState(FIRST, [], more)
  expect(sprocket).toMatchObject({ loops: 3, loopsWorn: 3.1 })
  expect(due).toContain('sprocketNow')
  const renewed = sawState(FIRST, [entry('sprocketRenewed', 9, { pitchClass: 'p325' })], more)
  expect(renewed.sprocket).toMatchObject({ loops: 0, loopsWorn: 0, hours: 0 })
  expect(renewed.fit.pitchClass).toBe('p325')
})

test('a bar is due to be flipped at a loop change or after a working day', () => {
  expect(sawState(FIRST, [], [stint('a', 1, 2), stint('b', 3, null, { flipped: false })]).due).toContain('flipAtChange')
  expect(
    sawState(FIRST, [entry('barFlipped', 4, {})], [stint('a', 1, 2), stint('b', 3, null, { flipped: false })]).due,
  ).toEqual([])
  expect(sawState(FIRST, [], [stint('a', 1, null, { tanks: 11 })]).due).toEqual(['flipByHours'])
})

test('another bar brings its groove, links and nose, and nothing of the old one', () => {
  const log = [
    entry('barChecked', 1, { grooveWidthUm: 1800, burrs: true }),
    entry('barFitted', 2, { gaugeUm: 1600, driveLinks: 84, nosePitchClass: 'threeEighths' }),
  ]
  expect(sawState({ ...FIRST, barStamp: 'B 7' }, log, []).fit.barStamp).toBeUndefined()
  expect(sawState(FIRST, log.slice(0, 1), []).due).toEqual(['burrs', 'grooveWorn'])
  const state = sawState(FIRST, log, [])
  expect(state.fit).toMatchObject({ gaugeUm: 1600, driveLinks: 84 })
  expect(state.bar).toMatchObject({ grooveWidthUm: null, burrs: false })
  expect(state.due).toEqual([])
})

test('dressing takes the burrs away, and a struck-out entry does not count', () => {
  const burrs = entry('barChecked', 1, { burrs: true })
  expect(sawState(FIRST, [burrs, entry('railsDressed', 2, {})], []).due).toEqual([])
  expect(sawState(FIRST, [burrs, entry('sawCorrected', 2, { strikes: burrs.id })], []).due).toEqual([])
})

test('at the very limits', () => {
  const worn = (loops: number) => sawState(FIRST, [], [stint('a', 1, 2, { worn: loops })]).due
  expect(worn(1.9)).toEqual([])
  expect(worn(2)).toEqual(['sprocketSoon'])
  expect(worn(2.9)).toEqual(['sprocketSoon'])
  expect(worn(3)).toEqual(['sprocketNow'])
  const groove = (grooveWidthUm: number) => sawState(FIRST, [entry('barChecked', 1, { grooveWidthUm })], []).due
  expect(groove(1700)).toEqual([])
  expect(groove(1701)).toEqual(['grooveWorn'])
  // Three quarters of an hour a tank: a starting value. Eight hours, to the tenth, are a working day.
  const hours = (tanks: number) => sawState(FIRST, [], [stint('a', 1, 2, { tanks, flipped: false })])
  expect(hours(2).bar).toMatchObject({ hours: 1.5, hoursSinceFlip: 1.5 })
  expect(hours(10.5).due).toEqual([])
  expect(hours(10.6).due).toEqual(['flipByHours'])
})

test('a stint counts toward what it ran on after the change, whole where it spans it', () => {
  const stints = [stint('a', 1, 3), stint('b', 4, 8, { flipped: false }), stint('c', 9, null, { flipped: false })]
  const { sprocket, bar } = sawState(FIRST, [entry('sprocketRenewed', 5, { pitchClass: 'threeEighths' })], stints)
  expect(sprocket).toMatchObject({ since: day(5), loops: 2, hours: 3, loopsWorn: 0.2 })
  // Flipped when loop a went on, and never since.
  expect(bar).toMatchObject({ flippedAt: day(1), hoursSinceFlip: 4.5, hours: 4.5, since: null })
  const ended = sawState(FIRST, [entry('sprocketRenewed', 3, { pitchClass: 'threeEighths' })], [stint('a', 1, 3)])
  expect(ended.sprocket.loops).toBe(0)
})

test('a bar flipped by hand after the last change stays flipped; one that went on flipped counts from then', () => {
  const on = [stint('b', 6, null, { flipped: false }), stint('a', 1, 2)]
  expect(sawState(FIRST, [entry('barFlipped', 6, {})], on).due).toEqual([])
  expect(sawState(FIRST, [entry('barFlipped', 5, {})], on).due).toEqual(['flipAtChange'])
  expect(sawState(FIRST, [entry('barFlipped', 5, {})], [stint('b', 6, null), stint('a', 1, 2)]).bar.flippedAt).toBe(
    day(6),
  )
  expect(sawState(FIRST, [entry('barFlipped', 7, {})], [stint('b', 6, null), stint('a', 1, 2)]).bar.flippedAt).toBe(
    day(7),
  )
  expect(sawState(FIRST, [], [stint('a', 1, null, { flipped: false })]).due).toEqual([])
})

test('put back with the bar turned it is flipped; the tension is looked at until it stays', () => {
  const back = entry('putBack', 3, { done: ['barTurned', 'tension', 'nuts'] })
  const stints = [stint('a', 1, null, { tanks: 12, flipped: false })]
  expect(sawState(FIRST, [], stints).due).toEqual(['flipByHours'])
  expect(sawState(FIRST, [], stints).tension).toBeNull()
  const state = sawState(FIRST, [back], stints)
  expect(state.bar.flippedAt).toBe(day(3))
  expect(state.tension).toEqual({ lookedAt: day(3), stayed: false })
  const looked = entry('tensionLooked', 4, { stayed: true })
  expect(sawState(FIRST, [back, looked], stints).tension).toEqual({ lookedAt: day(4), stayed: true })
  expect(sawState(FIRST, [entry('putBack', 3, { done: ['oil'] })], stints)).toMatchObject({
    tension: null,
    bar: { flippedAt: null },
  })
})

test('what a check leaves out stays as it was, and entries count in the order of time', () => {
  const log = [
    entry('barChecked', 3, { grooveDepthUm: 7000 }),
    entry('barChecked', 2, { grooveWidthUm: 1650, burrs: true }),
  ]
  expect(sawState(FIRST, log, []).bar).toMatchObject({ grooveWidthUm: 1650, grooveDepthUm: 7000, burrs: true })
  const early = entry('barFitted', 4, { gaugeUm: 1300, driveLinks: 60, nosePitchClass: null })
  const late = entry('barFitted', 5, { gaugeUm: 1600, driveLinks: 84, nosePitchClass: null })
  expect(sawState(FIRST, [late, early], []).fit.gaugeUm).toBe(1600)
  expect(sawState(FIRST, [early, late], []).bar).toMatchObject({ since: day(5), flippedAt: day(5) })
  // At the same moment the one that was made later counts.
  const same = entry('barFitted', 5, { gaugeUm: 1500, driveLinks: 72, nosePitchClass: null })
  expect(sawState(FIRST, [late, same], []).fit.gaugeUm).toBe(1500)
  expect(sawState(FIRST, [same, late], []).fit.gaugeUm).toBe(1500)
})

describe('the saw itself', () => {
  const renamed = (at: number, from: string, to: string) => ({ ...entry('sawRenamed', at, { from, to }), id: `r${at}` })
  test('it is called as it was last renamed; a rename that is struck out counts for nothing', () => {
    const log = [renamed(1, 'Petrel', 'Gannet'), renamed(2, 'Gannet', 'Solan')]
    expect(sawName('Solan', log)).toBe('Solan')
    expect(sawName('Solan', [...log, entry('sawCorrected', 3, { strikes: 'r2' })])).toBe('Gannet')
    const both = [...log, entry('sawCorrected', 3, { strikes: 'r2' }), entry('sawCorrected', 4, { strikes: 'r1' })]
    expect(sawName('Solan', both)).toBe('Petrel')
    expect(sawName('Solan', [])).toBe('Solan')
  })

  test('what is read off fills what nobody knew, and leaves hours and wear as they are', () => {
    const unknown = { pitchClass: null, gaugeUm: null, driveLinks: null }
    const checked = entry('barChecked', 1, { grooveWidthUm: 1620, burrs: true })
    const before = sawState(unknown, [checked], [])
    expect(unreadOf(before.fit)).toEqual(['pitchClass', 'gaugeUm', 'driveLinks'])
    expect(before.due).toEqual(['burrs'])
    const read = entry('fitRead', 2, { gaugeUm: 1300, driveLinks: 64, barStamp: 'B 9' })
    const { fit, bar, due } = sawState(unknown, [checked, read], [])
    expect(fit).toEqual({ pitchClass: null, gaugeUm: 1300, driveLinks: 64, barStamp: 'B 9' })
    expect(bar).toMatchObject({ grooveWidthUm: 1620, burrs: true, since: null })
    expect(due).toEqual(['burrs', 'grooveWorn'])
    // Of a bar that came later nothing is known by the one before.
    const other = entry('barFitted', 3, { gaugeUm: 1500, driveLinks: 72, nosePitchClass: null })
    expect(sawState(unknown, [checked, read, other], []).fit).toMatchObject({ gaugeUm: 1500, driveLinks: 72 })
  })

  test('lent out it is not here until it is back', () => {
    const lent = entry('sawGone', 2, { how: 'lent', to: 'the north crew' })
    expect(sawState(FIRST, [lent], []).gone).toMatchObject({ how: 'lent', to: 'the north crew' })
    expect(sawState(FIRST, [lent, entry('sawBack', 3, {})], []).gone).toBeNull()
    expect(fitCheck(FIRST, FIRST, sawState(FIRST, [lent], [])).level).toBe('mustNot')
    expect(fitCheck(FIRST, FIRST, sawState(FIRST, [], [])).level).toBe('fits')
  })
})
