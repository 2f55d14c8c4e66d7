import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { useShed } from '../remote/shedStore'

/** Which loops of the shed are chosen, to be moved or to have tags printed. */
export const useChosen = defineStore('chosen', () => {
  const shed = useShed()
  const ids = ref<ReadonlySet<string>>(new Set())
  /** Whether a tap on a loop chooses it rather than opens it. */
  const choosing = ref(false)

  const loops = computed(() => shed.loops.filter(({ loopId }) => ids.value.has(loopId)))
  function toggle(loopId: string): void {
    const next = new Set(ids.value)
    if (!next.delete(loopId)) next.add(loopId)
    ids.value = next
  }
  function choose(loopIds: readonly string[]): void {
    ids.value = new Set(loopIds)
  }
  function clear(): void {
    ids.value = new Set()
    choosing.value = false
  }
  /** The loops that a move of this one moves: all that are chosen when it is one of them. */
  const withOthers = (loopId: string): readonly string[] => (ids.value.has(loopId) ? [...ids.value] : [loopId])

  return { ids, loops, choosing, toggle, choose, clear, withOthers }
})
