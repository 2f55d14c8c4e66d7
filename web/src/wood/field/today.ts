import type { AnyNewEntry } from '@undercliff/contract'
import { isOfSaw } from '@undercliff/contract'
import { asWritten, plural, struckOutIds, type Entry, type NewEntry, type SharpenMethod } from '@undercliff/core'
import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import { isToday, keptToday, onToday } from '../../remote/todaysEntries'
import { useOutbox } from '../../remote/outbox'
import { useShed } from '../../remote/shedStore'

/** What a kind of entry is called in the day's count; kinds that are no work in the wood are not counted. */
const COUNTED: Partial<Record<Entry['kind'], string>> = {
  struck: 'strike',
  fitted: 'swap',
  noticed: 'sign',
}

/** What a sharpening is called by where and how it was done. */
const SHARPENINGS: Readonly<Record<SharpenMethod, string>> = {
  fileField: 'touch-up',
  fileBench: 'filing',
  grinder: 'grind',
  shop: 'grind',
}

/** Tanks are what people look for first. */
const place = (what: string): number => (what === 'tank' ? 0 : 1)

/** What an entry counts as in the day, and how often; null for what is no work in the wood. */
function countedAs(entry: Entry): readonly [what: string, times: number] | null {
  if (entry.kind === 'ran') return ['tank', entry.tanks]
  const what = entry.kind === 'sharpened' ? SHARPENINGS[entry.method] : COUNTED[entry.kind]
  return what === undefined ? null : [what, 1]
}

/** What each person logged, in words. */
function sayByPerson(entries: readonly Entry[], nameOf: (personId: string | null) => string) {
  const people = new Map<string | null, Map<string, number>>()
  for (const entry of entries) {
    const counted = countedAs(entry)
    if (counted === null) continue
    const [what, times] = counted
    const mine = people.get(entry.personId) ?? new Map<string, number>()
    mine.set(what, (mine.get(what) ?? 0) + times)
    people.set(entry.personId, mine)
  }
  return [...people].map(([personId, counts]) => ({
    name: nameOf(personId),
    did: [...counts]
      .sort(([a], [b]) => place(a) - place(b))
      .map(([what, count]) => plural(count, what))
      .join(', '),
  }))
}

/** What was logged today, by anybody, as far as this device has heard; what waits on it counts too. */
export const useToday = defineStore('today', () => {
  const outbox = useOutbox()
  const shed = useShed()
  const heard = shallowRef<readonly Entry[]>(keptToday())
  onToday((entries) => {
    heard.value = entries
  })
  const waiting = computed(() =>
    outbox.waiting
      .flatMap(({ entries }: { readonly entries: readonly AnyNewEntry[] }) => entries)
      .filter((entry): entry is NewEntry => !isOfSaw(entry))
      .map((entry) => asWritten(entry)),
  )
  /** Entries of today that count, each once. */
  const entries = computed((): readonly Entry[] => {
    const all = new Map([...heard.value, ...waiting.value].map((entry) => [entry.id, entry]))
    const list = [...all.values()].filter(({ happenedAt }) => isToday(happenedAt))
    const struck = struckOutIds(list)
    return list.filter(({ id, kind }) => kind !== 'corrected' && !struck.has(id))
  })
  const sawOf = (loopId: string): string | null => shed.loops.find((loop) => loop.loopId === loopId)?.sawId ?? null

  /** Tanks that each saw ran today, by the loops that are on them. */
  const tanksBySaw = computed(() => {
    const tanks = new Map<string, number>()
    for (const entry of entries.value) {
      if (entry.kind !== 'ran') continue
      const sawId = sawOf(entry.loopId)
      if (sawId !== null) tanks.set(sawId, (tanks.get(sawId) ?? 0) + entry.tanks)
    }
    return tanks
  })
  const byPerson = computed(() => sayByPerson(entries.value, shed.nameOf))
  /** Loops on the truck that are fit and need nothing. */
  const sharpOnTruck = computed(() =>
    shed.loops.filter(({ place, action, fitForUse }) => place.at === 'truck' && fitForUse && action === 'runOn'),
  )
  return { entries, tanksBySaw, byPerson, sharpOnTruck }
})
