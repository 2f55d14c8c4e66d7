import type { ShedAnswer } from '@undercliff/contract'
import { expect, logOf, setUp, test, violations } from './testing'
import { Undercliff } from './undercliff'

test('the demo says who can sign in, a wrong password is refused in words, and what was asked for opens', async ({
  page,
  undercliff,
}) => {
  await page.goto(`${undercliff.address}/loops/K5`)
  await expect(page.getByRole('heading', { name: 'Who is at the bench?' })).toBeVisible()
  await expect(page.getByText('iska · salt-on-the-bark')).toBeVisible()
  expect(await violations(page)).toEqual([])
  await page.getByLabel('Sign-in name').fill('maren')
  await page.getByLabel('Password', { exact: true }).fill('not this one')
  await page.keyboard.press('Enter')
  await expect(page.getByText('The name or the password is not right.')).toBeVisible()
  await page.getByRole('button', { name: 'Come in as Maren' }).click()
  await expect(page.getByRole('heading', { name: 'K5', exact: true })).toBeVisible()
})

test('a sawyer is turned away from what is a lead’s, on screen and by the API', async ({ page, open, undercliff }) => {
  await open('/loops/K5', 'iska')
  await expect(page.getByRole('heading', { name: 'K5', exact: true })).toBeVisible()
  await expect(page.getByRole('link', { name: /^Retire/ })).toHaveCount(0)
  await open('/loops/K5/spec', 'iska')
  await expect(page.getByText('gauge setting')).toBeVisible()
  await expect(page.getByRole('button', { name: /^Change/ })).toHaveCount(0)
  await open('/crew', 'iska')
  await expect(page.getByRole('radio', { name: /^Inches/ })).toBeDisabled()
  await expect(page.getByRole('button', { name: /^Change: / })).toHaveCount(0)
  await expect(page.getByRole('link', { name: 'Everything, as one file' })).toHaveCount(0)

  // The screens that a lead has are refused by the server when a sawyer opens them by address.
  await open('/add/saw', 'iska')
  await page.getByLabel('What the crew calls it').fill('Smuggled')
  await page.getByLabel('Pitch').selectOption("don't know yet")
  await page.getByLabel('Gauge').selectOption("don't know yet")
  await page.getByRole('button', { name: "Don't know yet" }).click()
  await page.getByRole('button', { name: 'Add the saw' }).click()
  await expect(page.getByText('Ask a lead to do this.')).toBeVisible()
  await open('/loops/K5/note/retired', 'iska')
  await page.getByRole('button', { name: 'Retire this loop' }).click()
  await expect(page.getByText(/are a lead’s to change/)).toBeVisible()

  const { loops } = await undercliff.json<ShedAnswer>('/api/shed')
  const loopId = loops.find(({ tag }) => tag === 'K5')?.loopId ?? ''
  const before = await logOf(undercliff, 'K5')
  const base = { loopId, happenedAt: new Date().toISOString(), personId: null }
  expect(await undercliff.send('PUT', '/api/crew', { name: 'Ours now', lengths: 'mm' }, 'iska')).toEqual({
    status: 403,
    code: 'lead-only',
  })
  expect(
    await undercliff.send(
      'POST',
      '/api/entries',
      { entries: [{ ...base, id: 'smuggled-entry-1', kind: 'retired', reason: 'worn' }] },
      'iska',
    ),
  ).toEqual({ status: 403, code: 'lead-only' })
  expect(
    await undercliff.send(
      'POST',
      '/api/entries',
      {
        entries: [{ ...base, id: 'smuggled-entry-2', kind: 'specChanged', origin: 'box', changes: { settingUm: 600 } }],
      },
      'iska',
    ),
  ).toEqual({ status: 403, code: 'lead-only' })
  expect(await logOf(undercliff, 'K5')).toEqual(before)
})

