import type { ShedAnswer } from '@undercliff/contract'
import { expect, logOf, setUp, test } from './testing'
import { Undercliff } from './undercliff'

test('search and filter narrow the shed, stand in the address, and survive a reload', async ({ page, open }) => {
  await open('/')
  await page.getByRole('button', { name: 'More', exact: true }).click()
  await page.getByRole('button', { name: /^Regrind/ }).click()
  await expect(page).toHaveURL(/verdict=regrind/)
  await expect(page.getByText(/^3 of \d+ loops/)).toBeVisible()
  await page.reload()
  await expect(page.getByText(/^3 of \d+ loops/)).toBeVisible()
  await page.getByRole('button', { name: 'Show all' }).click()
  await page.getByRole('searchbox').fill('mizzen')
  await expect(page.getByText(/^1 of \d+ loops/)).toBeVisible()
})

test('a strike is inspected, and the loop is fit again; undo takes it back', async ({ page, open, undercliff }) => {
  await open('/loops/P4')
  const verdict = page.getByRole('region', { name: 'Verdict' })
  await expect(verdict).toContainText('Inspect')
  await page.getByRole('link', { name: 'Log the inspection' }).click()
  await page.getByRole('button', { name: 'Log the inspection' }).click()
  await expect(verdict).toContainText('Run on')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(verdict).toContainText('Inspect')
  await expect.poll(async () => (await logOf(undercliff, 'P4')).at(-1)?.kind).toBe('corrected')
})

test('a loop goes on a saw, and the one that was there comes off', async ({ page, open, undercliff }) => {
  await open('/loops/T4')
  await page.getByRole('button', { name: /^Put …/ }).click()
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /Great Tern/ })
    .click()
  await page.getByRole('button', { name: /Tension checked/ }).click()
  await page.getByRole('button', { name: 'Put T4 on Great Tern' }).click()
  await expect(page.getByRole('status').getByText('T4 is on Great Tern; T1 came off.')).toBeVisible()
  await expect(page.getByText('On Great Tern', { exact: true })).toBeVisible()
  expect((await logOf(undercliff, 'T1')).at(-1)?.kind).toBe('takenOff')
})

test('a cracked loop is kept off every saw, with the reason', async ({ page, open }) => {
  await open('/loops/T2')
  await page.getByRole('button', { name: /^Put …/ }).click()
  await expect(page.getByText('T2 must not go on a saw as it is.')).toBeVisible()
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /Great Tern/ })
    .click()
  await expect(page.getByText('T2 must not go on Great Tern: it is not fit for use as it is.')).toBeVisible()
  await expect(page.getByRole('button', { name: /^Put T2 on/ })).toHaveCount(0)
  // What can be done about it is one tap away.
  await page
    .getByRole('dialog')
    .getByRole('link', { name: /^First: / })
    .click()
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await expect(page.getByRole('region', { name: 'Verdict' })).toContainText('Retire')
})

test('an entry is struck out and stays to be seen', async ({ page, open }) => {
  await open('/loops/W3')
  const line = page.locator('[data-entry=ran]').first()
  await line.getByRole('button', { name: /^Strike out/ }).click()
  await expect(line).toContainText('Struck out.')
  await expect(page.getByRole('region', { name: 'Verdict' })).toContainText('Run on')
})

test('the crew reads and types inches when it likes', async ({ page, open }) => {
  await open('/crew')
  await page.getByRole('radio', { name: /^Inches/ }).click()
  await expect(page.getByRole('radio', { name: /^Inches/ })).toHaveAttribute('aria-checked', 'true')
  await open('/loops/X2')
  await expect(page.getByText(/^Worst: \d+ [LR]: \.\d{3}"/)).toBeVisible()
  await page.keyboard.press('m')
  await page.locator('[data-reading]').fill('.25')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'Save 1 reading', exact: true })).toBeEnabled()
  await open('/crew')
  await page.getByRole('radio', { name: /^Millimetres/ }).click()
  await expect(page.getByRole('radio', { name: /^Millimetres/ })).toHaveAttribute('aria-checked', 'true')
})

test('the house chooses its files, and every loop names the one for its wear', async ({ page, open }) => {
  await open('/loops/K3')
  await expect(page.getByText('File 5.2 mm (13/64")').first()).toBeVisible()
  await open('/crew')
  await page.getByRole('link', { name: /^House rules/ }).click()
  await page.getByRole('link', { name: 'File and wheel' }).click()
  await page.getByRole('radio', { name: /^Larger, later smaller/ }).click()
  await page.getByRole('button', { name: 'Let it hold' }).click()
  await expect(page.getByText('Larger, later smaller: every loop is worked out again.')).toBeVisible()
  await open('/loops/K3')
  await expect(page.getByText('File 5.5 mm (7/32")').first()).toBeVisible()
  await expect(page.getByText(/still the larger: its bottom lies 4\.4 mm below the top plate/)).toBeVisible()
  await open('/rules?chapter=tools')
  await page.getByRole('radio', { name: /^One file for life/ }).click()
  await page.getByRole('button', { name: 'Let it hold' }).click()
  await expect(page.getByText('One file for life: every loop is worked out again.')).toBeVisible()
})

