import { mkdirSync, rmSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import type { Page } from '@playwright/test'
import { openBrowser } from './browser'
import { Undercliff, type DemoLogin } from './undercliff'

const DIR = process.env.SHOTS ?? fileURLToPath(new URL('../../docs/screenshots', import.meta.url))
const DESK = { width: 1280, height: 800 }
const PHONE = { width: 390, height: 844 }

const identifySome = async (page: Page): Promise<void> => {
  await page.getByLabel('Span over three rivets', { exact: true }).fill('19.1')
  await page.getByLabel('Thickness of a drive link', { exact: true }).fill('1.48')
  await page.getByLabel('Drive links, counted').fill('72')
  await page.getByRole('radio', { name: 'semi-chisel', exact: true }).click()
}

interface Shot {
  readonly name: string
  readonly path: string
  readonly size: typeof DESK
  readonly dark?: boolean
  readonly whole?: boolean
  /** Taken when it is asked for by name, to be looked at; not kept. */
  readonly look?: boolean
  /** Who looks; null is somebody who is not signed in. */
  readonly who?: DemoLogin | null
  readonly then?: (page: Page) => Promise<void>
}

const walkSome = async (page: Page): Promise<void> => {
  const field = page.locator('[data-reading]')
  await field.waitFor()
  for (const [typed, key] of [
    ['6.8', ''],
    ['6.75', ''],
    ['6.81', ''],
    ['', 't'],
    ['1.1', ''],
    ['6.7', ''],
    ['6.8', ''],
    ['', 'c'],
  ] as const) {
    if (key !== '') await field.press(key)
    else {
      await field.fill(typed)
      await field.press('Enter')
    }
  }
}

const groundSome = async (page: Page): Promise<void> => {
  await page.getByRole('radio', { name: 'Grinder', exact: true }).click()
}

const moveOne =
  (tag: string) =>
  async (page: Page): Promise<void> => {
    await page.locator(`[data-loop-tile]:has-text("${tag}")`).first().focus()
    await page.keyboard.press('p')
    await page.getByRole('dialog').waitFor()
  }
const moveHere = async (page: Page): Promise<void> => {
  await page.getByRole('button', { name: /^Put …/ }).click()
  await page.getByRole('dialog').getByRole('button', { name: /Wren/ }).click()
}
const misread = async (page: Page): Promise<void> => {
  await page.getByLabel('The tag').fill('K33')
  await page.keyboard.press('Enter')
}
/** Says that it makes dust and has to be pushed. */
const tellDust = async (page: Page): Promise<void> => {
  for (const name of ['Dust, not shavings', 'Has to be pushed', 'What is it?'])
    await page.getByRole('button', { name }).click()
  await page.locator('[data-look], [data-remedy]').first().waitFor()
  await page.getByText(/kept on this device/).waitFor({ state: 'hidden' })
  // The notice, which stays for a while, would stand in the middle of a whole page.
  await page.getByRole('button', { name: 'Undo' }).waitFor({ state: 'hidden' })
}
/** Through the steps before the first side, and over its first cutters. */
const toTheSeventhCutter = async (page: Page): Promise<void> => {
  for (let i = 0; i < 8; i += 1) await page.locator('.go').click()
}
const importMess = async (page: Page): Promise<void> => {
  await page.getByLabel('CSV or XLSX').setInputFiles(fileURLToPath(new URL('./fixtures/messy.csv', import.meta.url)))
  await page.getByRole('heading', { name: /What becomes of/ }).waitFor()
}

/** Draws over a run of cutters on the map, and says how deep. */
const strikeSome = async (page: Page): Promise<void> => {
  const box = await page.locator('.map svg').first().boundingBox()
  if (box === null) throw new Error('the loop map should be there')
  await page.mouse.move(box.x + box.width * 0.33, box.y + box.height * 0.3)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width * 0.5, box.y + box.height * 0.35, { steps: 6 })
  await page.mouse.up()
  await page.getByLabel(/How deep/).fill('1.2')
}
const chooseSome = async (page: Page): Promise<void> => {
  await page.getByRole('checkbox').nth(1).check()
  await page.getByRole('checkbox').nth(3).check()
}
const turnSome = async (page: Page): Promise<void> => {
  await page.getByRole('slider').first().fill('800')
}