test('a crew from the first run: a sawyer is let in, and they take turns at a shared bench by PIN', async ({
  page,
}) => {
  const undercliff = await Undercliff.start('--empty')
  try {
    await setUp(page, undercliff, '/crew')
    // A crew of its own has a scanner of its own; the stand-in comes only when it is asked for.
    await page.goto(`${undercliff.address}/scan`)
    await expect(page.getByRole('heading', { name: 'Which loop?' })).toBeVisible()
    await expect(page.getByRole('heading', { name: 'Stand-in scanner' })).toHaveCount(0)
    await page.goto(`${undercliff.address}/scan?standIn`)
    await expect(page.getByRole('heading', { name: 'Stand-in scanner' })).toBeVisible()
    await page.goto(`${undercliff.address}/crew`)
    await page.getByLabel('Name of somebody new').fill('Bram Quill')
    await page.getByRole('button', { name: 'Add to the crew' }).click()
    await page.getByRole('button', { name: 'Change: Bram Quill' }).click()
    await page.getByLabel('First password').fill('short')
    await page.getByRole('button', { name: 'Save the sign-in' }).click()
    await expect(page.getByText(/A password has at least 10 characters/)).toBeVisible()
    await page.getByLabel('First password').fill('salt wind and thorn')
    await page.getByRole('button', { name: 'Save the sign-in' }).click()
    await expect(page.getByText('signs in as bram')).toBeVisible()

    // Bram sets his PIN, then the lead shares the device.
    await page.goto(`${undercliff.address}/me`)
    await page.getByRole('button', { name: 'Sign out' }).click()
    await page.getByLabel('Sign-in name').fill('bram')
    await page.getByLabel('Password', { exact: true }).fill('salt wind and thorn')
    await page.getByRole('button', { name: 'Sign in' }).click()
    await page.getByLabel('PIN, 4 to 8 digits').fill('4711')
    await page.getByRole('button', { name: 'Set the PIN' }).click()
    await expect(page.getByText('The PIN is set.')).toBeVisible()
    await page.getByRole('button', { name: 'Sign out' }).click()
    await page.getByLabel('Sign-in name').fill('ottoline')
    await page.getByLabel('Password', { exact: true }).fill('four quiet herons')
    await page.getByRole('button', { name: 'Sign in' }).click()
    await page.getByRole('button', { name: 'Shared at the bench' }).click()
    await expect(page.getByText('The crew can take turns here by PIN.')).toBeVisible()
    await page.getByRole('banner').getByRole('button', { name: 'Ottoline Vane' }).click()
    await page.getByRole('radio', { name: 'Bram Quill' }).click()
    await page.getByLabel('PIN', { exact: true }).fill('0000')
    await page.keyboard.press('Enter')
    await expect(page.getByText('That is not the PIN.')).toBeVisible()
    await page.getByLabel('PIN', { exact: true }).fill('4711')
    await page.keyboard.press('Enter')
    await expect(page.getByRole('banner').getByRole('button', { name: 'Bram Quill' })).toBeVisible()
    await expect(page.getByText('Here by PIN, to log work.')).toBeVisible()
  } finally {
    await undercliff.stop()
  }
})

test('a lead renames somebody, says their weaker hand, sets their PIN, and lets them leave', async ({
  page,
  open,
  undercliff,
}) => {
  await open('/crew')
  const people = page.getByRole('region', { name: 'People' })
  const change = people.getByRole('button', { name: /^Change: Iska/ })
  await change.click()
  await people.getByLabel('Name', { exact: true }).fill('Iska Lund')
  await people.getByRole('radio', { name: 'Left cutters' }).click()
  await people.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText('Iska Lund is written so.')).toBeVisible()
  await change.click()
  await expect(people.getByRole('radio', { name: 'Left cutters' })).toBeChecked()
  await people.getByLabel('PIN for a shared bench').fill('4812')
  await people.getByRole('button', { name: 'Set the PIN' }).click()
  await expect(page.getByText('Iska Lund takes over at a shared bench with this PIN.')).toBeVisible()
  await change.click()
  await people.getByRole('button', { name: 'They left the crew' }).click()
  await expect(page.getByText('left the crew; what they did stays theirs')).toBeVisible()
  // Nobody who left is on offer for new work; what they did still bears their name.
  await page.goto(`${undercliff.address}/loops/K5/sharpened`)
  await expect(page.getByRole('radio', { name: 'Maren Aldwick' })).toBeVisible()
  await expect(page.getByRole('radio', { name: 'Iska Lund' })).toHaveCount(0)
  const shed = await undercliff.json<ShedAnswer>('/api/shed')
  expect(shed.people.find(({ name }) => name === 'Iska Lund')).toMatchObject({ weakSide: 'left', gone: true })
})
