import { MOST_ENTRIES } from '@undercliff/contract'
import type { LoopCard, NewEntry } from '@undercliff/core'
import { SHELF_NAMES } from '@undercliff/core'
import { nanoid } from 'nanoid'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { useNotices } from '../remote/notices'
import { useOutbox } from '../remote/outbox'
import { useSession } from '../remote/sessionStore'
import { useShed } from '../remote/shedStore'
import { entriesFor, isAt, type Target } from './entriesFor'

/** Which loops are chosen, and moving them; every move has an undo. */
export const useMoves = defineStore('moves', () => {
  const shed = useShed()
  const outbox = useOutbox()
  const notices = useNotices()
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

  const placeName = (target: Target): string =>
    target.to === 'saw'
      ? shed.sawName(target.sawId)
      : target.to === 'shop'
        ? target.shop
        : `the ${SHELF_NAMES[target.shelf]}`

  async function sendAll(entries: readonly NewEntry[]): Promise<string | null> {
    for (let from = 0; from < entries.length; from += MOST_ENTRIES) {
      const result = await outbox.send(entries.slice(from, from + MOST_ENTRIES))
      if (result.outcome === 'refused') return result.why
    }
    return null
  }

  /** Strikes moves out again, the last first. */
  async function undo(entries: readonly NewEntry[]): Promise<void> {
    const at = Date.now()
    const corrections = [...entries]
      .reverse()
      .map(({ id, loopId }, i): NewEntry => ({
        id: nanoid(),
        loopId,
        happenedAt: new Date(at + i).toISOString(),
        personId: session.me?.personId ?? null,
        kind: 'corrected',
        strikes: id,
      }))
    const wrong = await sendAll(corrections)
    await shed.load()
    notices.say(wrong ?? 'Undone.')
  }

  /**
   * Moves loops.
   *
   * @returns null when it is written or kept on this device, or why it was refused
   */
  async function move(loopIds: readonly string[], target: Target): Promise<string | null> {
    const loops = loopIds
      .map((id) => shed.loops.find(({ loopId }) => loopId === id))
      .filter((loop): loop is LoopCard => loop !== undefined && !loop.retired)
    const going = loops.filter((loop) => !isAt(loop, target))
    if (going.length === 0) {
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
    const wrong = await sendAll(entries)
    // What the panel and the shed show next has to be what is so now.
    await shed.load()
    if (wrong !== null) return wrong
    close()
    clear()
    const [first] = going
    const what = going.length === 1 && first !== undefined ? first.tag : `${going.length} loops`
    const off = occupant === undefined || occupant.loopId === first?.loopId ? '' : `; ${occupant.tag} came off`
    notices.say(
      `${what} ${going.length === 1 ? 'is' : 'are'} ${target.to === 'saw' ? 'on' : target.to === 'shop' ? 'at' : 'in'} ${placeName(target)}${off}.`
        .replace('in the truck', 'on the truck')
        .replace('in the sharp rack', 'on the sharp rack')
        .replace('in the bench', 'on the bench'),
      () => undo(entries),
    )
    return null
  }

  return { chosen, chosenLoops, choosing, asked, toggle, choose, clear, withChosen, ask, close, move }
})
