import { expect, test } from 'vitest'
import { LOOKS } from '../log'
import { lookCaution, lookHow } from '.'

test.each(LOOKS)('a hand goes near the chain for a look only with the engine off: %s', (look) => {
  const [caution, how] = [lookCaution(look), lookHow(look)]
  // Thinking of the wood touches nothing.
  if (look === 'work') {
    expect(caution).toBeNull()
    return
  }
  // Oil shows only while it runs: both hands are on it then, and the hole is looked at afterwards.
  if (look === 'oil') {
    expect(caution).toMatch(/both hands on it.*nobody near/)
    expect(how).toMatch(/engine off: is the hole/)
    return
  }
  expect(caution).toMatch(/^Engine off and cold or battery out, gloves on\./)
  // What is said twice, or against itself, is not read.
  expect(how).not.toMatch(/engine|gloves/i)
})

test('a bar that was turned over runs again only with its cover on and the tension right', () => {
  expect(lookHow('turnBar')).toContain('cut again')
  expect(lookCaution('turnBar')).toMatch(/tension is right and the cover on before it runs/)
})
