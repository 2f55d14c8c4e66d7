import Excel from 'exceljs'
import JSZip from 'jszip'
import { expect, test } from 'vitest'
import { withAddresses } from './cellAddresses'
import { readSheets } from './readSheets'

async function bytesOf(fill: (sheet: Excel.Worksheet) => void): Promise<ArrayBuffer> {
  const book = new Excel.Workbook()
  fill(book.addWorksheet('Loops'))
  return book.xlsx.writeBuffer()
}
const two = (sheet: Excel.Worksheet): void => {
  sheet.addRow(['Tag', 'Pitch', 'Gauge'])
  sheet.addRow(['H2', '', 1.5])
}

test('a workbook whose cells and rows lack their address reads as one that says it', async () => {
  const bytes = await bytesOf(two)
  const [said] = await readSheets(new File([bytes], 'said.xlsx'))
  expect(said?.rows).toEqual([
    ['Tag', 'Pitch', 'Gauge'],
    ['H2', '', '1.5'],
  ])
  const zip = await JSZip.loadAsync(bytes)
  const xml = (await zip.file('xl/worksheets/sheet1.xml')?.async('string')) ?? ''
  for (const part of [/(<c) r="[A-Z]+\d+"/g, /(<(?:c|row)) r="[A-Z]*\d+"/g]) {
    const without = xml.replace(part, '$1')
    expect(without).not.toBe(xml)
    zip.file('xl/worksheets/sheet1.xml', without)
    const [read] = await readSheets(new File([await zip.generateAsync({ type: 'arraybuffer' })], 'without.xlsx'))
    expect(read).toEqual({ ...said, name: 'Loops' })
  }
})

test('a cell that lacks its address stands behind the one before it', () => {
  expect(withAddresses('<x:row r="4"><x:c r="Z4"/><x:c><x:v>1</x:v></x:c></x:row><x:row><x:c t="s"/></x:row>')).toBe(
    '<x:row r="4"><x:c r="Z4"/><x:c r="AA4"><x:v>1</x:v></x:c></x:row><x:row r="5"><x:c r="A5" t="s"/></x:row>',
  )
  expect(withAddresses('<cols><col min="1"/></cols><row><c/></row>')).toBe(
    '<cols><col min="1"/></cols><row r="1"><c r="A1"/></row>',
  )
})

test('more columns than any sheet of loops has are refused in words; blank ones far out are passed over', async () => {
  const wide = (cells: readonly string[]) => readSheets(new File([`Tag,Pitch\n${cells.join(',')}\n`], 'wide.csv'))
  await expect(wide(Array.from({ length: 50_000 }, (_, i) => `c${i}`))).rejects.toThrow(
    'That sheet has 50000 columns; at most 500 are read.',
  )
  expect((await wide(['W1', '3/8', ...Array.from({ length: 50_000 }, () => '')]))[0]?.rows[1]?.length).toBe(500)
  const far = await bytesOf((sheet) => {
    two(sheet)
    sheet.getCell('XFD2').value = 'a note'
  })
  await expect(readSheets(new File([far], 'far.xlsx'))).rejects.toThrow('That sheet has 16384 columns')
})
