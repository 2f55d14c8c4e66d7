import { defineStore } from 'pinia'
import { ref } from 'vue'

/** Lines that are drawn before somebody asks for more, so that a long shed stays quick. */
export const LINES = 24

/** How far the shed was opened, so that Back returns to it as it was left. */
export const useOverview = defineStore('overview', () => ({
  /** Lines whose every loop is shown. */
  opened: ref(new Set<string>()),
  lines: ref(LINES),
  /** Whether every verdict and place has its button, or those that matter. */
  allFilters: ref(false),
}))
