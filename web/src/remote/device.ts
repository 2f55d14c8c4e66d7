import { shallowRef } from 'vue'

/** What became of something that was to be kept on the device. */
export type Keeping = 'kept' | 'noRoom' | 'forbidden'

/** Whether the browser lets this page keep anything at all; null before anybody tried. */
export const mayKeep = shallowRef<boolean | null>(null)

/** The storage of the browser; null where the page may not have one. */
function storage(): Storage | null {
  try {
    const { localStorage: found } = globalThis as { localStorage?: Storage | null }
    mayKeep.value = found != null
    return found ?? null
  } catch {
    mayKeep.value = false
    return null
  }
}

/** What is kept under a key; null when nothing is, or nothing can be. */
function kept(key: string): string | null {
  try {
    return storage()?.getItem(key) ?? null
  } catch {
    return null
  }
}

/** What is kept under a key as JSON; null when nothing that can be read is. */
// eslint-disable-next-line @typescript-eslint/no-unnecessary-type-parameters -- the caller names what it kept there
export function keptJson<T>(key: string): T | null {
  try {
    return JSON.parse(kept(key) ?? 'null') as T | null
  } catch {
    return null
  }
}

/** Every key that begins so, in order. */
export function keptKeys(prefix: string): string[] {
  try {
    return Object.keys(storage() ?? {})
      .filter((key) => key.startsWith(prefix))
      .sort()
  } catch {
    return []
  }
}

/** Keeps something on the device, and says whether it is: read back, not taken for granted. */
export function keep(key: string, text: string): Keeping {
  const place = storage()
  if (place === null) return 'forbidden'
  try {
    place.setItem(key, text)
    return place.getItem(key) === text ? 'kept' : 'noRoom'
  } catch {
    return 'noRoom'
  }
}

/** Keeps nothing under a key any more. */
export function forget(key: string): void {
  try {
    storage()?.removeItem(key)
  } catch {
    // What cannot be reached is not kept either.
  }
}
