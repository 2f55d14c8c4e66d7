import type { ShedAnswer } from '@undercliff/contract'
import type { Page } from '@playwright/test'
import { expect, logOf, test, violations } from './testing'
import type { Undercliff } from './undercliff'

const tile = (page: Page, tag: string) =>
  page
    .locator('[data-loop-tile]')
    .filter({ has: page.getByText(tag, { exact: true }) })
    .first()
const placeOf = async (undercliff: Undercliff, tag: string) =>
  (await undercliff.json<ShedAnswer>('/api/shed')).loops.find((loop) => loop.tag === tag)?.place
const focusOn = (page: Page, tag: string): Promise<void> => tile(page, tag).focus()
/** A drag is of what is under the pointer: nothing may scroll on the way. */
test.use({ viewport: { width: 1280, height: 1500 } })

test('a loop that does not fit is refused by drag and by keyboard, with the reason', async ({
  page,
  open,
  undercliff,
}) => {
  await open('/')
  await expect(tile(page, 'B3')).toBeVisible()
  const before = (await logOf(undercliff, 'B3')).length
  await tile(page, 'B3').dragTo(page.locator('[data-saw="Great Tern"]'))
  const dialog = page.getByRole('dialog')
  await expect(dialog.getByRole('alert')).toContainText(
    'B3 must not go on Great Tern: pitch is .325", the sprocket takes 3/8"',
  )
  await expect(dialog.getByRole('button', { name: /^Put B3/ })).toHaveCount(0)
  expect(await violations(page)).toEqual([])
  await page.keyboard.press('Escape')
  await expect(dialog).toHaveCount(0)

  await focusOn(page, 'B3')
  await page.keyboard.press('p')
  const stilt = dialog.getByRole('button', { name: /Stilt/ })
  const number = (await stilt.locator('kbd').textContent()) ?? ''
  await page.keyboard.press(number)
  await expect(dialog.getByRole('alert')).toContainText('B3 must not go on Stilt')
  await expect(dialog.getByRole('button', { name: /^Put B3/ })).toHaveCount(0)
  expect(await logOf(undercliff, 'B3')).toHaveLength(before)
})

test('two keys move a loop, one drag moves it, and each can be undone', async ({ page, open, undercliff }) => {
  await open('/')
  await focusOn(page, 'X2')
  await page.keyboard.press('p')
  await page.keyboard.press('t')
  await expect(page.getByText('X2 is on the truck.')).toBeVisible()
  expect(await placeOf(undercliff, 'X2')).toEqual({ at: 'truck' })
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect.poll(() => placeOf(undercliff, 'X2')).toEqual({ at: 'sharpRack' })
  await tile(page, 'X3').dragTo(page.locator('[data-place=dullBox]'))
  await expect(page.getByText('X3 is in the dull box.')).toBeVisible()
  expect(await placeOf(undercliff, 'X3')).toEqual({ at: 'dullBox' })
})

test('a loop is fitted by drag, with the bar flip and the tension as one tap each', async ({
  page,
  open,
  undercliff,
}) => {
  await open('/')
  await tile(page, 'S2').dragTo(page.locator('[data-saw=Stilt]'))
  const dialog = page.getByRole('dialog')
  await expect(dialog.getByRole('alert')).toContainText('S2 fits Stilt')
  await page.keyboard.press('f')
  await dialog.getByRole('button', { name: /Tension checked/ }).click()
  await dialog.getByRole('button', { name: 'Put S2 on Stilt' }).click()
  await expect(page.getByText('S2 is on Stilt; S1 came off.')).toBeVisible()
  expect((await logOf(undercliff, 'S2')).at(-1)).toMatchObject({
    kind: 'fitted',
    barFlipped: true,
    tensionChecked: true,
  })
})

test('a drawback is overruled with a reason, which is logged', async ({ page, open, undercliff }) => {
  await open('/loops/K6')
  await expect(page.getByRole('heading', { name: 'K6', exact: true })).toBeVisible()
  await page.keyboard.press('p')
  const dialog = page.getByRole('dialog')
  await dialog.getByRole('button', { name: /Kittiwake/ }).click()
  await expect(dialog.getByRole('alert')).toContainText('K6 will run on Kittiwake, but the groove is worn to 1.74 mm')
  await dialog.getByRole('button', { name: 'Put K6 on Kittiwake' }).click()
  await expect(dialog.getByText(/Say in a few words why/)).toBeVisible()
  await dialog.getByLabel('Why it goes on all the same').fill('One windfall at the gate')
  await dialog.getByRole('button', { name: 'Put K6 on Kittiwake' }).click()
  await expect(page.getByText('On Kittiwake', { exact: true })).toBeVisible()
  await expect
    .poll(async () => (await logOf(undercliff, 'K6')).at(-1))
    .toMatchObject({ kind: 'fitted', overruled: 'One windfall at the gate' })
})

test('the dull box is emptied onto the bench in one go, on a phone', async ({ page, open, undercliff }) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await open('/')
  await page.getByRole('button', { name: 'Filter', exact: true }).click()
  await page.locator('[data-place=dullBox]').click()
  await page.getByRole('button', { name: 'Choose these' }).click()
  const inBox = (await undercliff.json<ShedAnswer>('/api/shed')).loops
    .filter(({ place }) => place.at === 'dullBox')
    .map(({ tag }) => tag)
  expect(inBox.length).toBeGreaterThan(1)
  await page.getByRole('button', { name: /^Move/ }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'bench' }).click()
  await expect(page.getByText(`${inBox.length} loops are on the bench.`)).toBeVisible()
  for (const tag of inBox) expect(await placeOf(undercliff, tag)).toEqual({ at: 'bench' })
})

