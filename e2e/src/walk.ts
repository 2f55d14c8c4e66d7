/* eslint-disable no-console -- it prints the table for docs/walk.md */
import type { Browser, Locator, Page } from '@playwright/test'
import { openBrowser } from './browser'
import { messyBook } from './fixtures/messyBook'
import { keepAll } from './keepAll'
import { Undercliff } from './undercliff'

/**
 * Walks through what people do, in the real interface, and counts keys and taps. A person's time by the
 * keystroke-level model (Card, Moran and Newell 1980, from memory): 0.28 s a key, 1.1 s to point and tap, 1.35 s to
 * think before each step.
 */
const KEY_S = 0.28
const TAP_S = 1.1
const THINK_S = 1.35

const DESK = { width: 1280, height: 800 }
const PHONE = { width: 390, height: 844 }

/** A person whose every key and tap is counted. */
class Walker {
  keys = 0
  taps = 0
  steps = 0
  constructor(readonly page: Page) {}

  /** One thing to think of before it is done. */
  step(): this {
    this.steps += 1
    return this
  }
  async type(text: string): Promise<void> {
    await this.page.keyboard.type(text)
    this.keys += text.length
  }
  async press(key: string): Promise<void> {
    await this.page.keyboard.press(key)
    this.keys += 1
  }
  /** Only what can be seen without a swipe is tapped. */
  async tap(what: Locator): Promise<void> {
    await what.waitFor()
    await this.page.waitForTimeout(250)
    const box = await what.boundingBox()
    const { height } = this.page.viewportSize() ?? { height: 0 }
    if (box === null || box.y < 0 || box.y + box.height > height)
      throw new Error(`${String(what)} is out of sight: it would take a swipe`)
    await what.click()
    this.taps += 1
  }
  /** Opens a list and picks from it: two taps and a thought. */
  async choose(list: Locator, label: string): Promise<void> {
    await list.scrollIntoViewIfNeeded()
    await list.selectOption(label)
    this.steps += 1
    this.taps += 2
  }
  get all(): number {
    return this.keys + this.taps
  }
  get seconds(): number {
    return this.keys * KEY_S + this.taps * TAP_S + this.steps * THINK_S
  }
}

interface Row {
  readonly what: string
  readonly took: string
  readonly wanted: string
  readonly met: boolean
}
const rows: Row[] = []
const note = (what: string, took: number, most: number, unit: string): void => {
  const said = Number.isInteger(took) ? String(took) : took.toFixed(2)
  rows.push({ what, took: `${said} ${unit}`, wanted: `at most ${most} ${unit}`, met: took <= most })
}

async function walker(browser: Browser, undercliff: Undercliff, size: typeof DESK): Promise<Walker> {
  const context = await browser.newContext({ viewport: size, hasTouch: size === PHONE })
  await undercliff.enter(context)
  const page = await context.newPage()
  await page.goto(undercliff.address)
  await page.locator('[data-saw]').first().waitFor()
  return new Walker(page)
}

/** What a sawyer logs on a phone, from the first screen. */
async function onThePhone(browser: Browser, undercliff: Undercliff): Promise<void> {
  const journeys: readonly (readonly [string, number, (walk: Walker) => Promise<void>])[] = [
    [
      'phone: a touch-up logged',
      3,
      async (walk) => {
        const { page } = walk
        await walk.tap(page.locator('[data-saw=Stilt]').getByRole('link', { name: 'Touched up' }))
        await walk.tap(page.getByRole('button', { name: 'Log the sharpening' }))
        await page.locator('[data-entry=sharpened]').first().waitFor()
      },
    ],
    [
      'phone: a tank logged',
      2,
      async (walk) => {
        const { page } = walk
        await walk.tap(page.locator('[data-saw=Wren]').getByRole('link', { name: 'Tank' }))
        await walk.tap(page.getByRole('button', { name: 'Log the tanks' }))
        await page.locator('[data-entry=ran]').first().waitFor()
      },
    ],
    [
      'phone: a strike logged',
      3,
      async (walk) => {
        const { page } = walk
        await walk.tap(page.locator('[data-saw=Mizzen]').getByRole('link', { name: 'Struck' }))
        await walk.tap(page.getByRole('radio', { name: 'Stone', exact: true }))
        await walk.tap(page.getByRole('button', { name: 'Log the strike' }))
        await page.locator('[data-entry=struck]').first().waitFor()
      },
    ],
    [
      'phone: a loop swapped',
      4,
      async (walk) => {
        const { page } = walk
        await walk.tap(page.locator('[data-saw=Wren]').getByRole('link', { name: 'Swap' }))
        await walk.tap(page.getByRole('button', { name: 'Put on' }).first())
        await walk.tap(page.getByRole('button', { name: /^Put .+ on Wren$/ }))
        await page
          .getByText(/is on Wren|on Wren/)
          .first()
          .waitFor()
      },
    ],
  ]
  for (const [what, most, go] of journeys) {
    const walk = await walker(browser, undercliff, PHONE)
    await go(walk)
    note(what, walk.taps, most, 'taps')
    await walk.page.context().close()
  }
}

