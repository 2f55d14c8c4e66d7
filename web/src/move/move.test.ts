import { fileFor, specFromProfile } from '@undercliff/core'
import { expect, test } from 'vitest'
import { entriesFor, isAt, shelfFor } from './entriesFor'
import { sayFile } from '../loop/sayFile'
import { sayPlace } from '../loop/sayPlace'
import type { LoopCard, Place } from '@undercliff/core'

const SPEC = specFromProfile({ pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72, cutterType: 'semiChisel' })

test('places are said as a crew says them', () => {
  const say = (place: Place): string => sayPlace(place, () => 'Bellwether')
  expect(say({ at: 'saw', sawId: 'any-saw' })).toBe('On Bellwether')
  expect(say({ at: 'dullBox' })).toBe('In the dull box')
  expect(say({ at: 'truck' })).toBe('On the truck')
  expect(
    say({ at: 'shop', shop: 'Quay works', sentAt: '2026-03-01T12:00:00.000Z', dueBackAt: '2026-03-06T12:00:00.000Z' }),
  ).toBe('At Quay works since 1 Mar, due back 6 Mar')
})

test('the file is named with why', () => {
  expect(sayFile(fileFor(SPEC, 8000, 'oneSize'))).toBe('one size for life.')
  expect(sayFile(fileFor(SPEC, 8000, 'largerThenSmaller'))).toBe(
    'still the larger: its bottom lies 4.4 mm below the top plate, about 4.9 mm above the tie strap by now.',
  )
  expect(sayFile(fileFor(SPEC, 2000, 'largerThenSmaller'))).toMatch(
    /^the smaller by now: 5\.5 mm would bite the tie strap/,
  )
})

const card = (loopId: string, place: Place, action: LoopCard['action'] = 'runOn') =>
  ({ loopId, place, action, sawId: place.at === 'saw' ? place.sawId : null }) as LoopCard
const moving = () => {
  let made = 0
  return { personId: null, at: '2026-03-01T12:00:00.000Z', newId: () => `id-${(made += 1)}` }
}

test('what is on the saw comes off first, what is at a shop comes back first', () => {
  const onIt = card('worn', { at: 'saw', sawId: 'bell' }, 'file')
  const away = card('away', { at: 'shop', shop: 'Quay works', sentAt: '', dueBackAt: null })
  const entries = entriesFor(
    away,
    { to: 'saw', sawId: 'bell', barFlipped: true, tensionChecked: false },
    onIt,
    moving(),
  )
  expect(entries.map(({ kind, loopId }) => [kind, loopId])).toEqual([
    ['takenOff', 'worn'],
    ['cameBack', 'away'],
    ['fitted', 'away'],
  ])
  expect(entries[0]).toMatchObject({ to: 'dullBox' })
  expect(entries[2]).toMatchObject({ sawId: 'bell', barFlipped: true, tensionChecked: false })
  const times = entries.map(({ happenedAt }) => happenedAt)
  expect([...times].sort()).toEqual(times)
  expect(new Set(times).size).toBe(3)
})

test('a shelf is reached by the entry that fits where the loop was', () => {
  const kindOf = (place: Place) =>
    entriesFor(card('one', place), { to: 'shelf', shelf: 'truck' }, undefined, moving())[0]?.kind
  expect(kindOf({ at: 'saw', sawId: 'bell' })).toBe('takenOff')
  expect(kindOf({ at: 'bench' })).toBe('moved')
  expect(kindOf({ at: 'shop', shop: 'x', sentAt: '', dueBackAt: null })).toBe('cameBack')
  expect(shelfFor({ action: 'runOn' })).toBe('sharpRack')
  expect(isAt(card('one', { at: 'truck' }), { to: 'shelf', shelf: 'truck' })).toBe(true)
  expect(isAt(card('one', { at: 'truck' }), { to: 'shelf', shelf: 'bench' })).toBe(false)
})
