import type { Page } from '@playwright/test'
import { expect, keptOf, logOf, test } from './testing'

/** Logs a tank on the page of a loop, by its form. */
async function logTank(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Log the tanks' }).click()
}
const away = (page: Page) => page.route('**/api/entries', (route) => route.abort())
const tanksOf = async (undercliff: Parameters<typeof logOf>[0], tag: string): Promise<number> =>
  (await logOf(undercliff, tag)).filter(({ kind }) => kind === 'ran').length

test('a device that is full says that nothing is kept, and sends it from the page', async ({
  page,
  open,
  undercliff,
}) => {
  await page.addInitScript(() => {
    // What is kept of the outbox finds no room; the rest does.
    const full = (key: unknown): void => {
      if (String(key).includes('outbox')) throw new DOMException('full', 'QuotaExceededError')
    }
    const refuse = (of: object, name: string, keyAt: number): void => {
      const original = Object.getOwnPropertyDescriptor(of, name)?.value as () => void
      const apply = (target: () => void, it: unknown, args: unknown[]): unknown => {
        full(args[keyAt])
        return Reflect.apply(target, it, args)
      }
      Object.defineProperty(of, name, { value: new Proxy(original, { apply }) })
    }
    refuse(Storage.prototype, 'setItem', 0)
    refuse(IDBObjectStore.prototype, 'put', 1)
  })
  const before = await tanksOf(undercliff, 'K3')
  await open('/loops/K3/note/ran')
  await away(page)
  await logTank(page)
  await expect(page.getByText(/NOT kept, since this device keeps nothing/)).toBeVisible()
  await expect(page.getByText(/1 NOT kept, since this device is full/)).toBeVisible()
  await expect(page.getByText(/kept on this device, waiting/)).toBeHidden()
  await page.unroute('**/api/entries')
  await page.evaluate(() => window.dispatchEvent(new Event('online')))
  await expect(page.getByText(/NOT kept, since this device is full/)).toBeHidden()
  expect(await tanksOf(undercliff, 'K3')).toBe(before + 1)
})

test('a browser that keeps nothing opens, works, and says what that means', async ({ page, open, undercliff }) => {
  await page.addInitScript(() => {
    for (const name of ['localStorage', 'indexedDB'])
      Object.defineProperty(window, name, {
        get: () => {
          throw new DOMException('denied', 'SecurityError')
        },
      })
  })
  const before = await tanksOf(undercliff, 'K3')
  await open('/loops/K3/note/ran')
  await expect(page.getByText(/This browser keeps nothing for this page/)).toBeVisible()
  await logTank(page)
  await expect.poll(() => tanksOf(undercliff, 'K3')).toBe(before + 1)
})

test('four presses while the server hangs log one thing', async ({ page, open, undercliff }) => {
  const before = await tanksOf(undercliff, 'K3')
  await open('/loops/K3/note/ran')
  let letGo: () => void = () => undefined
  const held = new Promise<void>((resolve) => (letGo = resolve))
  await page.route('**/api/entries', async (route) => {
    await held
    await route.continue()
  })
  await page.getByRole('button', { name: 'Log the tanks' }).evaluate((button: HTMLButtonElement) => {
    for (let i = 0; i < 4; i += 1) button.click()
  })
  letGo()
  await expect.poll(() => tanksOf(undercliff, 'K3')).toBe(before + 1)
  await page.waitForTimeout(500)
  expect(await tanksOf(undercliff, 'K3')).toBe(before + 1)
})

