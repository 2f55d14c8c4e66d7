import { onShelf, type LoopCard } from '@undercliff/core'
import { nanoid } from 'nanoid'
import { defineStore } from 'pinia'
import { markRaw, ref, shallowRef } from 'vue'
import { useChosen } from '../parts/chosenStore'
import { FIRST_LOOK_MINUTES, LOOK_AGAIN_MINUTES, useReminders } from '../remote/reminders'
import { useSession } from '../remote/sessionStore'
import { useShed } from '../remote/shedStore'
import { useWriting } from '../remote/writing'
import { entriesFor, isAt, type Target } from './entriesFor'

/** Moving loops, one or many at a time; every move has an undo. */
// eslint-disable-next-line max-lines-per-function -- a store is one setup function
export const useMoves = defineStore('moves', () => {
  const shed = useShed()
  const writing = useWriting()
  const session = useSession()
  const chosen = useChosen()
  const reminders = useReminders()
  /** Whether the panel hears keys by itself, and those that were pressed before it did. */
  const isHeard = ref(false)
  const early: KeyboardEvent[] = []
  /** What the move panel is open for; null when it is closed. */
  const asked = shallowRef<{ readonly loopIds: readonly string[]; readonly sawId: string | null } | null>(null)

  const ask = (loopIds: readonly string[], sawId: string | null = null): void => {
    if (loopIds.length > 0) asked.value = { loopIds, sawId }
  }
  const close = (): void => {
    early.length = 0
    asked.value = null
  }

  /** Where a target is, as it stands in a sentence. */
  const whereIs = (target: Target): string => {
    if (target.to === 'saw') return `on ${shed.sawName(target.sawId)}`
    return target.to === 'shop' ? `at ${target.shop}` : onShelf(target.shelf)
  }

  /**
   * Moves loops.
   *
   * @returns null when it is written or kept on this device, or why it was refused
   */
  async function move(loopIds: readonly string[], target: Target): Promise<string | null> {
    const going = loopIds
      .map((id) => shed.loops.find(({ loopId }) => loopId === id))
      .filter((loop): loop is LoopCard => loop !== undefined && !loop.retired && !isAt(loop, target))
    const [first] = going
    if (first === undefined) {
      close()
      return null
    }
    const occupant = target.to === 'saw' ? shed.loopOn(target.sawId) : undefined
    const at = Date.now()
    const entries = going.flatMap((loop, i) =>
      entriesFor(loop, target, occupant, {
        personId: session.me?.personId ?? null,
        at: new Date(at + i * 3).toISOString(),
        newId: nanoid,
      }),
    )
    const what = going.length === 1 ? `${first.tag} is` : `${going.length} loops are`
    const off = occupant === undefined || occupant.loopId === first.loopId ? '' : `; ${occupant.tag} came off`
    const wrong = await writing.write(entries, `${what} ${whereIs(target)}${off}`)
    if (wrong !== null) return wrong
    if (target.to === 'saw')
      reminders.remindTension(target.sawId, target.tensionChecked ? LOOK_AGAIN_MINUTES : FIRST_LOOK_MINUTES)
    close()
    chosen.clear()
    return null
  }

  return { asked, isHeard, early: markRaw(early), ask, close, move }
})
