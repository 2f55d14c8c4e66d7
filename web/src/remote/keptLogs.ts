import type { LogsAnswer } from '@undercliff/contract'
import type { Entry, SawEntry } from '@undercliff/core'
import { openDB, type DBSchema, type IDBPDatabase } from 'idb'

/** Every log of the crew, for when nothing answers: larger than what is held in memory, and read one by one. */
interface Schema extends DBSchema {
  loops: { key: string; value: readonly Entry[] }
  saws: { key: string; value: readonly SawEntry[] }
  /** Whose logs they are, and up to where they were read. */
  place: { key: 'place'; value: { readonly crewId: string; readonly since: string } }
}

const DATABASE = 'undercliff-logs'
let opened: Promise<IDBPDatabase<Schema> | null> | null = null

const open = async (): Promise<IDBPDatabase<Schema>> =>
  openDB<Schema>(DATABASE, 1, {
    upgrade: (fresh) => {
      fresh.createObjectStore('loops')
      fresh.createObjectStore('saws')
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
function withMore<E extends { readonly id: string }>(before: readonly E[], more: readonly E[]): readonly E[] {
  const known = new Set(before.map(({ id }) => id))
  return [...before, ...more.filter(({ id }) => !known.has(id))]
}

function grouped<E>(entries: readonly E[], idOf: (entry: E) => string): Map<string, E[]> {
  const groups = new Map<string, E[]>()
  for (const entry of entries) {
    const group = groups.get(idOf(entry))
    if (group === undefined) groups.set(idOf(entry), [entry])
    else group.push(entry)
  }
  return groups
}

/** Where the logs of a crew were read up to; null where none of its were kept. */
export async function keptPlace(crewId: string): Promise<string | null> {
  const place = await (await database())?.get('place', 'place').catch(() => undefined)
  return place?.crewId === crewId ? place.since : null
}

/** Keeps what was written to a crew's logs; of another crew's nothing stays. All of it is kept, or nothing. */
export async function keepLogs(crewId: string, { entries, sawEntries, place: since }: LogsAnswer): Promise<void> {
  const db = await database()
  if (db === null) return
  const change = db.transaction(['loops', 'saws', 'place'], 'readwrite')
  const before = await change.objectStore('place').get('place')
  const [loops, saws] = [change.objectStore('loops'), change.objectStore('saws')]
  if (before !== undefined && before.crewId !== crewId) await Promise.all([loops.clear(), saws.clear()])
  for (const [loopId, more] of grouped(entries, (entry) => entry.loopId))
    await loops.put(withMore((await loops.get(loopId)) ?? [], more), loopId)
  for (const [sawId, more] of grouped(sawEntries, (entry) => entry.sawId))
    await saws.put(withMore((await saws.get(sawId)) ?? [], more), sawId)
  await change.objectStore('place').put({ crewId, since }, 'place')
  await change.done
}

/** The log of a loop as it was last heard; empty where none is kept. */
export async function keptLog(loopId: string): Promise<readonly Entry[]> {
  return (await (await database())?.get('loops', loopId).catch(() => undefined)) ?? []
}

/** The log of a saw as it was last heard; empty where none is kept. */
export async function keptSawLog(sawId: string): Promise<readonly SawEntry[]> {
  return (await (await database())?.get('saws', sawId).catch(() => undefined)) ?? []
}

/** Keeps none any more: another crew signs in, or the device has no room for what was typed. */
export async function forgetLogs(): Promise<void> {
  const db = await database().catch(() => null)
  await Promise.all([db?.clear('loops'), db?.clear('saws'), db?.clear('place')]).catch(() => undefined)
}
