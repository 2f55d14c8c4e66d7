import { computed, watch } from 'vue'
import { useLoop } from './loopStore'
import { useShed } from './shedStore'

/** Brings up the loop whose tag stands in the address, with the shed and the rules it is judged by. */
export function useOpenLoop(tag: () => string) {
  const loop = useLoop()
  const shed = useShed()
  watch(tag, (wanted) => void loop.open(wanted), { immediate: true })
  // Somebody else logged something of it.
  watch(
    () => shed.loopByTag(tag())?.lastEntryAt,
    (latest) => {
      if (latest === undefined || loop.status !== 'ready') return
      if (!loop.entries.some(({ happenedAt }) => happenedAt === latest)) void loop.open(tag())
    },
  )
  return { loop, shed, rules: computed(() => shed.rules) }
}
