/** Until then the first page is drawn, in ms. */
const DRAWN_MS = 500
/** The longest that work is put off for what somebody is doing, in ms. */
const LONGEST_MS = 3000

/**
 * Does something behind the first page when nothing else is to be done, so that no tap waits for it.
 *
 * @param afterMs how long it is put off at least
 */
export function whenIdle(act: () => void, afterMs = DRAWN_MS): void {
  setTimeout(() => {
    if ('requestIdleCallback' in window) window.requestIdleCallback(act, { timeout: LONGEST_MS })
    else act()
  }, afterMs)
}
