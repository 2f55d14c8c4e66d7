import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs'
import { expect, test } from './testing'

for (const [name, path] of [
  ['the shed', '/'],
  ['a loop', '/loops/K3'],
  ['triage', '/triage'],
] as const) {
  test(`${name} on paper: whose and of when, no controls, at most two pages`, async ({ page, open }) => {
    await open(path)
    await page.waitForLoadState('networkidle')
    const { numPages } = await getDocument({ data: new Uint8Array(await page.pdf({ preferCSSPageSize: true })) })
      .promise
    expect(numPages).toBeLessThanOrEqual(2)
    await page.emulateMedia({ media: 'print' })
    await expect(page.locator('.print-head')).toContainText('Skerrow Head tree crew')
    await expect(page.locator('.print-head time')).toContainText(String(new Date().getFullYear()))
    await expect(page.getByRole('button')).toHaveCount(0)
    if (path === '/triage') await expect(page.locator('.box').first()).toBeVisible()
  })
}
