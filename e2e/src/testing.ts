import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { expect, test as base, type Browser, type BrowserContext, type Page } from '@playwright/test'
import type { ShedAnswer, LoopAnswer } from '@undercliff/contract'
import { freePort, Undercliff, type DemoLogin } from './undercliff'

const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8')

/** The demo that the tests of one spec file share; the next file gets a fresh one. */
class SharedDemo {
  private file = ''
  private undercliff: Undercliff | null = null

  /** @param port the same for every file, so that a browser knows the application that was served there before */
  constructor(readonly port: number) {}

  async of(file: string): Promise<Undercliff> {
    if (this.undercliff === null || this.file !== file) {
      await this.stop()
      this.undercliff = await Undercliff.startAt(this.port)
      this.file = file
    }
    return this.undercliff
  }

  async stop(): Promise<void> {
    await this.undercliff?.stop()
    this.undercliff = null
  }
}

/**
 * The browser contexts of a worker, one for each way of setting them: what a browser fetched and compiled once it does
 * not fetch again for every test. Whatever a device keeps is gone with the test that left it. A context whose clock a
 * test took over is not used again: it would go wrong for every page that is opened in it.
 */
class WarmContexts {
  private readonly made = new Map<string, BrowserContext>()
  private readonly stays = new Map<BrowserContext, Page>()

  async of(browser: Browser, options: Parameters<Browser['newContext']>[0], origin: string): Promise<BrowserContext> {
    const key = JSON.stringify(options)
    const known = this.made.get(key)
    if (known !== undefined) return known
    const context = await browser.newContext(options)
    this.made.set(key, context)
    // It stays, and with it the process that has compiled the application.
    this.stays.set(context, await context.newPage())
    await this.stays.get(context)?.goto(`${origin}/manifest.webmanifest`)
    const install = context.clock.install.bind(context.clock)
    context.clock.install = (at) => {
      this.made.delete(key)
      return install(at)
    }
    return context
  }

  /** Takes away what a test left: pages, sign-ins, routes, and all that was kept on the device. */
  async clear(context: BrowserContext, origin: string): Promise<void> {
    if (![...this.made.values()].includes(context)) return context.close()
    const [first, ...others] = context.pages().filter((page) => page !== this.stays.get(context))
    await context.setOffline(false)
    await context.unrouteAll({ behavior: 'ignoreErrors' })
    await context.clearCookies()
    await context.clearPermissions()
    for (const page of others) await page.close()
    if (first === undefined) return
    await first.goto('about:blank')
    const devtools = await context.newCDPSession(first)
    await devtools.send('Storage.clearDataForOrigin', { origin, storageTypes: 'all' })
    await first.close()
  }
}

/** A test's page, on an Undercliff with the demo that the tests of its file share. */
export const test = base.extend<
  { open: (path: string, who?: DemoLogin) => Promise<void>; undercliff: Undercliff },
  { demo: SharedDemo; contexts: WarmContexts }
>({
  contexts: [
    async ({}, use) => {
      await use(new WarmContexts())
    },
    { scope: 'worker' },
  ],
  context: async (
    {
      browser,
      contexts,
      demo,
      undercliff,
      viewport,
      hasTouch,
      isMobile,
      deviceScaleFactor,
      locale,
      serviceWorkers,
      permissions,
    },
    use,
  ) => {
    const options = {
      ...{ viewport, hasTouch, isMobile, serviceWorkers },
      ...(deviceScaleFactor === undefined ? {} : { deviceScaleFactor }),
      ...(locale === undefined ? {} : { locale }),
      ...(permissions === undefined ? {} : { permissions }),
    }
    // What a service worker keeps for a cold start begins with nothing.
    const warm = serviceWorkers === 'block' && permissions === undefined
    const context = warm ? await contexts.of(browser, options, undercliff.address) : await browser.newContext(options)
    await use(context)
    if (warm) await contexts.clear(context, `http://127.0.0.1:${demo.port}`)
    else await context.close()
  },
  demo: [
    async ({}, use) => {
      const demo = new SharedDemo(await freePort())
      await use(demo)
      await demo.stop()
    },
    { scope: 'worker', timeout: 120_000 },
  ],
  undercliff: [
    async ({ demo }, use, { file }) => {
      await use(await demo.of(file))
    },
    { timeout: 120_000 },
  ],
  open: async ({ page, undercliff }, use) => {
    const wrong: string[] = []
    page.on('console', (message) => {
      if (message.type() === 'error' && !/Failed to load resource/.test(message.text())) wrong.push(message.text())
    })
    page.on('pageerror', (error) => wrong.push(String(error)))
    await use(async (path, who = 'maren') => {
      await undercliff.enter(page.context(), who)
      await page.goto(undercliff.address + path)
    })
    expect(wrong, 'nothing goes wrong in the console, the content security policy included').toEqual([])
  },
})

