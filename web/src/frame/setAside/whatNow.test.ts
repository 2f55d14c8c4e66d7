import { expect, test } from 'vitest'
import { whatNow } from './whatNow'

test('every refusal that others can bring about says what can be done about it', () => {
  // Whatever somebody else logged while this device was out of range.
  const byOthers = ['after-retirement', 'saw-occupied', 'at-a-shop', 'not-at-a-shop', 'saw-is-so']
  const said = [...byOthers, 'struck-out-already', 'does-not-fit', 'overrule-needed', 'unfit-stays-out'].map(whatNow)
  expect(new Set(said).size).toBe(said.length)
  for (const one of said) expect(one).not.toBe(whatNow('no-such-code'))
  // What is not fit is never talked back onto a saw.
  expect(whatNow('unfit-stays-out')).toContain('do not cut with it')
  expect(whatNow(undefined)).toBe('Put right what it says and send it again, or throw it away.')
})
