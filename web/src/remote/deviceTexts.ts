import { openDB, type DBSchema, type IDBPDatabase } from 'idb'

/** Where texts are kept: small and many, all of them in memory while a page is open. */
export const TEXTS = 'texts'
const DATABASE = 'undercliff'
const CHANNEL = 'undercliff-device'
/** How long a database may take to open before the page goes on without it, in ms. */
const OPEN_MS = 4000

export interface Schema extends DBSchema {
  [TEXTS]: { key: string; value: string }
}

export type TextDatabase = IDBPDatabase<Schema>

/** What a page of this device tells the others that it changed: the text under a key, null where it is kept no more. */
export interface Change {
  readonly key: string
  readonly text: string | null
}

/** The database that texts are kept in, and everything that was in it when it was opened. */
export interface Reading {
  readonly database: TextDatabase
  readonly texts: readonly (readonly [key: string, text: string])[]
  /** Where the pages of this device tell each other what they change, and what was told since it was read. */
  readonly channel: BroadcastChannel
  readonly told: readonly Change[]
}

let isTaken = false
const note = (): void => {
  isTaken = true
}
let takenAway = note

/** What is done when the database is taken away under an open page; at once where it was taken already. */
export function onTakenAway(act: () => void): void {
  takenAway = act
  const already = isTaken
  isTaken = false
  if (already) act()
}

export const openTexts = (): Promise<TextDatabase> =>
  openDB<Schema>(DATABASE, 1, {
    upgrade: (fresh) => {
      fresh.createObjectStore(TEXTS)
    },
    blocking: (_now, _wanted, event) => {
      // A later version in another tab wants to change it, or somebody wipes it: this page asks anew.
      ;(event.target as IDBDatabase).close()
      takenAway()
    },
    terminated: () => {
      takenAway()
    },
  })

const late = (ms: number): Promise<never> =>
  new Promise((_resolve, reject) => {
    setTimeout(() => {
      reject(new Error('the database does not open'))
    }, ms)
  })

/**
 * Opens the database and reads all of it. It needs nothing of the application, so that a page begins with it while
 * the rest is fetched and got ready: on a phone each takes its time.
 *
 * @throws where the browser has no database, or it does not open in time
 */
export async function openAndRead(): Promise<Reading> {
  ;[takenAway, isTaken] = [note, false]
  if ((globalThis as { indexedDB?: IDBFactory }).indexedDB === undefined) throw new Error('there is none')
  const database = await Promise.race([openTexts(), late(OPEN_MS)])
  const told: Change[] = []
  const channel = new BroadcastChannel(CHANNEL)
  channel.onmessage = ({ data }: MessageEvent<Change>) => told.push(data)
  const [keys, values] = await Promise.all([database.getAllKeys(TEXTS), database.getAll(TEXTS)])
  return { database, texts: keys.map((key, i) => [key, values[i] ?? '']), channel, told }
}
