import type { KitAnswer } from '@undercliff/contract'
import { fileLife, kitDue, wheelLife, type KitItem, type KitUsage } from '@undercliff/core'
import { keptRef } from './keptRef'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { fetchKit, putKitItem, ServerAway } from './api'
import { useShed } from './shedStore'

type WithoutVersion = KitItem extends infer T ? (T extends KitItem ? Omit<T, 'version'> : never) : never

/** So long what was heard of the kit is not asked for again, in ms. */
const HEARD_MS = 60_000

/** What the crew sharpens and measures with, and what each thing of it has done. */
export const useKit = defineStore('kit', () => {
  const shed = useShed()
  /** As it was last heard, so that a sharpening knows its files without a server. */
  const heard = keptRef<readonly KitUsage[]>('undercliff:kit-usage', [])
  const wrong = ref('')
  /** Whether nothing answered when it was asked last. */
  const away = ref(false)
  const all = computed<readonly KitItem[]>(() => shed.answer?.kit ?? [])
  const kit = computed(() => all.value.filter(({ gone }) => gone === undefined))
  const usageOf = (id: string): KitUsage =>
    heard.value.find((one) => one.id === id) ?? { id, used: 0, sharpenings: 0, lastAt: null, bite: 1, told: 0 }
  const due = computed(() => kitDue(all.value, heard.value))
  const strokesLast = computed(() => fileLife(all.value, heard.value).mean)
  const loopsLast = computed(() => wheelLife(all.value, heard.value).mean)

  async function load(): Promise<void> {
    try {
      const answer: KitAnswer = await fetchKit()
      heard.value = answer.usage
      away.value = false
      wrong.value = ''
    } catch (error) {
      away.value = error instanceof ServerAway
      wrong.value = (error as Error).message
    }
  }

  let lastHeard = -Infinity
  /** Asks for it where it was not heard within a minute: what is drawn does not wait for it. */
  async function hear(): Promise<void> {
    if (performance.now() - lastHeard < HEARD_MS) return
    lastHeard = performance.now()
    await load()
  }

  /**
   * Adds a thing, or changes it against the version that is shown.
   *
   * @returns whether it is kept; why not is said in `wrong`
   */
  async function put(item: WithoutVersion): Promise<boolean> {
    const before = all.value.find(({ id }) => id === item.id)
    try {
      await putKitItem({ ...item, version: before?.version ?? 1 })
      wrong.value = ''
      return true
    } catch (error) {
      wrong.value = (error as Error).message
      return false
    } finally {
      await shed.load()
    }
  }

  return { all, kit, due, usageOf, strokesLast, loopsLast, wrong, away, load, hear, put }
})