test('what the server cannot take is set aside with what it held, put right and sent again', async ({
  page,
  open,
  undercliff,
}) => {
  const before = await tanksOf(undercliff, 'K3')
  await page.clock.install()
  await open('/loops/K3/note/ran')
  const fault = {
    status: 500,
    contentType: 'application/problem+json',
    body: '{"code":"internal-error","detail":"No."}',
  }
  await page.route('**/api/entries', (route) => route.fulfill(fault))
  await logTank(page)
  await expect(page.getByText(/kept on this device/).first()).toBeVisible()
  // Each try is answered in its own time: the clock goes on until it has given up.
  const notTaken = page.getByText('Not taken: Undercliff made a mistake. No.')
  await expect
    .poll(async () => {
      await page.clock.runFor(8000)
      return notTaken.isVisible()
    })
    .toBe(true)
  // It outlives the page.
  await page.reload()
  await page.getByRole('button', { name: 'See what it held' }).click()
  const panel = page.locator('[data-set-aside]')
  await expect(panel).toContainText('K3: Ran 1 tank')
  await panel.getByRole('button', { name: 'Throw away …' }).click()
  await expect(panel.getByRole('button', { name: 'Throw away for good' })).toBeVisible()
  await panel.getByRole('button', { name: 'Put it right' }).click()
  await panel.getByLabel('tanks').fill('2')
  await panel.getByLabel('tanks').blur()
  await page.unroute('**/api/entries')
  await panel.getByRole('button', { name: 'Send it again' }).click()
  await expect(panel).toBeHidden()
  await expect.poll(() => tanksOf(undercliff, 'K3')).toBe(before + 1)
  expect((await logOf(undercliff, 'K3')).at(-1)).toMatchObject({ kind: 'ran', tanks: 2 })
})

test('what one page left is sent by another of the same device', async ({ page, open, undercliff, context }) => {
  const before = await tanksOf(undercliff, 'K3')
  await open('/loops/K3')
  const other = await context.newPage()
  await other.goto(`${undercliff.address}/loops/K3/note/ran`)
  await away(other)
  await logTank(other)
  await expect(other.getByText('1 kept on this device, waiting to be sent')).toBeVisible()
  await other.close()
  await expect.poll(() => tanksOf(undercliff, 'K3'), { timeout: 15_000 }).toBe(before + 1)
  await expect(page.getByText(/kept on this device/)).toBeHidden()
})

test('a page that is older than the server says so, and does not say that the shed is away', async ({ page, open }) => {
  await page.route('**/assets/TriagePage*.js', (route) => route.fulfill({ status: 404, body: '' }))
  await open('/')
  await expect(page.locator('[data-loop-tile]').first()).toBeVisible()
  await page.evaluate(() => {
    history.pushState({}, '', '/triage')
    dispatchEvent(new PopStateEvent('popstate', { state: {} }))
  })
  await expect(page.getByText(/Undercliff was updated since this page was opened/)).toBeVisible()
})

test('screens, and the panel of a move, that were never opened open when the server is away', async ({
  page,
  open,
}) => {
  await open('/')
  // Behind the first page the rest is fetched.
  await expect.poll(() => keptOf(page, 'undercliff:fetched'), { timeout: 30_000 }).toContain('version')
  await page.context().setOffline(true)
  await page.locator('[data-loop-tile]').filter({ hasText: 'X2' }).first().focus()
  await page.keyboard.press('p')
  await expect(page.getByRole('dialog')).toContainText('Where does X2 go?')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await page.getByRole('link', { name: 'House' }).click()
  await expect(page.getByRole('heading').first()).toBeVisible()
})

test('a page that cannot be fetched when its address is opened says so, however early that is known', async ({
  page,
  open,
}) => {
  await open('/')
  await page.route('**/assets/TriagePage-*.js', (route) => route.abort())
  // The device answers late: nothing is on the page yet when the script is known not to come.
  await page.addInitScript(() => {
    const opening = indexedDB.open('undercliff')
    opening.onsuccess = () => {
      const texts = opening.result.transaction('texts', 'readwrite').objectStore('texts')
      const until = performance.now() + 1000
      const more = (): void => {
        if (performance.now() < until) texts.get('none').onsuccess = more
      }
      more()
    }
  })
  await page.goto(new URL('/triage', page.url()).href)
  await expect(page.getByText(/Undercliff was updated since this page was opened/)).toBeVisible()
  await page.unroute('**/assets/TriagePage-*.js')
  await page.reload()
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
})
