import { lookAt, SCREENS } from './screens'
import { expect, test } from './testing'

// The other half is in moreScreens.spec.ts, so that two workers share them.
lookAt(
  SCREENS.filter((_, i) => i % 2 === 0),
  'one half',
)

test('on a phone every button of the quick entries is a target of 48 px', async ({ page, open }) => {
  await page.setViewportSize({ width: 390, height: 844 })
  for (const path of [
    '/loops/P1/sharpened',
    '/loops/P1/note/ran',
    '/loops/P1/measure',
    '/loops/P1/note/struck',
    '/loops/K3/decide',
    '/triage',
    '/rules',
  ]) {
    await open(path)
    await expect(page.getByRole('heading').first()).toBeVisible()
    const small = await page.evaluate(() =>
      [...document.querySelectorAll<HTMLElement>('main button, main a.act')]
        .filter((element) => element.offsetParent !== null && element.getBoundingClientRect().height < 47.5)
        .map((element) => element.textContent),
    )
    expect(small, path).toEqual([])
  }
})

test('a touch-up is logged in two taps by whoever is signed in', async ({ page, open }) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await open('/loops/X1', 'iska')
  await page.getByRole('link', { name: 'Log the touch-up' }).click()
  await expect(page.getByRole('radio', { name: 'Iska Lund-Pell' })).toHaveAttribute('aria-checked', 'true')
  await page.getByRole('button', { name: 'Log the sharpening' }).click()
  await expect(page.locator('[data-entry=sharpened]').first()).toContainText(/filed in the field, \d+ strokes/)
  await expect(page.locator('[data-entry=sharpened]').first()).toContainText('Iska Lund-Pell')
})

test('a choice is one stop of the Tab key, and arrows, Home and End go through it', async ({ page, open }) => {
  await open('/loops/T4/sharpened')
  const how = page.getByRole('radiogroup', { name: 'How' })
  const [first, second, last] = [
    how.getByRole('radio').first(),
    how.getByRole('radio').nth(1),
    how.getByRole('radio').last(),
  ]
  await first.click()
  await page.keyboard.press('ArrowRight')
  await expect(second).toBeChecked()
  await expect(second).toBeFocused()
  await page.keyboard.press('End')
  await expect(last).toBeChecked()
  await page.keyboard.press('ArrowDown')
  await expect(first).toBeChecked()
  await page.keyboard.press('ArrowLeft')
  await expect(last).toBeChecked()
  await page.keyboard.press('Home')
  await expect(first).toBeFocused()
  await page.keyboard.press('Tab')
  expect(await how.evaluate((group) => group.contains(document.activeElement))).toBe(false)
})

test('the list of keys is behind ?', async ({ page, open }) => {
  await open('/loops/K3')
  await expect(page.getByRole('heading', { name: 'K3' })).toBeVisible()
  await page.keyboard.press('?')
  await expect(page.getByText('from cutter to cutter on the loop map')).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(page.getByText('from cutter to cutter on the loop map')).toHaveCount(0)
})