/** A house that gives all cutters the same strokes: what that leaves to the next sharpenings. */
const stagesOfK3 = async (page: Page): Promise<void> => {
  const same = page.getByRole('radio', { name: /^Same strokes/ })
  if (!(await same.isChecked())) {
    await same.click()
    await page.getByRole('button', { name: 'Let it hold' }).click()
    await page.getByText(/every loop is worked out again/).waitFor()
  }
  await page.goto(new URL('/loops/K3/decide', page.url()).href)
  await page.getByRole('radio', { name: /^File at bench/ }).click()
}

const SHOTS: readonly Shot[] = [
  { name: 'shed', path: '/', size: DESK },
  { name: 'shed-dark', path: '/', size: DESK, dark: true },
  { name: 'shed-phone', path: '/', size: PHONE },
  { name: 'loop', path: '/loops/K3', size: DESK, whole: true },
  { name: 'loop-dark', look: true, path: '/loops/K1', size: DESK, dark: true },
  { name: 'loop-phone', path: '/loops/K3', size: PHONE, whole: true },
  { name: 'measure', path: '/loops/T4/measure', size: DESK, then: walkSome },
  { name: 'measure-phone', look: true, path: '/loops/T4/measure', size: PHONE, then: walkSome },
  { name: 'sharpened', look: true, path: '/loops/K3/sharpened', size: DESK },
  { name: 'sharpened-ground', look: true, path: '/loops/K3/sharpened', size: PHONE, whole: true, then: groundSome },
  { name: 'sharpened-ground-dark', look: true, path: '/loops/K3/sharpened', size: DESK, dark: true, then: groundSome },
  { name: 'sharpened-phone', look: true, path: '/loops/P1/sharpened', size: PHONE },
  { name: 'wood-phone', path: '/wood', size: PHONE },
  { name: 'signs-phone', path: '/loops/K5/signs', size: PHONE, whole: true, then: tellDust },
  { name: 'card-phone', look: true, path: '/loops/K5/card', size: PHONE },
  { name: 'inspected', look: true, path: '/loops/P4/note/inspected', size: DESK },
  { name: 'decide', path: '/loops/K3/decide', size: DESK, whole: true },
  { name: 'decide-phone', look: true, path: '/loops/K3/decide', size: PHONE, whole: true },
  { name: 'decide-dark', look: true, path: '/loops/K1/decide', size: DESK, dark: true, whole: true },
  { name: 'decide-turned', look: true, path: '/loops/K3/decide', size: DESK, whole: true, then: turnSome },
  { name: 'decide-stages', look: true, path: '/rules?chapter=cutters', size: DESK, whole: true, then: stagesOfK3 },
  {
    name: 'decide-stages-phone',
    look: true,
    path: '/rules?chapter=cutters',
    size: PHONE,
    dark: true,
    whole: true,
    then: stagesOfK3,
  },
  { name: 'decide-unknown', look: true, path: '/loops/P4/decide', size: DESK, whole: true },
  { name: 'triage', path: '/triage', size: DESK, then: chooseSome },
  { name: 'triage-phone', look: true, path: '/triage', size: PHONE, then: chooseSome },
  { name: 'triage-dark', look: true, path: '/triage', size: DESK, dark: true },
  { name: 'house-rules', path: '/rules?chapter=cutters', size: DESK, whole: true },
  { name: 'house-rules-phone', look: true, path: '/rules?chapter=cutters', size: PHONE, whole: true },
  { name: 'house-rules-dark', look: true, path: '/rules', size: DESK, dark: true },
  { name: 'struck', look: true, path: '/loops/B1/note/struck', size: DESK, then: strikeSome },
  { name: 'struck-phone', look: true, path: '/loops/B1/note/struck', size: PHONE, then: strikeSome },
  { name: 'wear', path: '/wear', size: DESK },
  { name: 'wear-phone', look: true, path: '/wear', size: PHONE, whole: true },
  { name: 'wear-dark', look: true, path: '/wear', size: DESK, dark: true },
  { name: 'identify', look: true, path: '/identify', size: DESK, then: identifySome },
  { name: 'identify-phone', look: true, path: '/identify', size: PHONE, then: identifySome },
  { name: 'crew', look: true, path: '/crew', size: DESK },
  { name: 'add-loop', look: true, path: '/add/loop', size: DESK },
  { name: 'add-loop-phone', look: true, path: '/add/loop', size: PHONE, dark: true, whole: true },
  { name: 'sign-in', look: true, path: '/', size: DESK, who: null },
  { name: 'sign-in-phone', look: true, path: '/', size: PHONE, who: null },
  { name: 'move', path: '/', size: DESK, then: moveOne('K3') },
  { name: 'move-phone', look: true, path: '/loops/W3', size: PHONE, then: moveHere },
  { name: 'saw', path: '/saws/Kittiwake', size: DESK },
  { name: 'saw-phone', look: true, path: '/saws/Kittiwake', size: PHONE },
  { name: 'scan', look: true, path: '/scan', size: DESK, then: misread },
  { name: 'scan-phone', look: true, path: '/scan', size: PHONE },
  { name: 'tags', look: true, path: '/tags', size: DESK },
  { name: 'sharpen', path: '/loops/K3/sharpen?action=regrind', size: DESK, then: toTheSeventhCutter },
  { name: 'sharpen-phone', path: '/loops/K3/sharpen?action=regrind', size: PHONE, then: toTheSeventhCutter },
  { name: 'tools', path: '/tools', size: DESK },
  { name: 'job-sheet', path: '/loops/K3/sheet?action=regrind', size: DESK, whole: true },
  {
    name: 'sharpen-phone',
    look: true,
    path: '/loops/K3/sharpen?action=regrind',
    size: PHONE,
    then: toTheSeventhCutter,
  },
  { name: 'tags-phone', look: true, path: '/tags', size: PHONE },
  { name: 'import', path: '/import', size: DESK, whole: true, then: importMess },
  { name: 'import-phone', look: true, path: '/import', size: PHONE, then: importMess },
  { name: 'spec', look: true, path: '/loops/K3/spec', size: DESK },
  { name: 'spec-phone', look: true, path: '/loops/K3/spec', size: PHONE },
  { name: 'me', look: true, path: '/me', size: DESK },
  { name: 'me-phone', look: true, path: '/me', size: PHONE },
  { name: 'crew-phone', look: true, path: '/crew', size: PHONE, whole: true },
]

