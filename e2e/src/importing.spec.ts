import type { ShedAnswer } from '@undercliff/contract'
import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import Papa from 'papaparse'
import { messyBook } from './fixtures/messyBook'
import { expect, logOf, setUp, test, violations } from './testing'
import { Undercliff } from './undercliff'

const MESSY = fileURLToPath(new URL('./fixtures/messy.csv', import.meta.url))
type Row = Record<string, string>

test('a messy spreadsheet is shown row by row, comes in all at once, and goes out again', async ({ page }, info) => {
  const undercliff = await Undercliff.start('--empty')
  try {
    await setUp(page, undercliff, '/import')
    await page.getByLabel('CSV or XLSX').setInputFiles(MESSY)
    await expect(page.getByRole('heading', { name: 'What becomes of 13 rows' })).toBeVisible()
    const fate = (tag: string) =>
      page.locator('[data-fate]').filter({ has: page.locator('.tag').getByText(tag, { exact: true }) })
    await expect(fate('G2')).toContainText('"3/8" alone: taken as standard')
    await expect(fate('G3')).toContainText('"3/8" alone: taken as low profile')
    await expect(fate('G5')).toContainText('comes in, but')
    await expect(fate('G6')).toContainText('"7/16" is no pitch in use')
    await expect(fate('G8')).toContainText('20 to 250 drive links, not 7')
    await expect(fate('G9')).toContainText('65.00 mm is longer than a new cutter')
    await expect(fate('=1+1')).toContainText('cannot be a tag')
    await expect(fate('G11')).toContainText('"banana" is not a cutter type')
    expect(await violations(page)).toEqual([])
    const bring = page.getByRole('button', { name: /^Bring in \d+ loops/ })
    await expect(bring).toBeDisabled()
    await page.getByRole('button', { name: /^Leave out the 5 that cannot/ }).click()
    await bring.click()
    await expect(page.getByText(/^7 loops are in the shed, and 5 saws\.$/)).toBeVisible()

    await page.goto(`${undercliff.address}/crew`)
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: 'Loops as CSV' }).click(),
    ])
    const file = info.outputPath('loops.csv')
    await download.saveAs(file)
    const { data, errors } = Papa.parse<Row>(readFileSync(file, 'utf8'), { header: true, skipEmptyLines: true })
    expect(errors).toEqual([])
    expect(data).toHaveLength(7)
    const byTag = new Map(data.map((row) => [row.tag, row]))
    expect(byTag.get('G1')).toMatchObject({ pitch: '3/8"', gauge_mm: '1.5', drive_links: '72', place: 'sharp rack' })
    expect(byTag.get('G3')).toMatchObject({ pitch: '3/8" low profile', gauge_mm: '1.3', place: 'dull box' })
    expect(byTag.get('G5')).toMatchObject({ saw: 'Old Brine', place: 'saw', gauge_mm: '1.6' })
    expect(byTag.get('G10')).toMatchObject({ saw: 'Sea Thrift', cutter_type: 'ripping' })

    // The same file again: every tag is taken by now, and nothing comes in twice.
    await page.goto(`${undercliff.address}/import`)
    await page.getByLabel('CSV or XLSX').setInputFiles(MESSY)
    await expect(fate('G1')).toContainText('The tag G1 is taken.')
  } finally {
    await undercliff.stop()
  }
})

