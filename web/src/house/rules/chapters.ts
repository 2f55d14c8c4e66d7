import type { Question } from '@undercliff/core'

/** A part of the house rules that is read, and changed, at one time. */
export type Chapter = 'prices' | 'limits' | 'has' | 'cutters' | 'gauges' | 'tools' | 'when'

/** In the order of the index: what is asked for first comes first. */
export const CHAPTERS: readonly {
  readonly id: Chapter
  readonly name: string
  readonly questions: readonly Question[]
}[] = [
  { id: 'prices', name: 'Prices', questions: [] },
  { id: 'limits', name: 'Limits', questions: [] },
  { id: 'has', name: 'What we have', questions: [] },
  { id: 'cutters', name: 'Cutters', questions: ['uneven', 'chisel', 'sidePlate'] },
  { id: 'gauges', name: 'Depth gauges', questions: ['gauges'] },
  { id: 'tools', name: 'File and wheel', questions: ['file', 'guide', 'bench'] },
  { id: 'when', name: 'When', questions: ['when'] },
]

const isChapter = (text: unknown): text is Chapter => CHAPTERS.some(({ id }) => id === text)

/**
 * The chapter that an address opens: the one it names, else that of the rule it points at, else the first.
 *
 * @example
 * chapterOf(undefined, '#q-when') // 'when'
 */
export function chapterOf(named: unknown, hash: string): Chapter {
  if (isChapter(named)) return named
  const question = hash.replace(/^#q-/, '')
  return CHAPTERS.find(({ questions }) => (questions as readonly string[]).includes(question))?.id ?? 'prices'
}
