import { guessColumns, headingUnit, type RememberedColumns } from './columns'

/** Rows among which the headings are looked for: titles, dates and legends stand above them. Starting value. */
const LOOKED_AT = 30

/** Where the headings of a sheet are. */
export interface HeadingRow {
  /** The row of the headings, from 0. */
  readonly row: number
  /** How many fields they name. */
  readonly fields: number
}

/** Rows of a sheet, each with its cells as text. */
export type SheetRows = readonly (readonly string[])[]

/** Whether nothing stands in a row. */
export const isBlankRow = (cells: readonly string[]): boolean => cells.every((cell) => cell.trim() === '')

/**
 * The row that names most of what a loop has; the first that holds anything where none does.
 *
 * @example
 * findHeadings([['Our chains'], [], ['Tag', 'Pitch', 'DL']]) // { row: 2, fields: 3 }
 */
export function findHeadings(rows: SheetRows, remembered: RememberedColumns = {}): HeadingRow {
  let best: HeadingRow = {
    row: Math.max(
      0,
      rows.findIndex((cells) => !isBlankRow(cells)),
    ),
    fields: 0,
  }
  rows.slice(0, LOOKED_AT).forEach((cells, row) => {
    const fields = Object.keys(guessColumns(cells, remembered)).length
    if (fields > Math.max(1, best.fields)) best = { row, fields }
  })
  return best
}

const isUnit = (cell: string): boolean => cell.trim() === '' || headingUnit(`(${cell.trim()})`) !== null

/**
 * Headings with the units that a row of nothing but units gives below them.
 *
 * @returns the headings, and the first row below them that holds a loop, from 0
 * @example
 * withUnits([['Tag', 'Length'], ['', 'mm']], 0) // { headings: ['Tag', 'Length (mm)'], first: 2 }
 */
export function withUnits(rows: SheetRows, row: number): { readonly headings: string[]; readonly first: number } {
  const headings = [...(rows[row] ?? [])]
  const below = rows[row + 1] ?? []
  if (isBlankRow(below) || !below.every(isUnit)) return { headings, first: row + 1 }
  return {
    headings: headings.map((heading, i) => (below[i]?.trim() ? `${heading} (${below[i].trim()})` : heading)),
    first: row + 2,
  }
}

/** Whether a row says the headings once more, as long sheets do on each page. */
export function isHeadingAgain(cells: readonly string[], headings: readonly string[]): boolean {
  const said = cells.filter((cell) => cell.trim() !== '').length
  return said > 1 && cells.every((cell, i) => cell.trim() === '' || cell.trim() === headings[i]?.trim())
}
