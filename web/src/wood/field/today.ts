import type { AnyNewEntry } from '@undercliff/contract'
import { isOfSaw } from '@undercliff/contract'
import {
  asWritten,
  entriesThatCount,
  plural,
  ranOn,
  type Entry,
  type NewEntry,
  type SharpenMethod,
} from '@undercliff/core'
import { defineStore } from 'pinia'
import { computed, shallowRef, watch, type ComputedRef } from 'vue'
import { readLog } from '../../remote/keptLogs'
import { isToday, keptToday, onToday } from '../../remote/todaysEntries'
import { useOutbox } from '../../remote/outbox'
import { useShed } from '../../remote/shedStore'

/** What a kind of entry is called in the day's count; kinds that are no work in the wood are not counted. */
const COUNTED: Partial<Record<Entry['kind'], string>> = {
  struck: 'strike',
  fitted: 'swap',
  noticed: 'sign',
}

/** Kinds after which a loop is on another saw, or on none. */
const ROAMS: ReadonlySet<Entry['kind']> = new Set(['fitted', 'takenOff', 'moved', 'sentOut'])

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

/** Tanks that each saw ran today, by the loops that were on it then. */
function useTanksBySaw(all: ComputedRef<readonly Entry[]>, entries: ComputedRef<readonly Entry[]>) {
  const shed = useShed()
  /** Loops that ran today and went from saw to saw: where they were before is in their logs. */
  const roamed = computed(() => {
    const went = new Set(entries.value.filter(({ kind }) => ROAMS.has(kind)).map(({ loopId }) => loopId))
    const ran = entries.value.filter(({ kind, loopId }) => kind === 'ran' && went.has(loopId))
    return [...new Set(ran.map(({ loopId }) => loopId))].sort()
  })
  const logs = shallowRef<ReadonlyMap<string, readonly Entry[]>>(new Map())
  watch(
    () => roamed.value.join(' '),
    async () => {
      for (const loopId of roamed.value) {
        if (logs.value.has(loopId)) continue
        const log = await readLog(loopId)
        // Where nobody can say it now, it counts for the saw that the loop is on.
        if (log.length > 0) logs.value = new Map([...logs.value, [loopId, log]])
      }
    },
    { immediate: true },
  )
  const tanksBySaw = computed(() => {
    const saws = new Map<string, string | null>()
    for (const [loopId, log] of logs.value) {
      const known = new Set(log.map(({ id }) => id))
      const today = all.value.filter((entry) => entry.loopId === loopId && !known.has(entry.id))
      for (const [id, sawId] of ranOn([...log, ...today])) saws.set(id, sawId)
    }
    const onNow = new Map(shed.loops.map(({ loopId, sawId }) => [loopId, sawId]))
    const tanks = new Map<string, number>()
    for (const entry of entries.value) {
      if (entry.kind !== 'ran') continue
      const sawId = saws.has(entry.id) ? saws.get(entry.id) : onNow.get(entry.loopId)
      if (sawId != null) tanks.set(sawId, (tanks.get(sawId) ?? 0) + entry.tanks)
    }
    return tanks
  })
  return { tanksBySaw }
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
  /** Everything of today, corrections too, each once. */
  const all = computed((): readonly Entry[] => {
    const byId = new Map([...heard.value, ...waiting.value].map((entry) => [entry.id, entry]))
    return [...byId.values()].filter(({ happenedAt }) => isToday(happenedAt))
  })
  /** Entries of today that count, in their order. */
  const entries = computed((): readonly Entry[] => entriesThatCount(all.value))
  const { tanksBySaw } = useTanksBySaw(all, entries)
  const byPerson = computed(() => sayByPerson(entries.value, shed.nameOf))
  /** Loops on the truck that are fit and need nothing. */
  const sharpOnTruck = computed(() =>
    shed.loops.filter(({ place, action, fitForUse }) => place.at === 'truck' && fitForUse && action === 'runOn'),
  )
  return { entries, tanksBySaw, byPerson, sharpOnTruck }
})
