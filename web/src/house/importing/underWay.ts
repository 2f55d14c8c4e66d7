import type { ColumnMatch, Mended } from '@undercliff/core'

/** An import that was begun: its file, and what was settled about it, so that leaving the page loses nothing. */
export interface ImportUnderWay {
  readonly file: File
  readonly sheet: number | null
  readonly headingRow: number | null
  readonly match: ColumnMatch
  readonly mended: Readonly<Record<number, Mended>>
}

let underWay: ImportUnderWay | null = null

/** What was begun in this page and not ended; a file cannot be kept beyond it. */
export const importUnderWay = (): ImportUnderWay | null => underWay
export const keepUnderWay = (is: ImportUnderWay | null): void => {
  underWay = is
}
