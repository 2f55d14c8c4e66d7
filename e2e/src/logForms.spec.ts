import { expect, logOf, test } from './testing'

test.describe('at the desk', () => {
  test('a figure that slipped is asked about once, with what was meant, and a draft outlives reload and Back', async ({
    page,
    open,
    undercliff,
  }) => {
    await open('/loops/K6/note/gaugesLowered')
    const setting = page.getByLabel(/Setting on the plate/)
    await setting.fill('65')
    await page.getByRole('button', { name: 'Log the gauges' }).click()
    await expect(page.getByRole('alert')).toContainText('65.00 mm cannot be. Was it 0.65 mm?')
    await page.reload()
    await expect(setting).toHaveValue('65')
    await page.goBack()
    await page.goForward()
    await expect(setting).toHaveValue('65')
    await expect(page.getByText('As you left it before it was logged.')).toBeVisible()
    await setting.focus()
    await page.getByLabel('Note').focus()
    await page.getByRole('button', { name: '0.65 mm', exact: true }).click()
    await expect(setting).toHaveValue('0.65 mm')
    await page.getByRole('button', { name: 'Log the gauges' }).click()
    await expect(page.getByRole('heading', { name: 'K6', exact: true })).toBeVisible()
    expect((await logOf(undercliff, 'K6')).at(-1)).toMatchObject({ kind: 'gaugesLowered', settingUm: 650 })
    await page.getByRole('button', { name: 'Undo', exact: true }).click()
    await expect.poll(async () => (await logOf(undercliff, 'K6')).at(-1)?.kind).toBe('corrected')
    // What was logged is no draft any more.
    await page.goto(`${undercliff.address}/loops/K6/note/gaugesLowered`)
    await expect(setting).toHaveValue('')
  })

  test('an odd figure stands when it is saved again; Cancel throws the draft away', async ({
    page,
    open,
    undercliff,
  }) => {
    await open('/loops/M3/note/gaugesLowered')
    const setting = page.getByLabel(/Setting on the plate/)
    await setting.fill('1.9')
    await page.keyboard.press('Escape')
    await expect(page.getByRole('heading', { name: 'M3', exact: true })).toBeVisible()
    await page.goto(`${undercliff.address}/loops/M3/note/gaugesLowered`)
    await expect(setting).toHaveValue('')
    await setting.fill('1.9')
    await page.keyboard.press('Enter')
    await expect(page.getByRole('alert')).toContainText('Save again to keep it as typed.')
    await page.keyboard.press('Tab')
    await page.getByRole('button', { name: 'Log the gauges' }).press('Enter')
    await expect(page.getByRole('heading', { name: 'M3', exact: true })).toBeVisible()
    expect((await logOf(undercliff, 'M3')).at(-1)).toMatchObject({ settingUm: 1900 })
    await page.getByRole('button', { name: 'Undo', exact: true }).click()
    await expect.poll(async () => (await logOf(undercliff, 'M3')).at(-1)?.kind).toBe('corrected')
  })

  test('all sound, said once, settles every cutter and the chassis', async ({ page, open, undercliff }) => {
    await open('/loops/K3/note/inspected')
    await expect(page.getByText(/Now: \d+ cutters damaged/)).toBeVisible()
    await page.getByRole('button', { name: 'All sound' }).click()
    await expect(page.getByText('Now: no cutter damaged, chassis sound as far as anybody knows.')).toBeVisible()
    await page.getByRole('button', { name: 'Log the inspection' }).click()
    await expect(page.getByRole('heading', { name: 'K3', exact: true })).toBeVisible()
    const last = (await logOf(undercliff, 'K3')).at(-1) as unknown as Record<string, unknown>
    expect(last).toMatchObject({ kind: 'inspected', parts: [] })
    expect((last.readings as { damage: unknown[] }[]).every(({ damage }) => damage.length === 0)).toBe(true)
    await page.getByRole('button', { name: 'Undo', exact: true }).click()
    await expect.poll(async () => (await logOf(undercliff, 'K3')).at(-1)?.kind).toBe('corrected')
  })

  test('readings can be thrown away, and brought back', async ({ page, open }) => {
    await open('/loops/K6/measure')
    await page.locator('[data-reading]').waitFor()
    await page.keyboard.type('7.5')
    await page.keyboard.press('Enter')
    await page.getByRole('button', { name: 'Throw it away' }).click()
    await expect(page.getByText('1 reading thrown away.')).toBeVisible()
    await expect(page.getByRole('button', { name: /^Save 0 readings/ })).toBeDisabled()
    await page.getByRole('button', { name: 'Undo', exact: true }).click()
    await expect(page.getByRole('button', { name: 'Save 1 reading' })).toBeEnabled()
  })
})

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true })

  test('an inspection by thumb: a cutter on the strip, what it has, how deep, a strap', async ({
    page,
    open,
    undercliff,
  }) => {
    await open('/loops/T4/note/inspected')
    await page.getByRole('button', { name: /^Cutter 3 / }).tap()
    await page.getByRole('button', { name: 'chipped corner' }).tap()
    // A depth that slipped keeps the cutter in hand, so that it goes to no other.
    const depth = page.getByLabel(/How deep is the chipped corner/)
    await depth.fill('40')
    await page.getByRole('button', { name: 'Next cutter' }).tap()
    await expect(page.getByText('Depth: 40.00 mm cannot be. Was it 0.40 mm?')).toBeVisible()
    await depth.fill('0.4')
    await page.getByRole('button', { name: 'Next cutter' }).tap()
    // What has no key in measuring can be found all the same.
    await page.getByRole('button', { name: 'More kinds' }).tap()
    await page.getByRole('button', { name: 'bumper filed off' }).tap()
    await page.getByRole('radio', { name: 'tie strap cut into' }).tap()
    await page.getByRole('button', { name: 'Log the inspection' }).tap()
    await expect(page.getByRole('heading', { name: 'T4', exact: true })).toBeVisible()
    const last = (await logOf(undercliff, 'T4')).at(-1) as unknown as Record<string, unknown>
    expect(last.parts).toMatchObject([{ kind: 'strapCut' }])
    expect(last.readings).toContainEqual({
      cutter: 3,
      damage: expect.arrayContaining([{ kind: 'chipped', depthUm: 400 }]) as unknown,
    })
    expect(last.readings).toContainEqual({
      cutter: 4,
      damage: expect.arrayContaining([{ kind: 'bumperFiled', depthUm: null }]) as unknown,
    })
    await page.getByRole('button', { name: 'Undo', exact: true }).tap()
    await expect.poll(async () => (await logOf(undercliff, 'T4')).at(-1)?.kind).toBe('corrected')
  })

  test('a loop is measured with the pad: map, verdict and figures stay on the screen', async ({ page, open }) => {
    await open('/loops/T4/measure')
    await page.getByRole('button', { name: 'Enter', exact: true }).waitFor()
    const field = page.locator('[data-reading]')
    await expect(field).toHaveAttribute('inputmode', 'none')
    for (const key of ['4', 'decimal point', '1']) await page.getByRole('button', { name: key, exact: true }).tap()
    await expect(field).toHaveValue('4.1')
    for (const what of [page.locator('.map svg').first(), page.locator('p.short'), page.locator('.pad')]) {
      const box = await what.boundingBox()
      expect(box).not.toBeNull()
      expect((box?.y ?? 0) + (box?.height ?? 0)).toBeLessThan(844 - 56)
    }
    await page.getByRole('button', { name: 'Erase' }).tap()
    await expect(field).toHaveValue('4.')
    // Five kinds of damage, the rest one tap away.
    await expect(page.getByRole('group', { name: 'Damage' }).getByRole('button')).toHaveCount(6)
    await page.getByRole('button', { name: 'More kinds' }).tap()
    await expect(page.getByRole('button', { name: 'blued steel' })).toBeVisible()
  })
})
