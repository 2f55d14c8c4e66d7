import { useIntervalFn } from '@vueuse/core'
import { keptRef } from './keptRef'
import { nanoid } from 'nanoid'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { useSession } from './sessionStore'
import { useShed } from './shedStore'
import { useWriting } from './writing'

/** A look that is due on a saw. */
interface Reminder {
  readonly sawId: string
  readonly dueAt: number
}

const MINUTE_MS = 60_000
/** After fitting every ten to fifteen minutes of cutting, until it stays. Common practice. */
export const LOOK_AGAIN_MINUTES = 10
const LATER_MINUTES = 5

/** Looks at the tension that are due, kept on the device and answered by one tap. */
export const useReminders = defineStore('reminders', () => {
  const writing = useWriting()
  const session = useSession()
  const shed = useShed()
  const all = keptRef<readonly Reminder[]>('undercliff:reminders', [])
  const nowMs = ref(Date.now())
  useIntervalFn(() => {
    nowMs.value = Date.now()
  }, 10_000)
  const due = computed(() => all.value.filter(({ dueAt }) => dueAt <= nowMs.value))
  const coming = computed(() => all.value.filter(({ dueAt }) => dueAt > nowMs.value))

  function forget(sawId: string): void {
    all.value = all.value.filter((one) => one.sawId !== sawId)
  }
  /** The tension of a saw is to be looked at after so many minutes. */
  function remind(sawId: string, minutes = LOOK_AGAIN_MINUTES): void {
    forget(sawId)
    all.value = [...all.value, { sawId, dueAt: Date.now() + minutes * MINUTE_MS }]
    nowMs.value = Date.now()
  }
  /** Somebody looked: it stayed, or was tightened and is looked at again. */
  async function looked(sawId: string, stayed: boolean): Promise<void> {
    const entry = {
      id: nanoid(),
      sawId,
      happenedAt: new Date().toISOString(),
      personId: session.me?.personId ?? null,
      kind: 'tensionLooked' as const,
      stayed,
    }
    const said = `${shed.sawName(sawId)}: ${stayed ? 'the tension stays' : 'tightened; it is looked at again'}`
    if ((await writing.write([entry], said)) !== null) return
    if (stayed) forget(sawId)
    else remind(sawId)
  }
  const later = (sawId: string): void => {
    remind(sawId, LATER_MINUTES)
  }
  return { due, coming, remind, looked, later }
})
