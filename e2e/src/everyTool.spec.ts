import type { Page } from '@playwright/test'
import type { ShedAnswer } from '@undercliff/contract'
import {
  DEFAULT_RULES,
  decide,
  fold,
  specFromProfile,
  TOOL_NAMES,
  type LoopState,
  type SharpeningTool,
} from '@undercliff/core'
import { expect, logOf, test } from './testing'
import type { Undercliff } from './undercliff'

/** How a sharpening goes: as planned, with a first cutter 0.4 mm off plan, or broken off after the first side. */
type Way = 'planned' | 'off' | 'brokenOff'
interface Case {
  readonly tool: SharpeningTool
  readonly action: 'touchUp' | 'file' | 'regrind'
}
const OFF_MM = 0.4
const CUTTERS = 12
const NEW_UM = 7000

/** A short loop that was read all round; struck, three of its cutters are hurt by a stone. */
async function freshLoop(undercliff: Undercliff, tag: string, { tool, action }: Case): Promise<void> {
  const spec = specFromProfile({
    pitchClass: 'threeEighths',
    gaugeUm: 1500,
    driveLinks: 2 * CUTTERS,
    cutterType: tool === 'squareFile' ? 'squareGround' : 'semiChisel',
  })
  const base = (minutesAgo: number) => ({
    loopId: `every-tool-${tag}`,
    id: `every-tool-${tag}-${minutesAgo}`,
    happenedAt: new Date(Date.now() - minutesAgo * 60_000).toISOString(),
    personId: null,
  })
  const hurt = (cutter: number) => action !== 'touchUp' && [5, 6, 7].includes(cutter)
  const readings = Array.from({ length: CUTTERS }, (_, i) => ({
    cutter: i + 1,
    lengthUm: NEW_UM,
    damage: hurt(i + 1) ? [{ kind: 'stone', depthUm: 500 }] : [{ kind: 'rounded', depthUm: null }],
  }))
  const entries = [
    { ...base(90), kind: 'registered', tag, spec },
    { ...base(60), kind: 'measured', readings, chosen: 'all' },
  ]
  expect((await undercliff.send('POST', '/api/entries', { entries })).status).toBe(201)
}

const stateOf = async (undercliff: Undercliff, tag: string): Promise<LoopState> => {
  const state = fold(await logOf(undercliff, tag))
  if (state === null) throw new Error(`${tag} is registered`)
  return state
}

/** Reads of a cutter what it was to come to, or so much less. */
async function read(page: Page, offMm: number): Promise<void> {
  const text = (await page.locator('[data-in-hand]').textContent()) ?? ''
  const target = Number(/to (?:about )?([\d.]+) mm/.exec(text)?.[1])
  await page.locator('[data-reading]').fill((target - offMm).toFixed(2))
  await page.keyboard.press('Enter')
}

/** Where a sharpening stands, as the page shows it: asked for in one go, since that is done hundreds of times. */
interface Shown {
  readonly heading: string
  readonly side: string
  readonly cutter: string
  /** The check of the second side may be left out here. */
  readonly unchecked: boolean
  readonly allDone: boolean
}
const shownOn = (page: Page): Promise<Shown> =>
  page.evaluate(() => {
    const visible = (element: Element | null | undefined): boolean => element?.checkVisibility() === true
    const text = (selector: string): string => {
      const element = document.querySelector(selector)
      return visible(element) ? (element?.textContent ?? '').trim() : ''
    }
    const named = (selector: string, name: string): boolean =>
      [...document.querySelectorAll(selector)].some((one) => visible(one) && one.textContent.trim() === name)
    const heading = text('.step h2')
    return {
      heading,
      side: /^(Left|Right) cutters/.exec(heading)?.[1] ?? '',
      cutter: text('[data-in-hand]'),
      unchecked: named('button', 'Go on unchecked'),
      allDone: named('h1, h2', 'All done'),
    }
  })

/** Goes through what is left of a sharpening by keyboard; broken off, it stops where the second side begins. */
async function goThrough(page: Page, way: Way): Promise<void> {
  let first = ''
  let isOff = way === 'off'
  let now = await shownOn(page)
  /** Waits until something else is shown than before. */
  const goesOn = async (before: Shown): Promise<void> => {
    await expect
      .poll(async () => JSON.stringify((now = await shownOn(page))), { intervals: [10, 20, 40, 80, 160] })
      .not.toBe(JSON.stringify(before))
  }
  for (let presses = 0; presses < 200; presses += 1) {
    if (now.heading === '' && !now.allDone) await goesOn(now)
    if (now.allDone) return
    if (first === '') first = now.side
    if (way === 'brokenOff' && first !== '' && now.side !== '' && now.side !== first) return
    const before = now
    if (before.unchecked) await page.getByRole('button', { name: 'Go on unchecked' }).click()
    else if (isOff && before.cutter !== '') {
      await read(page, OFF_MM)
      isOff = false
      // What is off is asked about once; where it is the stop it is taken as it is.
      const asked = page.getByText('Enter again keeps it.')
      await expect
        .poll(async () => (await asked.isVisible()) || JSON.stringify(await shownOn(page)) !== JSON.stringify(before))
        .toBe(true)
      if (await asked.isVisible()) await page.keyboard.press('Enter')
    } else if (before.heading.startsWith('The stop')) await read(page, 0)
    else await page.locator('.go').press('Enter')
    await goesOn(before)
  }
  throw new Error('it has no end')
}

