import { computed, type ComputedRef } from 'vue'
import type { Entry, Hand } from '@undercliff/core'

/** Strokes on each side, and whose they were. */
export interface LastStrokes {
  readonly left: number
  readonly right: number
  readonly whose: 'mine' | 'anybody' | 'usual'
}

/** A few strokes, where nobody has counted any yet. Common practice. */
const USUAL: LastStrokes = { left: 4, right: 4, whose: 'usual' }

/** What somebody gave this loop at their last touch-up, else what anybody gave it. */
export const useLastStrokes = (
  entries: () => readonly Entry[],
  personId: () => string | null,
): ComputedRef<LastStrokes> =>
  computed(() => {
    const counted = entries()
      .filter((entry) => entry.kind === 'sharpened' && entry.method === 'fileField' && entry.strokes !== undefined)
      .sort((a, b) => a.happenedAt.localeCompare(b.happenedAt))
    const mine = counted.findLast((entry) => entry.personId === personId())
    const last = mine ?? counted.at(-1)
    if (last?.kind !== 'sharpened' || last.strokes === undefined) return USUAL
    return { ...(last.strokes as Record<Hand, number>), whose: mine === undefined ? 'anybody' : 'mine' }
  })
