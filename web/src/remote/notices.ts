import { defineStore } from 'pinia'
import { shallowRef } from 'vue'

/** A short line at the foot of the screen, with an undo where there is one. */
export interface Notice {
  readonly text: string
  readonly undo?: () => unknown
}

const STAYS_MS = 12_000

export const useNotices = defineStore('notices', () => {
  const notice = shallowRef<Notice | null>(null)
  let timer: ReturnType<typeof setTimeout> | undefined

  function say(text: string, undo?: () => unknown): void {
    clearTimeout(timer)
    notice.value = undo === undefined ? { text } : { text, undo }
    timer = setTimeout(clear, STAYS_MS)
  }
  function clear(): void {
    notice.value = null
  }
  return { notice, say, clear }
})