test('two people move the same loop: both are written, the later counts, and the first screen follows', async ({
  page,
  open,
  undercliff,
  browser,
}) => {
  await open('/loops/T5')
  await expect(page.getByRole('heading', { name: 'T5', exact: true })).toBeVisible()
  const other = await browser.newContext()
  await undercliff.enter(other, 'iska')
  const iska = await other.newPage()
  await iska.goto(`${undercliff.address}/loops/T5`)
  await expect(iska.getByRole('heading', { name: 'T5', exact: true })).toBeVisible()
  await page.keyboard.press('p')
  await iska.keyboard.press('p')
  await page.keyboard.press('t')
  await expect(page.getByText('T5 is on the truck.')).toBeVisible()
  await iska.keyboard.press('b')
  await expect(iska.getByText('T5 is on the bench.')).toBeVisible()
  const log = await logOf(undercliff, 'T5')
  expect(log.slice(-2).map((entry) => (entry.kind === 'moved' ? entry.to : entry.kind))).toEqual(['truck', 'bench'])
  expect(new Set(log.slice(-2).map(({ writtenBy }) => writtenBy)).size).toBe(2)
  expect(await placeOf(undercliff, 'T5')).toEqual({ at: 'bench' })
  await page.reload()
  await expect(page.getByText('On the bench', { exact: true })).toBeVisible()

  // Two loops for one saw: the second is told.
  await open('/loops/W2')
  await iska.goto(`${undercliff.address}/loops/W3`)
  for (const [who, tag] of [
    [page, 'W2'],
    [iska, 'W3'],
  ] as const) {
    await expect(who.getByRole('heading', { name: tag, exact: true })).toBeVisible()
    await who.keyboard.press('p')
    await who.getByRole('dialog').getByRole('button', { name: /Wren/ }).click()
  }
  await page.getByRole('button', { name: 'Put W2 on Wren' }).click()
  await expect(page.getByText('On Wren', { exact: true })).toBeVisible()
  await iska.getByRole('button', { name: 'Put W3 on Wren' }).click()
  await expect(iska.getByText('There is another loop on that saw. Take it off first.')).toBeVisible()
  await other.close()
})

test('a loop goes to a shop and comes back with what it cost', async ({ page, open, undercliff }) => {
  await open('/loops/P3')
  await expect(page.getByRole('heading', { name: 'P3', exact: true })).toBeVisible()
  await page.keyboard.press('p')
  await page.keyboard.press('h')
  await page.getByLabel('Shop', { exact: true }).fill('Harbour saw works')
  await page.getByLabel('Due back').fill('2027-01-15')
  await page.getByRole('button', { name: 'Send out' }).click()
  await expect(page.getByText(/At Harbour saw works since .*, due back 15 Jan/)).toBeVisible()
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await page.keyboard.press('p')
  await page.getByLabel('What the shop took, if you know').fill('14.50')
  await page.getByRole('dialog').getByRole('button', { name: 'sharp rack' }).click()
  await expect(page.getByText('On the sharp rack', { exact: true })).toBeVisible()
  await expect
    .poll(async () => (await logOf(undercliff, 'P3')).at(-1))
    .toMatchObject({ kind: 'cameBack', to: 'sharpRack', costMinor: 1450 })
})

test('a saw keeps a log of its own: rails dressed, bar checked, another sprocket', async ({ page, open }) => {
  await open('/saws/Old%20Brine')
  await page.getByRole('button', { name: 'Checked …' }).click()
  await page.getByLabel('Groove width').fill('1.55')
  await page.getByRole('button', { name: 'Burrs', exact: true }).click()
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText('Dress the rails: they have burrs')).toBeVisible()
  await page.getByRole('button', { name: 'Rails dressed' }).click()
  await expect(page.getByText('Dress the rails: they have burrs')).toHaveCount(0)
  await page.getByRole('button', { name: 'Renewed …' }).click()
  await page.getByRole('button', { name: 'It has a new sprocket' }).click()
  await expect(page.getByText('about 0 h, 0 loops').or(page.getByText(/about .* h, 1 loop/))).toBeVisible()
  await expect(page.getByText('Sprocket renewed: .325".')).toBeVisible()
})

test('what another person logs is seen without a reload', async ({ page, open, undercliff }) => {
  await page.clock.install()
  await open('/loops/P2')
  await expect(page.getByText('On the truck', { exact: true })).toBeVisible()
  const { loops } = await undercliff.json<ShedAnswer>('/api/shed')
  const loopId = loops.find(({ tag }) => tag === 'P2')?.loopId ?? ''
  const entry = { id: 'seen-elsewhere-1', loopId, happenedAt: new Date().toISOString(), personId: null }
  await undercliff.send('POST', '/api/entries', { entries: [{ ...entry, kind: 'moved', to: 'dullBox' }] })
  await page.clock.runFor(16_000)
  await expect(page.getByText('In the dull box', { exact: true })).toBeVisible()
})
