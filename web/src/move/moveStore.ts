import { onShelf, type LoopCard } from '@undercliff/core'
import { nanoid } from 'nanoid'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { useSession } from '../remote/sessionStore'
import { useShed } from '../remote/shedStore'
import { useWriting } from '../remote/writing'
import { entriesFor, isAt, type Target } from './entriesFor'

/** Which loops are chosen, and moving them; every move has an undo. */
export const useMoves = defineStore('moves', () => {
  const shed = useShed()
  const writing = useWriting()
  const session = useSession()
  const chosen = ref<ReadonlySet<string>>(new Set())
  /** Whether a tap on a loop chooses it rather than opens it. */
  const choosing = ref(false)
  /** What the move panel is open for; null when it is closed. */
  const asked = shallowRef<{ readonly loopIds: readonly string[]; readonly sawId: string | null } | null>(null)

  const chosenLoops = computed(() => shed.loops.filter(({ loopId }) => chosen.value.has(loopId)))
  const toggle = (loopId: string): void => {
    const next = new Set(chosen.value)
    if (!next.delete(loopId)) next.add(loopId)
    chosen.value = next
  }
  const choose = (loopIds: readonly string[]): void => {
    chosen.value = new Set(loopIds)
  }
  const clear = (): void => {
    chosen.value = new Set()
    choosing.value = false
  }
  /** The loops that a move of this one moves: all that are chosen when it is one of them. */
  const withChosen = (loopId: string): readonly string[] => (chosen.value.has(loopId) ? [...chosen.value] : [loopId])

  const ask = (loopIds: readonly string[], sawId: string | null = null): void => {
    if (loopIds.length > 0) asked.value = { loopIds, sawId }
  }
  const close = (): void => {
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
    close()
    clear()
    return null
  }

  return { chosen, chosenLoops, choosing, asked, toggle, choose, clear, withChosen, ask, close, move }
})
