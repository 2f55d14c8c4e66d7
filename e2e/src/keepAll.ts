import { expect, type Page } from '@playwright/test'

/** Loops whose logs a page keeps on its device. */
const loopsKept = (page: Page): Promise<number> =>
  page.evaluate(async () => {
    // Opening what the page has not made yet would make it, empty.
    if ((await indexedDB.databases()).every(({ name }) => name !== 'undercliff-logs')) return 0
    return new Promise<number>((resolve) => {
      const open = indexedDB.open('undercliff-logs')
      open.onsuccess = () => {
        const count = open.result.transaction('loops').objectStore('loops').count()
        count.onsuccess = () => {
          open.result.close()
          resolve(count.result)
        }
      }
    })
  })

/** Waits until a page has all that a cold start needs kept on its device. */
export async function keepAll(page: Page): Promise<void> {
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined))
  await expect.poll(() => loopsKept(page), { timeout: 30_000 }).toBeGreaterThan(20)
}
