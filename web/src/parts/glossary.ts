import source from '../../../docs/help/learn/glossary.md?raw'

/** A word of the trade, or of ours, with what it means. */
interface GlossaryWord {
  readonly word: string
  readonly meaning: string
  /** Where it stands on the page of words. */
  readonly id: string
}
export interface GlossaryChapter {
  readonly name: string
  readonly words: readonly GlossaryWord[]
}

/** Where a word stands on its page: `word-dirty-duty`. */
const idOf = (word: string): string => `word-${word.toLowerCase().replace(/[^a-z]+/g, '-')}`

/**
 * Chapters and words of a page of markdown: `## chapter`, then `- **word**: meaning`.
 *
 * @throws Error where a line is neither, so that no word is left out in silence
 */
export function readGlossary(text: string): GlossaryChapter[] {
  const chapters: { name: string; words: GlossaryWord[] }[] = []
  for (const line of text.split('\n')) {
    if (line.trim() === '' || line.startsWith('# ')) continue
    if (line.startsWith('## ')) {
      chapters.push({ name: line.slice(3), words: [] })
      continue
    }
    const [, word, meaning] = /^- \*\*(.+?)\*\*: (.+)$/.exec(line) ?? []
    const chapter = chapters.at(-1)
    if (word === undefined || meaning === undefined || chapter === undefined)
      throw new Error(`no word of the glossary: ${line}`)
    chapter.words.push({ word, meaning, id: idOf(word) })
  }
  return chapters
}

export const GLOSSARY: readonly GlossaryChapter[] = readGlossary(source)
