import { expect, test } from 'vitest'
import { entriesFor, isAt, shelfFor } from './entriesFor'
import type { LoopCard, Place } from '@undercliff/core'

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
  expect(entries[2]).not.toHaveProperty('offTo')
  // Somebody said where it goes instead.
  const told = { to: 'saw', sawId: 'bell', barFlipped: true, tensionChecked: false, offTo: 'truck' } as const
  expect(entriesFor(away, told, onIt, moving())[0]).toMatchObject({ kind: 'takenOff', to: 'truck' })
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
