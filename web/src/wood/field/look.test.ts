import { specFromProfile, fold, type Entry } from '@undercliff/core'
import { expect, test } from 'vitest'
import { lookOf } from './look'

const at = (day: number) => ({
  happenedAt: `2026-03-0${day}T08:00:00.000Z`,
  writtenAt: `2026-03-0${day}T08:00:00.000Z`,
})
const base = (day: number) => ({ id: `entry-${day}`, loopId: 'loop', personId: null, writtenBy: null, ...at(day) })
const spec = specFromProfile({ pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72, cutterType: 'semiChisel' })
const log = [
  { ...base(1), kind: 'registered', tag: 'T1', spec },
  {
    ...base(2),
    kind: 'inspected',
    readings: [{ cutter: 5, damage: [{ kind: 'stone', depthUm: 500 }] }],
    parts: [{ kind: 'strapCut', nearCutter: 5 }],
  },
  { ...base(3), kind: 'struck', against: 'soil' },
] as unknown as Entry[]
const folded = (more: Entry[] = []) => {
  const state = fold([...log, ...more])
  if (state === null) throw new Error('it is registered')
  return state
}

test.each(['sound', 'dirt'] as const)(
  'a look in the wood sees to the strike, and keeps what was known: %s',
  (found) => {
    const look = { ...base(4), kind: 'inspected', ...lookOf(folded(), found) } as unknown as Entry
    const after = folded([look])
    expect(after.openStrikes).toEqual([])
    expect(after.cutters[4]?.damage).toContainEqual({ kind: 'stone', depthUm: 500 })
    expect(after.parts).toEqual([{ kind: 'strapCut', nearCutter: 5 }])
    const dulled = after.cutters.filter(({ damage }) => damage.some(({ kind }) => kind === 'dirtDulled'))
    expect(dulled).toHaveLength(found === 'dirt' ? 36 : 0)
  },
)
