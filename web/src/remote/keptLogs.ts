import type { LogsAnswer } from '@undercliff/contract'
import type { Entry } from '@undercliff/core'
import { fetchLoop } from './api'
import { openDB, type DBSchema, type IDBPDatabase } from 'idb'

/** Every log of the crew, for when nothing answers: larger than what is held in memory, and read one by one. */
interface Schema extends DBSchema {
  loops: { key: string; value: readonly Entry[] }
  /** Whose logs they are, and up to where they were read. */
  place: { key: 'place'; value: { readonly crewId: string; readonly since: string } }
}

const DATABASE = 'undercliff-logs'
let opened: Promise<IDBPDatabase<Schema> | null> | null = null

const open = async (): Promise<IDBPDatabase<Schema>> =>
  openDB<Schema>(DATABASE, 1, {
    upgrade: (fresh) => {
      fresh.createObjectStore('loops')
      fresh.createObjectStore('place')
    },
    terminated: () => {
      opened = null
    },
  })

/** The database; null where the browser has none. */
const database = (): Promise<IDBPDatabase<Schema> | null> =>
  (opened ??= open().catch(() => {
    // Another time it may open.
    opened = null
    return null
  }))

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
  const change = db.transaction(['loops', 'place'], 'readwrite')
  const before = await change.objectStore('place').get('place')
  const loops = change.objectStore('loops')
  if (before !== undefined && before.crewId !== crewId) await loops.clear()
  for (const [loopId, more] of byLoop(entries)) await loops.put(withMore((await loops.get(loopId)) ?? [], more), loopId)
  await change.objectStore('place').put({ crewId, since }, 'place')
  await change.done
}

/** The log of a loop as it was last heard; empty where none is kept. */
export async function keptLog(loopId: string): Promise<readonly Entry[]> {
  return (await (await database())?.get('loops', loopId).catch(() => undefined)) ?? []
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
  await Promise.all([db?.clear('loops'), db?.clear('place')]).catch(() => undefined)
}
