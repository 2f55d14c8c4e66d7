/** What a column of a spreadsheet may hold. */
export const IMPORT_FIELDS = [
  'tag',
  'pitch',
  'gauge',
  'driveLinks',
  'cutterType',
  'sequence',
  'file',
  'newLength',
  'length',
  'saw',
  'place',
  'startMark',
  'note',
] as const

export type ImportField = (typeof IMPORT_FIELDS)[number]

export const IMPORT_FIELD_NAMES: Record<ImportField, string> = {
  tag: 'Tag',
  pitch: 'Pitch',
  gauge: 'Gauge',
  driveLinks: 'Drive links',
  cutterType: 'Cutter type',
  sequence: 'Sequence',
  file: 'File',
  newLength: 'Length when new',
  length: 'Length now',
  saw: 'Saw',
  place: 'Where it is',
  startMark: 'Start mark',
  note: 'Note',
}

/** Fields without which no row can become a loop. */
export const NEEDED_FIELDS: readonly ImportField[] = ['pitch', 'gauge', 'driveLinks']

/** Which column holds each field, from 0; a field without a column is left out. */
export type ColumnMatch = Partial<Record<ImportField, number>>

/** Words in a heading that point at a field, the surest first. */
const HINTS: readonly (readonly [ImportField, RegExp])[] = [
  ['driveLinks', /drive.?links?|\bdl\b|\blinks?\b/],
  ['startMark', /start.?mark|paint|colou?r/],
  ['newLength', /new.*(length|mm)|length.*new/],
  ['cutterType', /cutter.?type|chisel|\bcutter\b|\btype\b|tooth/],
  ['length', /length|cutter.*left|remaining|\bleft\b/],
  ['pitch', /pitch/],
  ['gauge', /gauge|groove|thick/],
  ['sequence', /sequence|skip|complement/],
  ['file', /\bfile\b|file.?(size|mm|diam)/],
  ['saw', /\bsaw\b|machine/],
  ['place', /place|where|location|status|stored/],
  ['note', /note|remark|comment/],
  ['tag', /\btag\b|\bid\b|\bno\.?$|number|\bloop\b|\bchain\b|name|label/],
]

/**
 * Which column most likely holds what, by its heading. A heading is used once.
 *
 * @example
 * guessColumns(['Chain no', 'Pitch', 'DL']) // { tag: 0, pitch: 1, driveLinks: 2 }
 */
export function guessColumns(headings: readonly string[]): ColumnMatch {
  const match: ColumnMatch = {}
  const used = new Set<number>()
  for (const [field, hint] of HINTS) {
    const column = headings.findIndex(
      (heading, i) => !used.has(i) && hint.test(heading.toLowerCase().replaceAll('_', ' ')),
    )
    if (column < 0) continue
    match[field] = column
    used.add(column)
  }
  return match
}
