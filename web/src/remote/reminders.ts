import type { NewSawEntry } from '@undercliff/core'
import { keptRef } from './keptRef'
import { nanoid } from 'nanoid'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { useSession } from './sessionStore'
import { useShed } from './shedStore'
import { useWriting } from './writing'

/** What is asked for of a saw. */
type Asked = 'tension' | 'oil'

/** Something that is due on a saw. */
interface Reminder {
  readonly sawId: string
  /** The tension where it is left out, as the first version kept it. */
  readonly what?: Asked
  readonly dueAt: number
}

const MINUTE_MS = 60_000
/** The first look once something went on, or was touched up: after a minute of running. Common practice. */
export const FIRST_LOOK_MINUTES = 1
/** From then on every ten to fifteen minutes of cutting, until it stays. Common practice. */
export const LOOK_AGAIN_MINUTES = 10
const LATER_MINUTES = 5

const whatOf = ({ what = 'tension' }: Reminder): Asked => what

/** Looks at the tension and oil that are due, kept on the device, each answered by one tap. */
// eslint-disable-next-line max-lines-per-function -- a store is one setup function
export const useReminders = defineStore('reminders', () => {
  const writing = useWriting()
  const session = useSession()
  const shed = useShed()
  const all = keptRef<readonly Reminder[]>('undercliff:reminders', [])
  /** Saws whose oil nobody wants to be asked for on this device. */
  const withoutOil = keptRef<readonly string[]>('undercliff:no-oil', [])
  const nowMs = ref(Date.now())
  setInterval(() => {
    nowMs.value = Date.now()
  }, 10_000)
  const due = computed(() =>
    all.value.filter(({ dueAt }) => dueAt <= nowMs.value).map((one) => ({ sawId: one.sawId, what: whatOf(one) })),
  )

  function forget(sawId: string, what: Asked): void {
    all.value = all.value.filter((one) => one.sawId !== sawId || whatOf(one) !== what)
  }
  function remind(sawId: string, what: Asked, minutes: number): void {
    forget(sawId, what)
    all.value = [...all.value, { sawId, what, dueAt: Date.now() + minutes * MINUTE_MS }]
    nowMs.value = Date.now()
  }
  /** The tension of a saw is to be looked at after so many minutes. */
  const remindTension = (sawId: string, minutes = LOOK_AGAIN_MINUTES): void => {
    remind(sawId, 'tension', minutes)
  }
  /** A tank was filled, and oil goes with every tank. */
  function remindOil(sawId: string): void {
    if (!withoutOil.value.includes(sawId)) remind(sawId, 'oil', FIRST_LOOK_MINUTES)
  }

  const base = (sawId: string) => ({
    id: nanoid(),
    sawId,
    happenedAt: new Date().toISOString(),
    personId: session.me?.personId ?? null,
  })
  /** Writes the answer. */
  const answer = async (entry: NewSawEntry, said: string): Promise<boolean> =>
    (await writing.write([entry], `${shed.sawName(entry.sawId)}: ${said}`)) === null
  /** Somebody looked: it stayed, or was tightened and is looked at again. */
  async function looked(sawId: string, stayed: boolean): Promise<void> {
    const said = stayed ? 'the tension stays' : 'tightened; it is looked at again'
    if (!(await answer({ ...base(sawId), kind: 'tensionLooked', stayed }, said))) return
    if (stayed) forget(sawId, 'tension')
    else remindTension(sawId)
  }
  async function oiled(sawId: string): Promise<void> {
    if (await answer({ ...base(sawId), kind: 'oilFilled' }, 'oil filled')) forget(sawId, 'oil')
  }
  /** It is not asked for any more: it was written down in another way, or what it came of was taken back. */
  const settled = (sawId: string, what: Asked): void => {
    forget(sawId, what)
  }
  /** It is not asked for again on this device. */
  function neverOil(sawId: string): void {
    forget(sawId, 'oil')
    withoutOil.value = [...withoutOil.value.filter((id) => id !== sawId), sawId]
  }
  const later = (sawId: string, what: Asked): void => {
    remind(sawId, what, LATER_MINUTES)
  }
  return { due, remindTension, remindOil, looked, oiled, settled, neverOil, later }
})
