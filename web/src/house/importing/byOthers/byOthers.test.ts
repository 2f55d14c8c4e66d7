import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from 'vitest'
import { readSheets } from '../readSheets'

/** What a program outside Node makes of one workbook: they differ in what they keep of it. */
const WRITERS = [
  // It leaves a formula without what it comes to.
  { writer: 'openpyxl', sum: '#FORMULA', sheets: ['Chains', 'Second'] },
  // It forgets that a sheet was hidden.
  { writer: 'ssconvert', sum: '1.3', sheets: ['Chains', 'Old', 'Second'] },
]

test.each(WRITERS)('a workbook that $writer wrote reads as it was meant', async ({ writer, sum, sheets: names }) => {
  const text = readFileSync(join(import.meta.dirname, `${writer}.xlsx.base64`), 'utf8')
  const sheets = await readSheets(new File([new Uint8Array(Buffer.from(text, 'base64'))], 'loops.xlsx'))
  expect(sheets.map(({ name }) => name)).toEqual(names)
  const [chains] = sheets
  expect(chains?.rows).toEqual([
    ['Tag', 'Pitch', 'Gauge', 'Links', 'Note', 'Measured', 'Left mm'],
    ['H2', '3/8"', '1.5', '72', 'hit a nail,\n"badly"; see = note', '2026-03-04', '6.25'],
    // A merged cell says the same in all its columns.
    ['J7', '.325', '0.058', '66', 'half worn', '2026-05-06', '2026-05-06'],
    ['K3', '3/8 LP', sum, '52', 'a link', '', 'true'],
    [],
    ['M4', '.404', '1.6', '84', 'Zoë × ½ “quoted”', '', '7,1'],
  ])
  expect(chains?.hiddenRows).toEqual([6])
})
