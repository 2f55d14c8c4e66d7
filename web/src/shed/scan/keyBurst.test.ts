import { expect, test } from 'vitest'
import { KeyBurst, type Outcome } from './keyBurst'

const typed = (burst: KeyBurst, text: string, stepMs: number, fromMs = 0): Outcome[] =>
  [...Array.from(text), 'Enter'].map((key, i) => burst.take(key, fromMs + i * stepMs))
const kinds = (outcomes: readonly Outcome[]): string[] => outcomes.map(({ kind }) => kind)

test('a scanner is told by how its code begins and by its speed, in either case', () => {
  const burst = new KeyBurst('QUC')
  expect(kinds(typed(burst, 'QUCK3', 5))).toEqual(['typing', 'typing', 'scanning', 'scanning', 'scanning', 'code'])
  expect(typed(burst, 'quck3', 5, 1000).at(-1)).toEqual({ kind: 'code', text: 'quck3' })
})

test('hands are too slow to be a scanner, and other fast typing is none', () => {
  expect(kinds(typed(new KeyBurst('QUC'), 'QUCK3', 90))).not.toContain('scanning')
  expect(kinds(typed(new KeyBurst('QUC'), 'quarry', 20))).not.toContain('scanning')
  expect(kinds(typed(new KeyBurst('QUC'), '6.75', 5))).toEqual(['typing', 'typing', 'typing', 'typing', 'typing'])
})

test('a key held for capitals and a caliper that typed just before do not spoil the code', () => {
  const burst = new KeyBurst('QUC')
  typed(burst, '6.7', 5)
  const keys = ['Shift', 'Q', 'Shift', 'U', 'C', 'K', '3', 'Enter']
  expect(keys.map((key, i) => burst.take(key, 25 + i * 5)).at(-1)).toEqual({ kind: 'code', text: 'QUCK3' })
})
