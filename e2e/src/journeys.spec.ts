import type { ShedAnswer } from '@undercliff/contract'
import { fileURLToPath } from 'node:url'
import { expect, logOf, setUp, tabTo, test } from './testing'
import { Undercliff } from './undercliff'

const MESSY = fileURLToPath(new URL('./fixtures/messy.csv', import.meta.url))
const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true }
const versionOf = async (undercliff: Undercliff): Promise<number> =>
  (await undercliff.json<ShedAnswer>('/api/shed')).crew.rules.version

test('a price is changed by keyboard alone, after what it does to the shed is said; a slip is asked about', async ({
  page,
  open,
  undercliff,
}) => {
  const before = await versionOf(undercliff)
  await open('/')
  await expect(page.getByRole('heading', { name: /loops need you/ })).toBeVisible()
  await page.keyboard.press('/')
  await expect(page.getByRole('dialog').getByRole('combobox').or(page.locator('input:focus')).first()).toBeFocused()
  await page.keyboard.type('house rules')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: /^House rules/ })).toBeVisible()
  await page.getByLabel('An hour of work').waitFor()
  for (let presses = 0; presses < 60; presses += 1) {
    await page.keyboard.press('Tab')
    if (await page.getByLabel('An hour of work').evaluate((field) => field === document.activeElement)) break
  }
  await page.keyboard.press('ControlOrMeta+a')
  await page.keyboard.type('3500')
  await page.keyboard.press('Enter')
  const effect = page.getByRole('dialog')
  await expect(effect.getByRole('alert')).toContainText('€3,500.00? That is hardly right. Was it €35.00?')
  await page.keyboard.press('Escape')
  await expect(effect).toBeHidden()
  expect(await versionOf(undercliff)).toBe(before)
  await page.getByLabel('An hour of work').focus()
  await page.keyboard.press('ControlOrMeta+a')
  await page.keyboard.type('35')
  await page.keyboard.press('Enter')
  await expect(effect).toContainText('What it costs')
  await expect(effect.getByRole('alert')).toHaveCount(0)
  await tabTo(page, 'Let it hold')
  await page.keyboard.press('Enter')
  await expect.poll(() => versionOf(undercliff)).toBe(before + 1)
  await tabTo(page, 'Undo')
  await page.keyboard.press('Enter')
  await expect.poll(() => versionOf(undercliff)).toBe(before + 2)
})

test('a messy sheet comes in by keyboard alone, what cannot come in left out', async ({ page }) => {
  const undercliff = await Undercliff.start('--empty')
  try {
    await setUp(page, undercliff, '/import')
    // The window in which a file is chosen is the system's own, with keys of its own.
    await page.getByLabel('CSV or XLSX').setInputFiles(MESSY)
    await expect(page.getByRole('heading', { name: 'What becomes of 13 rows' })).toBeVisible()
    await tabTo(page, /^Leave out the 5 that cannot/)
    await page.keyboard.press('Enter')
    await tabTo(page, /^Bring in 7 loops/)
    await page.keyboard.press('Enter')
    await expect(page.getByText('7 loops are in the shed, and 5 saws.')).toBeVisible()
  } finally {
    await undercliff.stop()
  }
})

test('what is stamped on a bar says what the next one takes, and swapped digits are asked about', async ({
  page,
  open,
  undercliff,
}) => {
  await open('/add/saw')
  await page.getByLabel('What the crew calls it').fill('Fulmar')
  await page.getByLabel(/^Stamped on the bar/).fill('B 16')
  await page.getByLabel('Pitch').selectOption('3/8"')
  await page.getByLabel('Gauge').selectOption('1.6 mm')
  await page.getByLabel('Drive links').fill('27')
  await page.getByRole('button', { name: 'Add the saw' }).press('Enter')
  await expect(page.getByText('27 drive links? That is hardly right. Was it 72 drive links?').first()).toBeVisible()
  await page.getByRole('button', { name: '72', exact: true }).click()
  await page.getByRole('button', { name: 'Add the saw' }).press('Enter')
  await expect(page.locator('[data-saw=Fulmar]')).toBeVisible()

  await page.goto(`${undercliff.address}/add/saw`)
  await page.getByLabel('Gauge').selectOption('1.3 mm')
  await page.getByLabel(/^Stamped on the bar/).fill('b16')
  await page.getByRole('button', { name: 'It is the same' }).click()
  await expect(page.getByLabel('Gauge').locator('option:checked')).toHaveText('1.6 mm')
  await page.goto(`${undercliff.address}/saws/Fulmar`)
  await expect(page.getByText('B 16')).toBeVisible()
})

