import type { Saw, SawAnswer, ShedAnswer } from '@undercliff/contract'
import { entriesThatCount, fitCheck, fold, STORED_VERSION, type LoopCard } from '@undercliff/core'
import type { BrowserContext, Page } from '@playwright/test'
import { keepAll } from './keepAll'
import { changeKept, expect, keptOf, logOf, test } from './testing'

const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true } as const
const inHand = (page: Page) => page.locator('[data-in-hand]')
const just = (page: Page) => inHand(page).getByRole('status')

/** Takes a saw in hand by its name. */
async function take(page: Page, saw: string): Promise<void> {
  const row = page.locator('[data-saw-row]').filter({ hasText: saw })
  await expect(inHand(page).getByRole('heading').first()).toBeVisible()
  if (await inHand(page).getByRole('heading', { name: saw }).isVisible()) return
  if (!(await row.isVisible())) await page.getByRole('button', { name: /^All \d+ saws$/ }).tap()
  await row.tap()
  await expect(inHand(page).getByRole('heading', { name: saw })).toBeVisible()
}

test.describe('on a phone', () => {
  test.use(PHONE)

  test('a tank is one tap, a touch-up two, and both are taken back in the same place', async ({
    page,
    open,
    undercliff,
  }) => {
    await open('/wood')
    await take(page, 'Wren')
    const before = (await logOf(undercliff, 'W1')).length
    await page.locator('[data-tank]').tap()
    await expect(just(page)).toContainText('A tank on W1 logged')
    await expect
      .poll(async () => (await logOf(undercliff, 'W1')).slice(before).map(({ kind }) => kind))
      .toEqual(['ran'])
    await page.locator('[data-undo]').tap()
    await expect
      .poll(async () => (await logOf(undercliff, 'W1')).slice(before).map(({ kind }) => kind))
      .toEqual(['ran', 'corrected'])
    // What it got last is shown before it counts.
    await inHand(page).getByRole('button', { name: 'Touched up' }).tap()
    await inHand(page).getByRole('button', { name: 'One more left' }).tap()
    const said = (await page.locator('[data-log]').textContent()) ?? ''
    const [left = 0, right = 0] = [...said.matchAll(/\d+/g)].map(([count]) => Number(count))
    await page.locator('[data-log]').tap()
    await expect(just(page)).toContainText('Touch-up of W1 logged')
    await expect
      .poll(async () => (await logOf(undercliff, 'W1')).at(-1))
      .toMatchObject({ kind: 'sharpened', method: 'fileField', strokes: { left, right }, gaugesLowered: false })
    // It was used last, and is in hand when the page is opened anew.
    await page.reload()
    await expect(inHand(page).getByRole('heading', { name: 'Wren' })).toBeVisible()
    // The day's wood is said once.
    await page.getByRole('button', { name: /^Today/ }).tap()
    await page.getByRole('radio', { name: 'Gritty bark' }).tap()
    await page.reload()
    await page.locator('[data-tank]').tap()
    await expect
      .poll(async () => (await logOf(undercliff, 'W1')).at(-1))
      .toMatchObject({ kind: 'ran', tanks: 1, conditions: 'gritty' })
    await expect(page.locator('[data-today]')).toContainText('Maren Aldwick 1 tank, 1 touch-up')
  })

  test('a second tank is a second one while the first is on its way; a glove that bounces is told', async ({
    page,
    open,
    undercliff,
  }) => {
    await open('/wood')
    await take(page, 'Wren')
    const before = (await logOf(undercliff, 'W1')).length
    const since = async () => (await logOf(undercliff, 'W1')).slice(before).map(({ kind }) => kind)
    const tank = page.locator('[data-tank]')
    await tank.dblclick()
    await expect(just(page)).toContainText('A tank on W1 logged, once: the second tap came too fast')
    await expect.poll(since).toEqual(['ran'])
    // The line hangs: both are on their way, both are undone one after the other.
    let letGo = (): void => undefined
    const hangs = new Promise<void>((resolve) => (letGo = resolve))
    await page.route('**/api/entries', async (route) => {
      await hangs
      await route.continue()
    })
    await page.waitForTimeout(500)
    await tank.tap()
    await page.waitForTimeout(500)
    await tank.tap()
    await expect(just(page)).toContainText('3 in a row')
    letGo()
    await expect.poll(since).toEqual(['ran', 'ran', 'ran'])
    for (const left of ['2 in a row', 'A tank on W1 logged.', 'A tank counts as one']) {
      await page.locator('[data-undo]').tap()
      await expect(just(page)).toContainText(left)
    }
    await expect.poll(since).toEqual(['ran', 'ran', 'ran', 'corrected', 'corrected', 'corrected'])
  })

  test('only loops that fit and are fit are on offer, and a swap asks for the tension', async ({
    page,
    open,
    undercliff,
  }) => {
    await open('/wood')
    await take(page, 'Wren')
    const before = (await logOf(undercliff, 'W1')).length
    await inHand(page).locator('[data-tank]').tap()
    await expect.poll(async () => (await logOf(undercliff, 'W1')).length).toBe(before + 1)
    const ofWren = page.locator('[data-today] .saw').filter({ hasText: 'Wren' })
    const ranToday = entriesThatCount(await logOf(undercliff, 'W1')).filter(
      ({ kind, happenedAt }) => kind === 'ran' && happenedAt.slice(0, 10) === new Date().toISOString().slice(0, 10),
    )
    const tanks = ranToday.length
    await expect(ofWren).toContainText(`${tanks} tank`)
    await inHand(page).getByRole('button', { name: 'Another loop' }).tap()
    const offered = inHand(page).locator('[data-asked="swap"] .other strong')
    const { loops, saws } = await undercliff.json<ShedAnswer>('/api/shed')
    const wren = saws.find(({ nickname }) => nickname === 'Wren')
    const tags = await offered.allTextContents()
    expect(tags.length).toBeGreaterThan(0)
    for (const tag of tags) {
      const loop = loops.find((one) => one.tag === tag)
      expect(loop).toMatchObject({ fitForUse: true, sawId: null, retired: false })
      expect(loop?.spec.pitchClass).toBe(wren?.pitchClass)
      expect(loop?.spec.driveLinks).toBe(wren?.driveLinks)
    }
    const [other = ''] = tags
    await inHand(page)
      .getByRole('button', { name: `${other} on, bar turned` })
      .tap()
    await expect(inHand(page).getByRole('heading', { name: other })).toBeVisible()
    await expect(just(page)).toContainText(`${other} is on Wren; W1 came off`)
    // What is due is asked for, each with targets for gloves, and answered by a tap.
    await inHand(page).locator('[data-tank]').tap()
    // What the first loop ran on this saw is this saw's still.
    await expect(ofWren).toContainText(`${tanks + 1} tanks`)
    await expect.poll(() => keptOf(page, 'undercliff:reminders')).toContain('oil')
    await changeKept<{ dueAt: number }[]>(page, 'undercliff:reminders', (kept) =>
      kept.map((one) => ({ ...one, dueAt: 1 })),
    )
    await page.reload()
    await expect(ofWren).toContainText(`${tanks + 1} tanks`)
    const tension = page.locator('[data-reminder="tension"]')
    for (const name of ['It stays', 'Tightened', 'Later'])
      expect((await tension.getByRole('button', { name }).boundingBox())?.height).toBeGreaterThanOrEqual(56)
    await tension.getByRole('button', { name: 'It stays' }).tap()
    await expect(tension).toHaveCount(0)
    await expect(page.locator('[data-reminder="oil"]')).toContainText('chain oil goes with every tank')
    await inHand(page).getByRole('button', { name: 'Oil filled' }).tap()
    await expect(page.locator('[data-reminder]')).toHaveCount(0)
    await expect
      .poll(async () => (await undercliff.json<SawAnswer>(`/api/saws/${wren?.id ?? ''}`)).state.oilAt)
      .not.toBeNull()
  })

  test('what the saw tells becomes causes with odds, one look, and something to do', async ({
    page,
    open,
    undercliff,
  }) => {
    await open('/loops/K5/signs')
    await expect(page.getByRole('button', { name: 'Tap a sign first' })).toBeDisabled()
    await page.getByRole('button', { name: 'Pulls to one side' }).tap()
    await expect(page.getByRole('button', { name: 'To which side?' })).toBeDisabled()
    await page.getByRole('radio', { name: 'To the right' }).tap()
    await page.getByRole('button', { name: 'What is it?' }).tap()
    await expect(page.getByRole('list', { name: 'What may be behind it' }).getByRole('listitem').first()).toContainText(
      /in 100/,
    )
    // Three looks at most, and then something is done.
    const remedy = page.locator('[data-remedy]')
    for (let looks = 0; looks < 3 && !(await remedy.isVisible()); looks += 1) {
      const look = page.locator('[data-look]')
      const title = await look.getByRole('heading').textContent()
      await look.getByRole('button', { name: 'Nothing wrong there' }).tap()
      await expect(page.locator('[data-look] h2, [data-remedy] h2').first()).not.toHaveText(title ?? '')
    }
    await expect(remedy).toBeVisible()
    await page.getByRole('button', { name: 'It was something else …' }).tap()
    await page.getByRole('button', { name: 'Uneven or unturned bar rails' }).tap()
    await expect(page.getByText('Tap what it does.')).toBeVisible()
    await expect.poll(async () => (await logOf(undercliff, 'K5')).at(-1)?.kind).toBe('traced')
    const kinds = (await logOf(undercliff, 'K5')).map(({ kind }) => kind)
    expect(kinds).toContain('noticed')
    expect(kinds).toContain('looked')
  })

  test('snatching after gauges by eye keeps the loop off, and a reading brings it back', async ({
    page,
    open,
    undercliff,
  }) => {
    const { loops } = await undercliff.json<ShedAnswer>('/api/shed')
    const loopId = loops.find(({ tag }) => tag === 'W2')?.loopId
    const base = { loopId, personId: null, happenedAt: new Date().toISOString() }
    const lowered = { ...base, id: 'by-eye-in-a-test', kind: 'gaugesLowered', gaugesByEye: true }
    expect((await undercliff.send('POST', '/api/entries', { entries: [lowered] })).status).toBe(201)
    await open('/loops/W2/signs')
    await page.getByRole('button', { name: 'Snatches, bogs, jumps' }).tap()
    await page.getByRole('button', { name: 'What is it?' }).tap()
    await expect(page.getByText(/The gauges may be too low. Do not cut with it/)).toBeVisible()
    await page.goto(`${undercliff.address}/loops/W2/card`)
    await expect(page.locator('[data-unfit]')).toContainText('Do not use it as it is')
    await page.goto(`${undercliff.address}/loops/W2`)
    await expect(page.getByText('Do not use').first()).toBeVisible()
    const state = fold(await logOf(undercliff, 'W2'))
    const settingUm = state?.spec.settingUm ?? 650
    const readings = state?.cutters.map(({ number }) => ({ cutter: number, settingUm })) ?? []
    const read = { ...base, id: 'read-in-a-test', happenedAt: new Date().toISOString(), kind: 'measured', readings }
    expect((await undercliff.send('POST', '/api/entries', { entries: [read] })).status).toBe(201)
    await page.reload()
    await expect(page.getByText('Do not use')).toHaveCount(0)
  })

  test('every target is 56 px, in both hands, in landscape and in the sun', async ({ page, open }) => {
    await open('/wood')
    const small = () =>
      page.evaluate(() =>
        [...document.querySelectorAll<HTMLElement>('main button, main a')]
          .filter((one) => one.offsetParent !== null)
          .map((one) => ({ text: one.textContent.trim(), box: one.getBoundingClientRect() }))
          .filter(({ box }) => Math.round(box.height) < 56 || Math.round(box.width) < 56)
          .map(({ text }) => text),
      )
    for (const size of [
      { width: 390, height: 844 },
      { width: 844, height: 390 },
    ]) {
      await page.setViewportSize(size)
      expect(await small()).toEqual([])
      await page.getByRole('button', { name: 'Left hand' }).tap()
      expect(await small()).toEqual([])
      await inHand(page).getByRole('button', { name: 'Touched up' }).tap()
      expect(await small()).toEqual([])
      await inHand(page).getByRole('button', { name: 'Never mind' }).tap()
      await page.getByRole('button', { name: 'Sunlight' }).tap()
    }
    await page.goto(page.url().replace('/wood', '/loops/K5/signs'))
    await expect(page.getByRole('button', { name: 'Tap a sign first' })).toBeVisible()
    expect((await small()).filter((text) => text !== 'K5')).toEqual([])
  })
})

