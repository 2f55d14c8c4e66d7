import { expect, test, violations } from './testing'

const SCREENS = [
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
const LOOKS = [
  { name: 'desk, by day', size: { width: 1280, height: 800 }, media: { colorScheme: 'light' } },
  { name: 'phone, at night', size: { width: 390, height: 844 }, media: { colorScheme: 'dark' } },
  { name: 'desk, at 200 %', size: { width: 640, height: 400 }, media: { colorScheme: 'light' } },
  { name: 'desk, in the system’s colours', size: { width: 1280, height: 800 }, media: { forcedColors: 'active' } },
] as const

for (const { name, size, media } of LOOKS) {
  test(`every screen meets WCAG 2.2 AA, fits its width and says figures that can be read: ${name}`, async ({
    page,
    open,
  }) => {
    test.setTimeout(300_000)
    await page.setViewportSize(size)
    await page.emulateMedia(media)
    for (const path of SCREENS) {
      await open(path)
      await page.waitForLoadState('networkidle')
      await expect(page.getByRole('heading').first()).toBeVisible()
      // At its end, where nothing stands under what stays at the foot.
      await page.evaluate(() => {
        window.scrollTo(0, document.body.scrollHeight)
      })
      expect(await violations(page), path).toEqual([])
      const overflow = await page.evaluate(
        () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
      )
      expect(overflow, `${path} scrolls sideways`).toBeLessThanOrEqual(0)
      // No figure is finer than anybody can use, and none is missing.
      expect(await page.locator('body').innerText(), path).not.toMatch(/\d[.,]\d{4,}|\bNaN\b|\bundefined\b|Infinity/)
    }
  })
}

test('on a phone every button of the quick entries is a target of 48 px', async ({ page, open }) => {
  await page.setViewportSize({ width: 390, height: 844 })
  for (const path of [
    '/loops/P1/sharpened',
    '/loops/P1/note/ran',
    '/loops/P1/measure',
    '/loops/P1/note/struck',
    '/loops/K3/decide',
    '/triage',
    '/rules',
  ]) {
    await open(path)
    await expect(page.getByRole('heading').first()).toBeVisible()
    const small = await page.evaluate(() =>
      [...document.querySelectorAll<HTMLElement>('main button, main a.act')]
        .filter((element) => element.offsetParent !== null && element.getBoundingClientRect().height < 47.5)
        .map((element) => element.textContent),
    )
    expect(small, path).toEqual([])
  }
})

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

for (const size of [
  { width: 1280, height: 800 },
  { width: 390, height: 844 },
])
  test(`every control has a role, a name and, where it has one, a state at ${size.width} px`, async ({
    page,
    open,
  }) => {
    await page.setViewportSize(size)
    const tree = await page.context().newCDPSession(page)
    let seen = 0
    for (const path of SCREENS) {
      await open(path)
      await page.waitForLoadState('networkidle')
      await expect(page.getByRole('heading').first()).toBeVisible()
      const { nodes } = await tree.send('Accessibility.getFullAXTree')
      const controls = nodes.filter(isControl)
      seen += controls.length
      const faults = controls.flatMap(faultsOf)
      expect(faults, path).toEqual([])
      // Sliders say their value with its unit.
      for (const slider of await page.locator('input[type=range]').all())
        await expect(slider, path).toHaveAttribute('aria-valuetext', /[^\d.,\s]/)
    }
    expect(seen).toBeGreaterThan(500)
  })

test('a touch-up is logged in two taps by whoever is signed in', async ({ page, open }) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await open('/loops/X1', 'iska')
  await page.getByRole('link', { name: 'Log the touch-up' }).click()
  await expect(page.getByRole('radio', { name: 'Iska Lund-Pell' })).toHaveAttribute('aria-checked', 'true')
  await page.getByRole('button', { name: 'Log the sharpening' }).click()
  await expect(page.locator('[data-entry=sharpened]').first()).toContainText('filed in the field, 4 strokes')
  await expect(page.locator('[data-entry=sharpened]').first()).toContainText('Iska Lund-Pell')
})

test('a choice is one stop of the Tab key, and arrows, Home and End go through it', async ({ page, open }) => {
  await open('/loops/T4/sharpened')
  const how = page.getByRole('radiogroup', { name: 'How' })
  const [first, second, last] = [
    how.getByRole('radio').first(),
    how.getByRole('radio').nth(1),
    how.getByRole('radio').last(),
  ]
  await first.click()
  await page.keyboard.press('ArrowRight')
  await expect(second).toBeChecked()
  await expect(second).toBeFocused()
  await page.keyboard.press('End')
  await expect(last).toBeChecked()
  await page.keyboard.press('ArrowDown')
  await expect(first).toBeChecked()
  await page.keyboard.press('ArrowLeft')
  await expect(last).toBeChecked()
  await page.keyboard.press('Home')
  await expect(first).toBeFocused()
  await page.keyboard.press('Tab')
  expect(await how.evaluate((group) => group.contains(document.activeElement))).toBe(false)
})

test('the list of keys is behind ?', async ({ page, open }) => {
  await open('/loops/K3')
  await expect(page.getByRole('heading', { name: 'K3' })).toBeVisible()
  await page.keyboard.press('?')
  await expect(page.getByText('from cutter to cutter on the loop map')).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(page.getByText('from cutter to cutter on the loop map')).toHaveCount(0)
})
