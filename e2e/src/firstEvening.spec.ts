import type { ShedAnswer } from '@undercliff/contract'
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
  // Pitch, gauge and drive links are the saw's; what nobody said is asked for, one after the other.
  await page.getByRole('button', { name: 'Add the loop' }).click()
  await expect(page.getByRole('alert')).toContainText('Say what cutters it has.')
  await expect(page.getByLabel('Cutter type')).toBeFocused()
  await page.getByLabel('Cutter type').selectOption('low-profile chipper')
  await page.getByLabel('Sequence').selectOption('full complement')
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

test('what is typed while the network is slow is of the next one, and stays; a second press adds nothing', async ({
  page,
  open,
  undercliff,
}) => {
  await open('/add/loop?saw=Stilt')
  let letGo: () => void = () => undefined
  const held = new Promise<void>((resolve) => (letGo = resolve))
  await page.route('**/api/entries', async (route) => {
    await held
    await route.continue()
  })
  const tag = page.getByLabel('Tag', { exact: true })
  await tag.fill('S20')
  await page.getByRole('radio', { name: 'Used' }).click()
  await page.getByLabel('Cutter type').selectOption('low-profile chipper')
  await page.getByLabel('Sequence').selectOption('full complement')
  await page.getByLabel('Left, as you would measure it').fill('half')
  const another = page.getByRole('button', { name: 'Add, and another like it' })
  await another.evaluate((button: HTMLButtonElement) => {
    for (let i = 0; i < 3; i += 1) button.click()
  })
  await tag.fill('S31')
  letGo()
  await expect(page.getByText('S20 is in the shed.')).toBeVisible()
  await expect(tag).toHaveValue('S31')
  await expect(page.getByText(/^Nobody has looked/)).toBeVisible()
  const { loops } = await undercliff.json<ShedAnswer>('/api/shed')
  expect(loops.filter((loop) => ['S20', 'S21', 'S31'].includes(loop.tag))).toHaveLength(1)
})

test.describe('in the hand', () => {
  test.use({ hasTouch: true, viewport: { width: 390, height: 844 } })
  test('a new saw gets its loop in one go, on a phone', async ({ page, open, undercliff }) => {
    await open('/add/saw')
    await expect(page.getByLabel('What the crew calls it')).toBeFocused()
    await page.keyboard.type('Fulmar')
    // Nothing is a fact that nobody said; that nobody knows it is an answer.
    await page.getByRole('button', { name: 'Add the saw' }).tap()
    await expect(page.getByRole('alert')).toContainText('Say the pitch of its sprocket')
    await page.getByLabel('Pitch').selectOption('3/8"')
    await page.getByLabel('Gauge').selectOption('1.5 mm')
    await page.reload()
    await expect(page.getByText('As you left it before it was added.')).toBeVisible()
    await page.getByRole('button', { name: "Don't know yet" }).tap()
    await page.getByRole('button', { name: 'Add the saw' }).tap()
    await expect(page.getByText('Fulmar is in the shed: 3/8" · 1.5 mm · drive links not known.')).toBeVisible()
    await open('/saws/Fulmar')
    await expect(page.getByText('Nobody has said how many drive links its bar takes')).toBeVisible()
    await page.getByRole('button', { name: 'Read off …' }).tap()
    await page.getByLabel('Drive links').fill('72')
    await page.getByRole('button', { name: 'That is what it takes' }).tap()
    await expect(page.getByText('Read off it: 72 drive links.')).toBeVisible()
    await expect(page.getByText('Nobody has said')).toBeHidden()
    await page.getByRole('link', { name: 'A loop for this saw' }).tap()
    await page.getByLabel('Tag', { exact: true }).fill('F1')
    await page.getByRole('radio', { name: 'Used' }).tap()
    await page.getByLabel('Cutter type').selectOption('semi-chisel')
    await page.getByLabel('Sequence').selectOption('full complement')
    await page.getByLabel('Left, as you would measure it').fill('4.5')
    await page.getByRole('button', { name: 'Add the loop' }).tap()
    await expect(page.getByText('On Fulmar', { exact: true })).toBeVisible()
    expect((await logOf(undercliff, 'F1')).map(({ kind }) => kind)).toEqual(['registered', 'fitted'])
    // Used, and nobody looked: it may be at its mark, and does not cut before it is measured.
    await open('/add/loop')
    await page.getByLabel('Tag', { exact: true }).fill('F2')
    await page.getByRole('radio', { name: 'Used' }).tap()
    await expect(page.getByLabel('Drive links'), 'what was said of the last one is no fact of this').toHaveValue('')
    await page.getByLabel('Pitch').selectOption('3/8"')
    await page.getByLabel('Gauge').selectOption('1.5 mm')
    await page.getByLabel('Drive links').fill('72')
    await page.getByLabel('Cutter type').selectOption('semi-chisel')
    await page.getByLabel('Sequence').selectOption('full complement')
    await page.getByRole('button', { name: 'Add, and measure it' }).tap()
    await expect(page.locator('[data-reading]')).toBeVisible()
    await open('/loops/F2')
    await expect(page.getByRole('region', { name: 'Verdict' })).toContainText('Measure it before the loop runs')
  })
})
