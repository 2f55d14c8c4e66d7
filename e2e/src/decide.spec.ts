import type { ShedAnswer } from '@undercliff/contract'
import { expect, logOf, setUp, test } from './testing'
import { Undercliff } from './undercliff'

test('a strike over a run, looked into, decided and ground: life and verdict follow', async ({
  page,
  open,
  undercliff,
}) => {
  await open('/loops/T4')
  const verdict = page.getByRole('region', { name: 'Verdict' })
  await expect(verdict).toContainText('Run on')

  // The strike, in one stroke of the pointer over the map.
  await page.keyboard.press('x')
  await expect(page.getByRole('heading', { name: 'Log a strike of T4' })).toBeVisible()
  const map = page.locator('.map svg').first()
  await map.scrollIntoViewIfNeeded()
  const box = await map.boundingBox()
  if (box === null) throw new Error('the loop map should be there')
  await page.mouse.move(box.x + box.width * 0.2, box.y + box.height * 0.3)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width * 0.32, box.y + box.height * 0.4, { steps: 5 })
  await page.mouse.up()
  await expect(page.getByLabel(/^Cutters/)).not.toHaveValue('')

  // The keyboard goes on where the pointer left off.
  const before = await page.getByLabel(/^Cutters/).inputValue()
  await map.focus()
  await page.keyboard.press('Shift+ArrowRight')
  await expect(page.getByLabel(/^Cutters/)).not.toHaveValue(before)
  const [from = 0, to = 0] = (await page.getByLabel(/^Cutters/).inputValue()).split('-').map(Number)
  await page.getByLabel(/How deep on cutter/).fill('1.4')
  await page.getByRole('button', { name: 'Log the strike' }).click()
  await expect(page.getByText(/Say what it struck/)).toBeFocused()
  await page.getByRole('radio', { name: 'Stone', exact: true }).click()
  await page.getByRole('button', { name: 'Log the strike' }).click()
  await expect(verdict).toContainText('Inspect')
  await expect
    .poll(async () => (await logOf(undercliff, 'T4')).at(-1))
    .toMatchObject({ kind: 'struck', deepest: { depthUm: 1400 } })

  // Nobody has looked: the decision says what it may come to.
  await page.keyboard.press('d')
  await expect(page.getByRole('heading', { name: 'Decide T4' })).toBeVisible()
  await expect(page.getByText('Until it is looked at:')).toBeVisible()
  await page.getByRole('button', { name: 'Inspect it' }).click()
  await page.getByRole('button', { name: 'Log the inspection' }).click()
  await expect(page.getByRole('heading', { name: 'T4', exact: true })).toBeVisible()
  await expect.poll(async () => (await logOf(undercliff, 'T4')).at(-1)?.kind).toBe('inspected')

  // Decided: what was seen counts, what was only worked out and not found does not.
  await page.keyboard.press('d')
  await expect(verdict).toContainText('Regrind')
  await expect(verdict).toContainText('1.40 mm deep: 1.50 mm has to come off')
  const middle = from + Math.floor((to - from + 1) / 2)
  await expect(verdict).toContainText(`cutter ${middle} `)
  const options = page.getByRole('radiogroup', { name: 'What could be done' })
  await expect(options.getByRole('radio').first()).toContainText('advised')
  await expect(options.getByRole('radio', { name: /^File at bench/ })).toContainText('a sharp hour')
  await expect(page.getByRole('heading', { name: 'Set-up Bench grinder' })).toBeVisible()
  await expect(page.getByText(/Regrind as long as a new loop costs more than/)).toBeVisible()

  // Ground, and logged.
  await page.getByRole('button', { name: 'Start the regrind' }).click()
  await expect(page.getByRole('heading', { name: /^Sharpen T4/ })).toBeVisible()
  await page.getByRole('link', { name: 'Log it in one go' }).click()
  await expect(page.getByRole('radio', { name: 'Grinder' })).toBeChecked()
  await expect(page.getByRole('radio', { name: /^Ground as advised, to about .*all clean$/ })).toBeChecked()
  await page.getByRole('radio', { name: 'Yes', exact: true }).click()
  await page.getByRole('button', { name: 'Log the sharpening' }).click()
  await expect(verdict).toContainText('Run on')
  const { loops } = await undercliff.json<ShedAnswer>('/api/shed')
  const card = loops.find(({ tag }) => tag === 'T4')
  expect(card).toMatchObject({ action: 'runOn', fitForUse: true })
  await expect(page.getByRole('heading', { name: /sharpenings left/ })).toContainText(
    `About ${card?.sharpeningsLeft.likely ?? -1} `,
  )
})

