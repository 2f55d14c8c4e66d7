import { expect, logOf, test } from './testing'

test('a struck loop is ground by keyboard alone, through a reload, a dead server and a stop that shifted', async ({
  page,
  open,
  undercliff,
}) => {
  const before = (await logOf(undercliff, 'K3')).length
  await open('/loops/K3/sharpen?action=regrind')
  const inHand = page.locator('[data-in-hand]')
  const step = (name: RegExp) => page.getByRole('heading', { name, level: 2 })
  await expect(step(/^Make it safe/)).toBeVisible()
  for (const next of [/^Clean it/, /^Mark the start/, /^Look at the wheel/, /^Set it up/, /^Left cutters, first/]) {
    await page.keyboard.press('Enter')
    await expect(step(next)).toBeVisible()
  }
  await expect(inHand).toContainText('1 L')
  // What happened is told by its place in the plan, so the tool stays what it was begun with.
  await expect(page.getByLabel('With', { exact: true })).toHaveCount(0)
  // The stop stands on the worst cutter, behind its damage.
  await expect(inHand).toContainText('to 5.94 mm')
  for (let cutter = 1; cutter <= 9; cutter += 1) await page.keyboard.press('Enter')
  await expect(inHand).toContainText('19 L')
  await page.keyboard.press('u')
  await expect(inHand).toContainText('17 L')
  await page.reload()
  await expect(inHand).toContainText('17 L')

  // What cannot be of this cutter is asked about, and the next reading takes its place.
  await page.locator('[data-reading]').focus()
  await page.keyboard.type('8.2')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toContainText('Longer than it was before its strokes')
  await page.keyboard.type('5.95')
  await page.keyboard.press('Enter')
  await expect(inHand).toContainText('19 L')
  await undercliff.kill()
  for (let cutter = 19; cutter <= 35; cutter += 2) await page.keyboard.press('Enter')
  await expect(step(/^Change sides/)).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(step(/^Measure one/)).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toContainText('Measure it, or say that it goes on unchecked')
  await page.keyboard.type('6.10')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/0\.15 mm longer than the first side: move the stop in by 0\.15 mm/)).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(step(/^Right cutters/)).toBeVisible()
  for (let cutter = 2; cutter <= 36; cutter += 2) await page.keyboard.press(' ')
  await expect(step(/^Depth gauges/)).toBeVisible()
  for (const next of [/^Look all round/, /^Put it back/, /^All done/]) {
    await page.keyboard.press('Enter')
    await expect(step(next)).toBeVisible()
  }
  await page.getByRole('button', { name: 'Log the sharpening' }).press('Enter')
  await expect(page.getByRole('heading', { name: 'K3', exact: true })).toBeVisible()

  await undercliff.up()
  await page.reload()
  await expect.poll(async () => (await logOf(undercliff, 'K3')).length).toBeGreaterThan(before + 1)
  const log = (await logOf(undercliff, 'K3')).slice(before)
  expect(log.map(({ kind }) => kind).slice(0, 2)).toEqual(['sharpened', 'measured'])
  expect(log[0]).toMatchObject({ method: 'grinder', stopChecked: true, damageCleared: true })
  await expect(page.getByRole('region', { name: 'Verdict' })).not.toContainText('Regrind')
})

test('only tools that suit the loop are on offer, and none for one that is cracked', async ({
  page,
  open,
  undercliff,
}) => {
  await open('/loops/K3/sharpen')
  const tool = page.getByLabel('With', { exact: true })
  await expect(tool.getByRole('option', { name: /two-in-one/i })).toHaveCount(1)
  await expect(tool.getByRole('option', { name: /square-ground/ })).toHaveCount(0)
  // A cracked strap ends a loop: there is nothing to begin.
  await page.goto(`${undercliff.address}/loops/T2/sharpen`)
  await expect(page.getByRole('alert')).toContainText('no edge makes it fit')
  await expect(page.locator('.go')).toHaveCount(0)
})

test.describe('on a phone, by touch', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true })

  test('a touch-up: readings change what the next cutters get; one side alone is not logged', async ({
    page,
    open,
    undercliff,
  }) => {
    const before = (await logOf(undercliff, 'P2')).length
    await open('/loops/P2/sharpen?action=touchUp')
    const onward = page.locator('.go')
    const inHand = page.locator('[data-in-hand]')
    while (!(await inHand.isVisible())) await onward.tap()
    const first = (await inHand.textContent()) ?? ''
    const hand = first.includes(' L') ? 'L' : 'R'
    const target = Number(/to ([\d.]+) mm/.exec(first)?.[1])
    // Each is left longer than so many strokes should: the file is worn.
    for (let i = 0; i < 6; i += 1) {
      const text = (await inHand.textContent()) ?? ''
      const wanted = Number(/to ([\d.]+) mm/.exec(text)?.[1] ?? target)
      await page.locator('[data-reading]').fill((wanted + 0.06).toFixed(2))
      await onward.tap()
      await expect(inHand).not.toHaveText(text)
    }
    await expect(page.getByText(/A stroke takes \d+ % less than usual today/)).toBeVisible()
    while (await inHand.getByText(new RegExp(`^\\d+ ${hand}$`)).isVisible()) await onward.tap()
    await page.getByRole('button', { name: 'Go on unchecked' }).or(onward).last().tap()
    await page.getByRole('button', { name: 'Go on unchecked' }).tap()
    // The other side is left out.
    const skip = page.getByRole('button', { name: /^Skip/ })
    while (await skip.isVisible()) await skip.tap()
    while (await onward.isVisible()) await onward.tap()
    await expect(page.getByRole('alert')).toContainText('Like this the saw pulls')
    await expect(page.getByRole('button', { name: 'Log the sharpening' })).toHaveCount(0)
    expect(await logOf(undercliff, 'P2')).toHaveLength(before)
  })
})
