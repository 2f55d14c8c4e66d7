import { expect, test } from 'vitest'
import { inTheirOrder, readCutterNumbers, sayRun } from './cutterNumbers'

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

test('a run past the joint is in the order in which it met the stone, and is written so', () => {
  expect(inTheirOrder([1, 2, 35, 36], 36)).toEqual([35, 36, 1, 2])
  expect(inTheirOrder([5, 6, 9], 36)).toEqual([5, 6, 9])
  expect(inTheirOrder([1, 2, 3], 3)).toEqual([1, 2, 3])
  expect(sayRun([35, 36, 1, 2])).toBe('35-36, 1-2')
  expect(sayRun([4, 7, 8])).toBe('4, 7-8')
  expect(sayRun([])).toBe('')
})
