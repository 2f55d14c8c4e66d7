import { customStorageEventName, useStorage, type StorageLike, type UseStorageOptions } from '@vueuse/core'
import type { Ref } from 'vue'
import { forget, keep, keptText, onKeptElsewhere } from './device'

/** What is kept on the device, as the composables of the library see a storage. */
const kept: StorageLike = {
  getItem: keptText,
  setItem: (key, value) => {
    void keep(key, value)
  },
  removeItem: forget,
}

let listens = false

/** Another page's changes are told as the library tells its own. */
function listen(): void {
  if (listens || typeof window === 'undefined') return
  listens = true
  onKeptElsewhere(window, (key, newValue) => {
    window.dispatchEvent(
      new CustomEvent(customStorageEventName, { detail: { key, oldValue: null, newValue, storageArea: kept } }),
    )
  })
}

/** A value that is kept on the device under a key; in a browser that keeps nothing, while the page is open. */
export function keptRef<T>(key: string, initial: T, options: UseStorageOptions<T> = {}): Ref<T> {
  listen()
  return useStorage<T>(key, initial, kept, { writeDefaults: false, ...options })
}
