import { readFileSync } from 'node:fs'
import { tagCode, checks } from '@undercliff/core'
import type { Page } from '@playwright/test'
import { expect, logOf, test, violations } from './testing'
import { qrOf } from './readPdf'

async function printed(page: Page): Promise<string | null> {
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: /^Make/ }).click(),
  ])
  return qrOf(readFileSync(await download.path()))
}

test('an unknown loop: three measurements, a made tag, and its printed QR code read by an outside decoder', async ({
  page,
  open,
}) => {
  await open('/identify')
  await page.getByLabel('Span over three rivets', { exact: true }).fill('19.1')
  await page.getByLabel('Thickness of a drive link', { exact: true }).fill('1.48')
  await page.getByLabel('Drive links, counted').fill('72')
  await page.getByRole('radio', { name: 'semi-chisel', exact: true }).click()
  await expect(page.getByText('the nearest to 1.48 mm measured')).toBeVisible()
  await page.getByRole('button', { name: 'Add it as a new loop' }).click()
  await page.getByRole('button', { name: 'Make one' }).click()
  const tag = await page.getByLabel('Tag', { exact: true }).inputValue()
  expect(checks(tag)).toBe(true)
  await page.getByRole('radio', { name: 'New', exact: true }).click()
  await page.getByRole('button', { name: 'Add the loop' }).click()
  await expect(page.getByRole('heading', { name: tag, exact: true })).toBeVisible()
  // A gauge of 1.5 mm is worked out from what was read: it says how it is known, and not that it was read.
  await page.getByRole('link', { name: 'Spec', exact: true }).click()
  await expect(page.getByText('by measuring', { exact: true }).first()).toBeVisible()
  await page.getByRole('link', { name: 'Tag with QR code' }).click()
  await expect(page.getByRole('button', { name: 'Make the tag' })).toBeEnabled()
  expect(await printed(page)).toBe(tagCode(tag))

  // Scanned by a scanner that types, it opens the loop from any screen.
  await page.getByRole('link', { name: 'Scan a tag' }).click()
  await page.getByLabel('The tag').fill(tag.toLowerCase())
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: tag, exact: true })).toBeVisible()
})

/** Types as a scanner does: 4 ms a key, by the time that the keys themselves carry, none waiting for the one before. */
async function scan(page: Page, code: string): Promise<void> {
  const devtools = await page.context().newCDPSession(page)
  const start = Date.now() / 1000
  const keys = Array.from(code).flatMap((key, i) => {
    const timestamp = start + i * 0.004
    return [
      devtools.send('Input.dispatchKeyEvent', { type: 'keyDown', key, text: key, timestamp }),
      devtools.send('Input.dispatchKeyEvent', { type: 'keyUp', key, timestamp }),
    ]
  })
  const enter = { key: 'Enter', code: 'Enter', windowsVirtualKeyCode: 13, text: '\r' }
  const timestamp = start + code.length * 0.004
  await Promise.all([...keys, devtools.send('Input.dispatchKeyEvent', { type: 'keyDown', ...enter, timestamp })])
  await devtools.detach()
}

test('a scanner that types opens the loop from any screen, and leaves nothing in the field it typed into', async ({
  page,
  open,
}) => {
  await open('/loops/X2/measure')
  const reading = page.locator('[data-reading]')
  await expect(reading).toBeFocused()
  await scan(page, tagCode('W2'))
  await expect(page.getByRole('heading', { name: 'W2', exact: true })).toBeVisible()
  await open('/')
  await page.getByRole('searchbox').fill('gre')
  await scan(page, tagCode('K2'))
  await expect(page.getByRole('heading', { name: 'K2', exact: true })).toBeVisible()
  await page.goBack()
  await expect(page.getByRole('searchbox')).toHaveValue('gre')
  await scan(page, tagCode('ZZ99'))
  await expect(page.getByText('No loop has the tag ZZ99.')).toBeVisible()
})

