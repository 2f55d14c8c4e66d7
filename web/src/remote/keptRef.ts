import { useStorage, type StorageLike, type UseStorageOptions } from '@vueuse/core'
import type { Ref } from 'vue'

/** What is held while the page is open, where the browser keeps nothing. */
const held = new Map<string, string>()
const memory: StorageLike = {
  getItem: (key) => held.get(key) ?? null,
  setItem: (key, value) => {
    held.set(key, value)
  },
  removeItem: (key) => {
    held.delete(key)
  },
}

function storage(): StorageLike {
  try {
    return window.localStorage
  } catch {
    return memory
  }
}

/** A value that is kept on the device under a key; in a browser that keeps nothing, while the page is open. */
export const keptRef = <T>(key: string, initial: T, options: UseStorageOptions<T> = {}): Ref<T> =>
  useStorage<T>(key, initial, storage(), { writeDefaults: false, ...options })
