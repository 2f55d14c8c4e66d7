import type { SawAnswer, ShedAnswer } from '@undercliff/contract'
import { fold } from '@undercliff/core'
import { changeKept, expect, logOf, test } from './testing'
import type { Undercliff } from './undercliff'

/** The ids of a loop and a saw of the demo. */
async function idsOf(undercliff: Undercliff, tag: string, nickname: string) {
  const { loops, saws } = await undercliff.json<ShedAnswer>('/api/shed')
  return {
    loopId: loops.find((loop) => loop.tag === tag)?.loopId ?? '',
    sawId: saws.find((saw) => saw.nickname === nickname)?.id ?? '',
  }
}

/** What a ground loop leaves in its log, in what is believed of it and in the log of its saw. */
async function expectGround(undercliff: Undercliff, before: number, stop: number, sawId: string): Promise<void> {
  const log = (await logOf(undercliff, 'T1')).slice(before)
  expect(log.map(({ kind }) => kind)).toEqual(['begun', 'sharpened', 'measured', 'gaugesLowered'])
  expect(log[1]).toMatchObject({
    stopUm: Math.round(stop * 1000),
    stopRead: true,
    method: 'grinder',
    tool: 'benchGrinder',
    stopChecked: true,
    damageCleared: true,
    used: ['kit-wheel-47'],
  })
  // Belief: nothing is left of the stone, and every cutter stands about where the stop ended it.
  const state = fold(await logOf(undercliff, 'T1'))
  expect(state?.cutters.every(({ damage }) => damage.length === 0)).toBe(true)
  for (const { length } of state?.cutters ?? []) expect(Math.abs(length.um - stop * 1000)).toBeLessThan(200)
  expect(state?.life.at(-1)?.shortestUm).toBeLessThan((state?.life.at(-3)?.shortestUm ?? 0) + 1)
  // The saw's log has the put-back, and the look at the tension is asked for ten minutes later.
  const { entries, state: sawNow } = await undercliff.json<SawAnswer>(`/api/saws/${sawId}`)
  expect(entries.at(-1)).toMatchObject({ kind: 'putBack', done: expect.arrayContaining(['barTurned', 'tension']) })
  expect(sawNow.tension?.stayed).toBe(false)
}

