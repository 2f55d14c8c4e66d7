import { decide, DEFAULT_RULES, fold, specFromProfile, type Entry } from '@undercliff/core'
import { expect, test } from 'vitest'
import { inOrder, partsOf } from './options'

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
  { ...base, id: 'entry-two-here', kind: 'ran', tanks: 7, conditions: 'clean' },
]
const state = fold(entries)
if (state === null) throw new Error('the loop should be registered')
const { options } = decide(state, DEFAULT_RULES)

test('what can be done comes first, the cheapest of it at the top', () => {
  const ordered = inOrder(options)
  const firstNot = ordered.findIndex(({ feasible }) => !feasible)
  expect(ordered.slice(0, firstNot).every(({ feasible }) => feasible)).toBe(true)
  expect(ordered.slice(firstNot).some(({ feasible }) => feasible)).toBe(false)
  expect(ordered[0]?.action).toBe('file')
})

test('the parts add up to the whole, and nothing is not named', () => {
  for (const option of options) {
    const parts = partsOf(option, 'EUR')
    expect(parts.reduce((sum, { minor }) => sum + minor, 0)).toBe(option.money.totalMinor)
    expect(parts.every(({ minor }) => minor > 0)).toBe(true)
  }
  expect(
    partsOf(
      {
        money: {
          labourMinor: 500,
          consumablesMinor: 0,
          shopMinor: 0,
          metalMinor: 0,
          newLoopMinor: 0,
          upkeepMinor: 0,
          upkeepLabourMinor: 0,
          totalMinor: 500,
        },
      },
      'EUR',
    ).map(({ said }) => said),
  ).toEqual(['€5.00 work'])
})
