import type { Page } from '@playwright/test'
import { expect, test } from './testing'

const title = (page: Page) => page.title()
/** The page is there, and hears keys. */
const ready = (page: Page) => expect(page.getByRole('heading').first()).toBeVisible()

test('every place has its key, its mark and its title, and focus goes with it', async ({ page, open }) => {
  await open('/loops/K3')
  await expect.poll(() => title(page)).toBe('K3 · Undercliff')
  for (const [key, name, called] of [
    ['B', 'Bench', 'Triage'],
    ['L', 'Learn', 'What wears'],
    ['H', 'House', 'House'],
    ['S', 'Shed', 'Shed'],
  ] as const) {
    await page.keyboard.press(`Shift+${key}`)
    await expect.poll(() => title(page)).toBe(`${called} · Undercliff`)
    await expect(page.getByRole('navigation', { name: 'Places' }).getByRole('link', { name })).toHaveAttribute(
      'aria-current',
      'true',
    )
    await expect(page.getByRole('main')).toBeFocused()
    await expect(page.locator('[aria-live=polite]').filter({ hasText: called }).first()).toBeAttached()
  }
})

test('the way past the bar is the first that the Tab key comes to', async ({ page, open }) => {
  await open('/triage')
  await ready(page)
  await page.evaluate(() => {
    ;(document.activeElement as HTMLElement | null)?.blur()
  })
  await page.keyboard.press('Tab')
  const skip = page.getByRole('link', { name: 'To the page' })
  await expect(skip).toBeFocused()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('main')).toBeFocused()
})

test('search finds a loop, a screen, a rule and a word from anywhere, by keyboard', async ({ page, open }) => {
  await open('/wear')
  await ready(page)
  const find = async (typed: string): Promise<void> => {
    await page.keyboard.press('/')
    await expect(page.getByRole('combobox', { name: /Search/ })).toBeFocused()
    // As hands type: what comes faster is no hand's, and is swallowed.
    await page.keyboard.type(typed, { delay: 60 })
    await expect(page.getByRole('option').first()).toHaveAttribute('aria-selected', 'true')
    await page.keyboard.press('Enter')
  }
  await find('k3')
  await expect(page.getByRole('heading', { name: 'K3', exact: true })).toBeVisible()
  await find('which chain')
  await expect(page.getByRole('heading', { name: /Which chain/ })).toBeVisible()
  await find('blued')
  await expect(page.locator('#word-blued')).toBeInViewport()
  await page.keyboard.press('/')
  await expect(page.getByRole('combobox', { name: /Search/ })).toBeFocused()
  await page.keyboard.type('qqqq', { delay: 60 })
  await expect(page.getByText(/Nothing begins with that/)).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('combobox', { name: /Search/ })).toBeHidden()
})

test('help for the page one stands on is behind ? and F1', async ({ page, open }) => {
  await open('/loops/K3/decide')
  await ready(page)
  await page.keyboard.press('F1')
  await expect(page.getByText(/Every way that is open for this loop/)).toBeVisible()
  await page.getByRole('link', { name: 'Words of the trade' }).click()
  await expect(page.getByRole('heading', { name: 'Words', exact: true })).toBeVisible()
})

test('on a phone: what is on the saws comes first, each with its log, and Back returns to the same place', async ({
  page,
  open,
}) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await open('/')
  const bar = page.getByRole('navigation', { name: 'Places' })
  const box = await bar.boundingBox()
  expect((box?.y ?? 0) + (box?.height ?? 0)).toBe(844)
  for (const place of await bar.getByRole('link').all()) expect((await place.boundingBox())?.height).toBeGreaterThan(55)
  const tank = page.locator('[data-saw="Mizzen"]').getByRole('link', { name: 'Tank' })
  await expect(tank).toBeInViewport()
  const tile = page.getByRole('link', { name: /^T3/ })
  await tile.scrollIntoViewIfNeeded()
  const left = await page.evaluate(() => window.scrollY)
  expect(left).toBeGreaterThan(300)
  await tile.click()
  await expect(page.getByRole('heading', { name: 'T3', exact: true })).toBeVisible()
  await page.goBack()
  await expect(tile).toBeInViewport()
  await expect.poll(() => page.evaluate(() => window.scrollY)).toBeCloseTo(left, -1)
})

test('at a desk the first row of saws stands in the upper third', async ({ page, open }) => {
  await open('/')
  const row = await page.locator('[data-saw]').first().boundingBox()
  expect(row?.y).toBeLessThanOrEqual(800 / 3)
  const filters = await page.getByRole('group', { name: 'Filter by verdict' }).boundingBox()
  const places = await page.locator('[data-place=truck]').boundingBox()
  expect(Math.abs((filters?.y ?? 0) - (places?.y ?? 99))).toBeLessThan(6)
})
