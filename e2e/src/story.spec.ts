import type { ShedAnswer } from '@undercliff/contract'
import { caliper, expect, logOf, tabTo, test } from './testing'

test('from the shed to a logged sharpening by keyboard alone, through a killed server and a killed database', async ({
  page,
  open,
  undercliff,
}) => {
  const fetched = new Set<string>()
  page.on('requestfinished', (request) => fetched.add(new URL(request.url()).pathname))
  await open('/')
  await expect(page.getByRole('heading', { name: /loops need you/ })).toBeVisible()

  // Find the loop and open it.
  await page.keyboard.press('/')
  await expect(page.locator('input:focus')).toBeVisible()
  await page.keyboard.type('b3')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'B3', exact: true })).toBeVisible()
  const verdict = page.getByRole('region', { name: 'Verdict' })
  await expect(verdict).toContainText('Run on')
  const forecast = page.getByRole('heading', { name: /sharpenings left/ })
  const before = await forecast.textContent()

  // Walk round it as a caliper types, with a struck cutter on the way.
  await page.keyboard.press('m')
  await expect(page.locator('[data-reading]')).toBeFocused()
  await caliper(page, '6.35', '6.36mm', '6,41 mm')
  await page.keyboard.press('t')
  await expect(page.getByLabel(/^How deep is/)).toBeFocused()
  await caliper(page, '1.1', '6.4')
  await expect(verdict).toContainText('Regrind')
  await expect(verdict).toContainText('Stone strike on cutter 4 R, 1.10 mm deep')
  for (let cutter = 5; cutter <= 32; cutter += 1) await caliper(page, cutter % 2 === 0 ? '6.4' : '6.41')
  await expect(page.getByText('All round', { exact: true }).last()).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'B3', exact: true })).toBeVisible()
  await expect(verdict).toContainText('Regrind')
  await expect(page.getByText('32 of 32 cutters measured')).toBeVisible()
  const struck = await forecast.textContent()
  expect(struck).not.toBe(before)
  expect((await logOf(undercliff, 'B3')).at(-1)).toMatchObject({ kind: 'measured' })

  // The browser has fetched the other screens meanwhile, as it does while nobody waits for one.
  const { files } = await undercliff.json<{ files: readonly string[] }>('/screens.json')
  await expect.poll(() => files.filter((file) => !fetched.has(file))).toEqual([])

  // The power goes between two entries: what is logged meanwhile is kept on the device.
  await undercliff.kill()
  await page.keyboard.press('s')
  await tabTo(page, 'Maren Aldwick')
  await page.keyboard.press('Enter')
  await tabTo(page, 'Log the sharpening')
  await page.keyboard.press('Enter')
  await expect(page.getByText('kept here, not sent yet')).toBeVisible()
  await expect(verdict).not.toContainText('Regrind')
  await expect(page.getByText('0 of 32 cutters measured')).toBeVisible()

  // A reload keeps it, and it is sent when the server is back.
  await undercliff.up()
  await page.reload()
  await expect(page.getByText('kept here, not sent yet')).toHaveCount(0)
  await expect.poll(async () => (await logOf(undercliff, 'B3')).at(-1)?.kind).toBe('sharpened')
  await expect(page.locator('[data-entry=sharpened]').first()).toContainText('ground')

  // The database dies under the next one.
  undercliff.killDatabase()
  await page.keyboard.press('r')
  await tabTo(page, 'Log the tanks')
  await page.keyboard.press('Enter')
  await expect(page.locator('[data-entry=ran]').first()).toContainText('Ran 1 tank')
  await expect.poll(async () => (await logOf(undercliff, 'B3').catch(() => [])).at(-1)?.kind).toBe('ran')

  // Once more, and every acknowledged entry is there.
  const acknowledged = (await logOf(undercliff, 'B3')).map(({ id }) => id)
  await undercliff.kill()
  process.kill(undercliff.databasePid(), 'SIGKILL')
  await undercliff.up()
  expect((await logOf(undercliff, 'B3')).map(({ id }) => id)).toEqual(acknowledged)
  const { loops } = await undercliff.json<ShedAnswer>('/api/shed')
  expect(loops.length).toBeGreaterThanOrEqual(30)
})
