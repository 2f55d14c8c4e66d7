import { onKeyStroke } from '@vueuse/core'
import { watch, type Ref } from 'vue'

/** What is typed before the search is there to be typed into: whoever is quick loses no letter. */
export interface EarlyKeys {
  /** What was typed since it was asked for, and whether Enter followed; from here on the search hears by itself. */
  readonly take: () => { readonly text: string; readonly entered: boolean }
}

/** Gathers keys from when the search is asked for until it takes them. */
export function useEarlyKeys(searching: Ref<boolean>): EarlyKeys {
  let text = ''
  let entered = false
  let gathering = false
  watch(
    searching,
    (asked) => {
      gathering = asked
      text = ''
      entered = false
    },
    { flush: 'sync' },
  )
  onKeyStroke((event) => {
    if (!gathering || event.ctrlKey || event.metaKey || event.altKey) return
    if (event.key === 'Enter') entered = true
    else if (event.key === 'Backspace') text = text.slice(0, -1)
    else if (event.key === 'Escape') searching.value = false
    else if (event.key.length === 1 && !entered) text += event.key
    else return
    event.preventDefault()
    event.stopImmediatePropagation()
  })
  return {
    take: () => {
      gathering = false
      return { text, entered }
    },
  }
}
