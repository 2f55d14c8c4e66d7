import JSZip from 'jszip'

const A = 65
const LETTERS = 26

/** The letters of a column, from 1. */
const lettersOf = (column: number): string => {
  let letters = ''
  for (let left = column; left > 0; left = Math.floor((left - 1) / LETTERS))
    letters = String.fromCharCode(A + ((left - 1) % LETTERS)) + letters
  return letters
}

const columnOf = (letters: string): number =>
  Array.from(letters).reduce((column, letter) => column * LETTERS + letter.charCodeAt(0) - A + 1, 0)

const ADDRESS = /\sr\s*=\s*["']([A-Z]*)(\d+)["']/

/**
 * Rows and cells of a worksheet with their addresses. ISO/IEC 29500-1 (18.3.1.4 and 18.3.1.73, from memory) lets a
 * program leave them out: each stands behind the one before it then.
 *
 * @example
 * withAddresses('<row><c><v>1</v></c><c/></row>') // '<row r="1"><c r="A1"><v>1</v></c><c r="B1"/></row>'
 */
export function withAddresses(xml: string): string {
  let [row, column] = [0, 0]
  return xml.replace(/<((?:\w+:)?(row|c))(\s[^>]*?)?(\/?)>/g, (all, tag: string, kind: string, said = '', end = '') => {
    const [, letters = '', number = ''] = ADDRESS.exec(said as string) ?? []
    if (kind === 'row') {
      row = number === '' ? row + 1 : Number(number)
      column = 0
    } else column = letters === '' ? column + 1 : columnOf(letters)
    if (number !== '') return all
    const address = kind === 'row' ? String(row) : `${lettersOf(column)}${row}`
    return `<${tag} r="${address}"${said as string}${end as string}>`
  })
}

/** A workbook whose sheets say the address of every cell. */
export async function workbookWithAddresses(bytes: ArrayBuffer): Promise<ArrayBuffer> {
  const zip = await JSZip.loadAsync(bytes)
  for (const file of zip.file(/^xl\/worksheets\/[^/]+\.xml$/i))
    zip.file(file.name, withAddresses(await file.async('string')))
  return zip.generateAsync({ type: 'arraybuffer' })
}
