import { expect, test } from 'vitest'
import { helpOf } from './help/pages'
import { PLACES, SCREENS, titleOf, type ScreenName } from './places'

const NAMES = Object.keys(SCREENS) as ScreenName[]

test('every screen but an address of nothing has a page of help, and none quotes what does not exist', () => {
  const without = NAMES.filter((name) => name !== 'nowhere' && helpOf(name) === null)
  expect(without).toEqual([])
  expect(helpOf('measure')).toContain('<p>')
  expect(helpOf('nowhere')).toBeNull()
})

test('every place opens a screen of its own, under a key of its own', () => {
  for (const place of PLACES) expect(SCREENS[place.opens].place, place.name).toBe(place.id)
  expect(new Set(PLACES.map(({ key }) => key)).size).toBe(PLACES.length)
})

test('a page is called by what it is about', () => {
  expect(titleOf({ name: 'shed', params: {} })).toBe('Shed')
  expect(titleOf({ name: 'loop', params: { tag: 'K3' } })).toBe('K3')
  expect(titleOf({ name: 'measure', params: { tag: 'K3' } })).toBe('K3 · Measure')
  expect(titleOf({ name: 'saw', params: { nickname: 'Great Tern' } })).toBe('Great Tern')
})
