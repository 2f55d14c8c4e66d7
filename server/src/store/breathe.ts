import { setImmediate } from 'node:timers/promises'

/** Lets the requests that wait have their turn, between two pieces of work that take a while. */
export const breathe = (): Promise<void> => setImmediate()
