import type { Page } from '@playwright/test'

/** How much slower a phone is than this machine. */
export const PHONE_SLOWER = 4

export const median = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0

/** From an act in the page to the paint that shows what it did, in ms; both as JavaScript text. */
export const timed = (page: Page, act: string, done: string): Promise<number> =>
  page.evaluate(`new Promise((resolve) => {
    const start = performance.now();
    ${act}
    const look = () => {
      if (!(${done})) {
        requestAnimationFrame(look)
        return
      }
      // The frame is painted once a message that was posted in it arrives.
      const { port1, port2 } = new MessageChannel()
      port1.onmessage = () => resolve(performance.now() - start)
      port2.postMessage(null)
    }
    requestAnimationFrame(look)
  })`)

/** The time that 95 of 100 are within. */
export const within95 = (times: readonly number[]): number =>
  [...times].sort((a, b) => a - b)[Math.min(times.length - 1, Math.floor(times.length * 0.95))] ?? 0
