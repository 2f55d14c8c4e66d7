import { PHOTO_SIDE_PX, type ShedAnswer } from '@undercliff/contract'
import type { Page } from '@playwright/test'
import { createCanvas, loadImage } from '@napi-rs/canvas'
import { Buffer } from 'node:buffer'
import { expect, test, violations } from './testing'

const MAKER = 'Heron Camera Works'

/** The metadata that a camera puts at the head of a JPEG (Exif 2.3, 4.5): its maker, and which way it was held. */
function exif(orientation: number): Buffer {
  const maker = Buffer.from(`${MAKER}\0`, 'latin1')
  const tiff = Buffer.alloc(8 + 2 + 2 * 12 + 4)
  tiff.write('II*\0', 0, 'latin1')
  tiff.writeUInt32LE(8, 4)
  tiff.writeUInt16LE(2, 8)
  // Tag, type, count, value or where it stands.
  const entry = (at: number, tag: number, type: number, count: number, value: number): void => {
    tiff.writeUInt16LE(tag, at)
    tiff.writeUInt16LE(type, at + 2)
    tiff.writeUInt32LE(count, at + 4)
    tiff.writeUInt32LE(value, at + 8)
  }
  entry(10, 0x010f, 2, maker.length, tiff.length)
  entry(22, 0x0112, 3, 1, orientation)
  const body = Buffer.concat([Buffer.from('Exif\0\0', 'latin1'), tiff, maker])
  const head = Buffer.from([0xff, 0xe1, 0, 0])
  head.writeUInt16BE(body.length + 2, 2)
  return Buffer.concat([head, body])
}

/** A photograph of a made-up plate as a telephone takes it: large, on its side, with its maker in it. */
function plate(): { name: string; mimeType: string; buffer: Buffer } {
  const canvas = createCanvas(2400, 1600)
  const context = canvas.getContext('2d')
  context.fillStyle = '#b9b4a6'
  context.fillRect(0, 0, 2400, 1600)
  context.fillStyle = '#2a2a2a'
  context.font = '220px sans-serif'
  context.fillText('3/8  .058  72', 300, 850)
  const jpeg = canvas.toBuffer('image/jpeg', 90)
  const buffer = Buffer.concat([jpeg.subarray(0, 2), exif(6), jpeg.subarray(2)])
  return { name: 'plate.jpg', mimeType: 'image/jpeg', buffer }
}

const choose = (page: Page, file: ReturnType<typeof plate>) => page.locator('#photo-file').setInputFiles(file)
const strip = (page: Page) => page.locator('#photos li')

test('a plate is photographed, scaled down and bared of its metadata before it leaves the device', async ({
  page,
  open,
  undercliff,
}) => {
  await open('/saws/Wren')
  expect(plate().buffer.includes(MAKER)).toBe(true)
  const sent = page.waitForRequest((request) => request.method() === 'PUT' && request.url().includes('/api/photos/'))
  await choose(page, plate())
  await page.getByRole('button', { name: 'Stamp of the bar' }).click()
  expect(await violations(page)).toEqual([])
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByText('The photograph is kept.')).toBeVisible()
  const { picture } = (await sent).postDataJSON() as { picture: string }
  const bytes = Buffer.from(picture, 'base64')
  expect(bytes.includes(MAKER)).toBe(false)
  const image = await loadImage(bytes)
  expect([image.width, image.height]).toEqual([Math.round((PHOTO_SIDE_PX * 2) / 3), PHOTO_SIDE_PX])
  await expect(strip(page)).toHaveCount(1)
  await strip(page).getByRole('button').click()
  await expect(page.getByRole('dialog').getByRole('img', { name: 'Stamp of the bar' })).toBeVisible()
  await page.getByRole('button', { name: 'Delete' }).click()
  await page.getByRole('button', { name: 'Yes, delete it' }).click()
  await expect(strip(page)).toHaveCount(0)
  expect((await undercliff.json<ShedAnswer>('/api/shed')).photos).toEqual([])
})

