import { expect, logOf, test } from './testing'

test('an entry is put right in one step, and undone; a sawyer does so to their own', async ({
  page,
  open,
  undercliff,
}) => {
  await open('/loops/K5/note/ran', 'iska')
  await page.getByRole('button', { name: 'Log the tanks' }).click()
  const line = page.locator('[data-entry=ran]').first()
  await expect(line).toContainText('Ran 1 tank in clean wood')
  await line.getByRole('button', { name: /^Put right/ }).click()
  const panel = page.getByRole('dialog')
  await panel.getByLabel('tanks').fill('3')
  await panel.getByLabel('tanks').blur()
  await panel.getByRole('button', { name: 'Put it right' }).click()
  await expect(panel).toBeHidden()
  await expect(page.locator('[data-entry=ran]').filter({ hasText: 'Ran 3 tanks' })).toBeVisible()
  await expect(page.locator('[data-entry=ran].struck').filter({ hasText: 'Ran 1 tank' })).toBeVisible()
  expect((await logOf(undercliff, 'K5')).slice(-2).map(({ kind }) => kind)).toEqual(['corrected', 'ran'])
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.locator('[data-entry=ran]:not(.struck)').first()).toContainText('Ran 1 tank')
  await expect(page.locator('[data-entry=ran].struck').filter({ hasText: 'Ran 3 tanks' })).toBeVisible()
  // What somebody else wrote is not theirs to change.
  const others = page.locator('[data-entry]').filter({ hasText: 'Maren Aldwick' }).first()
  await expect(others.getByRole('button', { name: /^Put right/ })).toHaveCount(0)
})

test('an entry that belongs to another loop goes there, on a phone', async ({ page, open, undercliff }) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await open('/loops/K5/note/ran')
  await page.getByRole('button', { name: 'Log the tanks' }).click()
  const before = (await logOf(undercliff, 'K6')).length
  await page
    .locator('[data-entry=ran]')
    .first()
    .getByRole('button', { name: /^Put right/ })
    .click()
  const panel = page.getByRole('dialog')
  await panel.getByRole('combobox', { name: 'Of loop' }).focus()
  await page.keyboard.type('K6')
  await panel.getByRole('button', { name: 'Put it right' }).click()
  await expect(panel).toBeHidden()
  await expect.poll(async () => (await logOf(undercliff, 'K6')).length).toBe(before + 1)
  expect((await logOf(undercliff, 'K6')).at(-1)).toMatchObject({ kind: 'ran', tanks: 1 })
})

test('a saw is renamed, lent out and brought back; one lent out takes no loop', async ({ page, open, undercliff }) => {
  await open('/saws/Puffin')
  const name = page.getByRole('textbox', { name: 'Called' })
  await name.fill('Wren')
  await page.getByRole('button', { name: 'Rename it' }).press('Enter')
  await expect(page.getByText(/Another saw is called Wren/).first()).toBeVisible()
  await name.fill('Razorbill')
  await page.getByRole('button', { name: 'Rename it' }).press('Enter')
  await expect(page.getByRole('heading', { name: 'Razorbill', exact: true })).toBeVisible()
  await expect(page).toHaveURL(/\/saws\/Razorbill$/)
  await page.getByLabel('Lent to').fill('the north crew')
  await page.getByRole('button', { name: 'Lend it out' }).press('Enter')
  await expect(page.getByText('It is lent out to the north crew.').first()).toBeVisible()
  await page.goto(undercliff.address)
  await expect(page.getByText(/Not here:/)).toContainText('Razorbill lent to the north crew')
  await expect(page.locator('[data-saw=Razorbill]')).toHaveCount(0)
  await page.goto(`${undercliff.address}/saws/Razorbill`)
  await page.getByRole('button', { name: 'It is back' }).press('Enter')
  await expect(page.getByRole('button', { name: 'Lend it out' })).toBeVisible()
  await name.fill('Puffin')
  await page.getByRole('button', { name: 'Rename it' }).press('Enter')
  await expect(page.getByRole('heading', { name: 'Puffin', exact: true })).toBeVisible()
})

test('a loop that was registered by mistake is put away with its log', async ({ page, open }) => {
  await open('/loops/T4/note/retired')
  await page.getByRole('radio', { name: 'Registered by mistake' }).press('Space')
  await page.getByRole('button', { name: 'Retire this loop' }).press('Enter')
  await expect(page.getByRole('heading', { name: 'T4', exact: true })).toBeVisible()
  await expect(page.locator('[data-entry=retired]')).toContainText('mistake')
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(page.getByRole('link', { name: 'Retire this loop' }).or(page.getByText('Put …'))).not.toHaveCount(0)
})
