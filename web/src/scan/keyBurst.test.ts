import { expect, test } from 'vitest'
import { KeyBurst } from './keyBurst'

const typed = (burst: KeyBurst, text: string, stepMs: number, fromMs = 0): string[] => [...text, 'Enter'].map((key, i) => burst.take(key, fromMs + i * stepMs).kind)

test('a scanner is told by its prefix and its speed, in either case', () => {
  const burst = new KeyBurst('UC:')
  expect(typed(burst, 'UC:K3', 5)).toEqual(['typing', 'typing', 'prefix', 'scanning', 'scanning', 'code'])
  expect([...'uc:k3'].map((key, i) => burst.take(key, 1000 + i * 5).kind).at(-1)).toBe('scanning')
  expect(burst.take('Enter', 1030)).toEqual({ kind: 'code', text: 'uc:k3' })
})

test('hands are too slow to be a scanner, and other fast typing is none', () => {
  expect(typed(new KeyBurst('UC:'), 'UC:K3', 100)).not.toContain('code')
  expect(typed(new KeyBurst('UC:'), '6.75', 5)).toEqual(['typing', 'typing', 'typing', 'typing', 'typing'])
})

test('a key held for capitals and a caliper that typed just before do not spoil the code', () => {
  const burst = new KeyBurst('UC:')
  typed(burst, '6.7', 5)
  const keys = ['Shift', 'U', 'Shift', 'C', ':', 'K', '3', 'Enter']
  expect(keys.map((key, i) => burst.take(key, 25 + i * 5).kind).at(-1)).toBe('code')
})