test('what is no picture is refused with a reason, and nothing is lost by it', async ({ page, open }) => {
  await open('/loops/W1')
  await choose(page, { name: 'notes.jpg', mimeType: 'image/jpeg', buffer: Buffer.from('a text that is no picture') })
  await expect(page.getByText('This browser cannot read that file as a picture.')).toBeVisible()
  await choose(page, plate())
  await expect(page.getByRole('img', { name: 'The photograph to keep' })).toBeVisible()
  await page.getByRole('button', { name: 'Throw it away' }).click()
  await expect(page.getByText('None yet.')).toBeVisible()
})

test('a photograph that somebody left who was taken out of the crew is sent by a lead', async ({
  page,
  undercliff,
}) => {
  await page.goto(`${undercliff.address}/saws/Stilt`)
  await page.getByRole('button', { name: /Come in as Iska/ }).click()
  await expect(page.getByRole('heading', { name: 'Photographs of stamps and plates' })).toBeVisible()
  await page.route('**/api/photos/*', (route) => route.abort())
  await choose(page, plate())
  await page.getByLabel('What it shows').fill('the box')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByText('kept on this device until the shed answers')).toBeVisible()
  const { people } = await undercliff.json<ShedAnswer>('/api/shed')
  const iska = people.find(({ name }) => name.startsWith('Iska'))
  expect((await undercliff.send('DELETE', `/api/accounts/${iska?.id ?? ''}`, undefined)).status).toBe(204)
  await page.unroute('**/api/photos/*')
  await page.reload()
  await page.getByRole('button', { name: /Come in as Maren/ }).click()
  await expect(page.getByText("1 of somebody else's wait until they sign in")).toBeVisible()
  await page.getByRole('button', { name: 'See them' }).click()
  await expect(page.getByRole('dialog')).toContainText('Stilt: photograph of the box')
  await page.getByRole('button', { name: 'Send it, as written down by me' }).click()
  await expect
    .poll(async () => (await undercliff.json<ShedAnswer>('/api/shed')).photos.map(({ shows }) => shows))
    .toContain('the box')
  await expect(page.getByText("of somebody else's")).toBeHidden()
})

test.describe('out of range', () => {
  test.use({ serviceWorkers: 'allow' })

  test('a photograph waits on the device through a cold start, and goes home by itself', async ({
    page,
    open,
    undercliff,
  }) => {
    test.setTimeout(120_000)
    await open('/saws/Wren')
    await expect(page.getByRole('heading', { name: 'Photographs of stamps and plates' })).toBeVisible()
    await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined))
    await undercliff.kill()
    await page.context().setOffline(true)
    await choose(page, plate())
    await page.getByLabel('What it shows').fill('Bar of Wren')
    await page.getByRole('button', { name: 'Keep it' }).click()
    await expect(page.getByText('kept on this device until the shed answers')).toBeVisible()
    const cold = await page.context().newPage()
    await page.close()
    await cold.goto(`${undercliff.address}/saws/Wren`)
    // Bar, sprocket and log of the saw are kept as well.
    await expect(cold.getByText(/as this device last heard of them/)).toBeVisible()
    await expect(strip(cold)).toContainText('Waits on this device')
    await expect(strip(cold).getByRole('img', { name: 'Bar of Wren' })).toBeVisible()
    await cold.getByRole('button', { name: 'Flipped', exact: true }).click()
    await expect(cold.getByRole('listitem').filter({ hasText: 'Bar flipped' }).first()).toContainText(
      'waits on this device',
    )
    await cold.goto(`${undercliff.address}/me`)
    await expect(cold.getByText('A photograph waits on this device')).toBeVisible()
    await undercliff.up()
    await cold.context().setOffline(false)
    await expect
      .poll(async () => (await undercliff.json<ShedAnswer>('/api/shed')).photos.map(({ shows }) => shows), {
        timeout: 60_000,
      })
      .toContain('Bar of Wren')
    await expect(cold.getByText('A photograph waits on this device')).toHaveCount(0)
  })
})
