import { expect, test } from 'vitest'
import { fileFor } from '../geometry'
import { specFromProfile } from '../profile'
import type { Place } from '../state'
import { sayMoment } from './dates'
import { nameFile, sayFile } from './file'
import { onShelf, placeWord, sayPlace } from './places'

const SPEC = specFromProfile({ pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72, cutterType: 'semiChisel' })

test('places are said as a crew says them', () => {
  const say = (place: Place): string => sayPlace(place, () => 'Bellwether')
  expect(say({ at: 'saw', sawId: 'any-saw' })).toBe('On Bellwether')
  expect(say({ at: 'dullBox' })).toBe('In the dull box')
  expect(say({ at: 'truck' })).toBe('On the truck')
  expect(say({ at: 'sharpRack' })).toBe('On the sharp rack')
  expect(say({ at: 'bench' })).toBe('On the bench')
  expect(say({ at: 'retired' })).toBe('Retired')
  expect(say({ at: 'shop', shop: 'Quay works', sentAt: '2026-03-01T12:00:00.000Z', dueBackAt: null })).toBe(
    'At Quay works since 1 Mar',
  )
  expect(
    say({ at: 'shop', shop: 'Quay works', sentAt: '2026-03-01T12:00:00.000Z', dueBackAt: '2026-03-06T12:00:00.000Z' }),
  ).toBe('At Quay works since 1 Mar, due back 6 Mar')
})

test('the file is named with why', () => {
  expect(sayFile(fileFor(SPEC, 8000, 'oneSize'))).toBe('one size for life.')
  // A tenth of a millimetre is as fine as a height that is worked out can be told.
  expect(sayFile(fileFor(SPEC, 2000, 'largerThenSmaller'))).toMatch(/: 5\.5 mm would bite .*, about \d\.\d mm below/)
  expect(sayFile(fileFor(SPEC, 8000, 'largerThenSmaller'))).toBe(
    'still the larger: its bottom lies 4.4 mm below the top plate, about 4.9 mm above the tie strap by now.',
  )
  expect(sayFile(fileFor(SPEC, 2000, 'largerThenSmaller'))).toMatch(
    /^the smaller by now: 5\.5 mm would bite the tie strap/,
  )
})

test('a loop lies in a box, and on everything else', () => {
  expect(onShelf('dullBox')).toBe('in the dull box')
  expect(onShelf('sharpRack')).toBe('on the sharp rack')
})

test('a day is written as the crew writes it', () => {
  const away: Place = {
    ...{ at: 'shop', shop: 'a shop', work: 'sharpen', sentAt: '2026-11-24T00:00:00.000Z', dueBackAt: null },
  }
  expect(sayPlace(away, () => '', 'monthFirst')).toBe('At a shop since Nov 24')
  expect(sayPlace(away, () => '', 'yearFirst')).toBe('At a shop since 2026-11-24')
  expect(sayMoment(new Date(2026, 10, 24, 14, 30), 'monthFirst')).toMatch(/^Tue, Nov 24, 2026, 2:30\sPM$/)
})

test('a place in a word, for lists and search', () => {
  expect((['saw', 'shop', 'retired', 'truck', 'dullBox'] as const).map((at) => placeWord({ at }))).toEqual([
    'saw',
    'shop',
    'retired',
    'truck',
    'dull box',
  ])
})

test('a file named for the loop, or one for life, is said to be held high where it would not clear', () => {
  const own = { ...SPEC, fileUm: 6400, origins: { fileUm: 'box' } } as const
  expect(sayFile(fileFor({ ...own, fileUm: 5000 }, 8000, 'oneSize'))).toBe('named for this loop.')
  expect(sayFile(fileFor({ ...own, fileUm: 4000 }, 8000, 'oneSize'))).toMatch(
    /^named for this loop\. Smaller than any file for this pitch/,
  )
  expect(sayFile(fileFor(own, 8000, 'oneSize'))).toContain('Larger than any file for this pitch')
  expect(sayFile(fileFor(own, 1000, 'oneSize'))).toMatch(/^named for this loop; hold it high, its bottom lies/)
  const choice = { fileUm: 5200, bottomUm: 4160, heightUm: 4000, otherUm: null, fit: 'fits' } as const
  expect(sayFile({ ...choice, reason: 'oneSize', clears: false })).toMatch(/^one size for life; hold it high/)
  expect(sayFile({ ...choice, reason: 'largerBites', clears: true })).toBe('the smaller by now.')
})

test('square-ground chisel names its own tools, and never a round file', () => {
  const choice = fileFor({ ...SPEC, cutterType: 'squareGround' }, 7000, 'oneSize')
  expect(choice.reason).toBe('squareGround')
  expect(nameFile(choice)).toBe('bevelled')
  expect(sayFile(choice)).toMatch(/shaped wheel, never a round file; .* 5° forward/)
  expect(nameFile(fileFor(SPEC, 7000, 'oneSize'))).toBe('5.2 mm (13/64")')
})