/** What comes to hand out of range: a touch-up, a strike, and what the page says of that saw then. */
async function outOfRange(browser: Browser, undercliff: Undercliff): Promise<void> {
  const context = await browser.newContext({ viewport: PHONE, hasTouch: true, serviceWorkers: 'allow' })
  await undercliff.enter(context)
  const page = await context.newPage()
  await page.goto(`${undercliff.address}/wood`)
  await keepAll(page)
  await context.setOffline(true)
  const walk = new Walker(page)
  const hand = page.locator('[data-in-hand]')
  // The saw in hand is the one that was used last; choosing it is a tap of every morning, not of every entry.
  if (!(await hand.getByRole('heading', { name: 'Wren' }).isVisible())) {
    await page.getByRole('button', { name: /^All \d+ saws$/ }).click()
    await page.locator('[data-saw-row]').filter({ hasText: 'Wren' }).first().click()
  }

  await walk.tap(hand.getByRole('button', { name: 'Touched up' }))
  await walk.tap(page.locator('[data-log]'))
  await page.getByText(/Touch-up of .+ logged/).waitFor()
  note('phone, out of range: a touch-up logged', walk.taps, 3, 'taps')
  const before = walk.taps
  await walk.tap(hand.getByRole('button', { name: 'Struck' }))
  const stone = hand.getByRole('button', { name: 'Stone', exact: true })
  await stone.waitFor()
  await page.waitForTimeout(250)
  const began = Date.now()
  await stone.click()
  walk.taps += 1
  note('phone, out of range: a strike logged', walk.taps - before, 3, 'taps')
  await hand.locator('[data-see-to]').waitFor()
  note('phone, out of range: “inspect” on that saw after it', (Date.now() - began) / 1000, 1, 's')
  await context.close()
}

/** A whole loop read, by the keys of a caliper that does not type. */
async function measured(browser: Browser, undercliff: Undercliff): Promise<void> {
  const walk = await walker(browser, undercliff, DESK)
  await walk.page.goto(`${undercliff.address}/loops/K6/measure`)
  await walk.page.locator('[data-reading]').waitFor()
  for (let cutter = 1; cutter <= 36; cutter += 1) {
    // A figure that comes twice at once is asked about: no hand is as fast as this walk.
    await walk.type(cutter % 2 === 0 ? '7.7' : '7.8')
    await walk.press('Enter')
  }
  await walk.press('Enter')
  await walk.page.getByRole('heading', { name: 'K6', exact: true }).waitFor()
  note('36 cutters measured, for each', walk.keys / 36, 4.2, 'keys')
  await walk.page.context().close()
}

/** A loop of 36 cutters sharpened step by step, every second one measured: keys beyond the digits of the readings. */
async function sharpened(browser: Browser, undercliff: Undercliff): Promise<void> {
  const walk = await walker(browser, undercliff, DESK)
  const { page } = walk
  await page.goto(`${undercliff.address}/loops/K6/sharpen?action=file`)
  await page.locator('.go').waitFor()
  const inHand = page.locator('[data-in-hand]')
  const target = async (): Promise<string> => /to ([\d.]+) mm/.exec((await inHand.textContent()) ?? '')?.[1] ?? ''
  let beyond = 0
  const press = async (key: string): Promise<void> => {
    await walk.press(key)
    beyond += 1
  }
  await press('a')
  for (let cutter = 1; ; cutter += 1) {
    if (await page.getByRole('heading', { name: 'All done' }).isVisible()) break
    const checking = await page.getByRole('heading', { name: 'Measure one' }).isVisible()
    if ((await inHand.isVisible()) && (checking || cutter % 2 === 0)) await walk.type(await target())
    await press('Enter')
  }
  await page.getByRole('button', { name: 'Log the sharpening' }).press('Enter')
  beyond += 1
  await page.getByRole('heading', { name: 'K6', exact: true }).waitFor()
  note('36 cutters sharpened, every second one measured: keys beyond the digits, for each', beyond / 36, 1.2, 'keys')
  await page.context().close()
}

