import { QUESTIONS } from '@undercliff/core'
import { expect, test } from 'vitest'
import { chapterOf, CHAPTERS } from './chapters'

test('every question of the house rules is in one chapter, prices come first', () => {
  expect(CHAPTERS.flatMap(({ questions }) => questions).sort()).toEqual([...QUESTIONS].sort())
  expect(CHAPTERS[0]?.id).toBe('prices')
})

test('an address opens the chapter that it names, or that of the rule it points at', () => {
  expect([chapterOf('gauges', ''), chapterOf('nothing', ''), chapterOf(undefined, '#q-file')]).toEqual([
    ...['gauges', 'prices', 'tools'],
  ])
})
