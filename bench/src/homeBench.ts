import { mkdtempSync, rmSync } from 'node:fs'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import type { LogsAnswer } from '@undercliff/contract'
import type { NewEntry } from '@undercliff/core'
import { CHROMIUM, CHROMIUM_ARGS } from '@undercliff/e2e'
import { chromium, type Browser, type BrowserContext, type Page } from '@playwright/test'
import { benchServer } from '@undercliff/server'
import { benchSaws, entriesFor } from './benchEntries'
import type { Figure } from './figure'

const LOOPS = 100
const DEVICES = 3
const ENTRIES = 2000
const WEEK_MS = 7 * 86_400_000
const WEB_DIST = fileURLToPath(new URL('../../web/dist', import.meta.url))
const PERSON = 'bench-lead'

/** What one of a device's taps writes, by its number: tanks, touch-ups and a strike now and then, over a week. */
function gathered(device: number, n: number, since: number): NewEntry {
  const each = WEEK_MS / Math.ceil(ENTRIES / DEVICES)
  const loop = (n * 7 + device * 3) % LOOPS
  const base = {
    id: `gathered-${device}-${String(n).padStart(4, '0')}`,
    loopId: `bench-loop-${String(loop).padStart(4, '0')}`,
    personId: PERSON,
    happenedAt: new Date(since + n * each + device * 1000).toISOString(),
  }
  if (n % 11 === 10) return { ...base, kind: 'struck', against: 'stone' }
  return n % 4 === 3
    ? { ...base, kind: 'sharpened', method: 'fileField', strokes: { left: 3, right: 4 }, gaugesLowered: false }
    : { ...base, kind: 'ran', tanks: 1, conditions: 'clean' }
}

/** Puts entries onto a device as its outbox keeps them, each a parcel of its own as a tap writes it. */
const keepOn = (page: Page, entries: readonly NewEntry[]): Promise<void> =>
  page.evaluate(
    ({ all, by }) =>
      new Promise<void>((resolve, reject) => {
        const open = indexedDB.open('undercliff')
        open.onsuccess = () => {
          const change = open.result.transaction('texts', 'readwrite')
          for (const entry of all) {
            const key = `${Date.parse(entry.happenedAt).toString().padStart(15, '0')}-${entry.id}`
            const parcel = { key, entries: [entry], refused: null, by }
            change.objectStore('texts').put(JSON.stringify(parcel), `undercliff:outbox:${key}`)
          }
          change.oncomplete = () => {
            open.result.close()
            resolve()
          }
          change.onerror = () => {
            reject(new Error('not kept'))
          }
        }
      }),
    { all: entries, by: PERSON },
  )

/** A device that has been out of range for a week. */
async function deviceWith(browser: Browser, cookie: string, address: string, entries: readonly NewEntry[]) {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, serviceWorkers: 'allow' })
  const [name = '', value = ''] = cookie.split('=')
  await context.addCookies([{ name, value, url: address }])
  const page = await context.newPage()
  await page.goto(`${address}/wood`)
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined))
  await page.waitForTimeout(3000)
  await context.setOffline(true)
  await page.goto(`${address}/tags`)
  await keepOn(page, entries)
  await page.goto(`${address}/wood`)
  return context
}

/** Every entry of the crew's logs, in the order in which the server wrote it. */
async function written(address: string, cookie: string): Promise<LogsAnswer['entries']> {
  const found = new Map<string, LogsAnswer['entries'][number]>()
  for (let place = '0'; ;) {
    const answer = await fetch(`${address}/api/logs?since=${place}`, { headers: { cookie } })
    const { entries, place: next, more } = (await answer.json()) as LogsAnswer
    for (const entry of entries) found.set(entry.id, entry)
    if (!more) return [...found.values()]
    place = next
  }
}

const waiting = async (context: BrowserContext): Promise<number> => {
  const [page] = context.pages()
  if (page === undefined) throw new Error('the device is closed')
  return page.evaluate(
    () =>
      new Promise<number>((resolve) => {
        const open = indexedDB.open('undercliff')
        open.onsuccess = () => {
          const keys = open.result.transaction('texts').objectStore('texts').getAllKeys()
          keys.onsuccess = () => {
            open.result.close()
            resolve(keys.result.filter((key) => typeof key === 'string' && key.startsWith('undercliff:outbox:')).length)
          }
        }
      }),
  )
}

/** What three devices gathered out of range goes home at once: how long until all of it is written. */
export async function homeBench(): Promise<Figure[]> {
  const dataDir = mkdtempSync(join(tmpdir(), 'undercliff-bench-'))
  const batches = Array.from({ length: LOOPS / 10 }, (_, i) =>
    Array.from({ length: 10 }, (_unused, j) => entriesFor(i * 10 + j)).flat(),
  )
  const running = await benchServer(dataDir, batches, benchSaws(), WEB_DIST)
  const address = `http://127.0.0.1:${(running.server.address() as AddressInfo).port}`
  const browser = await chromium.launch({ executablePath: CHROMIUM, args: CHROMIUM_ARGS })
  const since = Date.now() - WEEK_MS
  try {
    const all = Array.from({ length: DEVICES }, (_, device) =>
      Array.from({ length: Math.ceil((ENTRIES - device) / DEVICES) }, (_unused, n) => gathered(device, n, since)),
    )
    const contexts: BrowserContext[] = []
    for (const entries of all) contexts.push(await deviceWith(browser, running.cookie, address, entries))
    const start = performance.now()
    await Promise.all(contexts.map((context) => context.setOffline(false)))
    for (;;) {
      const left = await Promise.all(contexts.map(waiting))
      if (left.every((count) => count === 0)) break
      if (performance.now() - start > 300_000) throw new Error(`not home after five minutes: ${left.join(', ')}`)
      await new Promise((resolve) => setTimeout(resolve, 250))
    }
    const seconds = (performance.now() - start) / 1000
    const log = (await written(address, running.cookie)).filter(({ id }) => id.startsWith('gathered-'))
    // All of them, each once, and of each device in the order in which it wrote them.
    const outOfOrder = all.filter((entries, device) => {
      const came = log.filter(({ id }) => id.startsWith(`gathered-${device}-`)).map(({ id }) => id)
      return came.join() !== entries.map(({ id }) => id).join()
    })
    if (outOfOrder.length > 0) throw new Error('what went home is not what was gathered, or not in its order')
    return [
      {
        name: `${ENTRIES} entries of ${DEVICES} devices out of range for a week: until all are home`,
        value: seconds,
        unit: 's',
        aim: { atMost: 60 },
      },
    ]
  } finally {
    await browser.close()
    await running.stop()
    rmSync(dataDir, { recursive: true, force: true })
  }
}
