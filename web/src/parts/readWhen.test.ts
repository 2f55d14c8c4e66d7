import { expect, test } from 'vitest'
import { sayMoment, type DateOrder } from '@undercliff/core'
import { readWhen } from './readWhen'

const NOW = new Date(2026, 10, 26, 16, 20)
const read = (text: string, order: DateOrder = 'dayFirst'): string => {
  const at = readWhen(text, order, NOW)
  return at === null ? 'none' : sayMoment(at, 'dayFirst')
}

test.each([
  ['14:30', 'Thu, 26 Nov 2026, 14:30'],
  ['2:30 pm', 'Thu, 26 Nov 2026, 14:30'],
  ['yesterday 15:00', 'Wed, 25 Nov 2026, 15:00'],
  ['yesterday', 'Wed, 25 Nov 2026, 12:00'],
  ['today', 'Thu, 26 Nov 2026, 16:20'],
  ['24.11. 14:30', 'Tue, 24 Nov 2026, 14:30'],
  ['24/11/26', 'Tue, 24 Nov 2026, 12:00'],
  ['24 Nov', 'Tue, 24 Nov 2026, 12:00'],
  ['November 24, 2026 9:05', 'Tue, 24 Nov 2026, 09:05'],
  ['2026-11-24T14:30', 'Tue, 24 Nov 2026, 14:30'],
  // A day that is still to come this year was last year.
  ['24.12.', 'Wed, 24 Dec 2025, 12:00'],
])('%s is read', (text, said) => {
  expect(read(text)).toBe(said)
})

test('a crew that writes the month first is read so', () => {
  expect(read('3/4', 'monthFirst')).toBe('Wed, 4 Mar 2026, 12:00')
  expect(read('3/4', 'dayFirst')).toBe('Fri, 3 Apr 2026, 12:00')
})

test.each(['', 'soon', '31.2.', '24/13', '25:00', '12:75', 'Nov'])('"%s" is no moment', (text) => {
  expect(read(text)).toBe('none')
})
