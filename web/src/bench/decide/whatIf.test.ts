import { decide, DEFAULT_RULES, fold, specFromProfile, type Entry } from '@undercliff/core'
import { expect, test } from 'vitest'
import { asItIs, supposed, whatIf } from './whatIf'

const at = '2026-01-05T08:00:00.000Z'
const base = { loopId: 'loop-one-here', happenedAt: at, writtenAt: at, personId: null, writtenBy: null }
const entries: Entry[] = [
  {
    ...base,
    id: 'entry-one-here',
    kind: 'registered',
    tag: 'K1',
    spec: specFromProfile({ pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72, cutterType: 'semiChisel' }),
  },
  {
    ...base,
    id: 'entry-two-here',
    kind: 'measured',
    readings: Array.from({ length: 36 }, (_, i) => ({
      cutter: i + 1,
      lengthUm: 5000,
      damage: i === 8 ? [{ kind: 'stone' as const, depthUm: 1500 }] : [],
    })),
  },
]
const folded = fold(entries)
if (folded === null) throw new Error('the loop should be registered')
const state = folded
const still = asItIs(state, DEFAULT_RULES)

test('with nothing turned it is the verdict as it stands', () => {
  expect(whatIf(state, DEFAULT_RULES, still)).toEqual(decide(state, DEFAULT_RULES))
})

test('a cheap enough loop is replaced, a dear one is ground', () => {
  expect(whatIf(state, { ...DEFAULT_RULES, dirtyDuty: false }, { ...still, loopPriceMinor: 300 }).advised).toBe(
    'retire',
  )
  expect(whatIf(state, DEFAULT_RULES, { ...still, loopPriceMinor: 9000 }).advised).toBe('regrind')
})

test('deeper damage is deeper on every cutter that has any, and never less than a scratch', () => {
  const deeper = supposed(state, DEFAULT_RULES, { ...still, deeperUm: 600 }).state
  expect(deeper.cutters[8]?.damage[0]?.depthUm).toBe(2100)
  expect(supposed(state, DEFAULT_RULES, { ...still, deeperUm: -9000 }).state.cutters[8]?.damage[0]?.depthUm).toBe(50)
  expect(state.cutters[8]?.damage[0]?.depthUm).toBe(1500)
})

test('tanks turn a sound loop dull', () => {
  const sound = { ...state, cutters: state.cutters.map((cutter) => ({ ...cutter, damage: [] })) }
  expect(whatIf(sound, DEFAULT_RULES, { ...asItIs(sound, DEFAULT_RULES), tanks: 7 }).advised).toBe('file')
})
