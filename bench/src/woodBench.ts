import { mkdtempSync, rmSync } from 'node:fs'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import type { NewEntry } from '@undercliff/core'
import { CHROMIUM, CHROMIUM_ARGS } from '@undercliff/e2e'
import { chromium, type Browser, type BrowserContext, type Page } from '@playwright/test'
import { benchServer } from '@undercliff/server'
import { benchSaws, entriesFor } from './benchEntries'
import type { Figure } from './figure'
import { median, PHONE_SLOWER, timed, within95 } from './inPage'

interface Cookie {
  readonly name: string
  readonly value: string
  readonly url: string
}

const LOOPS = 400
const STARTS = 5
const TAPS = 20
const WEB_DIST = fileURLToPath(new URL('../../web/dist', import.meta.url))

/** What a loop's log says, with the first loops on the saws that take them. */
function logOf(loop: number): NewEntry[] {
  const log = entriesFor(loop)
  const [first] = log
  if (first?.kind !== 'registered') return log
  const { pitchClass, driveLinks } = first.spec
  const saw = benchSaws().find((one) => one.pitchClass === pitchClass && one.driveLinks === driveLinks)
  if (saw === undefined || loop >= benchSaws().length) return log
  const { loopId } = first
  const base = { id: `${loopId}-on`, loopId, happenedAt: '2026-01-04T09:00:00.000Z', personId: null }
  return [...log, { ...base, kind: 'fitted', sawId: saw.id }]
}

/** A page with the processor of a phone. */
async function slowPage(context: BrowserContext): Promise<Page> {
  const page = await context.newPage()
  const session = await context.newCDPSession(page)
  await session.send('Emulation.setCPUThrottlingRate', { rate: PHONE_SLOWER })
  return page
}

/** A slow line: 1.6 Mbit/s down, 0.75 up, and 150 ms there and back. */
const SLOW_LINE = { offline: false, latency: 150, downloadThroughput: 200_000, uploadThroughput: 94_000 }

/** From opening `/wood` to the saws drawn, in ms. */
async function untilDrawn(context: BrowserContext, address: string, line?: typeof SLOW_LINE): Promise<number> {
  const page = await slowPage(context)
  if (line !== undefined) {
    const session = await context.newCDPSession(page)
    await session.send('Network.enable')
    await session.send('Network.emulateNetworkConditions', line)
  }
  await page.addInitScript(() => {
    new MutationObserver((_changes, watch) => {
      if (document.querySelector('[data-in-hand]') === null) return
      watch.disconnect()
      requestAnimationFrame(() => {
        // The frame is painted once a message that was posted in it arrives.
        const { port1, port2 } = new MessageChannel()
        port1.onmessage = () => {
          // eslint-disable-next-line no-console -- it is how the page tells the bench
          console.debug(`drawn ${performance.now()}`)
        }
        port2.postMessage(null)
      })
    }).observe(document, { childList: true, subtree: true })
  })
  // The page says it by itself: to be asked would take it a sixth of a second, as slow as it is here.
  const drawn = page.waitForEvent('console', (message) => message.text().startsWith('drawn '))
  await page.goto(`${address}/wood`)
  const at = Number((await drawn).text().slice('drawn '.length))
  await page.close()
  return at
}

/** From a tap on *A tank* to its answer, with nothing that answers, in ms. */
async function taps(context: BrowserContext, address: string): Promise<number[]> {
  const page = await slowPage(context)
  await page.goto(`${address}/wood`)
  await page.locator('[data-tank]').waitFor()
  const times: number[] = []
  for (let tap = 0; tap < TAPS; tap += 1) {
    times.push(
      await timed(
        page,
        `document.querySelector('[data-tank]').click()`,
        `document.querySelector('[data-undo]') !== null`,
      ),
      await timed(
        page,
        `document.querySelector('[data-undo]').click()`,
        `document.querySelector('[data-undo]') === null`,
      ),
    )
  }
  return times
}

/** On a phone over a slow line: the first load of the wood, and the second. */
async function slowLoads(browser: Browser, cookie: Cookie): Promise<[first: number, second: number][]> {
  const loads: [number, number][] = []
  for (let start = 0; start < STARTS; start += 1) {
    const context = await browser.newContext({ viewport: { width: 390, height: 844 }, serviceWorkers: 'allow' })
    await context.addCookies([cookie])
    const first = await untilDrawn(context, cookie.url, SLOW_LINE)
    // What is fetched behind the first page is kept meanwhile.
    const settled = await context.newPage()
    await settled.goto(`${cookie.url}/wood`)
    await settled.evaluate(() => navigator.serviceWorker.ready.then(() => undefined))
    await settled.waitForTimeout(3000)
    await settled.close()
    loads.push([first, await untilDrawn(context, cookie.url, SLOW_LINE)])
    await context.close()
  }
  return loads
}

/** On a phone: over a slow line; out of range a cold start, and a tap's answer. */
export async function woodBench(): Promise<Figure[]> {
  const dataDir = mkdtempSync(join(tmpdir(), 'undercliff-bench-'))
  const running = await benchServer(
    dataDir,
    Array.from({ length: LOOPS / 10 }, (_, i) => Array.from({ length: 10 }, (_unused, j) => logOf(i * 10 + j)).flat()),
    benchSaws(),
    WEB_DIST,
  )
  const address = `http://127.0.0.1:${(running.server.address() as AddressInfo).port}`
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: CHROMIUM_ARGS })
  try {
    const context = await browser.newContext({ viewport: { width: 390, height: 844 }, serviceWorkers: 'allow' })
    const [name = '', value = ''] = running.cookie.split('=')
    await context.addCookies([{ name, value, url: address }])
    const loads = await slowLoads(browser, { name, value, url: address })
    const page = await context.newPage()
    await page.goto(`${address}/wood`)
    await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined))
    // What is fetched behind the first page is kept.
    await page.waitForTimeout(4000)
    await page.close()
    await context.setOffline(true)
    const starts: number[] = []
    for (let start = 0; start < STARTS; start += 1) starts.push(await untilDrawn(context, address))
    const answered = await taps(context, address)
    return [
      {
        name: `slow line, on a phone, ${LOOPS} loops: first load of the wood`,
        value: median(loads.map(([first]) => first)),
        unit: 'ms',
        aim: { atMost: 3000 },
      },
      {
        name: 'the same: second load',
        value: median(loads.map(([, second]) => second)),
        unit: 'ms',
        aim: { atMost: 1000 },
      },
      {
        name: `cold start on a phone, out of range, ${LOOPS} loops: to the saws`,
        value: median(starts),
        unit: 'ms',
        aim: { atMost: 1500 },
      },
      {
        name: 'a tap in the wood on a phone: 95 of 100 answers',
        value: within95(answered),
        unit: 'ms',
        aim: { atMost: 100 },
      },
    ]
  } finally {
    await browser.close()
    await running.stop()
    rmSync(dataDir, { recursive: true, force: true })
  }
}
