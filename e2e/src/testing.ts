import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { expect, test as base, type Page } from '@playwright/test'
import type { ShedAnswer, LoopAnswer } from '@undercliff/contract'
import { Undercliff, type DemoLogin } from './undercliff'

const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8')

/** The demo that the tests of one spec file share; the next file gets a fresh one. */
class SharedDemo {
  private file = ''
  private undercliff: Undercliff | null = null

  async of(file: string): Promise<Undercliff> {
    if (this.undercliff === null || this.file !== file) {
      await this.stop()
      this.undercliff = await Undercliff.start()
      this.file = file
    }
    return this.undercliff
  }

  async stop(): Promise<void> {
    await this.undercliff?.stop()
    this.undercliff = null
  }
}

/** A test's page, on an Undercliff with the demo that the tests of its file share. */
export const test = base.extend<
  { open: (path: string, who?: DemoLogin) => Promise<void>; undercliff: Undercliff },
  { demo: SharedDemo }
>({
  demo: [
    async ({}, use) => {
      const demo = new SharedDemo()
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
  await page.evaluate(AXE)
  return page.evaluate(async () => {
    const { axe } = window as unknown as {
      axe: {
        run: (
          where: Document,
          options: unknown,
        ) => Promise<{ violations: { id: string; nodes: { html: string; failureSummary: string }[] }[] }>
      }
    }
    const found = await axe.run(document, { runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] })
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
