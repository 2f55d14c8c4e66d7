import { guessColumns, planImport, type ColumnMatch, type ImportContext, type ImportPlan } from '@undercliff/core'
import { nanoid } from 'nanoid'
import Papa from 'papaparse'
import readXlsxFile from 'read-excel-file/web-worker'

/** What the page asks of the worker. Ending the worker cancels it. */
export type Ask =
  | { readonly ask: 'read'; readonly file: File }
  | {
      readonly ask: 'plan'
      readonly rows: readonly (readonly string[])[]
      readonly match: ColumnMatch
      readonly context: Omit<ImportContext, 'newId' | 'random'>
    }

/** What it answers. */
export type Told =
  | {
      readonly told: 'read'
      readonly headings: readonly string[]
      readonly rows: readonly (readonly string[])[]
      readonly match: ColumnMatch
    }
  | { readonly told: 'progress'; readonly done: number }
  | { readonly told: 'planned'; readonly plan: ImportPlan }
  | { readonly told: 'wrong'; readonly message: string }

const tell = (message: Told): void => {
  self.postMessage(message)
}
/** A cell as it would stand in a CSV file; what is neither text, number, truth value nor date is empty. */
function textOf(cell: unknown): string {
  if (cell instanceof Date) return cell.toISOString().slice(0, 10)
  return typeof cell === 'string' || typeof cell === 'number' || typeof cell === 'boolean' ? String(cell) : ''
}

async function readCells(file: File): Promise<string[][]> {
  const start = new Uint8Array(await file.slice(0, 4).arrayBuffer())
  // An XLSX file is a ZIP archive, whatever its name says.
  if (start[0] === 0x50 && start[1] === 0x4b) return (await readXlsxFile(file)).map((row) => row.map(textOf))
  if (start[0] === 0xd0 && start[1] === 0xcf)
    throw new Error('That is an old kind of spreadsheet. Save it as XLSX or CSV first.')
  const text = new TextDecoder('utf-8').decode(await file.arrayBuffer()).replace(/^\ufeff/, '')
  if (/\u0000/.test(text)) throw new Error('That is neither CSV nor XLSX.')
  const { data, errors } = Papa.parse<string[]>(text, { skipEmptyLines: false })
  const grave = errors.find(({ type }) => type === 'Quotes')
  if (grave !== undefined) throw new Error(`Row ${(grave.row ?? 0) + 1}: a quotation mark is not closed.`)
  return data
}

async function answer(ask: Ask): Promise<void> {
  if (ask.ask === 'read') {
    const cells = await readCells(ask.file)
    const [headings = [], ...rows] = cells
    if (headings.every((heading) => heading.trim() === ''))
      throw new Error('The first row has to hold the headings of the columns.')
    while (rows.length > 0 && rows.at(-1)?.every((cell) => cell.trim() === '') === true) rows.pop()
    if (rows.length === 0) throw new Error('There is no row below the headings.')
    tell({ told: 'read', headings, rows, match: guessColumns(headings) })
    return
  }
  const plan = planImport(ask.rows, ask.match, { ...ask.context, newId: nanoid, random: Math.random }, (done) => {
    tell({ told: 'progress', done })
  })
  tell({ told: 'planned', plan })
}

self.onmessage = ({ data }: MessageEvent<Ask>) => {
  answer(data).catch((error: unknown) => {
    tell({ told: 'wrong', message: error instanceof Error ? error.message : 'The file cannot be read.' })
  })
}
