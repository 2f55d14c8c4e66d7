import { setImmediate } from 'node:timers/promises'
import { describe, expect, test } from 'vitest'
import { Turns } from './turns'

/** Work that ends when it is told to, and who has begun so far. */
function bench(turns: Turns) {
  const begun: string[] = []
  const ends = new Map<string, () => void>()
  const want = (who: string, name: string): Promise<string> =>
    turns.run(who, async () => {
      begun.push(name)
      await new Promise<void>((end) => ends.set(name, end))
      return name
    })
  const end = async (name: string): Promise<void> => {
    ends.get(name)?.()
    await setImmediate()
  }
  return { begun, want, end }
}

describe('turns', () => {
  test('one who wants much has a part of it, and somebody else begins at once', async () => {
    const { begun, want, end } = bench(new Turns(2, 1))
    for (const name of ['a1', 'a2', 'a3']) void want('a', name)
    void want('b', 'b1')
    await setImmediate()
    expect(begun).toEqual(['a1', 'b1'])
    await end('b1')
    expect(begun).toEqual(['a1', 'b1'])
    await end('a1')
    expect(begun).toEqual(['a1', 'b1', 'a2'])
  })

  test('one at a time, people take turns, whoever asked for how much first', async () => {
    const { begun, want, end } = bench(new Turns(1, 1))
    for (const name of ['a1', 'a2', 'a3']) void want('a', name)
    void want('b', 'b1')
    void want('c', 'c1')
    void want('b', 'b2')
    await setImmediate()
    for (const name of ['a1', 'a2', 'b1', 'c1', 'a3', 'b2']) await end(name)
    expect(begun).toEqual(['a1', 'a2', 'b1', 'c1', 'a3', 'b2'])
  })

  test('what fails gives its turn up, and is told so', async () => {
    const turns = new Turns(1, 1)
    await expect(turns.run('a', () => Promise.reject(new Error('no')))).rejects.toThrow('no')
    expect(await turns.run('b', () => Promise.resolve('yes'))).toBe('yes')
  })
})
