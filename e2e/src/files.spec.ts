import { readFileSync, writeFileSync } from 'node:fs'
import { expect, setUp, test } from './testing'
import { Undercliff } from './undercliff'

test('a backup is downloaded and read into an empty shed; a damaged one is refused in words', async ({
  page,
  open,
}, info) => {
  await open('/crew')
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Everything, as one file' }).click(),
  ])
  const file = info.outputPath('backup.json')
  await download.saveAs(file)
  const empty = await Undercliff.start('--empty')
  try {
    await setUp(page, empty, '/crew')
    const damaged = info.outputPath('damaged.json')
    writeFileSync(damaged, readFileSync(file, 'utf8').replace('Maren', 'Marla'))
    await page.getByLabel('Bring back a backup into this empty shed').setInputFiles(damaged)
    await expect(page.getByText(/Its checksum does not match/)).toBeVisible()
    writeFileSync(damaged, '{"half":')
    await page.getByLabel('Bring back a backup into this empty shed').setInputFiles(damaged)
    await expect(page.getByText(/not JSON that can be read/)).toBeVisible()
    await page.getByLabel('Bring back a backup into this empty shed').setInputFiles(file)
    await expect(page.getByRole('heading', { name: /loops need you/ })).toBeVisible()
    await expect(page.getByRole('heading', { name: 'Great Tern' })).toBeVisible()
  } finally {
    await empty.stop()
  }
})
