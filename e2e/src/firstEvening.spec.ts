import { expect, logOf, test } from './testing'

test('a used loop is never taken for new: an estimate by eye, and another like it, by keyboard', async ({
  page,
  open,
  undercliff,
}) => {
  await open('/add/loop?saw=Stilt')
  await expect(page.getByLabel('Drive links')).toHaveValue('44')
  await page.getByLabel('Tag', { exact: true }).fill('S8')
  await page.keyboard.press('Enter')
  await expect(page.getByText('Say whether it is new or used.')).toBeVisible()
  await expect(page.getByRole('radio', { name: 'New', exact: true })).toBeFocused()
  await page.keyboard.press('ArrowRight')
  await page.getByRole('slider').focus()
  await page.keyboard.press('ArrowLeft')
  await expect(page.getByRole('slider')).toHaveAttribute('aria-valuetext', /^about \d\.\d mm, half$/)
  await page.getByLabel('Left, as you would measure it').fill('3.1')
  await page.getByRole('button', { name: 'Add, and another like it' }).click()
  await expect(page.getByText('S8 is in the shed.')).toBeVisible()
  const tag = page.getByLabel('Tag', { exact: true })
  await expect(tag).toBeFocused()
  await expect(tag).toHaveValue('S9')
  expect((await logOf(undercliff, 'S8')).at(0)).toMatchObject({ kind: 'registered', used: { aboutUm: 3100 } })
  await page.getByRole('button', { name: 'Add the loop' }).click()
  await expect(page.getByRole('heading', { name: 'S9', exact: true })).toBeVisible()
  const verdict = page.getByRole('region', { name: 'Verdict' })
  await expect(verdict).toContainText('Measure')
  // What was seen of the first is nothing that is known of the second.
  expect((await logOf(undercliff, 'S9')).at(0)).toMatchObject({ kind: 'registered', used: {} })
  await expect(verdict).not.toContainText('3.10 mm')
})

test.describe('in the hand', () => {
  test.use({ hasTouch: true, viewport: { width: 390, height: 844 } })
  test('a new saw gets its loop in one go, on a phone', async ({ page, open, undercliff }) => {
    await open('/add/saw')
    await page.getByLabel('What the crew calls it').fill('Fulmar')
    await page.getByRole('button', { name: 'Add the saw' }).tap()
    await expect(page.getByRole('link', { name: 'Fulmar', exact: true })).toBeVisible()
    await open('/saws/Fulmar')
    await page.getByRole('link', { name: 'A loop for this saw' }).tap()
    await page.getByLabel('Tag', { exact: true }).fill('F1')
    await page.getByRole('radio', { name: 'Used' }).tap()
    await page.getByLabel('Left, as you would measure it').fill('4.5')
    await page.getByRole('button', { name: 'Add the loop' }).tap()
    await expect(page.getByText('On Fulmar', { exact: true })).toBeVisible()
    expect((await logOf(undercliff, 'F1')).map(({ kind }) => kind)).toEqual(['registered', 'fitted'])
    // Used, and nobody looked: it may be at its mark, and does not cut before it is measured.
    await open('/add/loop')
    await page.getByLabel('Tag', { exact: true }).fill('F2')
    await page.getByRole('radio', { name: 'Used' }).tap()
    await page.getByRole('button', { name: 'Add, and measure it' }).tap()
    await expect(page.locator('[data-reading]')).toBeVisible()
    await open('/loops/F2')
    await expect(page.getByRole('region', { name: 'Verdict' })).toContainText('Measure it before the loop runs')
  })
})