test('a house rule changes the verdict and its reason, and is put back', async ({ page, open, undercliff }) => {
  const versionOf = async (): Promise<number> => (await undercliff.json<ShedAnswer>('/api/shed')).crew.rules.version
  const before = await versionOf()
  await open('/loops/K3/decide')
  const verdict = page.getByRole('region', { name: 'Verdict' })
  await expect(verdict).toContainText('Regrind')
  await expect(verdict).toContainText('send to a shop comes to')

  // The house has no grinder any more.
  await page.goto(`${undercliff.address}/rules?loop=K3&chapter=cutters`)
  await expect(page.getByRole('heading', { name: 'Uneven or damaged cutters, by file' })).toBeVisible()
  const matching = page.getByRole('radio', { name: /^Match the shortest/ })
  await expect(matching).toBeChecked()
  await expect(page.getByRole('radio', { name: /^Same strokes for all/ })).toContainText('7 cutters')
  await page.getByRole('link', { name: 'What we have' }).click()
  await page.getByRole('button', { name: 'Owns a grinder' }).click()
  // What it would do to the whole shed is said before it holds; left, nothing changes.
  const effect = page.getByRole('dialog')
  await expect(effect).toContainText(/\d+ of \d+ verdicts turn/)
  await expect(effect.getByRole('listitem').filter({ hasText: 'K3' })).toContainText('Regrind → Send to a shop')
  await effect.getByRole('button', { name: 'Leave it as it is' }).click()
  expect(await versionOf()).toBe(before)
  await page.getByRole('button', { name: 'Owns a grinder' }).click()
  await effect.getByRole('button', { name: 'Let it hold' }).click()
  await expect(page.getByRole('button', { name: 'No grinder' })).toBeVisible()
  await expect.poll(versionOf).toBe(before + 1)
  await page.goto(`${undercliff.address}/loops/K3/decide`)
  await expect(verdict).toContainText('Send to a shop')
  await expect(page.getByRole('radio', { name: /^Regrind/ })).toContainText('The house has no grinder.')
  await expect(page.getByText(`Made under version ${before + 1} of the house rules.`)).toBeVisible()

  // Rules that cannot hold together are named, and nothing changes.
  await page.goto(`${undercliff.address}/rules?loop=K3&chapter=tools`)
  await page.getByRole('radio', { name: /^Wheel for all at the bench/ }).click()
  await expect(page.getByRole('alert').first()).toContainText('there is no grinder')
  await page.getByRole('link', { name: 'Limits', exact: true }).click()
  await page.getByLabel('Cutters count as even within').fill('0.05')
  await page.getByRole('button', { name: 'Save limits and prices' }).click()
  await expect(page.getByRole('alert').first()).toContainText('a caliper does not tell 0.1 mm apart')
  await page.getByLabel('Cutters count as even within').fill('quite')
  await page.getByRole('button', { name: 'Save limits and prices' }).click()
  await expect(page.getByRole('alert').first()).toContainText('Cutters count as even within')
  expect(await versionOf()).toBe(before + 1)

  // Back to what it was.
  await page.goto(`${undercliff.address}/rules?chapter=has`)
  await page.getByRole('button', { name: 'No grinder' }).click()
  await effect.getByRole('button', { name: 'Let it hold' }).click()
  await expect(page.getByRole('button', { name: 'Owns a grinder' })).toBeVisible()
  await page.goto(`${undercliff.address}/loops/K3/decide`)
  await expect(verdict).toContainText('Regrind')
})

