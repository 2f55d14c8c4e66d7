import { chromium } from 'playwright-core'
const [out, w, h, scheme, scale, json] = process.argv.slice(2)
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] })
const width = Number(w),
  height = Number(h)
const context = await browser.newContext({
  viewport: { width, height },
  colorScheme: scheme as 'dark',
  hasTouch: width < 500,
})
const page = await context.newPage()
await page.goto('http://127.0.0.1:4999/')
await page.getByRole('button', { name: 'Come in as Maren' }).click()
await page.locator('[data-loop-tile]').first().waitFor()
const shots: string[] = []
for (const { path, acts, full } of JSON.parse(json!)) {
  await page.goto(`http://127.0.0.1:4999${path}`)
  await page.waitForTimeout(900)
  if (acts) await new Function('page', 'context', `return (async()=>{${acts}})()`)(page, context)
  await page.waitForTimeout(300)
  shots.push((await page.screenshot({ fullPage: full === true })).toString('base64'))
}
const sheet = await browser.newPage({ viewport: { width: 1600, height: 400 }, deviceScaleFactor: 1 })
await sheet.setContent(
  `<body style="margin:0;background:#888;display:flex;flex-wrap:wrap;gap:8px">${shots.map((s) => `<img style="width:${width * Number(scale)}px;align-self:start" src="data:image/png;base64,${s}">`).join('')}</body>`,
)
await sheet.waitForTimeout(300)
await sheet.screenshot({ path: out!, fullPage: true })
await browser.close()
