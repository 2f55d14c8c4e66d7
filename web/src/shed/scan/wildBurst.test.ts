import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { WildBurst, type Caught } from './wildBurst'

const given = vi.fn<(keys: readonly string[]) => void>()
const named = vi.fn<(text: string) => void>()
const press = (burst: WildBurst<string>, key: string): Caught => burst.take(key, key, Date.now())
const type = (burst: WildBurst<string>, text: string, apartMs: number): Caught[] =>
  Array.from(text, (key) => {
    const caught = press(burst, key)
    vi.advanceTimersByTime(apartMs)
    return caught
  })
beforeEach(() => {
  vi.useFakeTimers()
  given.mockReset()
  named.mockReset()
})
afterEach(() => {
  vi.useRealTimers()
})

test.each(['5012345678900', 'https://somewhere', 'sbsu', 'ab 12 cd'])(
  'what types by itself does nothing and is named: %s',
  (code) => {
    const burst = new WildBurst(given, named)
    expect(new Set(type(burst, code, 8))).toEqual(new Set(['held']))
    expect(press(burst, 'Enter')).toBe('ended')
    expect(named).toHaveBeenCalledExactlyOnceWith(code)
    expect(given).not.toHaveBeenCalled()
  },
)

test('one that ends without Enter is named as well', () => {
  type(new WildBurst(given, named), '501234', 8)
  vi.advanceTimersByTime(100)
  expect(named).toHaveBeenCalledExactlyOnceWith('501234')
})

test('keys of a hand come through in their order, a roll of the fingers too', () => {
  const burst = new WildBurst(given, named)
  type(burst, 'ss', 120)
  type(burst, 'gub', 10)
  vi.advanceTimersByTime(100)
  expect(given.mock.calls).toEqual([[['s']], [['s']], [['g', 'u', 'b']]])
  expect(named).not.toHaveBeenCalled()
})

test('Enter, the space bar and arrows wait for nothing; what waits goes first', () => {
  const burst = new WildBurst(given, named)
  expect([' ', 'ArrowDown', 'Enter', 'PageDown'].map((key) => press(burst, key))).toEqual(new Array(4).fill('through'))
  for (const key of ['Enter', 'ArrowDown']) {
    given.mockReset()
    press(burst, 's')
    expect(press(burst, key)).toBe('through')
    expect(given).toHaveBeenCalledExactlyOnceWith(['s'])
  }
})

test('keys of a hand that a busy page comes to all at once are still a hand’s', () => {
  const burst = new WildBurst(given, named)
  Array.from('sgub').forEach((key, i) => burst.take(key, key, 150 * i))
  vi.advanceTimersByTime(100)
  expect(given.mock.calls).toEqual([[['s']], [['g']], [['u']], [['b']]])
  expect(named).not.toHaveBeenCalled()
})

test('the beginning of a tag of ours is dropped', () => {
  const burst = new WildBurst(given, named)
  type(burst, 'QU', 5)
  burst.drop()
  vi.advanceTimersByTime(100)
  expect(given).not.toHaveBeenCalled()
  expect(named).not.toHaveBeenCalled()
})
