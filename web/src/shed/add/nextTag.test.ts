import { expect, test } from 'vitest'
import { nextTag } from './nextTag'

test.each([
  ['K9', ['K9'], 'K10'],
  ['K9', ['K9', 'k10', 'K11'], 'K12'],
  ['OB-07', ['OB-07'], 'OB-08'],
  ['99', [], '100'],
  ['Blue', ['Blue'], ''],
  ['ABCDEFGHIJ99', [], ''],
])('after %s, with %j there, comes %s', (tag, taken, next) => {
  expect(nextTag(tag, taken)).toBe(next)
})
