import Papa from 'papaparse'

/** A sheet of a file, every cell as text, blank rows in their places. */
export interface Sheet {
  readonly name: string
  readonly rows: readonly (readonly string[])[]
  /** Numbers, from 1, of the rows that it hides. */
  readonly hiddenRows: readonly number[]
}

/** More columns than this hold no loops: a sheet that has them is of something else. Starting value. */
const MOST_COLUMNS = 500

class TooWide extends Error {
  constructor(columns: number) {
    super(`That sheet has ${columns} columns; at most ${MOST_COLUMNS} are read. Leave out what says nothing of a loop.`)
  }
}

type Plain = string | number | boolean | Date
interface Rich {
  readonly richText?: readonly { readonly text: string }[]
  readonly text?: unknown
  readonly result?: unknown
  readonly error?: string
}

/** A cell as it would stand in a CSV file: of a formula what came of it, of a link its words. */
function textOf(cell: unknown): string {
  if (cell instanceof Date) return Number.isNaN(cell.getTime()) ? '' : cell.toISOString().slice(0, 10)
  if (typeof cell === 'number') return String(Number(cell.toPrecision(12)))
  if (typeof cell === 'string' || typeof cell === 'boolean') return String(cell satisfies Plain)
  if (typeof cell !== 'object' || cell === null) return ''
  const { richText, text, result, error } = cell as Rich
  if (error !== undefined) return error
  if (richText !== undefined) return richText.map((part) => part.text).join('')
  // A formula that was saved without what it comes to: it is asked about, and not taken for an empty cell.
  if (result === undefined && text === undefined && ('formula' in cell || 'sharedFormula' in cell)) return '#FORMULA'
  return textOf(result ?? text)
}

async function workbook(file: File): Promise<Sheet[]> {
  const { default: Excel } = await import('exceljs')
  const bytes = await file.arrayBuffer()
  const read = async (from: ArrayBuffer) => {
    const book = new Excel.Workbook()
    await book.xlsx.load(from)
    return book
  }
  // Most programs say where each cell stands; one that does not is within its rights.
  const book = await read(bytes).catch(async () => {
    const { workbookWithAddresses } = await import('./cellAddresses')
    return read(await workbookWithAddresses(bytes))
  })
  return book.worksheets
    .filter(({ state }) => state === 'visible')
    .map((sheet) => {
      const rows: (string[] | undefined)[] = []
      const hiddenRows: number[] = []
      // Every cell of a merged range has what its first cell says.
      sheet.eachRow({ includeEmpty: true }, (row, number) => {
        const cells: string[] = []
        row.eachCell((cell, column) => {
          const text = textOf(cell.value)
          if (text.trim() === '') return
          if (column > MOST_COLUMNS) throw new TooWide(column)
          while (cells.length < column - 1) cells.push('')
          cells[column - 1] = text
        })
        rows[number - 1] = cells
        if (row.hidden && cells.some((cell) => cell.trim() !== '')) hiddenRows.push(number)
      })
      return { name: sheet.name, rows: Array.from(rows, (cells) => cells ?? []), hiddenRows }
    })
}

/** Text as it was saved: UTF-8, or else the code page that older spreadsheets write. */
function decoded(bytes: ArrayBuffer): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    return new TextDecoder('windows-1252').decode(bytes)
  }
}

/**
 * The sheets of a CSV or XLSX file.
 *
 * @throws Error in words where it is neither, or cannot be read
 */
export async function readSheets(file: File): Promise<Sheet[]> {
  const start = new Uint8Array(await file.slice(0, 4).arrayBuffer())
  // An XLSX file is a ZIP archive, whatever its name says.
  if (start[0] === 0x50 && start[1] === 0x4b) {
    const sheets = await workbook(file).catch((error: unknown) => {
      if (error instanceof TooWide) throw error
      throw new Error('That spreadsheet is damaged, or is no XLSX. Save it once more as XLSX or CSV.')
    })
    if (sheets.length === 0) throw new Error('That spreadsheet has no sheet to be seen.')
    return sheets
  }
  if (start[0] === 0xd0 && start[1] === 0xcf)
    throw new Error('That is an old kind of spreadsheet. Save it as XLSX or CSV first.')
  const text = decoded(await file.arrayBuffer()).replace(/^\ufeff/, '')
  if (/\u0000/.test(text)) throw new Error('That is neither CSV nor XLSX.')
  const { data, errors } = Papa.parse<string[]>(text, { skipEmptyLines: false })
  const grave = errors.find(({ type }) => type === 'Quotes')
  if (grave !== undefined) throw new Error(`Row ${(grave.row ?? 0) + 1}: a quotation mark is not closed.`)
  const widest = data.reduce((most, cells) => Math.max(most, cells.length), 0)
  if (widest > MOST_COLUMNS) {
    const last = data.reduce((most, cells) => Math.max(most, 1 + cells.findLastIndex((cell) => cell.trim() !== '')), 0)
    if (last > MOST_COLUMNS) throw new TooWide(last)
  }
  return [{ name: file.name, rows: data.map((cells) => cells.slice(0, MOST_COLUMNS)), hiddenRows: [] }]
}
