import type { WoodStep } from '@undercliff/core'
import { computed } from 'vue'
import { keptRef } from '../remote/keptRef'
import { isToday } from '../remote/todaysEntries'

/** What a saw was last said to cut, and when: it holds for that day. */
type Said = Readonly<Record<string, { readonly step: WoodStep; readonly at: string }>>

/** The step of a progressive plate for a saw today: softer or harder wood than usual. Null where nobody said one. */
export function useWoodStep(sawId: () => string | null) {
  const said = keptRef<Said>('undercliff:wood-step', {})
  const key = computed(() => sawId() ?? 'bench')
  const step = computed((): WoodStep | null => {
    const one = said.value[key.value]
    return one !== undefined && isToday(one.at) ? one.step : null
  })
  const say = (is: WoodStep): void => {
    said.value = { ...said.value, [key.value]: { step: is, at: new Date().toISOString() } }
  }
  return { step, say }
}
