import { defineStore } from 'pinia'
import { ref } from 'vue'
import { registerSW } from 'virtual:pwa-register'
import { keptJson, keptKeys } from '../remote/device'
import { useOutbox } from '../remote/outbox'

/** How often a page that stays open asks whether there is a new version, in ms. */
const ASK_MS = 3_600_000

/** What a sharpening, or a form, holds on this device. */
const DRAFTS = 'undercliff:draft:'
const SHARPENINGS = 'undercliff:sharpening:'

/** Whether somebody has something half typed, on any page of this device. */
function isHalfTyped(): boolean {
  if (keptKeys(DRAFTS).length > 0) return true
  if (keptKeys(SHARPENINGS).some((key) => keptJson(key) !== null)) return true
  const { activeElement } = document
  return activeElement instanceof HTMLInputElement && activeElement.value !== ''
}

/**
 * A new version of Undercliff: fetched behind what is open, and let in when nothing is half typed and nothing is on its
 * way, at a moment when the page is looked at anew. It reads what the one before kept.
 */
export const useUpdate = defineStore('update', () => {
  const outbox = useOutbox()
  /** There is one, and it waits. */
  const waits = ref(false)
  let letIn: (reload?: boolean) => Promise<void> = () => Promise.resolve()

  /** Lets it in, and loads the page again. */
  const take = (): Promise<void> => letIn(true)
  /** Lets it in where that loses nobody's work. */
  function takeIfQuiet(): void {
    if (waits.value && !isHalfTyped() && outbox.heldHere === 0) void take()
  }

  /** Has the browser keep this version for when nothing answers, and listens for the next. */
  function begin(): void {
    if (!('serviceWorker' in navigator) || !import.meta.env.PROD) return
    letIn = registerSW({
      immediate: true,
      onNeedRefresh: () => {
        waits.value = true
        if (document.visibilityState === 'hidden') takeIfQuiet()
      },
      onRegisteredSW: (_url, registration) => {
        if (registration !== undefined) setInterval(() => void registration.update().catch(() => undefined), ASK_MS)
      },
      onRegisterError: () => undefined,
    })
    document.addEventListener('visibilitychange', takeIfQuiet)
  }

  return { waits, take, takeIfQuiet, begin }
})
