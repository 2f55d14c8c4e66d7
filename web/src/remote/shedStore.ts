import type { Crew, Person, Saw, ShedAnswer } from '@undercliff/contract'
import type { LoopCard } from '@undercliff/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { fetchShed } from './api'

const KEPT = 'undercliff:shed'

function keptShed(): ShedAnswer | null {
  try {
    return JSON.parse(localStorage.getItem(KEPT) ?? 'null') as ShedAnswer | null
  } catch {
    return null
  }
}

/** The whole shed as the server last told it; the last answer is kept for when it is away. */
export const useShed = defineStore('shed', () => {
  const answer = shallowRef<ShedAnswer | null>(keptShed())
  const away = ref(false)
  const loaded = ref(false)

  let asked = 0

  /** Asks for the shed; an answer that is overtaken by a later question is dropped. */
  async function load(): Promise<void> {
    asked += 1
    const mine = asked
    try {
      const fresh = await fetchShed()
      if (mine !== asked) return
      answer.value = fresh
      localStorage.setItem(KEPT, JSON.stringify(answer.value))
      away.value = false
      loaded.value = true
    } catch {
      away.value = true
    }
  }

  const crew = computed<Crew | null>(() => answer.value?.crew ?? null)
  const people = computed<readonly Person[]>(() => answer.value?.people ?? [])
  const saws = computed<readonly Saw[]>(() => answer.value?.saws ?? [])
  const loops = computed<readonly LoopCard[]>(() => answer.value?.loops ?? [])
  const lengths = computed(() => crew.value?.lengths ?? 'mm')
  const bareUnit = computed(() => (lengths.value === 'inch' ? 'inch' : 'mm'))
  const loopByTag = (tag: string): LoopCard | undefined => loops.value.find((loop) => loop.tag === tag)
  const nameOf = (personId: string | null): string => people.value.find(({ id }) => id === personId)?.name ?? 'nobody named'
  const sawName = (sawId: string): string => saws.value.find(({ id }) => id === sawId)?.nickname ?? 'a saw'

  return { answer, away, loaded, load, crew, people, saws, loops, lengths, bareUnit, loopByTag, nameOf, sawName }
})
