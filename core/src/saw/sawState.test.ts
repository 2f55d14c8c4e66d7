import { expect, test } from 'vitest'
import { sawState, type LoopStint } from './sawState'
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
