import { defineStore } from 'pinia'
import { watchEffect } from 'vue'
import { keptRef } from '../../remote/keptRef'

/** How the screen is held and seen: in which hand, and whether the sun is on it. Kept on the device. */
export const useSight = defineStore('sight', () => {
  const leftHand = keptRef('undercliff:left-hand', false)
  const sun = keptRef('undercliff:sun', false)
  watchEffect(() => {
    document.documentElement.toggleAttribute('data-sun', sun.value)
  })
  return { leftHand, sun }
})