test('what is typed into the house rules stays while the shed answers anew, and what a lead changed is told', async ({
  page,
  open,
  undercliff,
}) => {
  await open('/rules?chapter=limits')
  const reserve = page.getByLabel('Kept above the witness mark')
  const evenness = page.getByLabel('Cutters count as even within')
  await expect(reserve).toBeEnabled()
  await reserve.fill('.40 mm')
  const { crew } = await undercliff.json<ShedAnswer>('/api/shed')
  const { version, evennessUm, reserveUm } = crew.rules
  await undercliff.send('PUT', '/api/rules', { version, evennessUm: evennessUm + 50, reserveUm: reserveUm + 50 })
  // The other limit follows what somebody else saved; the typed one stays, with what is known now beside it.
  await expect(evenness).toHaveValue(((evennessUm + 50) / 1000).toFixed(2), { timeout: 10_000 })
  await expect(reserve).toHaveValue('.40 mm')
  await expect(page.getByText(`changed to ${((reserveUm + 50) / 1000).toFixed(2)} meanwhile`)).toBeVisible()
  await page.getByRole('button', { name: 'Save limits and prices' }).click()
  await page.getByRole('button', { name: 'Let it hold' }).click()
  await expect(page.getByText('Limits and prices changed; every loop is worked out again.')).toBeVisible()
  await expect(reserve).toHaveValue('0.4')
})

test('a wrong address says so', async ({ page, open }) => {
  await open('/loops/NOPE')
  await expect(page.getByRole('heading', { name: 'No loop has the tag NOPE' })).toBeVisible()
  await open('/nowhere/at/all')
  await expect(page.getByRole('heading', { name: 'There is nothing here' })).toBeVisible()
})

test('an empty shed is filled from the first saw on', async ({ page }) => {
  const undercliff = await Undercliff.start('--empty')
  try {
    await setUp(page, undercliff)
    await expect(page.getByText('The shed is empty')).toBeVisible()
    await page.getByRole('link', { name: 'Add a saw' }).click()
    await page.getByLabel('What the crew calls it').fill('Petrel')
    await page.getByLabel('Pitch').selectOption('3/8"')
    await page.getByLabel('Gauge').selectOption('1.5 mm')
    await page.getByLabel('Drive links').fill('72')
    await page.getByRole('button', { name: 'Add the saw' }).click()
    await expect(page.getByRole('heading', { name: 'Petrel' })).toBeVisible()
    await page.getByRole('link', { name: 'Add a loop' }).click()
    await page.getByLabel('Tag', { exact: true }).fill('A1')
    await page.getByLabel('Pitch').selectOption('3/8"')
    await page.getByLabel('Gauge').selectOption('1.5 mm')
    await page.getByLabel('Drive links').fill('72')
    await page.getByLabel('Cutter type').selectOption('semi-chisel')
    await page.getByLabel('Sequence').selectOption('full complement')
    await expect(page.getByText(/36 cutters on 1372 mm/)).toBeVisible()
    await page.getByRole('radio', { name: 'New', exact: true }).click()
    await page.getByRole('button', { name: 'Add the loop' }).click()
    await expect(page.getByRole('heading', { name: 'A1' })).toBeVisible()
    await page.getByRole('button', { name: /^Put …/ }).click()
    await page
      .getByRole('dialog')
      .getByRole('button', { name: /Petrel/ })
      .click()
    await page.getByRole('button', { name: 'Put A1 on Petrel' }).click()
    await expect(page.getByText('On Petrel', { exact: true })).toBeVisible()
    await expect(page.getByRole('dialog')).toHaveCount(0)
    await page.keyboard.press('s')
    await page.getByRole('button', { name: 'Somebody else' }).click()
    await page.getByLabel('Name').fill('Wim')
    await page.getByLabel('Name').press('Enter')
    await expect(page.getByRole('radio', { name: 'Wim' })).toHaveAttribute('aria-checked', 'true')
    await page.getByRole('button', { name: 'Log the sharpening' }).click()
    await expect(page.locator('[data-entry=sharpened]')).toContainText('Wim')
  } finally {
    await undercliff.stop()
  }
})
