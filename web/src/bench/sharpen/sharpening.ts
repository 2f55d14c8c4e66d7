import { useLocalStorage } from '@vueuse/core'
import {
  planSharpening,
  walkOf,
  type Hand,
  type HouseRules,
  type LoopState,
  type SharpeningTool,
  type Sharpening,
  type WalkEvent,
} from '@undercliff/core'
import { computed, type ComputedRef } from 'vue'

/** A sharpening under way, as it is kept on the device: what was wanted, and what happened since. */
interface Kept {
  readonly action: Sharpening['action']
  readonly tool?: SharpeningTool
  readonly personId: string | null
  /** Settled with the first thing that happens, as the tool is: what happens is told by its place in the plan. */
  readonly first?: Hand
  readonly events: readonly WalkEvent[]
}

type EventBody = WalkEvent extends infer E ? (E extends { readonly at: string } ? Omit<E, 'at'> : never) : never

/** Steps that a person can be in longer than a day without it being forgotten work. */
const FORGOTTEN_MS = 24 * 3_600_000

/**
 * The sharpening of a loop: its plan, where it stands, and what moves it on. What happens is kept on the device at
 * once, so that a reload, a flat battery or a dead server lose nothing.
 *
 * @param fresh what is begun where nothing is under way
 */
export function useSharpening(
  tag: string,
  state: ComputedRef<LoopState | null>,
  rules: ComputedRef<HouseRules>,
  fresh: () => Omit<Kept, 'events'>,
) {
  const kept = useLocalStorage<Kept | null>(`undercliff:sharpening:${tag}`, null, {
    serializer: { read: (text) => JSON.parse(text) as Kept | null, write: (one) => JSON.stringify(one) },
  })
  const now = computed<Kept>(() => kept.value ?? { ...fresh(), events: [] })
  /** As text: what happens does not change what is wanted, and the plan is not worked out again for it. */
  const wanted = computed(() => {
    const { events: _events, ...rest } = now.value
    return JSON.stringify(rest)
  })
  const plan = computed(() =>
    state.value === null
      ? null
      : planSharpening({ ...state.value, decision: null }, rules.value, JSON.parse(wanted.value) as Sharpening),
  )
  const walk = computed(() => (plan.value === null ? null : walkOf(plan.value, now.value.events)))
  const events = computed(() => now.value.events)
  const add = (...more: readonly EventBody[]): void => {
    const at = new Date().toISOString()
    const { tool, sides } = plan.value ?? {}
    const first = sides?.[0]?.hand
    kept.value = {
      ...now.value,
      ...(tool === undefined ? {} : { tool }),
      ...(first === undefined ? {} : { first }),
      events: [...now.value.events, ...more.map((event) => ({ at, ...event }))],
    }
  }
  /** Takes the last thing back; a reading goes with the strokes that it was typed with. */
  const undo = (): void => {
    const last = now.value.events.at(-1)
    const together = now.value.events.findLastIndex(({ at }) => at !== last?.at)
    kept.value = { ...now.value, events: now.value.events.slice(0, together + 1) }
  }
  /** Another person, or another tool while nothing has happened yet. */
  const want = (part: Partial<Omit<Kept, 'events'>>): void => {
    const { first, ...rest } = now.value
    const settled = rest.events.length === 0 || first === undefined ? {} : { first }
    kept.value = { ...rest, ...settled, ...part }
  }
  const end = (): void => {
    kept.value = null
  }
  /** Whether it was left open since another day. */
  const leftOpen = computed(() => {
    const last = now.value.events.at(-1)
    return last !== undefined && Date.now() - Date.parse(last.at) > FORGOTTEN_MS
  })
  return { now, plan, walk, events, add, undo, want, end, leftOpen }
}
