import type { LoopAnswer, ShedAnswer } from '@undercliff/contract'
import type { Page } from '@playwright/test'
import { Between } from './between'
import { changeKept, expect, logOf, test } from './testing'
import type { Undercliff } from './undercliff'

const DAY = 86_400_000
const idsOf = async (undercliff: Undercliff, tag: string): Promise<string[]> =>
  (await logOf(undercliff, tag)).map(({ id }) => id)
const tanksOf = async (undercliff: Undercliff, tag: string): Promise<LoopAnswer['entries']> =>
  (await logOf(undercliff, tag)).filter(({ kind }) => kind === 'ran')

/** The loop on the saw in hand, as its heading has it after the saw. */
const inHandTag = async (page: Page): Promise<string> =>
  (await page.locator('[data-in-hand] h2').first().textContent())?.trim().split(' ').at(-1) ?? ''

/** Taps a tank for the loop in hand on /wood, and says which loop that is. */
async function tapTanks(page: Page, many: number): Promise<string> {
  const tag = await inHandTag(page)
  for (let n = 0; n < many; n += 1) {
    // What comes faster is a glove that bounces.
    await page.waitForTimeout(450)
    await page.locator('[data-tank]').click()
    await expect(page.locator('[data-in-hand]').getByRole('status')).toContainText(`A tank on ${tag} logged`)
  }
  return tag
}
const back = async (page: Page): Promise<void> => {
  await page.context().setOffline(false)
  await page.evaluate(() => window.dispatchEvent(new Event('online')))
}
const waits = (page: Page) => page.getByText(/kept on this device, waiting to be sent/)

/** Everything that the outbox keeps on a device, by key. */
const keptParcels = (page: Page): Promise<Record<string, string>> =>
  page.evaluate(async () => {
    // Asking for one that is not there would make it.
    const there = await indexedDB.databases()
    if (!there.some(({ name }) => name === 'undercliff')) return {}
    return new Promise<Record<string, string>>((resolve) => {
      const open = indexedDB.open('undercliff')
      open.onsuccess = () => {
        const store = open.result.transaction('texts').objectStore('texts')
        const found: Record<string, string> = {}
        store.openCursor().onsuccess = (event) => {
          const cursor = (event.target as IDBRequest<IDBCursorWithValue | null>).result
          if (cursor === null) {
            open.result.close()
            resolve(found)
            return
          }
          const { key } = cursor
          if (typeof key === 'string' && key.startsWith('undercliff:outbox:')) found[key] = cursor.value as string
          cursor.continue()
        }
      }
    })
  })

test('a parcel that is cut off half way, or whose answer never comes, is written once', async ({
  page,
  open,
  undercliff,
}) => {
  const between = await Between.before(undercliff.port)
  await open('/wood')
  await page.goto(`${between.address}/wood`)
  const tag = await inHandTag(page)
  const before = (await tanksOf(undercliff, tag)).length
  for (const fate of ['cutThere', 'cutBack'] as const) {
    between.fate = fate
    between.cut = 0
    await tapTanks(page, 1)
    await expect(waits(page)).toBeVisible()
    await expect.poll(() => between.cut).toBeGreaterThan(0)
    between.fate = 'through'
    await back(page)
    await expect(waits(page)).toBeHidden()
  }
  const after = await tanksOf(undercliff, tag)
  expect(after).toHaveLength(before + 2)
  expect(new Set(after.map(({ id }) => id)).size).toBe(after.length)
  between.close()
})

test('storage that is wiped in the middle loses nothing that the page still has', async ({
  page,
  open,
  undercliff,
}) => {
  await open('/wood')
  const tag = await inHandTag(page)
  const before = (await tanksOf(undercliff, tag)).length
  await page.context().setOffline(true)
  await tapTanks(page, 2)
  const session = await page.context().newCDPSession(page)
  await session.send('Storage.clearDataForOrigin', {
    origin: undercliff.address,
    storageTypes: 'indexeddb,local_storage,cache_storage',
  })
  await tapTanks(page, 1)
  await expect(page.getByText('What this device kept was cleared by the browser.')).toBeVisible()
  // What is kept anew outlives the page.
  await expect.poll(async () => Object.keys(await keptParcels(page)).length).toBe(3)
  await back(page)
  await expect.poll(async () => (await tanksOf(undercliff, tag)).length).toBe(before + 3)
  await expect(waits(page)).toBeHidden()
})