async function begin(page: Page, undercliff: Undercliff, tag: string, { tool, action }: Case): Promise<void> {
  await page.goto(`${undercliff.address}/loops/${tag}/sharpen?action=${action}`)
  const withWhat = page.getByLabel('With', { exact: true })
  await expect(withWhat).toBeVisible()
  await withWhat.selectOption({ label: TOOL_NAMES[tool] })
  const speeds = page.locator('[data-speeds]')
  await expect(page.locator('.go').or(speeds).first()).toBeVisible()
  if (!(await speeds.isVisible())) return
  // No wheel starts before both speeds were read.
  await expect(page.locator('.go')).toHaveCount(0)
  await speeds.getByLabel('Marked on the wheel').fill('20000')
  await speeds.getByLabel('Speed of the spindle').fill('3000')
  await speeds.getByRole('button', { name: 'Both were read so' }).click()
  await expect(page.locator('.go')).toBeVisible()
}

const log = async (page: Page): Promise<void> => {
  const no = page.getByRole('button', { name: 'No', exact: true })
  if (await no.isVisible()) await no.click()
  await page.getByRole('button', { name: 'Log the sharpening' }).click()
}

const CASES: readonly Case[] = [
  ...(['freehand', 'plateGuide', 'rollerGuide', 'twoInOne', 'jig', 'squareFile'] as const).flatMap((tool) => [
    { tool, action: 'touchUp' as const },
    { tool, action: 'file' as const },
  ]),
  ...(['benchGrinder', 'smallGrinder', 'handGrinder'] as const).map((tool) => ({ tool, action: 'regrind' as const })),
]

const WAYS = ['planned', 'off', 'brokenOff'] as const
const SAID: Readonly<Record<Way, string>> = {
  planned: 'as planned',
  off: 'with a first cutter 0.4 mm off plan',
  brokenOff: 'broken off after the first side, and gone on with',
}
/** Every tool in every way takes minutes: usually each goes one way of the three. */
const EVERY_WAY = process.env['EVERY_WAY'] === '1'

/** A sharpening that is broken off after its first side keeps the loop off until the other is done. */
async function breakOff(page: Page, undercliff: Undercliff, tag: string): Promise<void> {
  await page.getByRole('button', { name: /^End here/ }).click()
  await page.getByRole('button', { name: /^Log the (left|right) side alone/ }).click()
  await expect(page.getByRole('heading', { name: tag, exact: true })).toBeVisible()
  const half = await stateOf(undercliff, tag)
  expect([half.waitingSide, decide(half, DEFAULT_RULES).fitForUse], tag).toEqual([expect.any(String), false])
  const { loops } = await undercliff.json<ShedAnswer>('/api/shed')
  expect(loops.find((loop) => loop.tag === tag)?.fitForUse).toBe(false)
  // Wherever it is come across it says so.
  await page.keyboard.press('/')
  await page.getByRole('combobox', { name: /Search/ }).fill(tag)
  await expect(
    page.getByRole('option', { name: new RegExp(`^${tag}.*not fit.*${half.waitingSide ?? ''} side waits`) }),
  ).toBeVisible()
  await page.keyboard.press('Escape')
}

/** What stands afterwards: both sides, what hurt them gone, and every reading taken. */
async function expectWhole(undercliff: Undercliff, tag: string, way: Way, { tool }: Case): Promise<void> {
  const state = await stateOf(undercliff, tag)
  const sharpened = (await logOf(undercliff, tag)).filter(({ kind }) => kind === 'sharpened')
  expect(sharpened, tag).toHaveLength(way === 'brokenOff' ? 2 : 1)
  expect(sharpened.every((entry) => entry.kind === 'sharpened' && entry.tool === tool)).toBe(true)
  expect([state.waitingSide, state.begun, state.held], tag).toEqual([null, null, []])
  expect(
    state.cutters.filter(({ damage }) => damage.length > 0),
    tag,
  ).toEqual([])
  // The sides came down together.
  const lengths = state.cutters.map(({ length }) => length.um)
  if (way === 'planned') expect(Math.max(...lengths) - Math.min(...lengths), tag).toBeLessThan(60)
}

for (const [i, one] of CASES.entries())
  for (const way of EVERY_WAY ? WAYS : [WAYS[i % WAYS.length] ?? 'planned'])
    test(`${TOOL_NAMES[one.tool]}: ${one.action === 'touchUp' ? 'a touch-up' : 'a struck loop'}, ${SAID[way]}`, async ({
      page,
      open,
      undercliff,
    }) => {
      await open('/wood')
      const tag = `Y${i}${way.charAt(0).toUpperCase()}`
      await freshLoop(undercliff, tag, one)
      await begin(page, undercliff, tag, one)
      await goThrough(page, way)
      if (way === 'brokenOff') {
        await breakOff(page, undercliff, tag)
        await begin(page, undercliff, tag, one)
        await goThrough(page, 'planned')
      }
      await log(page)
      await expect(page.getByRole('heading', { name: tag, exact: true }), tag).toBeVisible()
      await expect.poll(async () => (await logOf(undercliff, tag)).some(({ kind }) => kind === 'sharpened')).toBe(true)
      await expectWhole(undercliff, tag, way, one)
    })