test('files that are no spreadsheet are told, and a column that is not guessed is matched by hand', async ({
  page,
  open,
}, info) => {
  await open('/import')
  const input = page.getByLabel('CSV or XLSX')
  await input.setInputFiles({ name: 'photo.csv', mimeType: 'text/csv', buffer: Buffer.from([1, 0, 2, 0, 3]) })
  await expect(page.getByText('That is neither CSV nor XLSX.')).toBeVisible()
  await input.setInputFiles({ name: 'empty.csv', mimeType: 'text/csv', buffer: Buffer.from('Tag,Pitch\n') })
  await expect(page.getByText('There is no row below the headings.')).toBeVisible()
  await input.setInputFiles({ name: 'old.xlsx', mimeType: 'text/csv', buffer: Buffer.from([0xd0, 0xcf, 0x11, 0xe0]) })
  await expect(page.getByText(/That is an old kind of spreadsheet/)).toBeVisible()
  await input.setInputFiles({
    name: 'broken.xlsx',
    mimeType: 'text/csv',
    buffer: Buffer.from('PK\u0003\u0004 not a zip'),
  })
  await expect(page.getByRole('alert')).toBeVisible()
  await input.setInputFiles({
    name: 'own.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('Tag,Pitch,Gauge,Teeth below\nH1,.325,1.3,64\n'),
  })
  await expect(page.getByText('Still to be matched: drive links.')).toBeVisible()
  await page.getByLabel('Column for Drive links').selectOption('Teeth below')
  await expect(page.getByRole('heading', { name: 'What becomes of 1 row' })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Bring in 1 loop' })).toBeEnabled()
  expect(info.errors).toEqual([])
})

test('what a form would doubt is doubted; the file stays through leaving the page; all of it is undone in one', async ({
  page,
  open,
  undercliff,
}) => {
  const rows = [
    'Tag,Pitch,Gauge,DL,Cutter left,Type,Saw,Remarks',
    'N1,3/8,.050,72,4.6,semi-chisel,Dotterel,hit a nail on Friday',
    'N2,3/8,1.5,72,,skip tooth,,',
    '3-Sep,3/8,1.5,72,,semi chisel,,',
  ]
  const before = await undercliff.json<ShedAnswer>('/api/shed')
  const bringIn = async (): Promise<void> => {
    await page.getByLabel('CSV or XLSX').setInputFiles({
      name: 'wall.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(rows.join('\n')),
    })
    await expect(page.getByRole('heading', { name: 'What becomes of 3 rows' })).toBeVisible()
  }
  const fate = (tag: string) =>
    page.locator('[data-fate]').filter({ has: page.locator('.tag').getByText(tag, { exact: true }) })
  await open('/import')
  await bringIn()
  await expect(fate('N1')).toContainText('about 4.6 mm left')
  await expect(fate('N1')).toContainText('The note speaks of a strike')
  await expect(fate('N1')).toContainText('Not put on Dotterel, but on the bench')
  await expect(fate('N1')).not.toContainText('Put on Dotterel')
  await expect(fate('N2')).toContainText('full skip')
  await expect(fate('3-Sep')).toContainText(/date/)
  await page.getByRole('link', { name: 'Bench' }).click()
  await expect(page).toHaveURL(/triage/)
  await page.goBack()
  await expect(page.getByRole('heading', { name: 'What becomes of 3 rows' })).toBeVisible()
  const leaveOut = page.getByRole('button', { name: /^Leave out the/ })
  if (await leaveOut.isVisible()) await leaveOut.click()
  await page.getByRole('button', { name: /^Bring in \d+ loops?/ }).click()
  await expect(page.getByText(/in the shed, and 1 saw\./)).toBeVisible()
  expect((await logOf(undercliff, 'N1')).map(({ kind }) => kind)).toContain('struck')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect
    .poll(async () => {
      const { loops, saws } = await undercliff.json<ShedAnswer>('/api/shed')
      const here = saws.filter(({ gone }) => gone === null).map(({ nickname }) => nickname)
      return { loops: loops.filter(({ retired }) => !retired).length, saws: here }
    })
    .toEqual({
      loops: before.loops.filter(({ retired }) => !retired).length,
      saws: before.saws.filter(({ gone }) => gone === null).map(({ nickname }) => nickname),
    })
  // Tags and the saw's name are free: it can come in again.
  await page.goto(`${undercliff.address}/import`)
  await bringIn()
  await expect(fate('N1')).not.toContainText('is taken')
  await expect(fate('N1')).toContainText('No saw is called Dotterel')
})

test('an XLSX comes in as a CSV does', async ({ page, open }) => {
  const { default: Excel } = await import('exceljs')
  const book = new Excel.Workbook()
  const sheet = book.addWorksheet('Loops')
  sheet.addRow(['Tag', 'Pitch', 'Gauge', 'Drive links', 'Cutter type'])
  sheet.addRow(['H2', '3/8 std', 1.5, 72, 'semi-chisel'])
  sheet.addRow(['H3', '.325"', 1.3, 64, 'full chisel'])
  await open('/import')
  await page.getByLabel('CSV or XLSX').setInputFiles({
    name: 'loops.xlsx',
    mimeType: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    buffer: Buffer.from(await book.xlsx.writeBuffer()),
  })
  await expect(page.getByRole('heading', { name: 'What becomes of 2 rows' })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Bring in 2 loops' })).toBeEnabled()
})

test('five thousand rows are looked at in a worker, and can be stopped', async ({ page, open }) => {
  await open('/import')
  const rows = Array.from({ length: 5000 }, (_, i) => `Row ${i},3/8 std,1.5,72,semi,,6.${i % 10}`).join('\n')
  const file = {
    name: 'many.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(`Tag,Pitch,Gauge,Links,Type,Sequence,Length\n${rows}\n`),
  }
  await page.getByLabel('CSV or XLSX').setInputFiles(file)
  // The button is there while the worker is; pressed at once, it ends the worker.
  const pressed = await page.waitForFunction(() => {
    const stop = [...document.querySelectorAll('button')].find((button) => button.textContent === 'Stop')
    stop?.click()
    return stop !== undefined
  })
  expect(await pressed.jsonValue()).toBe(true)
  await expect(page.getByRole('button', { name: 'Stop' })).toHaveCount(0)
  await expect(page.getByRole('heading', { name: /What becomes of/ })).toHaveCount(0)
  await page.getByLabel('CSV or XLSX').setInputFiles([])
  await page.getByLabel('CSV or XLSX').setInputFiles(file)
  await expect(page.getByRole('heading', { name: 'What becomes of 5000 rows' })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Bring in 5000 loops' })).toBeEnabled()
})

for (const [name, viewport] of [
  ['desk', { width: 1280, height: 800 }],
  ['phone', { width: 390, height: 844 }],
] as const)
  test(`thirty messy rows are put right in the preview and all come in, at the ${name}`, async ({ page }) => {
    await page.setViewportSize(viewport)
    const undercliff = await Undercliff.start('--empty')
    try {
      await setUp(page, undercliff, '/import')
      await page.getByLabel('CSV or XLSX').setInputFiles(await messyBook())
      // Of three sheets the one with chains, below its titles; what nothing is taken from is named.
      await expect(page.getByLabel('Headings in row')).toHaveValue('4')
      await page.getByLabel('Column for Drive links').selectOption('Teeth below')
      await expect(page.getByText('Nothing is taken from the columns Bought, Price.')).toBeVisible()
      const shared = (text: string) => page.locator('[data-shared]').filter({ hasText: text })
      await shared('"3/8"').getByRole('combobox').selectOption('3/8" low profile')
      await shared('"CJ"').getByRole('combobox').selectOption('full chisel')
      await shared('nothing about new or used').getByRole('combobox').selectOption('used, nobody has looked')
      await page.getByLabel('Drive links', { exact: true }).fill('72')
      await page.keyboard.press('Tab')
      const tag = page.getByLabel('Tag', { exact: true })
      await expect(tag).toHaveCount(1)
      await tag.fill('W31')
      await page.keyboard.press('Tab')
      await page.getByRole('combobox', { name: 'Where it is', exact: true }).selectOption('bench')
      await expect(page.getByText(/rows? mended here; the file stays as it is/)).toBeVisible()
      await expect(page.locator('.fate.wrong')).toHaveCount(0)
      expect(await violations(page)).toEqual([])
      await page.getByRole('button', { name: 'Bring in 30 loops' }).click()
      await expect(page.getByText(/^30 loops are in the shed/)).toBeVisible()

      // The next file of the kind is matched as this one was.
      await page.goto(`${undercliff.address}/import`)
      const next = 'Tag,Pitch,Gauge,Teeth below,Price\nX1,.325,1.3,64,9\n'
      await page.getByLabel('CSV or XLSX').setInputFiles({
        name: 'next.csv',
        mimeType: 'text/csv',
        buffer: Buffer.from(next),
      })
      await expect(page.getByRole('button', { name: 'Bring in 1 loop' })).toBeEnabled()
    } finally {
      await undercliff.stop()
    }
  })

test('a book with merged cells, formulas, hidden rows and headings twice is read as people read it', async ({
  page,
  open,
}) => {
  const { default: Excel } = await import('exceljs')
  const book = new Excel.Workbook()
  const sheet = book.addWorksheet('Chains')
  sheet.addRow(['Tag', 'Pitch', 'Gauge', 'DL', 'Type', 'Condition', 'Saw'])
  sheet.addRow(['QM1', '3/8 std', 1.5, { formula: '70+2', result: 72 }, 'semi', 'new', 'Osprey'])
  sheet.addRow(['QM2', '3/8 std', 1.5, 72, 'semi', 'new', ''])
  sheet.addRow(['QM3', '3/8 std', 1.5, { formula: 'A99/0', result: { error: '#DIV/0!' } }, 'semi', 'new', ''])
  sheet.addRow(['Tag', 'Pitch', 'Gauge', 'DL', 'Type', 'Condition', 'Saw'])
  sheet.addRow(['QM4', '3/8 std', 1.5, 72, 'semi', 'new', '']).hidden = true
  sheet.mergeCells('G2:G3')
  await open('/import')
  await page.getByLabel('CSV or XLSX').setInputFiles({
    name: 'odd.xlsx',
    mimeType: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    buffer: Buffer.from(await book.xlsx.writeBuffer()),
  })
  await expect(page.getByRole('heading', { name: 'What becomes of 5 rows' })).toBeVisible()
  await page.getByRole('button', { name: 'Only doubts and trouble' }).click()
  const fate = (tag: string) => page.locator('[data-fate]').filter({ hasText: tag })
  await expect(fate('QM2')).toContainText('Another loop is on Osprey: put on the bench.')
  await expect(fate('QM3')).toContainText('Drive links: a formula without its value. What does it come to?')
  await expect(fate('QM4')).toContainText('The sheet hides this row.')
  await fate('QM4').getByRole('button', { name: 'Leave out row 6' }).click()
  await expect(page.getByText('1 left out')).toBeVisible()
})

test('fifty thousand rows are refused in words, and nothing hangs', async ({ page, open }) => {
  await open('/import')
  const rows = Array.from({ length: 50_000 }, (_, i) => `R${i},.325,1.3,64`).join('\n')
  const buffer = Buffer.from(`Tag,Pitch,Gauge,DL\n${rows}\n`)
  await page.getByLabel('CSV or XLSX').setInputFiles({ name: 'all.csv', mimeType: 'text/csv', buffer })
  await expect(page.getByText('That is 50000 rows; at most 20000 come in at once.')).toBeVisible()
})

test('a tag that somebody else takes while the preview stands is taken in the preview too', async ({
  page,
  open,
  undercliff,
}) => {
  await open('/import')
  const sheet = 'Tag,Pitch,Gauge,Links,Type\nH8,3/8 std,1.5,72,semi\nH9,3/8 std,1.5,72,semi\n'
  await page
    .getByLabel('CSV or XLSX')
    .setInputFiles({ name: 'two.csv', mimeType: 'text/csv', buffer: Buffer.from(sheet) })
  await expect(page.getByRole('button', { name: 'Bring in 2 loops' })).toBeEnabled()
  const { loops } = await undercliff.json<ShedAnswer>('/api/shed')
  const retagged = {
    id: 'taken-meanwhile-1',
    loopId: loops.find(({ tag }) => tag === 'K5')?.loopId,
    happenedAt: new Date().toISOString(),
    personId: null,
    kind: 'retagged',
    tag: 'H9',
  }
  expect((await undercliff.send('POST', '/api/entries', { entries: [retagged] })).status).toBe(201)
  await expect(page.locator('[data-fate]').filter({ hasText: 'H9' })).toContainText('The tag H9 is taken.')
  await page.getByRole('button', { name: /^Leave out the 1 that cannot/ }).click()
  await expect(page.getByRole('button', { name: 'Bring in 1 loop', exact: true })).toBeEnabled()
})
