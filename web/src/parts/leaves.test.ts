import type { AnyNewEntry } from '@undercliff/contract'
import { expect, test } from 'vitest'
import { leavesOf, putRight } from './leaves'

const measured: AnyNewEntry = {
  id: 'entry-one',
  loopId: 'a-loop-id-1',
  happenedAt: '2026-03-01T09:00:00.000Z',
  personId: 'person-1',
  kind: 'measured',
  note: 'by the window',
  readings: [
    { cutter: 3, lengthUm: 52_000, damage: [{ kind: 'stone', depthUm: 400 }] },
    { cutter: 9, lengthUm: 5150, settingUm: 650 },
  ],
}

test('everything that may be wrong is there, under a name, and nothing that says what it is', () => {
  expect(leavesOf(measured).map(({ label, kind, value }) => [label, kind, value])).toEqual([
    ['happened', 'time', '2026-03-01T09:00:00.000Z'],
    ['note', 'text', 'by the window'],
    ['cutter 3 cutter', 'number', 3],
    ['cutter 3 length', 'length', 52_000],
    ['cutter 3 1 depth', 'length', 400],
    ['cutter 9 cutter', 'number', 9],
    ['cutter 9 length', 'length', 5150],
    ['cutter 9 setting', 'length', 650],
  ])
})

test('one thing is put right, in whole micrometres, and nothing else changes', () => {
  const length = leavesOf(measured).find(({ label }) => label === 'cutter 3 length')
  if (length === undefined) throw new Error('there should be such a length')
  const right = putRight(measured, length, 5200)
  expect(right).toEqual({
    ...measured,
    readings: [{ cutter: 3, lengthUm: 5200, damage: [{ kind: 'stone', depthUm: 400 }] }, measured.readings[1]],
  })
  expect(putRight(right, length, 52_000)).toEqual(measured)
})

test('what is one of several is chosen by name, and a word that is none of them is left as it is', () => {
  const { id, loopId, happenedAt, personId } = measured
  const ran = { id, loopId, happenedAt, personId, kind: 'ran', tanks: 1, conditions: 'clean' } as const
  const leaf = leavesOf(ran).find(({ label }) => label === 'conditions')
  expect(leaf).toMatchObject({ kind: 'choice', value: 'clean' })
  expect(leaf?.choices?.map(({ value }) => value)).toEqual(['clean', 'gritty', 'soil'])
  expect(leavesOf({ ...ran, conditions: 'sandy' as 'clean' }).find(({ label }) => label === 'conditions')?.kind).toBe(
    'text',
  )
})
