import { openAndRead } from './remote/deviceTexts'

/** What is kept on the device, read while the rest is got ready: on a phone each takes its time. */
export const reading = openAndRead()
// Whoever waits for it hears of it.
reading.catch(() => undefined)
