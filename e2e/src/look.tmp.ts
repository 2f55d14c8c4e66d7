import { chromium } from '@playwright/test'
import { messyBook } from './fixtures/messyBook'
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] })
for (const [name, viewport, scheme] of [['d', { width: 1280, height: 800 }, 'light'], ['p', { width: 390, height: 844 }, 'dark']] as const) {
  const page = await browser.newPage({ viewport, colorScheme: scheme })
  await page.goto('http://127.0.0.1:4999/')
  await page.getByRole('button', { name: /Come in as Maren/ }).click()
  await page.locator('[data-saw]').first().waitFor()
  await page.goto('http://127.0.0.1:4999/import')
  await page.getByLabel('CSV or XLSX').setInputFiles(await messyBook())
  await page.getByLabel('Column for Drive links').selectOption('Teeth below')
  await page.locator('[data-fate]').first().waitFor()
  await page.screenshot({ path: `/tmp/import-${name}.png`, fullPage: true })
  await page.close()
}
await browser.close()
