import { mkdtempSync, rmSync } from 'node:fs'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { benchServer } from '@undercliff/server'
import { chromium, type Page } from '@playwright/test'
import { CHROMIUM, CHROMIUM_ARGS } from '@undercliff/e2e'
import { benchSaws, entriesFor } from './benchEntries'
import type { Figure } from './figure'
import { median, PHONE_SLOWER, timed, within95 } from './inPage'

const LOOPS = 2000
const ROUNDS = 15
/** Searches as somebody would type them, one key after another. */
const SEARCHES = ['n199', 'touch up', '.325 74']
const WEB_DIST = fileURLToPath(new URL('../../web/dist', import.meta.url))

const press = (key: string): string =>
  `(document.activeElement ?? document.body).dispatchEvent(
    new KeyboardEvent('keydown', { key: ${JSON.stringify(key)}, bubbles: true }));`

/** Going down the triage of a large shed and choosing, key by key. */
async function triageKeys(page: Page, address: string): Promise<number[]> {
  await page.goto(`${address}/triage`)
  await page.locator('[data-triage-link]').nth(20).waitFor()
  const times: number[] = []
  for (let row = 0; row < 20; row += 1) {
    times.push(
      await timed(
        page,
        press('ArrowDown'),
        `document.activeElement === document.querySelectorAll('[data-triage-link]')[${row}]`,
      ),
    )
    times.push(await timed(page, press('x'), `document.querySelectorAll('.picked').length === ${row + 1}`))
  }
  return times
}

/** Script that puts a text into a field as typing does. */
const setField = (selector: string, text: string): string =>
  `{ const field = document.querySelector(${JSON.stringify(selector)});
     field.value = ${JSON.stringify(text)};
     field.dispatchEvent(new Event('input', { bubbles: true })) }`

/** Turning the price of a new loop on the decision screen. */
async function whatIfRedraws(page: Page, address: string): Promise<number[]> {
  await page.goto(`${address}/loops/N7/decide`)
  await page.getByRole('slider').first().waitFor()
  const times: number[] = []
  for (let turn = 1; turn <= 40; turn += 1) {
    const minor = turn * 100
    const act = setField('input[type=range]', String(minor))
    times.push(await timed(page, act, `document.querySelector('output').textContent.includes('${turn}.00')`))
  }
  return times
}

/** From a key to the next cutter drawn, in a sharpening step by step, with the processor of a phone. */
async function sharpenKeys(page: Page, address: string): Promise<number[]> {
  await page.goto(`${address}/loops/N7/sharpen?action=file`)
  await page.locator('.go').waitFor()
  await page.keyboard.press('a')
  await page.locator('[data-in-hand]').waitFor()
  const session = await page.context().newCDPSession(page)
  await session.send('Emulation.setCPUThrottlingRate', { rate: PHONE_SLOWER })
  const times: number[] = []
  for (let cutter = 1; cutter < 15; cutter += 1) {
    const now = await page.locator('[data-in-hand] strong').textContent()
    const press = `document.querySelector('[data-reading]').dispatchEvent(
      new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }))`
    const drawn = `document.querySelector('[data-in-hand] strong')?.textContent !== ${JSON.stringify(now)}`
    times.push(await timed(page, press, drawn))
  }
  await session.send('Emulation.setCPUThrottlingRate', { rate: 1 })
  return times
}

const sharpenFigures = (times: readonly number[]): Figure[] => [
  {
    name: 'sharpening on a phone: from a key to the next cutter',
    value: median(times),
    unit: 'ms',
    aim: { atMost: 50 },
  },
  { name: 'sharpening on a phone: 95 of 100 keys', value: within95(times), unit: 'ms', aim: { atMost: 100 } },
]

/** Going away from the list and back to it. */
async function listPaints(page: Page): Promise<number[]> {
  const paints: number[] = []
  for (let round = 0; round < ROUNDS; round += 1) {
    await page.locator('header a[href="/scan"]').click()
    await page.locator('[data-loop-tile]').first().waitFor({ state: 'detached' })
    paints.push(
      await timed(
        page,
        `document.querySelector('header a[href="/"]').click()`,
        `document.querySelectorAll('[data-loop-tile]').length > 15`,
      ),
    )
  }
  return paints
}

/** What the list shows before anybody scrolls, as a page with no script has it: its markup and its styles. */
const seenOfTheList = (page: Page): Promise<{ html: string; css: string }> =>
  page.evaluate(() => {
    const main = document.querySelector('main') ?? document.body
    const copy = main.cloneNode(true) as HTMLElement
    const [ours, theirs] = [main.querySelectorAll('*'), [...copy.querySelectorAll('*')]]
    ours.forEach((element, i) => {
      if (element.getBoundingClientRect().top > innerHeight) theirs[i]?.remove()
    })
    const css = [...document.styleSheets].flatMap((sheet) => [...sheet.cssRules].map((rule) => rule.cssText))
    return { html: copy.innerHTML, css: css.join('\n') }
  })