test('the stand-in scanner works, a slip is caught, and a code of something else is told', async ({ page, open }) => {
  await open('/scan')
  const tag = page.getByLabel('The tag')
  await tag.fill('K33')
  await page.keyboard.press('Enter')
  await expect(page.getByText('No loop has the tag K33.')).toBeVisible()
  await expect(page.getByRole('link', { name: 'K3', exact: true })).toBeVisible()
  await tag.fill('https://elsewhere.example/a')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/That is a code of something else/)).toBeVisible()
  await page.getByLabel('Tag to scan').focus()
  await page.keyboard.type('T4')
  await page.getByRole('button', { name: 'Scan it' }).click()
  await expect(page.getByRole('heading', { name: 'T4', exact: true })).toBeVisible()
})

test('a value of the spec is replaced with where it comes from, and a loop gets another tag', async ({
  page,
  open,
}) => {
  await open('/loops/M2/spec')
  // A slow answer to the first save comes while the second is being refused, and takes nothing away.
  await page.route(
    '**/api/entries',
    async (route) => {
      await new Promise((answered) => setTimeout(answered, 1500))
      await route.continue()
    },
    { times: 1 },
  )
  await page.getByRole('button', { name: 'Change gauge setting' }).click()
  await page.getByLabel('gauge setting', { exact: true }).fill('0.6')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.locator('.origin.box')).toHaveText('from the box or sheet')
  await expect(page.getByText('0.60 mm', { exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Change drive links' }).click()
  await page.getByLabel('drive links', { exact: true }).fill('40')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  const refusal = page.getByText(/such a loop has 20\. Strike those readings out first/)
  await expect(refusal).toBeVisible()
  await expect(page.getByText(/M2: gauge setting 0\.60 mm/)).toBeVisible()
  await expect(refusal).toBeVisible()
  expect(await violations(page)).toEqual([])
  await page.getByLabel('Tag', { exact: true }).fill('K3')
  await page.getByRole('button', { name: 'Give it this tag' }).click()
  await expect(page.getByText('Another loop has the tag').first()).toBeVisible()
})

/** Presses keys at one moment, however busy the machine is that tests: outside a field nothing is written anyway. */
const pressAtOnce = (page: Page, text: string): Promise<void> =>
  page.evaluate((keys) => {
    const target = document.activeElement ?? document.body
    const value = performance.now()
    for (const key of keys) {
      const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true })
      target.dispatchEvent(Object.defineProperty(event, 'timeStamp', { value }))
    }
  }, Array.from(text).concat('Enter'))

test('what types by itself and is no tag of ours does nothing on any screen, and is named', async ({ page, open }) => {
  await open('/loops/K5/measure')
  const hand = page.getByRole('region', { name: 'Cutter in hand' })
  await expect(page.locator('[data-reading]')).toBeFocused()
  const before = await hand.locator('.which').textContent()
  await pressAtOnce(page, 'https')
  await expect(page.getByText('“https” was read, and is no tag of this shed.')).toBeVisible()
  expect(await hand.locator('.which').textContent()).toBe(before)
  await expect(hand.locator('p.marks')).toHaveCount(0)
  // A key that a hand presses does what it says.
  await page.keyboard.press('h')
  await expect(hand.locator('p.marks')).toContainText('hook')

  await open('/loops/K5')
  await page.locator('body').click({ position: { x: 5, y: 5 } })
  await pressAtOnce(page, 'drst77')
  await expect(page.getByText('“drst77” was read, and is no tag of this shed.')).toBeVisible()
  await expect(page).toHaveURL(/\/loops\/K5$/)
})

test('a reading that nothing explains is asked about while the caliper is on the cutter', async ({
  page,
  open,
  undercliff,
}) => {
  await open('/loops/K5/measure')
  const field = page.locator('[data-reading]')
  const which = page.locator('.which .number')
  const was = Number(/([\d.]+) mm/.exec((await page.locator('.which').textContent()) ?? '')?.[1])
  await field.fill((was - 0.6).toFixed(2))
  await field.press('Enter')
  await expect(page.getByRole('alert').first()).toContainText('0.60 mm shorter than anything explains')
  await expect(which).toContainText('1')
  await field.press('Enter')
  await expect(which).toContainText('2')
  await page.getByRole('button', { name: 'Save 1 reading' }).click()
  await expect(page.getByRole('heading', { name: 'K5', exact: true })).toBeVisible()
  const log = await logOf(undercliff, 'K5')
  expect(log.at(-1)).toMatchObject({ kind: 'measured', readings: [{ cutter: 1, confirmed: true }] })
})
