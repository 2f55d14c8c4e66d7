import { expect, test } from 'vitest'
import { sayLearnedFrom } from './removal'

test('what a sharpening takes off is known from the loop, from those before it, or by common practice', () => {
  expect(sayLearnedFrom({ own: 2 }, { beganWith: 'crew' })).toBe('2 of its own measured')
  expect(sayLearnedFrom({ own: 0 }, { beganWith: 'crew' })).toBe(
    'as on the crew’s loops before it, none of its own measured',
  )
  expect(sayLearnedFrom({ own: 0 }, { beganWith: 'commonPractice' })).toBe('common practice, none of its own measured')
})
