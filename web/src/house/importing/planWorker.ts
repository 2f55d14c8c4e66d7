import {
  findHeadings,
  guessColumns,
  isBlankRow,
  planImport,
  withUnits,
  type ColumnMatch,
  type ImportContext,
  type ImportPlan,
  type RememberedColumns,
} from '@undercliff/core'
import { nanoid } from 'nanoid'
import { readSheets, type Sheet } from './readSheets'

/** What the page asks of the worker, which keeps the file that it has read. Ending the worker cancels it. */
export type Ask =
  | { readonly ask: 'read'; readonly file: File; readonly remembered: RememberedColumns }
  | {
      readonly ask: 'sheet'
      readonly sheet: number
      readonly row: number | null
      readonly remembered: RememberedColumns
    }
  | {
      readonly ask: 'plan'
      readonly match: ColumnMatch
      readonly context: Omit<ImportContext, 'newId' | 'random' | 'headings' | 'firstRow' | 'hiddenRows'>
    }

/** A sheet as it is laid out. */
export interface LaidOut {
  readonly sheets: readonly string[]
  readonly sheet: number
  readonly headings: readonly string[]
  /** Number of the row of the headings, from 1. */
  readonly headingRow: number
  /** How many rows there are below them. */
  readonly rows: number
  /** The first few of those, to show what a column holds. */
  readonly samples: readonly (readonly string[])[]
  readonly match: ColumnMatch
}

/** What it answers. */
export type Told =
  | { readonly told: 'read'; readonly laidOut: LaidOut }
  | { readonly told: 'progress'; readonly done: number }
  | { readonly told: 'planned'; readonly plan: ImportPlan }
  | { readonly told: 'wrong'; readonly message: string }

const SAMPLES = 12

const tell = (message: Told): void => {
  self.postMessage(message)
}

let sheets: Sheet[] = []
let open: {
  headings: string[]
  first: number
  rows: readonly (readonly string[])[]
  hidden: readonly number[]
} | null = null

/** Lays a sheet out, with its headings where somebody said or where most of them are named. */
function layOut(sheet: number, row: number | null, remembered: RememberedColumns): LaidOut {
  const { rows: all = [], hiddenRows = [] } = sheets[sheet] ?? {}
  const headingRow = row ?? findHeadings(all, remembered).row
  const { headings, first } = withUnits(all, headingRow)
  if (isBlankRow(headings)) throw new Error('There are no headings: a row has to name the columns.')
  const last = all.findLastIndex((cells) => !isBlankRow(cells))
  const rows = all.slice(first, last + 1)
  if (rows.length === 0) throw new Error('There is no row below the headings.')
  open = { headings, first, rows, hidden: hiddenRows }
  return {
    sheets: sheets.map(({ name }) => name),
    sheet,
    headings,
    headingRow: headingRow + 1,
    rows: rows.length,
    samples: rows.filter((cells) => !isBlankRow(cells)).slice(0, SAMPLES),
    match: guessColumns(headings, remembered),
  }
}

async function answer(ask: Ask): Promise<void> {
  switch (ask.ask) {
    case 'read': {
      sheets = await readSheets(ask.file)
      const fields = sheets.map(({ rows }) => findHeadings(rows, ask.remembered).fields)
      tell({ told: 'read', laidOut: layOut(fields.indexOf(Math.max(...fields)), null, ask.remembered) })
      return
    }
    case 'sheet':
      tell({ told: 'read', laidOut: layOut(ask.sheet, ask.row, ask.remembered) })
      return
    case 'plan': {
      if (open === null) throw new Error('The file has to be opened again.')
      const { headings, first, rows, hidden } = open
      const context = { ...ask.context, headings, firstRow: first + 1, hiddenRows: hidden }
      const plan = planImport(rows, ask.match, { ...context, newId: nanoid, random: Math.random }, (done) => {
        tell({ told: 'progress', done })
      })
      tell({ told: 'planned', plan })
    }
  }
}

self.onmessage = ({ data }: MessageEvent<Ask>) => {
  answer(data).catch((error: unknown) => {
    tell({ told: 'wrong', message: error instanceof Error ? error.message : 'The file cannot be read.' })
  })
}