const running = process.env.ADDRESS === undefined ? await Undercliff.start() : null
const undercliff = running ?? Undercliff.at(process.env.ADDRESS ?? '')
const { address } = undercliff
const browser = await openBrowser()
const only = process.argv.slice(2)
if (only.length === 0) rmSync(DIR, { recursive: true, force: true })
mkdirSync(DIR, { recursive: true })
for (const { name, path, size, dark = false, whole = false, who = 'maren', look = false, then } of SHOTS) {
  if (only.length > 0 ? !only.includes(name) : look) continue
  const context = await browser.newContext({
    viewport: size,
    colorScheme: dark ? 'dark' : 'light',
    locale: 'en-GB',
    timezoneId: 'UTC',
  })
  if (who !== null) await undercliff.enter(context, who)
  const page = await context.newPage()
  page.on('console', (message) => {
    if (message.type() === 'error') process.stderr.write(`${name}: ${message.text()}\n`)
  })
  await page.goto(address + path)
  await page.waitForLoadState('networkidle')
  await then?.(page)
  await page.evaluate(() => document.fonts.ready)
  // The bar at the foot of a phone stands in the middle of a picture of the whole page.
  if (whole && size === PHONE)
    await page.locator('nav.places').evaluateAll((bars) => {
      for (const bar of bars as HTMLElement[]) bar.style.display = 'none'
    })
  await page.screenshot({ path: `${DIR}/${name}.png`, fullPage: whole })
  await context.close()
}
await browser.close()
await running?.stop()
