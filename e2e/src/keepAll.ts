import { expect, type Page } from '@playwright/test'

/** Waits until a page has all that a cold start needs kept on its device. */
export async function keepAll(page: Page): Promise<void> {
  await page.evaluate(() => navigator.serviceWorker.ready.then(() => undefined))
  await expect
    .poll(
      () =>
        page.evaluate(
          () =>
            new Promise<number>((resolve) => {
              const open = indexedDB.open('undercliff-logs')
              open.onsuccess = () => {
                const count = open.result.transaction('loops').objectStore('loops').count()
                count.onsuccess = () => {
                  open.result.close()
                  resolve(count.result)
                }
              }
            }),
        ),
      { timeout: 30_000 },
    )
    .toBeGreaterThan(20)
}
