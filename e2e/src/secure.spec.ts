import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { DEMO_SIGN_INS } from '@undercliff/demo'
import { tagCode } from '@undercliff/core'
import { certifyServer, type Authority } from '@undercliff/server'
import { createServer } from 'node:https'
import type { Page } from '@playwright/test'
import { cameraFilm } from './cameraFilm'
import { keepAll } from './keepAll'
import { Phone } from './phone'
import { qrOfPicture } from './readPdf'
import { expect, logOf, test } from './testing'
import { BEYOND, freePort, Undercliff } from './undercliff'

const NAME = 'shed.test'
const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true } as const
const MAREN = DEMO_SIGN_INS[0]
const DAY_MS = 86_400_000

const film = join(mkdtempSync(join(tmpdir(), 'undercliff-film-')), 'tag.y4m')
writeFileSync(film, cameraFilm(tagCode('K5')))
const CAMERA = [
  '--use-fake-device-for-media-stream',
  '--use-fake-ui-for-media-stream',
  `--use-file-for-fake-video-capture=${film}`,
]

let undercliff: Undercliff
let phone: Phone
test.beforeAll(async () => {
  undercliff = await Undercliff.startSecure(NAME)
  phone = new Phone(NAME)
})
test.afterAll(async () => {
  await phone.lose()
  await undercliff.stop()
  rmSync(film, { force: true })
})

async function signIn(page: Page): Promise<void> {
  await page.getByLabel('Sign-in name').fill(MAREN.login)
  await page.getByLabel('Password', { exact: true }).fill(MAREN.password)
  await page.getByRole('button', { name: 'Sign in', exact: true }).click()
  await expect(page.getByRole('link', { name: MAREN.name })).toBeVisible()
}

test('a phone’s way: the code, the certificate, signed in, installed, two days out of range, and home', async ({
  page,
}) => {
  test.setTimeout(240_000)
  const secure = `https://${NAME}:${undercliff.port}`

  // The lead's screen has the code, and the figures to compare.
  await undercliff.enter(page.context())
  await page.goto(`${undercliff.address}/phones`)
  const code = page.getByRole('img', { name: /QR code/ })
  await expect(code).toBeVisible()
  const scanned = await qrOfPicture(await code.screenshot({ scale: 'css' }))
  expect(scanned).toBe(`http://${NAME}:${undercliff.port + 1}`)
  const figures = (await page.locator('.print').innerText()).replace(/\s/g, '')
  expect(figures).toMatch(/^([0-9A-F]{2}:){31}[0-9A-F]{2}$/)

  // The phone follows the code, and does not know the certificate yet.
  const unknowing = await (await phone.open()).newContext({ ...PHONE })
  await expect((await unknowing.newPage()).goto(secure)).rejects.toThrow('ERR_CERT_AUTHORITY_INVALID')
  const stranger = await unknowing.newPage()
  await stranger.goto(scanned ?? '')
  await expect(stranger.getByRole('status')).toContainText('does not know it yet')
  expect((await stranger.locator('code').innerText()).replace(/\s/g, '')).toBe(figures)
  const [download] = await Promise.all([
    stranger.waitForEvent('download'),
    stranger.getByRole('link', { name: 'Take the certificate' }).tap(),
  ])
  phone.trust(readFileSync(await download.path()))
  await unknowing.browser()?.close()

  // Now it does.
  const browser = await phone.open(...CAMERA)
  const context = await browser.newContext({ ...PHONE, serviceWorkers: 'allow', permissions: ['camera'] })
  const mine = await context.newPage()
  await mine.goto(scanned ?? '')
  await expect(mine.getByRole('status')).toContainText('This phone knows it')
  await mine.getByRole('link', { name: `Open Undercliff at ${secure}` }).tap()
  await expect(mine).toHaveURL(`${secure}/`)
  await signIn(mine)
  const [cookie] = (await context.cookies()).filter(({ httpOnly }) => httpOnly)
  expect(cookie).toMatchObject({ secure: true, sameSite: 'Strict' })
  await mine.goto(`${secure}/wood`)
  await keepAll(mine)
  await mine.reload()
  expect(await mine.evaluate(() => [isSecureContext, navigator.serviceWorker.controller !== null])).toEqual([
    true,
    true,
  ])
  const devtools = await context.newCDPSession(mine)
  const { installabilityErrors } = await devtools.send('Page.getInstallabilityErrors')
  expect(installabilityErrors.map(({ errorId }) => errorId)).toEqual([])

  // Its camera reads a tag at this address.
  await mine.goto(`${secure}/scan`)
  await mine.getByRole('button', { name: 'Scan with the camera' }).click()
  await expect(mine.getByRole('heading', { name: 'K5', exact: true })).toBeVisible()

  // Two days out of range, opened cold on each of them.
  const before = (await logOf(undercliff, 'M1')).filter(({ kind }) => kind === 'ran').length
  await undercliff.kill()
  await context.setOffline(true)
  await mine.close()
  for (const daysAgo of [2, 1]) {
    const cold = await context.newPage()
    await cold.clock.setFixedTime(Date.now() - daysAgo * DAY_MS)
    await cold.goto(`${secure}/wood?tag=M1`)
    await expect(cold.getByText(daysAgo === 2 ? /The shed does not answer/ : /1 kept on this device/)).toBeVisible()
    await expect(cold.locator('[data-in-hand]').getByRole('heading', { name: 'M1' })).toBeVisible()
    await cold.locator('[data-tank]').tap()
    await expect(cold.locator('[data-today]')).toContainText('1 tank')
    await cold.close()
  }

  // Home again.
  await undercliff.up()
  await context.setOffline(false)
  const home = await context.newPage()
  // The clock is the phone's, whichever page it is asked in.
  await home.clock.setFixedTime(Date.now())
  await home.goto(`${secure}/wood`)
  const ran = async () => (await logOf(undercliff, 'M1')).filter(({ kind }) => kind === 'ran')
  await expect.poll(async () => (await ran()).length).toBe(before + 2)
  const days = (await ran())
    .slice(-2)
    .map(({ happenedAt }) => Math.round((Date.now() - Date.parse(happenedAt)) / DAY_MS))
  expect(days.sort()).toEqual([1, 2])
  await expect(home.getByText(/waiting to be sent/)).toBeHidden()
})

test('a key that was stolen opens no other door', async () => {
  const read = (file: string): string => readFileSync(join(undercliff.dataDir, 'authority', file), 'utf8')
  const stolen: Authority = { certificate: read('authority.crt'), key: read('authority.key'), names: [] }
  const { certificate, key } = await certifyServer(stolen, ['bank.test'], new Date())
  const port = await freePort()
  const thief = createServer({ cert: certificate, key }, (_request, response) => response.end('in')).listen(
    port,
    BEYOND,
  )
  const robbed = new Phone('*.test')
  robbed.trust(stolen.certificate)
  const browser = await robbed.open()
  await expect((await browser.newPage()).goto(`https://bank.test:${port}`)).rejects.toThrow(/ERR_CERT/)
  const page = await browser.newPage()
  await page.goto(`https://${NAME}:${undercliff.port}`)
  await expect(page.getByLabel('Sign-in name')).toBeVisible()
  await robbed.lose()
  thief.closeAllConnections()
  thief.close()
})