test('a length that is put right is in the crew’s unit, and asked about where it slipped', async ({
  page,
  open,
  undercliff,
}) => {
  await open('/loops/K3/note/gaugesLowered')
  await page.getByLabel('Setting').fill('0.65')
  await page.getByRole('button', { name: /^Log / }).press('Enter')
  const line = page.locator('[data-entry=gaugesLowered]').first()
  await line.getByRole('button', { name: /^Put right/ }).click()
  const panel = page.getByRole('dialog')
  const setting = panel.getByLabel(/setting$/)
  await expect(setting).toHaveValue('0.65 mm')
  await setting.fill('6.0')
  await setting.press('Tab')
  await expect(panel.getByRole('alert')).toContainText('6.00 mm cannot be. Was it 0.60 mm?')
  await panel.getByRole('button', { name: 'Put it right' }).click()
  await expect(panel, 'it does not go off with what cannot be').toBeVisible()
  await panel.getByRole('button', { name: '0.60 mm' }).click()
  await panel.getByRole('button', { name: 'Put it right' }).click()
  await expect(panel).toBeHidden()
  expect((await logOf(undercliff, 'K3')).at(-1)).toMatchObject({ kind: 'gaugesLowered' })
  expect(JSON.stringify((await logOf(undercliff, 'K3')).at(-1))).toContain('600')
})

test.describe('on a phone, by touch', () => {
  test.use(PHONE)

  test('a house rule is changed after its effect is said, and taken back', async ({ page, open, undercliff }) => {
    const before = await versionOf(undercliff)
    await open('/rules?chapter=has')
    await page.getByRole('button', { name: 'Owns a grinder' }).tap()
    const effect = page.getByRole('dialog')
    await expect(effect).toContainText(/\d+ of \d+ verdicts turn/)
    await effect.getByRole('button', { name: 'Let it hold' }).tap()
    await expect(page.getByRole('button', { name: 'No grinder' })).toBeVisible()
    await page.getByRole('button', { name: 'Undo', exact: true }).tap()
    await expect(page.getByRole('button', { name: 'Owns a grinder' })).toBeVisible()
    expect(await versionOf(undercliff)).toBe(before + 2)
  })

  test('every chapter of the house rules is under five screens', async ({ page, open }) => {
    await open('/rules')
    const chapters = page.getByRole('navigation', { name: /chapters/i }).getByRole('link')
    await expect(chapters).toHaveCount(7)
    for (let i = 0; i < 7; i += 1) {
      await chapters.nth(i).tap()
      await expect(chapters.nth(i)).toHaveAttribute('aria-current', /.+/)
      await page.waitForTimeout(500)
      const screens = await page.evaluate(() => document.documentElement.scrollHeight / innerHeight)
      expect.soft(screens, (await chapters.nth(i).textContent()) ?? '').toBeLessThan(5)
    }
  })

  test('a saw is renamed, lent out and brought back', async ({ page, open }) => {
    await open('/saws/Stilt')
    await page.getByRole('textbox', { name: 'Called' }).fill('Dunlin')
    await page.getByRole('button', { name: 'Rename it' }).tap()
    await expect(page.getByRole('heading', { name: 'Dunlin', exact: true })).toBeVisible()
    await expect(page).toHaveURL(/\/saws\/Dunlin$/)
    await page.getByLabel('Lent to').fill('the north crew')
    await page.getByRole('button', { name: 'Lend it out' }).tap()
    await expect(page.getByText('It is lent out to the north crew.').first()).toBeVisible()
    await page.getByRole('button', { name: 'It is back' }).tap()
    await expect(page.getByRole('button', { name: 'Lend it out' })).toBeVisible()
  })

  test('days are written as the crew writes them', async ({ page, open, undercliff }) => {
    await open('/crew')
    await page.getByRole('radio', { name: /^Month first/ }).tap()
    await expect(page.getByText('Changed for the whole crew.')).toBeVisible()
    await page.goto(`${undercliff.address}/loops/K1/note/ran`)
    await page.getByLabel(/^When/).fill('3/4 2:30 pm')
    await expect(page.getByText(/Mar 4, \d{4}, 2:30/)).toBeVisible()
  })
})