test.describe('out of range', () => {
  test.use({ ...PHONE, serviceWorkers: 'allow' })

  /** A page on another device. */
  async function device(context: BrowserContext): Promise<Page> {
    const page = await context.newPage()
    return page
  }

  test('a cold start without a server shows the shed with its age; a day is logged by two, and goes home', async ({
    page,
    open,
    undercliff,
    browser,
  }) => {
    test.setTimeout(180_000)
    await open('/wood')
    await keepAll(page)
    const other = await browser.newContext(PHONE)
    await undercliff.enter(other, 'iska')
    const iska = await device(other)
    await iska.goto(`${undercliff.address}/wood`)
    await keepAll(iska)

    // Two saws that take the same loops, and one of those: the demo has one of each.
    const { saws, loops } = await undercliff.json<ShedAnswer>('/api/shed')
    const free = loops.filter(
      ({ sawId, fitForUse, retired, place }) => sawId === null && fitForUse && !retired && place.at !== 'shop',
    )
    const fits = (loop: LoopCard, saw: Saw) => fitCheck(loop.spec, saw, saw, true).level === 'fits'
    const one = saws.find((saw) => free.some((loop) => fits(loop, saw)))
    if (one === undefined) throw new Error('the demo should have a loop to swap')
    const contested = free.find((loop) => fits(loop, one))?.tag ?? ''
    const { pitchClass, gaugeUm, driveLinks } = one
    const two = { id: 'sister-in-a-test', nickname: 'Sister', pitchClass, gaugeUm, driveLinks }
    expect((await undercliff.send('POST', '/api/saws', two)).status).toBe(201)
    for (const device of [page, iska]) {
      await device.reload()
      await device.getByRole('button', { name: /^All \d+ saws$/ }).tap()
      await expect(device.locator('[data-saw-row]').filter({ hasText: 'Sister' })).toBeVisible()
      await expect.poll(() => keptOf(device, `undercliff:shed:${STORED_VERSION}`)).toContain('Sister')
    }

    await undercliff.kill()
    await page.context().setOffline(true)
    await other.setOffline(true)
    // Cold: the page is closed, and another one opened.
    const cold = await page.context().newPage()
    await page.close()
    await cold.goto(`${undercliff.address}/wood`)
    await expect(inHand(cold).getByRole('heading').first()).toBeVisible()
    await expect(cold.getByText(/The shed does not answer; this is it as it was/)).toBeVisible()
    await take(cold, one.nickname)
    await inHand(cold).getByRole('button', { name: 'Another loop' }).tap()
    const offered = inHand(cold).locator('[data-asked="swap"] .other strong')
    await expect(offered.filter({ hasText: contested })).toBeVisible()
    await inHand(cold)
      .getByRole('button', { name: `${contested} on, bar not turned` })
      .tap()
    await expect(inHand(cold).getByRole('heading', { name: contested })).toBeVisible()
    // Two tanks on one saw, the second long before the first has gone home; each is taken back by itself.
    const tank = cold.locator('[data-tank]')
    const today = async (): Promise<number> => Number(/(\d+) today/.exec((await tank.textContent()) ?? '')?.[1] ?? 0)
    const before = await today()
    for (let i = 1; i <= 3; i += 1) {
      await tank.tap()
      await expect.poll(today).toBe(before + i)
      await cold.waitForTimeout(500)
    }
    await expect(just(cold)).toContainText(`A tank on ${contested} logged, 3 in a row; kept here`)
    await cold.locator('[data-undo]').tap()
    await expect.poll(today).toBe(before + 2)
    await expect(just(cold)).toContainText('logged, 2 in a row; kept here')
    // All loops open, and what is measured counts.
    await cold.goto(`${undercliff.address}/loops/K5`)
    await expect(cold.getByRole('heading', { name: 'K5', exact: true })).toBeVisible()

    // The other device puts the same loop on another saw that it fits.
    await iska.goto(`${undercliff.address}/wood`)
    await take(iska, two.nickname)
    await inHand(iska).getByRole('button', { name: 'Another loop' }).tap()
    await inHand(iska)
      .getByRole('button', { name: `${contested} on, bar not turned` })
      .tap()
    await iska.locator('[data-tank]').tap()

    await undercliff.up()
    await cold.context().setOffline(false)
    await expect
      .poll(async () => (await logOf(undercliff, contested)).map(({ kind }) => kind).slice(-5))
      .toEqual(['fitted', 'ran', 'ran', 'ran', 'corrected'])
    // What has gone home is not kept here any more, and does not say so.
    await cold.goto(`${undercliff.address}/wood`)
    await other.setOffline(false)
    await expect
      .poll(async () =>
        (await logOf(undercliff, contested)).map(({ kind }) => kind).filter((kind) => kind === 'fitted'),
      )
      .toHaveLength(2)
    await expect(iska.locator('[data-in-hand]').getByText(/logged/)).toBeVisible()
    await expect(iska.getByText('kept here')).toHaveCount(0)
    // The later word stands though the earlier came home first; the earlier is set aside with what to do, for both.
    await expect(inHand(iska).getByRole('heading', { name: contested })).toBeVisible()
    await expect(inHand(iska).locator('[data-overtaken]')).toContainText(`Set aside: Maren`)
    await take(cold, one.nickname)
    await expect(inHand(cold).locator('[data-overtaken]')).toContainText('Read the tags on both saws')
    await inHand(cold)
      .getByRole('button', { name: `${contested} is on this saw` })
      .tap()
    await expect(inHand(cold).getByRole('heading', { name: contested })).toBeVisible()
    await expect(inHand(cold).locator('[data-overtaken]')).toHaveCount(0)
    await take(iska, two.nickname)
    await expect(inHand(iska).getByRole('heading', { name: contested })).toHaveCount(0)
    await other.close()
  })
})