test('a struck loop is ground by keyboard and a caliper over a cable, through a reload and a dead server', async ({
  page,
  open,
  undercliff,
}) => {
  // T1 has 42 cutters and sits on Great Tern; a stone took three of them.
  const { loopId, sawId } = await idsOf(undercliff, 'T1', 'Great Tern')
  const hit = [5, 6, 7].map((cutter) => ({ cutter, damage: [{ kind: 'stone', depthUm: 500 }] }))
  const struck = {
    id: 'struck-by-a-test',
    happenedAt: new Date().toISOString(),
    personId: null,
    kind: 'measured',
    readings: hit,
  }
  await undercliff.send('POST', '/api/entries', { entries: [{ ...struck, loopId }] })
  const before = (await logOf(undercliff, 'T1')).length

  await open('/loops/T1/sharpen?action=regrind')
  const inHand = page.locator('[data-in-hand]')
  const step = (name: RegExp) => page.getByRole('heading', { name, level: 2 })
  await expect(step(/^Make it safe/)).toBeVisible()
  for (const next of [/^Clean it/, /^Mark the start/, /^Look at the wheel/, /^Set it up/, /^The stop/]) {
    await page.keyboard.press('Enter')
    await expect(step(next)).toBeVisible()
  }
  // What happened is told by its place in the plan, so the tool stays what it was begun with.
  await expect(page.getByLabel('With', { exact: true })).toHaveCount(0)
  // The worst cutter, once it is clean, is the stop: what it reads, and not what was planned.
  const planned = Number(/to about ([\d.]+) mm/.exec((await inHand.textContent()) ?? '')?.[1])
  const stop = planned - 0.05
  await page.keyboard.type(stop.toFixed(2))
  await page.keyboard.press('Enter')
  await expect(step(/^Left cutters, first/)).toBeVisible()
  await expect(inHand).toContainText(`to ${stop.toFixed(2)} mm`)
  await page.getByText('Caliper: typed').click()
  await page.getByRole('button', { name: 'Connect the stand-in' }).click()
  const instrument = await page.context().newPage()
  await instrument.goto(`${undercliff.address}/tools/caliper`)
  const measure = async (mm: number) => {
    await instrument.getByLabel('Between its jaws, mm').fill(mm.toFixed(2))
    await instrument.getByRole('button', { name: 'Send it' }).click()
  }
  await measure(stop + 0.01)
  await expect(inHand).toContainText('3 L')
  // What came cut short is refused, and a slip of the jaws is asked about.
  await instrument.getByRole('button', { name: 'Drops out in the middle' }).click()
  await measure(stop)
  await expect(page.getByRole('alert')).toContainText('cut short')
  await instrument.getByRole('button', { name: 'Drops out in the middle' }).click()
  await instrument.getByRole('button', { name: 'The jaws slip' }).click()
  await measure(stop)
  await expect(page.getByRole('alert')).toContainText('Longer than it was before its strokes')
  await expect(inHand).toContainText('3 L')
  await instrument.getByRole('button', { name: 'The jaws slip' }).click()
  await instrument.getByRole('button', { name: 'Battery low' }).click()
  await measure(stop)
  await expect(page.getByText('battery is low')).toBeVisible()
  // The worst was 5: it has been ground, and is not touched again.
  await expect(inHand).toContainText('7 L')

  for (let cutter = 7; cutter <= 17; cutter += 2) await page.keyboard.press('Enter')
  await expect(inHand).toContainText('19 L')
  await page.keyboard.press('u')
  await expect(inHand).toContainText('17 L')
  await page.reload()
  await expect(inHand).toContainText('17 L')
  await undercliff.kill()
  for (let cutter = 17; cutter <= 41; cutter += 2) await page.keyboard.press('Enter')
  await expect(step(/^Turn the clamp/)).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(step(/^Measure one/)).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toContainText('Measure it, or say that it goes on unchecked')
  // The stop shifted as the clamp was turned.
  await page.keyboard.type((stop + 0.15).toFixed(2))
  await page.keyboard.press('Enter')
  await expect(page.getByText(/longer than the first side: move the stop in by 0\.1\d mm/)).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(step(/^Right cutters/)).toBeVisible()
  // A pedal types wherever the cursor is.
  await page.evaluate(() => {
    if (document.activeElement instanceof HTMLElement) document.activeElement.blur()
  })
  // The cutter of the check came out long: it is ground once more, against the stop as it is set now.
  for (let cutter = 2; cutter <= 42; cutter += 2) await page.keyboard.press(' ')
  await expect(step(/^Depth gauges/)).toBeVisible()
  for (const next of [/^Look all round/, /^Put it back/]) {
    await page.keyboard.press('Enter')
    await expect(step(next)).toBeVisible()
  }
  await page.getByRole('button', { name: 'All of it' }).press('Enter')
  await page.getByRole('button', { name: /^Done, next/ }).press('Enter')
  await expect(step(/^All done/)).toBeVisible()
  await page.getByRole('button', { name: 'Yes', exact: true }).press('Enter')
  await page.getByRole('button', { name: 'Log the sharpening' }).press('Enter')
  await expect(page.getByRole('heading', { name: 'T1', exact: true })).toBeVisible()

  await undercliff.up()
  await page.reload()
  await expect.poll(async () => (await logOf(undercliff, 'T1')).length).toBeGreaterThan(before + 2)
  await expectGround(undercliff, before, stop, sawId)
  await changeKept<{ dueAt: number }[]>(page, 'undercliff:reminders', (kept) =>
    kept.map((one) => ({ ...one, dueAt: 1 })),
  )
  await page.reload()
  const reminder = page.locator('[data-reminder]')
  await expect(reminder).toContainText('Great Tern')
  await reminder.getByRole('button', { name: 'It stays' }).click()
  await expect(reminder).toHaveCount(0)
  await expect
    .poll(async () => (await undercliff.json<SawAnswer>(`/api/saws/${sawId}`)).state.tension?.stayed)
    .toBe(true)
})

test('what ends a loop, found on the way, ends the sharpening and is logged', async ({ page, open, undercliff }) => {
  await open('/loops/T4/sharpen?action=file')
  const inHand = page.locator('[data-in-hand]')
  await expect(page.locator('.go')).toBeFocused()
  while (!(await inHand.isVisible())) await page.keyboard.press('Enter')
  await page.locator('[data-reading]').focus()
  await page.keyboard.press('d')
  await page.getByRole('combobox', { name: /^Damage of/ }).selectOption('cracked cutter')
  await page.getByRole('button', { name: 'Found it' }).click()
  await expect(page.getByRole('alert')).toContainText('That ends a loop')
  await expect(inHand).toHaveCount(0)
  await page.getByRole('button', { name: 'Log what was found' }).click()
  await expect(page.getByRole('region', { name: 'Verdict' })).toContainText(/retire/i)
  expect((await logOf(undercliff, 'T4')).at(-1)).toMatchObject({ kind: 'inspected' })
})

