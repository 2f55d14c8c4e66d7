/**
 * Types a code as a scanner does: every character as a key, then Enter, faster than hands can.
 * Ships in place of a device.
 */
export function standInScanner(code: string): void {
  const target = document.activeElement ?? document.body
  for (const key of [...Array.from(code), 'Enter'])
    target.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }))
}
