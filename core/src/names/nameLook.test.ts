import { expect, test } from 'vitest'
import { nameLook } from './nameLook'

test.each([
  ['Zoë', 'ZOE', 'case and accents'],
  ['Great Tern', 'great\u00a0 tern', 'a blank that does not break, and two of them'],
  ['Ａda', 'Ada', 'letters of full width'],
  ['Maren', 'Mаrеn', 'letters of another alphabet that are drawn alike'],
  ['ΤΕΡ', 'TEP', 'a whole name in another alphabet'],
  ['Straße', 'STRASSE', 'one letter for two'],
  ['Søren', 'Soren', 'a letter that has no mark to take off'],
  ['Ada\u00ad', 'Ada\u200b', 'what cannot be seen'],
])('%j and %j look alike: %s', (one, other) => {
  expect(nameLook(one)).toBe(nameLook(other))
})

test.each([
  ['Ada', 'Adam'],
  ['W1', 'W2'],
  ['Tern', 'Tern 2'],
  ['Жанна', 'Zanna'],
  ['K1', 'KI'],
])('%j and %j are two names', (one, other) => {
  expect(nameLook(one)).not.toBe(nameLook(other))
})

test('a name looks like itself, and so does what it looks like', () => {
  for (const name of ['Great Tern', 'Müller 1', 'Åsa', 'Ελένη']) expect(nameLook(nameLook(name))).toBe(nameLook(name))
})