export { expect }

/** The log of a loop as the server has it. */
export async function logOf(undercliff: Undercliff, tag: string): Promise<LoopAnswer['entries']> {
  const { loops } = await undercliff.json<ShedAnswer>('/api/shed')
  const loopId = loops.find((loop) => loop.tag === tag)?.loopId ?? ''
  return (await undercliff.json<LoopAnswer>(`/api/loops/${loopId}`)).entries
}

/** Violations of WCAG 2.2 AA that axe-core finds on the page as it stands. */
export async function violations(page: Page): Promise<string[]> {
  // Evaluated by the driver, not the page: the page's policy would refuse a script of another's.
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(AXE)
  return page.evaluate(async () => {
    const { axe } = window as unknown as {
      axe: {
        run: (
          where: Document,
          options: unknown,
        ) => Promise<{ violations: { id: string; nodes: { html: string; failureSummary: string }[] }[] }>
      }
    }
    const found = await axe.run(document, {
      runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'],
      // What passes is not listed, and not worked out in full.
      resultTypes: ['violations'],
    })
    return found.violations.flatMap(({ id, nodes }) =>
      nodes.map(({ html, failureSummary }) => `${id}: ${html.slice(0, 140)} | ${failureSummary.slice(0, 200)}`),
    )
  })
}

/** Types readings as a caliper does: the figure, then Enter. */
export async function caliper(page: Page, ...readings: string[]): Promise<void> {
  for (const reading of readings) {
    await page.keyboard.type(reading)
    await page.keyboard.press('Enter')
  }
}

/** Presses Tab until what has the focus has this name. */
export async function tabTo(page: Page, name: string | RegExp): Promise<void> {
  const matches = (text: string): boolean => (typeof name === 'string' ? text === name : name.test(text))
  for (let presses = 0; presses < 120; presses += 1) {
    await page.keyboard.press('Tab')
    const text = await page.evaluate(() =>
      (document.activeElement?.getAttribute('aria-label') ?? document.activeElement?.textContent ?? '').trim(),
    )
    if (matches(text)) return
  }
  throw new Error(`nothing named ${String(name)} can be reached by Tab`)
}

/** Sets a new, empty Undercliff up in the browser, as its lead. */
export async function setUp(page: Page, undercliff: Undercliff, path = '/'): Promise<void> {
  await page.goto(undercliff.address + path)
  await page.getByLabel('What the crew is called').fill('Heron Isle crew')
  await page.getByLabel('Your name').fill('Ottoline Vane')
  await page.getByLabel('Sign-in name').fill('ottoline')
  await page.getByLabel('Password', { exact: true }).fill('four quiet herons')
  await page.getByRole('button', { name: 'Open the shed' }).click()
  await expect(page.getByRole('link', { name: 'Ottoline Vane' })).toBeVisible()
}

/** What a page keeps on its device under a key, as text; `null` for nothing. */
export const keptOf = (page: Page, key: string): Promise<string> =>
  page.evaluate(
    (name) =>
      new Promise<string>((resolve) => {
        const open = indexedDB.open('undercliff')
        open.onsuccess = () => {
          const found = open.result.transaction('texts').objectStore('texts').get(name)
          found.onsuccess = () => {
            open.result.close()
            resolve(String(found.result ?? 'null'))
          }
        }
      }),
    key,
  )

/** Changes what a page keeps on its device under a key, behind its back. */
export async function changeKept<T>(page: Page, key: string, change: (kept: T) => T): Promise<void> {
  const before = await keptOf(page, key)
  await page.evaluate(
    ([name, text]) =>
      new Promise<void>((resolve) => {
        const open = indexedDB.open('undercliff')
        open.onsuccess = () => {
          const put = open.result.transaction('texts', 'readwrite').objectStore('texts').put(text, name)
          put.onsuccess = () => {
            open.result.close()
            resolve()
          }
        }
      }),
    [key, JSON.stringify(change(JSON.parse(before) as T))],
  )
}
