import { expect, test } from 'vitest'
import { GLOSSARY, readGlossary } from './glossary'

test('a page of words is read by chapter, and a line that is no word is told', () => {
  expect(readGlossary('# Words\n\n## The chain\n\n- **dirty duty**: kept for stumps.\n')).toEqual([
    { name: 'The chain', words: [{ word: 'dirty duty', meaning: 'kept for stumps.', id: 'word-dirty-duty' }] },
  ])
  expect(() => readGlossary('## The chain\n- loop: one closed chain')).toThrow('no word of the glossary')
  expect(() => readGlossary('- **loop**: before any chapter')).toThrow('no word of the glossary')
})

test('one word, one thing: none stands there twice, and gauge and depth gauge are told apart', () => {
  const words = GLOSSARY.flatMap((chapter) => chapter.words)
  expect(new Set(words.map(({ id }) => id)).size).toBe(words.length)
  const meaning = (wanted: string) => words.find(({ word }) => word === wanted)?.meaning
  expect(meaning('gauge')).toMatch(/drive link/)
  expect(meaning('depth gauge')).toMatch(/hump/)
})
