import { describe, expect, test } from 'vitest'
import { Log, stateOf } from '../fixtures/logs'
import { DEFAULT_RULES } from '../house'
import type { EntryBodies, EntryKind, NewEntry } from '../log'
import { cardOf } from './card'
import { cardWithoutWork } from './unworked'

const FIT = cardOf(stateOf(new Log().measureAll(7000)), DEFAULT_RULES)
const said = <K extends EntryKind>(kind: K, body: EntryBodies[K]): NewEntry =>
  ({ id: kind, loopId: FIT.loopId, happenedAt: '2026-05-04T08:00:00.000Z', personId: null, kind, ...body }) as NewEntry
const FILED = { method: 'fileField', gaugesLowered: false } as const
const struck = (against: EntryBodies['struck']['against'] = 'stone') => said('struck', { against })
const looked = (readings: EntryBodies['inspected']['readings'], parts: EntryBodies['inspected']['parts'] = []) =>
  said('inspected', { readings, parts })
const DIRT = [{ cutter: 1, damage: [{ kind: 'dirtDulled' as const, depthUm: null }] }]
const STONE = [{ cutter: 3, damage: [{ kind: 'stone' as const, depthUm: 400 }] }]
const CRACKED = [{ cutter: 3, damage: [{ kind: 'cracked' as const, depthUm: null }] }]

test('the card that it begins with is of a loop that may cut', () => {
  expect(FIT).toMatchObject({ fitForUse: true })
})

describe('a loop whose log cannot be worked out does not cut', () => {
  const CASES: Record<string, readonly [NewEntry[], object]> = {
    'once it struck something': [[struck()], { action: 'inspect', reason: { rule: 'struckUnseen' } }],
    'when it was touched up after a strike': [[struck(), said('sharpened', FILED)], { action: 'inspect' }],
    'when it was struck again after a look': [[struck(), looked([]), struck()], { action: 'inspect' }],
    'when the look found a strike that goes deep': [[struck(), looked(STONE)], { action: 'inspect' }],
    'once one side was begun': [[said('begun', { side: 'left' })], { action: 'stop', reason: { hand: 'right' } }],
    'when it ended after one side': [
      [said('begun', { side: 'left' }), said('sharpened', { ...FILED, onlySide: 'left' })],
      { action: 'stop', reason: { rule: 'sideWaits', hand: 'right' } },
    ],
    'once a crack was found, struck or not': [
      [looked(CRACKED)],
      { action: 'stop', reason: { rule: 'unfitDamage', damage: 'cracked', cutter: 3 } },
    ],
    'when a crack was noted while measuring': [[said('measured', { readings: CRACKED })], { action: 'stop' }],
    'when a strap was found cracked': [
      [looked([], [{ kind: 'strapCracked', nearCutter: null }])],
      { action: 'stop', reason: { damage: 'strapCracked' } },
    ],
  }
  test.each(Object.entries(CASES))('%s', (_name, [waiting, wanted]) => {
    expect(cardWithoutWork(FIT, waiting)).toMatchObject({ ...wanted, fitForUse: false, settled: false })
  })
})

test.each<[string, NewEntry[]]>([
  ['a tank', [said('ran', { tanks: 1, conditions: 'clean' })]],
  ['a strike that was looked over and found sound', [struck(), looked([])]],
  ['one that dulled it, and no more', [struck('soil'), looked(DIRT)]],
  ['a sharpening that was begun and ended', [said('begun', { side: 'left' }), said('sharpened', FILED)]],
  [
    'both sides, one after the other',
    [
      said('begun', { side: 'left' }),
      said('sharpened', { ...FILED, onlySide: 'left' }),
      said('sharpened', { ...FILED, onlySide: 'right' }),
    ],
  ],
])('what keeps nobody from cutting changes nothing: %s', (_name, waiting) => {
  expect(cardWithoutWork(FIT, waiting)).toEqual(FIT)
})

test('one that was told to be unfit stays so, and goes where it is put', () => {
  const unfit = { ...FIT, fitForUse: false }
  const moved = cardWithoutWork(unfit, [looked([]), said('fitted', { sawId: 'saw-1' })])
  expect(moved).toMatchObject({ fitForUse: false, sawId: 'saw-1', place: { at: 'saw', sawId: 'saw-1' } })
})