/** The same first rows put into a static page, which goes away from them and back. */
async function staticPaints(page: Page): Promise<number[]> {
  const { html, css } = await seenOfTheList(page)
  const still = await page.context().newPage()
  await still.setContent(`<style>${css}</style><div id="app"><main></main></div>`)
  const rows = await still.evaluate((text) => {
    const holder = document.createElement('template')
    holder.innerHTML = text
    Object.assign(window, { listHtml: text })
    return holder.content.querySelectorAll('[data-loop-tile]').length
  }, html)
  if (rows < 10) throw new Error(`the list shows ${rows} loops only`)
  const paints: number[] = []
  for (let round = 0; round < ROUNDS; round += 1) {
    await still.evaluate(() => document.querySelector('main')?.replaceChildren('Another page'))
    await still.waitForTimeout(50)
    paints.push(
      await timed(
        still,
        `document.querySelector('main').innerHTML = window.listHtml;`,
        `document.querySelectorAll('[data-loop-tile]').length === ${rows}`,
      ),
    )
  }
  await still.close()
  return paints
}

/** Typing searches letter by letter and pressing every filter on and off. */
async function searchAndFilterKeys(page: Page): Promise<number[]> {
  const keys: number[] = []
  const buttons = `[...document.querySelectorAll('button')]`
  const showAll = `${buttons}.find((one) => one.textContent.trim() === 'Show all').click()`
  for (let round = 0; round < 4; round += 1) {
    for (const search of SEARCHES) {
      for (let typed = 1; typed <= search.length; typed += 1) {
        const text = search.slice(0, typed)
        const found = `new URLSearchParams(location.search).get('find') === ${JSON.stringify(text)}`
        const told = `document.querySelector('[role=status]') !== null`
        keys.push(await timed(page, setField('input[type=search]', text), `${found} && ${told}`))
      }
      keys.push(await timed(page, showAll, `location.search === ''`))
    }
    const filters = await page.locator('.filters button').count()
    for (let i = 0; i < filters; i += 1) {
      const press = `document.querySelectorAll('.filters button')[${i}].click()`
      keys.push(await timed(page, press, `location.search !== ''`), await timed(page, press, `location.search === ''`))
    }
  }
  return keys
}

/** First paint of the list and key presses in a shed of 2,000 loops, in the real interface. */
export async function browserBench(): Promise<Figure[]> {
  const dataDir = mkdtempSync(join(tmpdir(), 'undercliff-bench-'))
  const running = await benchServer(
    dataDir,
    Array.from({ length: LOOPS / 10 }, (_, i) =>
      Array.from({ length: 10 }, (_unused, j) => entriesFor(i * 10 + j)).flat(),
    ),
    benchSaws(),
    WEB_DIST,
  )
  const address = `http://127.0.0.1:${(running.server.address() as AddressInfo).port}`
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: CHROMIUM_ARGS })
  try {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } })
    const [name = '', value = ''] = running.cookie.split('=')
    await context.addCookies([{ name, value, url: address }])
    const page = await context.newPage()
    await page.goto(`${address}/`)
    await page.locator('[data-loop-tile]').first().waitFor()

    const paints = await listPaints(page)
    const still = await staticPaints(page)
    const keys = await searchAndFilterKeys(page)
    const triage = await triageKeys(page, address)
    const redraws = await whatIfRedraws(page, address)
    const cutters = await sharpenKeys(page, address)
    return [
      { name: `triage of ${LOOPS} loops: a key press`, value: median(triage), unit: 'ms', aim: { atMost: 50 } },
      ...sharpenFigures(cutters),
      { name: 'what-if: from a slider to the redraw', value: median(redraws), unit: 'ms', aim: { atMost: 50 } },
      {
        name: `shed of ${LOOPS} loops: to the paint of the list`,
        value: median(paints),
        unit: 'ms',
        aim: { atMost: 50 },
      },
      { name: 'the same first rows in a static page', value: median(still), unit: 'ms' },
      {
        name: 'paint of the list against the static page',
        value: median(paints) / median(still),
        unit: 'x',
        aim: { atMost: 1.5 },
      },
      {
        name: `shed of ${LOOPS} loops: a key press on search or filter`,
        value: median(keys),
        unit: 'ms',
        aim: { atMost: 50 },
      },
    ]
  } finally {
    await browser.close()
    await running.stop()
    rmSync(dataDir, { recursive: true, force: true })
  }
}
