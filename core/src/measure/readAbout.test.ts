import { expect, test } from 'vitest'
import { readAbout } from './readAbout'

const OF = { newUm: 8000, markUm: 0, bare: 'mm' } as const

test.each([
  ['4.0', 4000, null],
  ['half', 4000, 1000],
  ['about a quarter', 2000, 1000],
  ['~3', 3000, 500],
  ['~ 3.5', 3500, 50],
  ['about 3,5 mm', 3500, 50],
  ['4-5', 4500, 500],
  ['4 to 5 mm', 4500, 500],
  ['4–5', 4500, 500],
  ['50 %', 4000, 800],
  ['50%', 4000, 800],
])('what people write of a used loop is understood, with its width: %s', (text, um, withinUm) => {
  expect(readAbout(text, OF)).toEqual({ ok: true, um, withinUm })
})

test('a part is one of what may be lost above the mark', () => {
  expect(readAbout('half', { newUm: 10_000, markUm: 4000, bare: 'mm' })).toMatchObject({ um: 7000 })
})

test('inches are inches', () => {
  expect(readAbout('~0.2', { ...OF, bare: 'inch' })).toEqual({ ok: true, um: 5080, withinUm: 1270 })
  expect(readAbout('0.1-0.2 in', OF)).toEqual({ ok: true, um: 3810, withinUm: 1270 })
})

test.each(['abc', '5-4', '150 %', 'a bit', '4..5..6', '-', '%'])('what cannot be read is said: %s', (text) => {
  const read = readAbout(text, OF)
  expect(read.ok).toBe(false)
  expect(read.ok ? '' : read.message).not.toBe('')
})
