import type { CDPSession, Page } from '@playwright/test'
import { expect, test, violations } from './testing'

export const SCREENS = [
  '/',
  '/loops/K3',
  '/loops/T5/measure',
  '/loops/K3/sharpened',
  '/loops/K3/sharpen',
  '/loops/K3/sheet',
  '/tools',
  '/tools/caliper',
  '/loops/P1/note/inspected',
  '/loops/P1/note/ran',
  '/loops/P1/note/struck',
  '/loops/P1/note/retired',
  '/add/loop',
  '/add/saw',
  '/crew',
  '/phones',
  '/identify',
  '/loops/P1/note/gaugesLowered',
  '/loops/K3/spec',
  '/saws/Kittiwake',
  '/scan',
  '/tags',
  '/import',
  '/me',
  '/loops/K3/decide',
  '/loops/K1/decide',
  '/wood',
  '/loops/K5/signs',
  '/loops/K5/card',
  '/triage',
  '/rules',
  '/wear',
  '/words',
]
/** How a screen is looked at: each in its own size and scheme, on the page as it was opened. */
const LOOKS = [
  { name: 'desk, by day', size: { width: 1280, height: 800 }, media: { colorScheme: 'light', forcedColors: 'none' } },
  { name: 'phone, at night', size: { width: 390, height: 844 }, media: { colorScheme: 'dark', forcedColors: 'none' } },
  { name: 'desk, at 200 %', size: { width: 640, height: 400 }, media: { colorScheme: 'light', forcedColors: 'none' } },
  {
    name: 'desk, in the system’s colours',
    size: { width: 1280, height: 800 },
    media: { colorScheme: 'light', forcedColors: 'active' },
  },
] as const
/** Looks in which the tree that a screen reader goes by is read too. */
const READ_ALOUD: ReadonlySet<string> = new Set(['desk, by day', 'phone, at night'])

/** Controls as they stand in the accessibility tree, with what is missing of each. */
const CONTROLS = new Set(
  'button link textbox searchbox combobox radio checkbox switch slider spinbutton option tab menuitem listbox'.split(
    ' ',
  ),
)
/** What has to say how it stands. */
const STATES: Readonly<Record<string, string>> = { radio: 'checked', checkbox: 'checked', switch: 'checked' }
const NOT_CONTROLS = new Set(['RootWebArea', 'main', 'heading', 'document'])
interface AxNode {
  readonly ignored: boolean
  readonly role?: { readonly value?: unknown }
  readonly name?: { readonly value?: unknown }
  readonly value?: { readonly value?: unknown }
  readonly properties?: readonly { readonly name: string; readonly value: { readonly value?: unknown } }[]
}
const told = (one?: { readonly value?: unknown }): string => (typeof one?.value === 'string' ? one.value.trim() : '')
const propertyOf = ({ properties = [] }: AxNode, wanted: string): unknown =>
  properties.find(({ name }) => name === wanted)?.value.value
/** Whatever the keys come to is one of the controls, or a group or region that names itself. */
const isControl = (node: AxNode): boolean =>
  !node.ignored &&
  (CONTROLS.has(told(node.role)) || (propertyOf(node, 'focusable') === true && !NOT_CONTROLS.has(told(node.role))))
function faultsOf(node: AxNode): string[] {
  const [role, name] = [told(node.role), told(node.name)]
  const state = STATES[role]
  const faults: string[] = []
  if (name === '') faults.push(`${role} without a name`)
  if (role === 'generic') faults.push(`${name} has no role`)
  if (state !== undefined && propertyOf(node, state) === undefined) faults.push(`${name} does not say ${state}`)
  return faults
}

/** What is wrong with the controls of a page as a screen reader has them, and how many there are. */
async function controlsOf(page: Page, tree: CDPSession, where: string): Promise<number> {
  const { nodes } = await tree.send('Accessibility.getFullAXTree')
  const controls = nodes.filter(isControl)
  expect(controls.flatMap(faultsOf), where).toEqual([])
  // Sliders say their value with its unit.
  for (const slider of await page.locator('input[type=range]').all())
    await expect(slider, where).toHaveAttribute('aria-valuetext', /[^\d.,\s]/)
  return controls.length
}

/** A page whose shed has answered, whose fonts are there, and on which nothing moves any more. */
async function settled(page: Page): Promise<void> {
  await expect(page.getByRole('heading').first()).toBeVisible()
  await expect(page.locator('[aria-busy=true]')).toHaveCount(0)
  await page.evaluate(
    () =>
      new Promise<void>((resolve) => {
        void document.fonts.ready.then(() => {
          requestAnimationFrame(() => {
            requestAnimationFrame(() => {
              resolve()
            })
          })
        })
      }),
  )
}

/**
 * Every one of some screens: opened once, then looked at in every look. It meets WCAG 2.2 AA, fits its width, says
 * figures that can be read, and every control has a role, a name and, where it has one, a state.
 */
export function lookAt(screens: readonly string[], part: string): void {
  test(`every screen meets WCAG 2.2 AA, fits its width and says what can be read, in every look: ${part}`, async ({
    page,
    open,
  }) => {
    test.setTimeout(600_000)
    const tree = await page.context().newCDPSession(page)
    let seen = 0
    for (const path of screens) {
      await open(path)
      for (const { name, size, media } of LOOKS) {
        const where = `${path}, ${name}`
        await page.setViewportSize(size)
        await page.emulateMedia(media)
        await settled(page)
        if (READ_ALOUD.has(name)) seen += await controlsOf(page, tree, where)
        // At its end, where nothing stands under what stays at the foot.
        await page.evaluate(() => {
          window.scrollTo(0, document.body.scrollHeight)
        })
        expect(await violations(page), where).toEqual([])
        const overflow = await page.evaluate(
          () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
        )
        expect(overflow, `${where} scrolls sideways`).toBeLessThanOrEqual(0)
        // No figure is finer than anybody can use, and none is missing.
        expect(await page.locator('body').innerText(), where).not.toMatch(/\d[.,]\d{4,}|\bNaN\b|\bundefined\b|Infinity/)
      }
    }
    expect(seen).toBeGreaterThan(8 * screens.length)
  })
}
