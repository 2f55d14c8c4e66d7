import type { Crew, EntriesAnswer, Person, Saw, ShedAnswer } from '@undercliff/contract'
import {
  DEFAULT_RULES,
  whatNext,
  type CrewProfile,
  type Figures,
  type HouseRules,
  type LoopCard,
} from '@undercliff/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { groupShed } from './groupShed'
import { KEPT_SHED } from './keptShed'
import { useOutbox } from './outbox'
import { fetchShed, SignedOut } from './api'

const KEEP_AFTER_MS = 400

function keptShed(): ShedAnswer | null {
  try {
    return JSON.parse(localStorage.getItem(KEPT_SHED) ?? 'null') as ShedAnswer | null
  } catch {
    return null
  }
}

/** The whole shed as the server last told it; the last answer is kept for when it is away. */
// eslint-disable-next-line max-lines-per-function -- a store is one setup function
export const useShed = defineStore('shed', () => {
  const answer = shallowRef<ShedAnswer | null>(keptShed())
  const away = ref(false)
  const loaded = ref(false)

  let asked = 0
  /** Answers to entries that were taken. */
  let taken = 0
  let version: string | null = null

  /** Keeps the answer on the device once nobody waits for the page. */
  function keepSoon(): void {
    clearTimeout(keeping)
    keeping = setTimeout(() => {
      try {
        if (answer.value !== null) localStorage.setItem(KEPT_SHED, JSON.stringify(answer.value))
      } catch {
        // The device has no room: the shed is asked for anew when the page is opened.
      }
    }, KEEP_AFTER_MS)
  }
  let keeping: ReturnType<typeof setTimeout> | undefined

  /**
   * Asks for the shed. An answer that is overtaken by a later question is dropped; one that entries
   * overtook while it was on its way is asked for again.
   */
  async function load(): Promise<void> {
    asked += 1
    const [mine, before] = [asked, taken]
    try {
      const fresh = await fetchShed(loaded.value ? version : null)
      if (mine !== asked) return
      if (before !== taken) {
        await load()
        return
      }
      if (fresh !== null) {
        answer.value = fresh.shed
        version = fresh.version
        keepSoon()
      }
      away.value = false
      loaded.value = true
    } catch (error) {
      away.value = !(error instanceof SignedOut)
    }
  }

  /** Takes what entries changed, so that the whole shed need not be asked for anew. */
  function take({ cards, saws: changed }: EntriesAnswer): void {
    taken += 1
    if (answer.value === null) return
    const replaced = <T>(all: readonly T[], some: readonly T[], idOf: (one: T) => string): T[] => {
      const byId = new Map(some.map((one) => [idOf(one), one]))
      const kept = all.map((one) => byId.get(idOf(one)) ?? one)
      const known = new Set(all.map(idOf))
      return [...kept, ...some.filter((one) => !known.has(idOf(one)))]
    }
    answer.value = {
      ...answer.value,
      loops: replaced(answer.value.loops, cards, ({ loopId }) => loopId),
      saws: replaced(answer.value.saws, changed, ({ id }) => id),
    }
    keepSoon()
  }
  useOutbox().onWritten(take)

  /** Forgets everything, when another crew signs in. */
  function forget(): void {
    asked += 1
    clearTimeout(keeping)
    answer.value = null
    version = null
    loaded.value = false
  }

  const crew = computed<Crew | null>(() => answer.value?.crew ?? null)
  /** House rules, or those that ship while the shed has not answered. */
  const rules = computed<HouseRules>(() => crew.value?.rules ?? DEFAULT_RULES)
  const people = computed<readonly Person[]>(() => answer.value?.people ?? [])
  const saws = computed<readonly Saw[]>(() => answer.value?.saws ?? [])
  const profiles = computed<readonly CrewProfile[]>(() => answer.value?.profiles ?? [])
  const loops = computed<readonly LoopCard[]>(() => answer.value?.loops ?? [])
  /** Worked out once for each answer, however often a screen that shows it is opened. */
  const grouped = computed(() => groupShed(saws.value, loops.value))
  const due = computed(() => whatNext(loops.value))
  const lengths = computed(() => crew.value?.lengths ?? 'mm')
  /** How this crew reads lengths and money. */
  const figures = computed<Figures>(() => ({
    lengths: lengths.value,
    currency: rules.value.currency,
  }))
  const bareUnit = computed((): 'mm' | 'inch' => (lengths.value === 'inch' ? 'inch' : 'mm'))
  const byTag = computed(() => new Map(loops.value.map((loop) => [loop.tag, loop])))
  const loopByTag = (tag: string): LoopCard | undefined => byTag.value.get(tag)
  const nameOf = (personId: string | null): string =>
    people.value.find(({ id }) => id === personId)?.name ?? 'nobody named'
  const bySawId = computed(() => new Map(saws.value.map((saw) => [saw.id, saw])))
  const sawName = (sawId: string): string => bySawId.value.get(sawId)?.nickname ?? 'a saw'
  const loopOn = (sawId: string): LoopCard | undefined => loops.value.find((loop) => loop.sawId === sawId)

  return {
    answer,
    away,
    loaded,
    load,
    take,
    forget,
    crew,
    rules,
    people,
    saws,
    profiles,
    loops,
    grouped,
    due,
    lengths,
    figures,
    bareUnit,
    loopByTag,
    nameOf,
    sawName,
    loopOn,
  }
})
