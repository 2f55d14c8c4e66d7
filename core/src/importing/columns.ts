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
  'condition',
  'saw',
  'place',
  'startMark',
  'note',
  'note2',
  'note3',
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
  condition: 'New or used',
  saw: 'Saw',
  place: 'Where it is',
  startMark: 'Start mark',
  note: 'Note',
  note2: 'Another note',
  note3: 'A third note',
}

/** Fields without which no row can become a loop. */
export const NEEDED_FIELDS: readonly ImportField[] = ['pitch', 'gauge', 'driveLinks']

/** Which column holds each field, from 0; a field without a column is left out. */
export type ColumnMatch = Partial<Record<ImportField, number>>

/** What headings were matched to before, by {@link headingKey}; null where a column was left unused. */
export type RememberedColumns = Readonly<Record<string, ImportField | null>>

/** Words in a heading that point at a field, the surest first. */
const HINTS: readonly (readonly [ImportField, RegExp])[] = [
  ['driveLinks', /drive.?links?|\bdls?\b|\blinks?\b|drivers?/],
  ['startMark', /start.?mark|paint|colou?r/],
  ['newLength', /new.*(length|mm)|length.*new/],
  ['condition', /condition|new or used|new\/used|state|\bused\b|wear/],
  ['cutterType', /cutter.?type|chisel|\bcutters?$|\btype\b|tooth/],
  ['length', /length|\blen\b|cutter.*left|remaining|\bleft\b/],
  ['pitch', /pitch/],
  ['gauge', /gauge|\bga\b|groove|thick/],
  ['sequence', /sequence|skip|complement|\bcomp\b/],
  ['file', /\bfile\b|file.?(size|mm|diam)/],
  ['saw', /\bsaw\b|machine/],
  ['place', /place|where|location|status|stored|kept/],
  ['note', /note|remark|comment|history|damage/],
  ['note2', /note|remark|comment|history|damage/],
  ['note3', /note|remark|comment|history|damage/],
  ['tag', /\btag\b|\bid\b|\bno\.?$|^#$|number|\bloop\b|\bchain\b|name|label/],
]

/**
 * A heading as it is compared: without case, units in brackets and odd spaces.
 *
 * @example
 * headingKey('Cutter Length (mm)') // 'cutter length'
 */
export const headingKey = (heading: string): string =>
  heading
    .toLowerCase()
    .replaceAll('_', ' ')
    .replace(/[([][^)\]]*[)\]]/g, ' ')
    .replace(/\s+/g, ' ')
    .trim()

/** Units that headings name. */
export type HeadingUnit = 'mm' | 'in' | 'thou'

/**
 * The unit that a heading names for the figures below it; null where it names none.
 *
 * @example
 * headingUnit('Gauge (thou)') // 'thou'
 */
export function headingUnit(heading: string): HeadingUnit | null {
  const plain = heading.toLowerCase()
  if (/\bthou\b|thousandths|\bmils?\b/.test(plain)) return 'thou'
  if (/\bmm\b|millimet/.test(plain)) return 'mm'
  return /\binch(es)?\b|\bin\b\.?\)?$|[([]\s*(in|")\.?\s*[)\]]|″|"/.test(plain) ? 'in' : null
}

/**
 * Which column most likely holds what: as the same heading was matched before, then by the words in it. A heading
 * is used once.
 *
 * @param remembered how headings were matched in an earlier file
 * @example
 * guessColumns(['Chain no', 'Pitch', 'DL']) // { tag: 0, pitch: 1, driveLinks: 2 }
 */
export function guessColumns(headings: readonly string[], remembered: RememberedColumns = {}): ColumnMatch {
  const match: ColumnMatch = {}
  const used = new Set<number>()
  headings.forEach((heading, i) => {
    const field = remembered[headingKey(heading)]
    if (field === undefined) return
    if (field !== null && match[field] !== undefined) return
    if (field !== null) match[field] = i
    used.add(i)
  })
  for (const [field, hint] of HINTS) {
    if (match[field] !== undefined) continue
    const column = headings.findIndex(
      (heading, i) => !used.has(i) && (hint.test(headingKey(heading)) || hint.test(heading.toLowerCase())),
    )
    if (column < 0) continue
    match[field] = column
    used.add(column)
  }
  return match
}

/** Fields that a match lacks and no row can do without. */
export const missingFields = (match: ColumnMatch): ImportField[] =>
  NEEDED_FIELDS.filter((field) => match[field] === undefined)

/** Columns with a heading or a cell that nothing is taken from, as people name them: by heading, or by number. */
export function unusedColumns(headings: readonly string[], match: ColumnMatch): string[] {
  const used = new Set(Object.values(match))
  return headings.flatMap((heading, i) => (used.has(i) || heading.trim() === '' ? [] : [heading.trim()]))
}

/** What a match teaches for the next file. */
export const rememberColumns = (headings: readonly string[], match: ColumnMatch): RememberedColumns => {
  const fieldOf = new Map(Object.entries(match).map(([field, column]) => [column, field as ImportField]))
  return Object.fromEntries(
    headings.flatMap((heading, i) => {
      const key = headingKey(heading)
      return key === '' ? [] : [[key, fieldOf.get(i) ?? null] as const]
    }),
  )
}