test('a second device is told who is at a loop and where, and goes on with it', async ({
  page,
  open,
  undercliff,
  browser,
}) => {
  await open('/loops/K5/sharpen?action=file')
  const inHand = page.locator('[data-in-hand]')
  await expect(page.locator('.go')).toBeFocused()
  while (!(await inHand.isVisible())) await page.keyboard.press('Enter')
  const first = (await inHand.textContent()) ?? ''
  await page.locator('[data-reading]').press('Enter')
  await expect(inHand).not.toHaveText(first)
  const there = (await inHand.locator('strong').first().textContent()) ?? ''
  const other = await browser.newContext({ viewport: { width: 390, height: 844 } })
  await undercliff.enter(other, 'iska')
  const phone = await other.newPage()
  await expect(async () => {
    await phone.goto(`${undercliff.address}/loops/K5/sharpen`)
    await expect(phone.locator('[data-elsewhere]')).toContainText('Maren Aldwick is at this loop on a computer', {
      timeout: 2000,
    })
  }).toPass()
  await phone.getByRole('button', { name: 'Go on here with it' }).click()
  // The same cutter; how many strokes it gets hangs on what this device has heard of the crew's hands by now.
  await expect(phone.locator('[data-in-hand] strong').first()).toHaveText(there)
  await expect(phone.locator('[data-elsewhere]')).toHaveCount(0)
  // The first one hears of it with the next thing it does.
  await expect(async () => {
    await page.locator('[data-reading]').press('Enter')
    await expect(page.locator('[data-elsewhere]')).toContainText('Iska Lund-Pell', { timeout: 1500 })
  }).toPass()
  // It is logged over there: what the first one kept of it is said to be overtaken, and thrown away by who knows.
  const { loopId } = await idsOf(undercliff, 'K5', '')
  const { people } = await undercliff.json<ShedAnswer>('/api/shed')
  const personId = people.find(({ name }) => name === 'Iska Lund-Pell')?.id
  const base = { loopId, id: 'logged-over-there', happenedAt: new Date().toISOString(), personId }
  const logged = { ...base, kind: 'sharpened', method: 'fileBench', gaugesLowered: false }
  expect((await undercliff.send('POST', '/api/entries', { entries: [logged] })).status).toBe(201)
  await expect(async () => {
    await page.reload()
    await expect(page.locator('[data-overtaken]')).toContainText('Iska Lund-Pell logged a sharpening of this loop', {
      timeout: 5000,
    })
  }).toPass()
  await page.getByRole('button', { name: 'throw this one away' }).click()
  await expect(page).toHaveURL(/\/loops\/K5$/)
  await page.goto(`${undercliff.address}/loops/K5/sharpen?action=file`)
  await expect(page.locator('.go')).toBeFocused()
  await expect(page.locator('[data-overtaken]')).toHaveCount(0)
  await other.close()
})

test('what was written on a job sheet is entered in one walk', async ({ page, open, undercliff }) => {
  await open('/loops/M2/sheet?action=file')
  await expect(page.getByRole('heading', { name: 'M2: filing' })).toBeVisible()
  const download = page.waitForEvent('download')
  await page.getByRole('button', { name: 'As a PDF' }).click()
  expect((await download).suggestedFilename()).toBe('undercliff-M2.pdf')
  await page.getByRole('button', { name: 'Enter what was written' }).click()
  const inHand = page.locator('[data-in-hand]')
  await expect(inHand).toBeVisible()
  const target = Number(/to ([\d.]+) mm/.exec((await inHand.textContent()) ?? '')?.[1])
  await page.locator('[data-reading]').focus()
  await page.keyboard.type(target.toFixed(2))
  const allDone = page.getByRole('heading', { name: 'All done' })
  const unchecked = page.getByRole('button', { name: 'Go on unchecked' })
  while (!(await allDone.isVisible()))
    if (await unchecked.isVisible()) await unchecked.click()
    else await page.locator('.go').press('Enter')
  await page.getByLabel('Minutes that stand on the paper').fill('25')
  await page.getByRole('button', { name: 'Log the sharpening' }).click()
  await expect(page.getByRole('heading', { name: 'M2', exact: true })).toBeVisible()
  const log = await logOf(undercliff, 'M2')
  expect(log.filter(({ kind }) => kind === 'sharpened').at(-1)).toMatchObject({ minutes: 25, tool: 'plateGuide' })
})