test('a device that is restored from a backup sends old entries again, and each stays one', async ({
  page,
  open,
  undercliff,
}) => {
  await open('/wood')
  const tag = await inHandTag(page)
  const before = (await tanksOf(undercliff, tag)).length
  await page.context().setOffline(true)
  await tapTanks(page, 2)
  const old = await keptParcels(page)
  expect(Object.keys(old)).toHaveLength(2)
  await back(page)
  await expect.poll(async () => (await tanksOf(undercliff, tag)).length).toBe(before + 2)
  await expect(waits(page)).toBeHidden()
  // One of them was struck out meanwhile; it stays struck out.
  const { loops } = await undercliff.json<ShedAnswer>('/api/shed')
  const loopId = loops.find((loop) => loop.tag === tag)?.loopId ?? ''
  const strikes = (await tanksOf(undercliff, tag)).at(-1)?.id
  const base = { id: 'struck-out-meanwhile', loopId, personId: null, happenedAt: new Date().toISOString() }
  const struck = { ...base, kind: 'corrected', strikes }
  expect((await undercliff.send('POST', '/api/entries', { entries: [struck] })).status).toBe(201)
  // The backup has an entry besides that was never sent, of a loop that nobody knows any more.
  const lost = { ...base, id: 'of-no-loop-at-all', loopId: 'no-loop-of-ours', kind: 'ran', tanks: 1 }
  const me = (JSON.parse(Object.values(old)[0] ?? '{}') as { by?: string }).by
  const key = `${String(Date.now()).padStart(15, '0')}-of-no-loop-at-all`
  await changeKept(page, `undercliff:outbox:${key}`, () => ({
    key,
    by: me,
    refused: null,
    entries: [{ ...lost, conditions: 'clean' }],
  }))
  for (const [name, text] of Object.entries(old)) await changeKept(page, name, () => JSON.parse(text) as unknown)
  const ids = await idsOf(undercliff, tag)
  await page.reload()
  await expect(page.getByText('Not taken: There is no such loop.')).toBeVisible()
  await expect(waits(page)).toBeHidden()
  expect(await idsOf(undercliff, tag)).toEqual(ids)
  await page.getByRole('button', { name: 'See what it held' }).click()
  await expect(page.getByText('This shed never had that loop')).toBeVisible()
  await page.getByRole('button', { name: 'Throw away …' }).click()
  await page.getByRole('button', { name: 'Throw away for good' }).click()
  await expect(page.getByText('Not taken')).toBeHidden()
})

test('a clock that is two days wrong is put right by the server, and what it said is kept', async ({
  page,
  open,
  undercliff,
}) => {
  await page.clock.install({ time: Date.now() + 2 * DAY })
  await open('/wood')
  const tag = await inHandTag(page)
  await page.context().setOffline(true)
  await tapTanks(page, 1)
  await back(page)
  await page.clock.runFor(5000)
  await expect(page.getByText('The clock of this device is 2 days fast.')).toBeVisible()
  await expect
    .poll(async () => {
      const entry = (await tanksOf(undercliff, tag)).find(({ saidAt }) => saidAt !== undefined)
      if (entry?.saidAt === undefined) return 'not there'
      const off = Math.abs(Date.parse(entry.happenedAt) - Date.now())
      const said = Date.parse(entry.saidAt) - Date.now()
      return off < 120_000 && Math.abs(said - 2 * DAY) < 120_000 ? 'put right' : `${off} ${said}`
    })
    .toBe('put right')
})

test('a session that ended out of range says what waits, and sends it after the next sign-in', async ({
  page,
  open,
  undercliff,
}) => {
  await open('/wood')
  const tag = await inHandTag(page)
  const before = (await tanksOf(undercliff, tag)).length
  await page.context().setOffline(true)
  await tapTanks(page, 2)
  // Everybody's sessions of this person end, as with a new password.
  await page.context().clearCookies()
  await back(page)
  await expect(page.getByText('2 entries wait on this device')).toBeVisible()
  await page.getByRole('button', { name: /Come in as Maren/ }).click()
  await expect.poll(async () => (await tanksOf(undercliff, tag)).length).toBe(before + 2)
  await expect(waits(page)).toBeHidden()
})