test('triage: verdicts are accepted in one go by keyboard, and taken back in one', async ({
  page,
  open,
  undercliff,
}) => {
  const settled = async (): Promise<string[]> =>
    (await undercliff.json<ShedAnswer>('/api/shed')).loops.filter((loop) => loop.settled).map(({ tag }) => tag)
  expect(await settled()).toEqual([])
  await open('/')
  await expect(page.getByRole('heading', { name: /loops need you/ })).toBeVisible()
  await page.keyboard.press('t')
  await expect(page.getByRole('region', { name: 'Must not cut as it is' })).toContainText('T2')
  await expect(page.getByRole('region', { name: 'Before the next job' })).toContainText('K1')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('x')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('x')
  await expect(page.getByRole('button', { name: /^Accept 2/ })).toBeEnabled()
  await page.keyboard.press('a')
  await expect(page.getByText('2 verdicts accepted.')).toBeVisible()
  await expect.poll(async () => (await settled()).length).toBe(2)
  await expect(page.locator('.settled')).toHaveCount(2)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect.poll(settled).toEqual([])
})

test('what if: tanks are turned without touching the log', async ({ page, open, undercliff }) => {
  const before = await logOf(undercliff, 'M1')
  await open('/loops/M1/decide')
  await expect(page.getByRole('heading', { name: 'What if' })).toBeVisible()
  await page.getByRole('slider', { name: /Tanks since it was sharpened/ }).fill('0')
  await expect(page.getByText(/instead of file at bench/)).toBeVisible()
  await expect(page.getByRole('heading', { name: /with what was turned/ })).toBeVisible()
  await page.getByRole('button', { name: 'As it is' }).click()
  await expect(page.getByText('as things stand')).toBeVisible()
  expect(await logOf(undercliff, 'M1')).toEqual(before)
})

test('strokes and minutes of a decision are those of the short form and of the work', async ({ page, open }) => {
  await open('/loops/M1/decide')
  // What is known of this hand and this file comes behind the page.
  await page.waitForLoadState('networkidle')
  const filing = page.getByRole('radio', { name: /^File at bench/ })
  await filing.click()
  const said = (await filing.textContent()) ?? ''
  const [, left, right] = /Strokes in your hands: (\d+)[^,]* left, (\d+)[^,]* right/.exec(said) ?? []
  expect([left, right]).not.toContain(undefined)
  const [minutes] = /about \d+ min(?=\.)/.exec(said) ?? /about \d+ min/.exec(said) ?? []
  await open('/loops/M1/sharpen?action=file')
  await expect(page.getByRole('heading', { name: /^Sharpen M1/ })).toContainText(minutes ?? 'minutes')
  await page.getByRole('link', { name: 'Log it in one go' }).click()
  const strokes = page.getByRole('group', { name: 'Strokes a side' })
  await expect(strokes).toContainText(left === right ? `${left}` : `${left} L, ${right} R`)
})

test('a lead goes against a verdict with a reason; nobody puts an unfit loop to work', async ({
  page,
  open,
  undercliff,
}) => {
  await open('/loops/M1/decide')
  await page.getByRole('radio', { name: /^Retire/ }).click()
  await page.getByRole('button', { name: 'Retire instead …' }).click()
  const dialog = page.getByRole('dialog')
  await expect(dialog.getByRole('button', { name: 'Retire all the same' })).toBeDisabled()
  await dialog.getByLabel('Why').fill('Saw is sold with it')
  await page.keyboard.press('Tab')
  await page.keyboard.press('Enter')
  await expect(dialog).toHaveCount(0)
  await expect(
    page.getByText('Settled by Maren Aldwick against the verdict (file at bench): Saw is sold with it'),
  ).toBeVisible()
  await expect
    .poll(async () => (await logOf(undercliff, 'M1')).at(-1))
    .toMatchObject({ kind: 'decided', action: 'retire', advised: 'file', overruled: 'Saw is sold with it' })
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByText(/Settled by Maren/)).toHaveCount(0)

  // A cracked strap: no option that would put it to work can be chosen instead.
  await page.goto(`${undercliff.address}/loops/T2/decide`)
  await page.getByRole('radio', { name: /^Run on/ }).click()
  await expect(page.getByRole('button', { name: /instead …/ })).toHaveCount(0)
})

