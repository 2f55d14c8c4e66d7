import { expect, test } from 'vitest'
import { readAngle } from './readAngle'

test.each([
  ['32°', 32],
  ['32.5 °', 32.5],
  ['30,5deg', 30.5],
  ['25 degrees', 25],
  ['10 d', 10],
])('%s is an angle wherever it is typed', (text, deg) => {
  expect(readAngle(text)).toBe(deg)
})

test('a bare number is one only where an angle was asked for', () => {
  expect(readAngle('32')).toBeNull()
  expect(readAngle('32', true)).toBe(32)
})

test.each(['', 'steep', '95°', '6.25', '3/8', '32 mm', '-5°'])('%s is none', (text) => {
  expect(readAngle(text)).toBeNull()
  expect(readAngle(text, true)).toBeNull()
})
