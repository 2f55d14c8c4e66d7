import { chromium } from '@playwright/test'
const [, , ...shots] = process.argv
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] })
for (const shot of shots) {
  const [name = '', path = '/', kind = 'd', scheme = 'light', full = ''] = shot.split(',')
  const phone = kind === 'p'
  const page = await browser.newPage({
    viewport: phone ? { width: 390, height: 844 } : { width: 1280, height: 800 },
    colorScheme: scheme as 'light',
    hasTouch: phone,
  })
  page.on('pageerror', (e) => console.log(name, e.message))
  await page.goto('http://127.0.0.1:4999/')
  await page.getByRole('button', { name: /Come in as Maren/ }).click()
  await page.locator('[data-saw]').first().waitFor()
  await page.goto('http://127.0.0.1:4999' + path)
  await page.getByRole('heading').first().waitFor()
  await page.waitForTimeout(700)
  await page.screenshot({ path: `/tmp/s-${name}.png`, fullPage: full === 'full' })
  await page.close()
}
await browser.close()