test('only tools that suit the loop are on offer, and none for one that is cracked', async ({
  page,
  open,
  undercliff,
}) => {
  await open('/loops/K3/sharpen')
  const tool = page.getByLabel('With', { exact: true })
  await expect(tool.getByRole('option', { name: /two-in-one/i })).toHaveCount(1)
  await expect(tool.getByRole('option', { name: /square-ground/ })).toHaveCount(0)
  // A cracked strap ends a loop: there is nothing to begin.
  await page.goto(`${undercliff.address}/loops/T2/sharpen`)
  await expect(page.getByRole('alert')).toContainText('no edge makes it fit')
  await expect(page.locator('.go')).toHaveCount(0)
})

test.describe('on a phone, by touch', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true })

  test('a touch-up: readings change the counts; one side alone is logged as that, and the other follows', async ({
    page,
    open,
    undercliff,
  }) => {
    const before = (await logOf(undercliff, 'P2')).length
    await open('/loops/P2/sharpen?action=touchUp')
    const onward = page.locator('.go')
    const inHand = page.locator('[data-in-hand]')
    while (!(await inHand.isVisible())) await onward.tap()
    const first = (await inHand.textContent()) ?? ''
    const hand = first.includes(' L') ? 'L' : 'R'
    const target = Number(/to ([\d.]+) mm/.exec(first)?.[1])
    // Each is left longer than so many strokes should: the file is worn.
    for (let i = 0; i < 6; i += 1) {
      const text = (await inHand.textContent()) ?? ''
      const wanted = Number(/to ([\d.]+) mm/.exec(text)?.[1] ?? target)
      await page.locator('[data-reading]').fill((wanted + 0.06).toFixed(2))
      await onward.tap()
      await expect(inHand).not.toHaveText(text)
    }
    await expect(page.getByText(/A stroke takes \d+ % less than usual today/)).toBeVisible()
    while (await inHand.getByText(new RegExp(`^\\d+ ${hand}$`)).isVisible()) await onward.tap()
    // It ends after one side: that side is logged, and the loop is not fit.
    await page.getByRole('button', { name: /^End here/ }).tap()
    await expect(page.getByRole('alert')).toContainText('Like this the saw pulls')
    await page.getByRole('button', { name: /^Log the (left|right) side alone/ }).tap()
    await expect(page.getByRole('region', { name: 'Verdict' })).toContainText(/Do not use/)
    await expect(page.getByRole('region', { name: 'Verdict' })).toContainText(/side waits/)
    await expect(page.getByRole('link', { name: 'Go on with the side that waits' })).toBeVisible()
    const half = (await logOf(undercliff, 'P2')).slice(before)
    const side = hand === 'L' ? 'left' : 'right'
    expect(half.find(({ kind }) => kind === 'sharpened')).toMatchObject({ onlySide: side })

    // The other side follows, with a tap anywhere on the lower half, and it is fit again.
    await page.goto(`${undercliff.address}/loops/P2/sharpen?action=touchUp`)
    await expect(page.getByText(/Only the (left|right) side is left to do/)).toBeVisible()
    while (!(await inHand.isVisible())) await onward.tap()
    await page.getByRole('button', { name: 'Go on unchecked' }).tap()
    const one = (await inHand.textContent()) ?? ''
    await page.touchscreen.tap(375, 500)
    await expect(inHand).not.toHaveText(one)
    const more = page.getByRole('button', { name: /^(Next cutter|Done, next)/ })
    while (await more.isVisible()) await more.tap()
    await page.getByRole('button', { name: 'Log the sharpening' }).tap()
    await expect(page.getByRole('heading', { name: 'P2', exact: true })).toBeVisible()
    const state = fold(await logOf(undercliff, 'P2'))
    expect(state?.waitingSide).toBeNull()
    await expect(page.getByRole('region', { name: 'Verdict' })).not.toContainText(/Do not use/)
  })
})
