import type { Entry } from '@undercliff/core'
import { forget, keep, keptJson } from './device'

const KEPT = 'undercliff:today'

/** Whether something happened on the day that it is on this device. */
export const isToday = (instant: string, now = new Date()): boolean =>
  new Date(instant).toDateString() === now.toDateString()

let today: readonly Entry[] | null = null
const listeners = new Set<(entries: readonly Entry[]) => void>()

/** Entries of loops that happened today, as far as this device has heard. */
export function keptToday(): readonly Entry[] {
  today ??= keptJson<readonly Entry[]>(KEPT) ?? []
  return today.filter(({ happenedAt }) => isToday(happenedAt))
}

/** Takes what was heard of the crew's logs; of other days nothing is kept here. */
export function hearToday(entries: readonly Entry[]): void {
  const before = keptToday()
  const known = new Set(before.map(({ id }) => id))
  const fresh = entries.filter(({ id, happenedAt }) => isToday(happenedAt) && !known.has(id))
  if (fresh.length === 0) return
  today = [...before, ...fresh]
  void keep(KEPT, JSON.stringify(today))
  for (const listener of listeners) listener(today)
}

/** Called with all of today's whenever some more were heard. */
export const onToday = (listener: (entries: readonly Entry[]) => void): void => {
  listeners.add(listener)
}

/** Keeps none any more: whoever signs in next is somebody else. */
export function forgetToday(): void {
  today = []
  forget(KEPT)
}