/** From an empty shed to three saws and eight used loops, by hand. */
async function firstEvening(browser: Browser, undercliff: Undercliff): Promise<void> {
  const context = await browser.newContext({ viewport: DESK })
  const page = await context.newPage()
  const { setUp } = await import('./testing')
  await setUp(page, undercliff)
  const walk = new Walker(page)
  const saws = [
    { name: 'Gull', links: '72', loops: 3 },
    { name: 'Tern', links: '68', loops: 3 },
    { name: 'Auk', links: '60', loops: 2 },
  ]
  for (const { name, links, loops } of saws) {
    await page.goto(`${undercliff.address}/add/saw`)
    walk.step().taps += 1
    await walk.tap(page.getByLabel('What the crew calls it'))
    await walk.type(name)
    await walk.choose(page.getByLabel('Pitch'), '3/8"')
    await walk.choose(page.getByLabel('Gauge'), '1.5 mm')
    await walk.step().tap(page.getByLabel('Drive links'))
    await walk.type(links)
    await walk.press('Enter')
    await page.getByRole('heading', { name }).waitFor()
    await walk.step().tap(page.getByRole('link', { name, exact: true }))
    await walk.step().tap(page.getByRole('link', { name: 'A loop for this saw' }))
    await walk.tap(page.getByLabel('Tag', { exact: true }))
    await walk.type(`${name[0] ?? ''}1`)
    for (let i = 0; i < loops; i += 1) {
      if (i === 0) {
        await walk.step().tap(page.getByRole('radio', { name: 'Used' }))
        await walk.choose(page.getByLabel('Cutter type'), 'semi-chisel')
        await walk.choose(page.getByLabel('Sequence'), 'full complement')
      }
      await walk.step().tap(page.getByLabel('Left, as you would measure it'))
      await page.keyboard.press('Control+a')
      walk.keys += 1
      await walk.type('4.5')
      const last = i === loops - 1
      const button = page.getByRole('button', { name: last ? 'Add the loop' : 'Add, and another like it' })
      await button.scrollIntoViewIfNeeded()
      await walk.step().tap(button)
      await page.getByText(`${name[0] ?? ''}${i + 1} is in the shed`).waitFor()
    }
  }
  note('empty shed to three saws and eight used loops', walk.all, 260, 'keys and taps')
  note('the same, a person’s time', walk.seconds / 60, 6, 'minutes')
  await context.close()
}

/** Screens that belong to no loop or saw, each from wherever one is: the key of its place, and one tap there. */
async function everywhere(browser: Browser, undercliff: Undercliff): Promise<void> {
  const walk = await walker(browser, undercliff, DESK)
  const { page } = walk
  const ways: readonly (readonly [string, string, string])[] = [
    ['Shift+S', '/', '/'],
    ...['/add/loop', '/add/saw', '/identify', '/tags', '/scan', '/me'].map((to) => ['Shift+S', '/', to] as const),
    ['Shift+B', '/triage', '/triage'],
    ['Shift+L', '/wear', '/wear'],
    ['Shift+L', '/wear', '/words'],
    ['Shift+H', '/crew', '/crew'],
    ...['/rules', '/import'].map((to) => ['Shift+H', '/crew', to] as const),
  ]
  let worst = 0
  for (const [key, landing, to] of ways) {
    await page.goto(`${undercliff.address}/loops/K3/decide`)
    await page.getByRole('heading').first().waitFor()
    let took = 1
    await page.keyboard.press(key)
    await page.waitForURL(`${undercliff.address}${landing}`)
    if (to !== landing) {
      await page.locator(`a[href="${to}"]`).first().click()
      await page.waitForURL(`${undercliff.address}${to}`)
      took += 1
    }
    worst = Math.max(worst, took)
  }
  note(`${ways.length} screens from any other`, worst, 2, 'keys or taps')
  await page.context().close()
}

/** A workbook of thirty rows with six kinds of trouble, until every row is in: each choice, figure and tap is one. */
async function messySheet(browser: Browser, undercliff: Undercliff): Promise<void> {
  const context = await browser.newContext({ viewport: DESK })
  const page = await context.newPage()
  const { setUp } = await import('./testing')
  await setUp(page, undercliff, '/import')
  let actions = 1
  await page.getByLabel('CSV or XLSX').setInputFiles(await messyBook())
  const choose = async (what: Locator, label: string) => {
    await what.selectOption({ label })
    actions += 1
  }
  const shared = (text: string) => page.locator('[data-shared]').filter({ hasText: text }).getByRole('combobox')
  await choose(page.getByLabel('Column for Drive links'), 'Teeth below')
  await choose(shared('"3/8"'), '3/8" low profile')
  await choose(shared('"CJ"'), 'full chisel')
  await choose(shared('nothing about new or used'), 'used, nobody has looked')
  await choose(page.getByRole('combobox', { name: 'Where it is', exact: true }), 'bench')
  for (const [field, text] of [
    ['Drive links', '72'],
    ['Tag', 'W31'],
  ] as const) {
    await page.getByLabel(field, { exact: true }).fill(text)
    await page.keyboard.press('Tab')
    actions += 2
  }
  await page.getByRole('button', { name: 'Bring in 30 loops' }).click()
  await page.getByText(/^30 loops are in the shed/).waitFor()
  note('a messy sheet of 30 rows, six kinds of trouble, all in', actions + 1, 25, 'actions')
  await context.close()
}

const browser = await openBrowser()
const demo = await Undercliff.start()
const empty = await Undercliff.start('--empty')
const other = await Undercliff.start('--empty')
try {
  await onThePhone(browser, demo)
  await outOfRange(browser, demo)
  await measured(browser, demo)
  await sharpened(browser, demo)
  await everywhere(browser, demo)
  await firstEvening(browser, empty)
  await messySheet(browser, other)
} finally {
  await browser.close()
  await demo.stop()
  await empty.stop()
  await other.stop()
}
console.log('| what | took | wanted |  |\n|---|---|---|---|')
for (const { what, took, wanted, met } of rows)
  console.log(`| ${what} | ${took} | ${wanted} | ${met ? '' : 'not met'} |`)
process.exit(rows.every(({ met }) => met) ? 0 : 1)
