import { expect, test } from 'vitest'
import { readCutterNumbers } from './cutterNumbers'

test('runs and single numbers, each once, in order', () => {
  expect(readCutterNumbers('12, 5-7 6', 36)).toEqual([5, 6, 7, 12])
})

test.each([
  ['', 'Name the cutters, such as 5-9, 12.'],
  ['5-x', '"5-x" is not a cutter number. Write them like 5-9, 12.'],
  ['9-5', '"9-5" does not run upward from 1.'],
  ['0', '"0" does not run upward from 1.'],
  ['36-40', 'There is no cutter 40: this loop has 36.'],
])('%s is refused', (text, said) => {
  expect(readCutterNumbers(text, 36)).toBe(said)
})
