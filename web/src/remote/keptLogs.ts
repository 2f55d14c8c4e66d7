import type { LogsAnswer, SawAnswer } from '@undercliff/contract'
import type { Entry } from '@undercliff/core'
import { fetchLoop } from './api'
import type { DBSchema } from 'idb'
import { keptDatabase } from './keptDatabase'

/** Every log of the crew, for when nothing answers: larger than what is held in memory, and read one by one. */
interface Schema extends DBSchema {
  loops: { key: string; value: readonly Entry[] }
  /** Saws with their logs, and what the shed said of each when they were read. */
  saws: { key: string; value: { readonly answer: SawAnswer; readonly said: string } }
  /** Whose logs they are, and up to where they were read. */
  place: { key: 'place'; value: { readonly crewId: string; readonly since: string } }
}

const { get: database } = keptDatabase<Schema>('undercliff-logs', 2, (fresh, before) => {
  if (before < 1) {
    fresh.createObjectStore('loops')
    fresh.createObjectStore('place')
  }
  fresh.createObjectStore('saws')
})

/** Entries with some more, each once; what was there before stays as it was. */
function withMore(before: readonly Entry[], more: readonly Entry[]): readonly Entry[] {
  const known = new Set(before.map(({ id }) => id))
  return [...before, ...more.filter(({ id }) => !known.has(id))]
}

/** Entries by their loop. */
function byLoop(entries: readonly Entry[]): Map<string, Entry[]> {
  const groups = new Map<string, Entry[]>()
  for (const entry of entries) groups.set(entry.loopId, [...(groups.get(entry.loopId) ?? []), entry])
  return groups
}

/** Where the logs of a crew were read up to; null where none of its were kept. */
export async function keptPlace(crewId: string): Promise<string | null> {
  const place = await (await database())?.get('place', 'place').catch(() => undefined)
  return place?.crewId === crewId ? place.since : null
}

/** Keeps what was written to a crew's logs; of another crew's nothing stays. All of it is kept, or nothing. */
export async function keepLogs(crewId: string, { entries, place: since }: LogsAnswer): Promise<void> {
  const db = await database()
  if (db === null) return
  const change = db.transaction(['loops', 'saws', 'place'], 'readwrite')
  const before = await change.objectStore('place').get('place')
  const loops = change.objectStore('loops')
  if (before !== undefined && before.crewId !== crewId) {
    await loops.clear()
    await change.objectStore('saws').clear()
  }
  for (const [loopId, more] of byLoop(entries)) await loops.put(withMore((await loops.get(loopId)) ?? [], more), loopId)
  await change.objectStore('place').put({ crewId, since }, 'place')
  await change.done
}

/** The log of a loop as it was last heard; empty where none is kept. */
export async function keptLog(loopId: string): Promise<readonly Entry[]> {
  return (await (await database())?.get('loops', loopId).catch(() => undefined)) ?? []
}

/** A saw and its log as they were last heard, and what the shed said of it then; null where none is kept. */
export async function keptSaw(sawId: string): Promise<Schema['saws']['value'] | null> {
  return (await (await database())?.get('saws', sawId).catch(() => undefined)) ?? null
}

/**
 * Keeps a saw and its log for when nothing answers.
 *
 * @param said what the shed says of it meanwhile, as text
 */
export async function keepSaw(answer: SawAnswer, said: string): Promise<void> {
  await (await database())?.put('saws', { answer, said }, answer.saw.id).catch(() => undefined)
}

/** The log of a loop as this device has kept it, else as the server has it; empty where neither can say. */
export async function readLog(loopId: string): Promise<readonly Entry[]> {
  const kept = await keptLog(loopId)
  if (kept.length > 0) return kept
  return fetchLoop(loopId).then(
    ({ entries }) => entries,
    () => [],
  )
}

/** Keeps none any more: another crew signs in, or the device has no room for what was typed. */
export async function forgetLogs(): Promise<void> {
  const db = await database().catch(() => null)
  await Promise.all([db?.clear('loops'), db?.clear('saws'), db?.clear('place')]).catch(() => undefined)
}