test('a sawyer settles on a verdict, and leaves what is a lead’s to a lead', async ({ page, open, undercliff }) => {
  await open('/loops/P1/decide', 'iska')
  await page.getByRole('radio', { name: /^File at bench/ }).click()
  await expect(page.getByRole('button', { name: /instead …/ })).toHaveCount(0)
  await page.getByRole('button', { name: 'Settle on it, for later' }).click()
  await expect(page.getByText('Settled by Iska Lund-Pell.')).toBeVisible()
  await expect.poll(async () => (await logOf(undercliff, 'P1')).at(-1)?.kind).toBe('decided')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('button', { name: 'Settle on it, for later' })).toBeVisible()
  await page.goto(`${undercliff.address}/rules?chapter=cutters`)
  await expect(page.getByRole('radio', { name: /^Match the shortest/ })).toBeDisabled()
  await page.goto(`${undercliff.address}/loops/K4/decide`)
  await expect(page.getByText('A lead does that.')).toBeVisible()
})

test('what wears is told over all loops, and a loop goes out as a file that the command reads', async ({
  page,
  open,
}) => {
  await open('/wear')
  // Two cutters read before and after a few sharpenings tell less than a caliper strays.
  await expect(page.getByRole('heading', { name: 'Nobody surely takes more off one side' })).toBeVisible()
  await expect(page.getByRole('heading', { name: /is dull after [\d.]+ tanks/ })).toBeVisible()
  await page.goto(page.url().replace('/wear', '/loops/K3/decide'))
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as a file' }).click(),
  ])
  expect(download.suggestedFilename()).toBe('K3.loop.json')
})

test('the first decision of a new crew asks for three prices, and says which figures rest on none', async ({
  page,
}) => {
  const undercliff = await Undercliff.start('--empty')
  try {
    await setUp(page, undercliff, '/add/saw')
    await page.getByLabel('What the crew calls it').fill('Gull')
    await page.getByLabel('Pitch').selectOption('3/8"')
    await page.getByLabel('Gauge').selectOption('1.5 mm')
    await page.getByLabel('Drive links').fill('72')
    await page.getByRole('button', { name: /^Add/ }).first().click()
    await expect(page.getByText('Gull').first()).toBeVisible()
    await page.goto(`${undercliff.address}/add/loop?saw=Gull`)
    await page.getByLabel('Tag', { exact: true }).fill('Z1')
    await page.getByRole('radio', { name: 'New', exact: true }).click()
    await page.getByLabel('Cutter type').selectOption('semi-chisel')
    await page.getByLabel('Sequence').selectOption('full complement')
    await page.getByRole('button', { name: 'Add the loop' }).click()
    await expect(page.getByRole('heading', { name: 'Z1', exact: true })).toBeVisible()
    await page.goto(`${undercliff.address}/loops/Z1/decide`)
    const prices = page.getByRole('region', { name: 'Prices that nobody has said yet' })
    await expect(prices).toContainText('a new loop like this one €30.24, an hour of work €30.00')
    await prices.getByLabel('A new loop like this one').fill('28,80')
    await prices.getByLabel('An hour of work').fill('dear')
    await prices.getByRole('button', { name: 'These are our prices' }).click()
    await expect(prices.getByRole('alert')).toContainText('An hour of work: an amount is wanted')
    await prices.getByLabel('An hour of work').fill('45')
    await prices.getByRole('button', { name: 'These are our prices' }).click()
    // What it does to the whole shed is said before it holds.
    await expect(page.getByRole('dialog')).toContainText('What it costs')
    await page.getByRole('button', { name: 'Let it hold' }).click()
    await expect(prices).toHaveCount(0)
    await page.goto(`${undercliff.address}/rules`)
    await expect(page.getByLabel('An hour of work')).toHaveValue('45.00')
    await expect(page.getByLabel('A drive link of 3/8"', { exact: true })).toHaveValue('0.40')
  } finally {
    await undercliff.stop()
  }
})
