import { expect, test } from './testing'

test('a loop that nobody knows is told apart by three measurements and added', async ({ page, open }) => {
  await open('/identify')
  const span = page.getByLabel('Span over three rivets', { exact: true })
  await span.fill('9.5')
  await expect(page.getByText(/That is the span of one gap/).last()).toBeVisible()
  await span.fill('0.75')
  await expect(page.getByText('That looks like the wrong unit. Was it 19.05 mm?').last()).toBeVisible()
  await span.fill('19.1')
  await expect(page.getByText('Next: the thickness of a drive link.').last()).toBeVisible()
  await page.getByLabel('Thickness of a drive link', { exact: true }).fill('1.28')
  await expect(page.getByText(/does the cutter look low or tall/).last()).toBeVisible()
  await page.getByRole('radio', { name: 'Low', exact: true }).click()
  await expect(page.getByRole('heading', { name: '3/8" low profile', exact: true })).toBeVisible()
  await page.getByLabel('Drive links, counted').fill('50')
  await page.reload()
  await page.getByRole('radio', { name: 'low-profile chipper' }).click()
  await expect(page.getByText('Fits Puffin')).toBeVisible()
  await expect(page.getByText(/4\.0 mm \(5\/32"\)/).first()).toBeVisible()
  await page.getByRole('button', { name: 'Add it as a new loop' }).click()
  await page.getByLabel('Tag', { exact: true }).fill('P9')
  await page.getByRole('radio', { name: 'New', exact: true }).click()
  await page.getByRole('button', { name: 'Add the loop' }).click()
  await expect(page.getByRole('heading', { name: 'P9' })).toBeVisible()
  await expect(
    page.getByText('3/8" low profile · 1.3 mm · 50 links · low-profile chipper, full complement'),
  ).toBeVisible()
})
