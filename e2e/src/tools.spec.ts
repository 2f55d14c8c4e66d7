import type { KitAnswer } from '@undercliff/contract'
import { expect, test } from './testing'

test('a wheel whose marked speed is below the spindle is not mounted, and no sharpening begins with it', async ({
  page,
  open,
  undercliff,
}) => {
  await open('/tools')
  const grinder = page.locator('[data-kit-item]').filter({ hasText: 'Bench grinder' })
  await grinder.getByRole('combobox').selectOption('Wheel from the barn')
  await expect(grinder.getByRole('alert')).toContainText('it may burst')
  await expect(grinder.getByRole('button', { name: /mounted/ })).toHaveCount(0)
  await page.goto(`${undercliff.address}/loops/K3/sharpen?action=regrind`)
  await expect(page.locator('.go')).toBeVisible()
  await page.getByLabel('Wheel', { exact: true }).selectOption('Wheel from the barn')
  await expect(page.getByRole('alert')).toContainText('nobody overrules that')
  await expect(page.locator('.go')).toHaveCount(0)
})

test('the kit by keyboard: add a wheel, say that it rang, take a file out of the pack, undo', async ({
  page,
  open,
  undercliff,
}) => {
  const kit = () => undercliff.json<KitAnswer>('/api/kit')
  await open('/tools')
  await page.getByRole('button', { name: 'Add to the kit' }).press('Enter')
  await page.getByLabel('What', { exact: true }).selectOption('a wheel')
  await page.getByRole('button', { name: 'Add it' }).press('Enter')
  await expect(page.getByRole('alert')).toContainText('Give it a name')
  await page.getByLabel('Called').fill('Rim wheel')
  await page.getByLabel(/^Greatest speed marked/).fill('fast')
  await page.getByRole('button', { name: 'Add it' }).press('Enter')
  await expect(page.getByRole('alert')).toContainText('turns a minute')
  await page.getByLabel(/^Greatest speed marked/).fill('4200')
  await page.getByRole('button', { name: 'Add it' }).press('Enter')
  const row = page.locator('[data-kit-item]', { has: page.locator('strong', { hasText: 'Rim wheel' }) })
  await expect(row).toContainText('marked 4200 a minute')
  await expect(row).toContainText('a clear ring, or it is not mounted')
  await row.getByRole('button', { name: 'Rang clear' }).press('Enter')
  await expect(row).not.toContainText('a clear ring, or it is not mounted')
  expect((await kit()).kit.find(({ name }) => name === 'Rim wheel')).toMatchObject({ markedRpm: 4200, version: 2 })

  const pack = page.locator('[data-kit-item]').filter({ hasText: 'Files 4.8, unopened' })
  await pack.getByRole('button', { name: 'Open one' }).press('Enter')
  await expect(pack).toContainText('4 left')
  const files = (await kit()).kit.filter((item) => item.kind === 'file' && item.fileUm === 4800)
  expect(files).toHaveLength(2)
  await row.getByRole('button', { name: 'Used up' }).press('Enter')
  await expect(row).toHaveCount(0)
  await page.getByRole('button', { name: 'Undo' }).press('Enter')
  await expect(row).toBeVisible()

  // The lines of a guide are its own, and outlive a change of its name.
  const guide = page.locator('[data-kit-item]').filter({ hasText: 'lines at 25°, 30°, 35°' })
  await guide.getByRole('button', { name: /^Change/ }).press('Enter')
  const lines = page.getByLabel(/^Angle lines on it/)
  await expect(lines).toHaveValue('25, 30, 35')
  await expect(page.getByLabel('Called'), 'the form is brought to whoever opened it from below').toBeFocused()
  await expect(lines).toBeInViewport()
  await lines.fill('10, 22,5, steep')
  await page.getByRole('button', { name: 'Save' }).press('Enter')
  await expect(page.getByRole('alert')).toContainText('“steep” is no angle of a guide')
  await lines.fill('10, 22,5 35')
  await page.getByRole('button', { name: 'Save' }).press('Enter')
  await expect(page.locator('[data-kit-item]').filter({ hasText: 'lines at 10°, 22.5°, 35°' })).toBeVisible()
})

test('a worn file gets more strokes, and a fresh one is proposed where it pays', async ({ page, open, undercliff }) => {
  await open('/loops/K1/sharpen?action=file')
  await expect(page.locator('.go')).toBeVisible()
  const strokesOf = async () => {
    const { kit, usage } = await undercliff.json<KitAnswer>('/api/kit')
    return { file: kit.find(({ id }) => id === 'kit-file-52'), used: usage.find(({ id }) => id === 'kit-file-52') }
  }
  expect((await strokesOf()).used?.used).toBeGreaterThan(100)
  await expect(page.getByText(/of about 2000 strokes/)).toBeVisible()
  await expect(page.getByText(/A fresh (one|file)/).first()).toBeVisible()
})