test('signing out with things unsent says what stays, and it is there after the next sign-in', async ({
  page,
  open,
  undercliff,
}) => {
  await open('/wood', 'iska')
  const tag = await inHandTag(page)
  const before = (await tanksOf(undercliff, tag)).length
  await page.route('**/api/entries', (route) => route.abort())
  await tapTanks(page, 1)
  await page.goto(`${undercliff.address}/me`)
  await expect(page.getByText(/1 entry waits on this device to be sent. It stays/)).toBeVisible()
  await page.getByRole('button', { name: 'Sign out' }).click()
  await expect(page.getByText('1 entry waits on this device')).toBeVisible()
  await page.unroute('**/api/entries')
  await page.getByRole('button', { name: /Come in as Iska/ }).click()
  await expect.poll(async () => (await tanksOf(undercliff, tag)).length).toBe(before + 1)
})

test('what somebody left who was taken out of the crew is sent by a lead, as their work', async ({
  page,
  undercliff,
}) => {
  await page.goto(undercliff.address)
  await page.getByRole('button', { name: /Come in as Iska/ }).click()
  await page.getByRole('link', { name: 'Wood' }).click()
  const tag = await inHandTag(page)
  await page.context().setOffline(true)
  await tapTanks(page, 1)
  const { people } = await undercliff.json<ShedAnswer>('/api/shed')
  const iska = people.find(({ name }) => name.startsWith('Iska'))
  const maren = people.find(({ name }) => name.startsWith('Maren'))
  expect((await undercliff.send('DELETE', `/api/accounts/${iska?.id ?? ''}`, undefined)).status).toBe(204)
  await back(page)
  await expect(page.getByText('1 entry waits on this device')).toBeVisible()
  await page.getByRole('button', { name: /Come in as Maren/ }).click()
  await expect(page.getByText("1 of somebody else's wait until they sign in")).toBeVisible()
  await page.getByRole('button', { name: 'See them' }).click()
  await expect(page.getByRole('dialog')).toContainText(`${iska?.name ?? ''} signs in`)
  await page.getByRole('button', { name: 'Send it, as written down by me' }).click()
  await expect
    .poll(async () => (await tanksOf(undercliff, tag)).at(-1))
    .toMatchObject({ personId: iska?.id, writtenBy: maren?.id })
  await expect(page.getByText("of somebody else's")).toBeHidden()
})

test.describe('a new version', () => {
  test.use({ serviceWorkers: 'allow' })

  test('waits while a form is half filled in, and reads what the old one kept', async ({ page, open, undercliff }) => {
    test.setTimeout(120_000)
    const between = await Between.before(undercliff.port)
    await open('/')
    await page.goto(`${between.address}/loops/K6/note/gaugesLowered`)
    await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined))
    await page.reload()
    const setting = page.getByLabel(/Setting on the plate/)
    await setting.fill('0.65')
    between.change = (path, text) => {
      if (path === '/sw.js') return text.replace(/(url:"index.html",revision:")[0-9a-f]+/, '$10000')
      return path.startsWith('/index.html') ? text.replace('<head>', '<head><meta name="later">') : text
    }
    const isLater = (): Promise<boolean> => page.evaluate(() => document.querySelector('meta[name="later"]') !== null)
    await page.evaluate(async () => {
      Object.assign(window, { opened: 'before' })
      await (await navigator.serviceWorker.ready).update()
    })
    await expect(page.getByText('A new version waits until nothing is half typed')).toBeVisible()
    // From screen to screen, and away and back: nothing is loaded anew.
    await page.getByRole('link', { name: 'Bench' }).click()
    await expect(page).toHaveURL(/triage|bench/)
    await page.evaluate(() => document.dispatchEvent(new Event('visibilitychange')))
    expect(await page.evaluate(() => (window as { opened?: string }).opened)).toBe('before')
    // Taken by hand, the new one has what the old one kept.
    await page.goBack()
    await expect(setting).toHaveValue('0.65')
    const watching = await page.context().newCDPSession(page)
    let old: string | undefined
    watching.on('ServiceWorker.workerVersionUpdated', ({ versions }) => {
      old ??= versions.find(({ status }) => status === 'activated')?.versionId
    })
    await watching.send('ServiceWorker.enable')
    await expect.poll(() => old).toBeDefined()
    await page.getByRole('button', { name: 'Take it now' }).click()
    // A browser puts the next one in place once the old one is idle, which it never is while a driver watches it.
    await expect
      .poll(async () => {
        await watching.send('ServiceWorker.stopWorker', { versionId: old ?? '' }).catch(() => undefined)
        return isLater().catch(() => false)
      })
      .toBe(true)
    await expect(setting).toHaveValue('0.65')
    await page.getByRole('button', { name: 'Log the gauges' }).click()
    await expect.poll(async () => (await logOf(undercliff, 'K6')).at(-1)?.kind).toBe('gaugesLowered')
    between.close()
  })
})
