import { shallowRef } from 'vue'
import { onTakenAway, openAndRead, openTexts, TEXTS, type Change, type TextDatabase } from './deviceTexts'

/** What became of something that was to be kept on the device. */
export type Keeping = 'kept' | 'noRoom' | 'forbidden'

/** Whether the browser lets this page keep anything at all; null before anybody tried. */
export const mayKeep = shallowRef<boolean | null>(null)

/** Whether the browser, or somebody, cleared what this device kept while a page was open. */
export const wasCleared = shallowRef(false)

/** What an earlier version kept, and where there is no database what is kept, begins so. */
const OURS = 'undercliff:'
/** What is kept no more, until the database has heard of it. */
const GONE = 'undercliff-gone:'
/** Longer texts can be asked for anew, and are not written down at once. */
const LONGEST_AT_ONCE = 200_000
/** How long a page waits before it opens a database anew that was taken from it, in ms. */
const AGAIN_MS = 250

/** What another page of this device changed: the text under a key, null where it is kept no more. */
type Elsewhere = (key: string, text: string | null) => void

let database: TextDatabase | null = null
/** Whether all of it is in memory: it came from the database, which may be taken away and come back. */
let inMemory = false
const texts = new Map<string, string>()
const listeners = new Set<Elsewhere>()
let channel: BroadcastChannel | null = null

/** The browser's small storage; null where the page may not have one. */
function storage(): Storage | null {
  try {
    const { localStorage: found } = globalThis as { localStorage?: Storage | null }
    return found ?? null
  } catch {
    return null
  }
}

const tell = (key: string, text: string | null): void => {
  channel?.postMessage({ key, text })
}

function hear({ key, text }: Change): void {
  if (text === null) texts.delete(key)
  else texts.set(key, text)
  for (const listener of listeners) listener(key, text)
}

/** The database was taken away under an open page, which opens it anew after a moment. */
function takenAway(): void {
  database = null
  setTimeout(() => void reopen(), AGAIN_MS)
}

/** What the page still has is kept anew. */
async function reopen(): Promise<void> {
  if (database !== null || !inMemory) return
  try {
    const fresh = await openTexts()
    const isEmpty = (await fresh.count(TEXTS)) === 0
    if (texts.size > 0 && isEmpty) wasCleared.value = true
    const change = fresh.transaction(TEXTS, 'readwrite')
    for (const [key, text] of texts) void change.store.put(text, key)
    // What is kept and forgotten from here on asks the database after all of this, and comes after it there.
    database = fresh
    await Promise.all([change.done, takeOver(fresh)])
  } catch (error) {
    database = null
    // What is kept until then is written down in the small storage.
    mayKeep.value = storage() !== null
    if ((error as DOMException).name !== 'VersionError') setTimeout(() => void reopen(), AGAIN_MS)
  }
}

/**
 * What stands in the browser's small storage comes over: what a version before this one kept there, and what was
 * written down there because the page might go before the database has it. It is newer than what the database has.
 * The database is asked before this returns its promise; only the answer is waited for.
 */
async function takeOver(fresh: TextDatabase): Promise<void> {
  const old = storage()
  const slips = Object.keys(old ?? {}).flatMap((key) => {
    const text = key.startsWith(OURS) || key.startsWith(GONE) ? (old?.getItem(key) ?? null) : null
    return text === null ? [] : [[key, text] as const]
  })
  if (slips.length === 0) return
  const change = fresh.transaction(TEXTS, 'readwrite')
  for (const [slip] of slips) {
    if (!slip.startsWith(GONE)) continue
    texts.delete(slip.slice(GONE.length))
    void change.store.delete(slip.slice(GONE.length))
  }
  for (const [key, text] of slips) {
    if (!key.startsWith(OURS)) continue
    texts.set(key, text)
    void change.store.put(text, key)
  }
  await change.done
  for (const [slip, text] of slips) crossOut(slip, text)
}

/**
 * Writes something down at once, in the small storage, until the database has it: a page that is loaded again, or
 * closed, does not wait for a database.
 *
 * @returns whether it is written down
 */
function writeDown(key: string, text: string): boolean {
  if (text.length > LONGEST_AT_ONCE) return false
  try {
    const place = storage()
    place?.setItem(key, text)
    return place?.getItem(key) === text
  } catch {
    return false
  }
}

/** The database has it now: what was written down of it goes, unless something newer stands there. */
function crossOut(key: string, text: string): void {
  try {
    const place = storage()
    if (place?.getItem(key) === text) place.removeItem(key)
  } catch {
    // What stays there is taken over when the page is opened again.
  }
}

/**
 * Opens what is kept on this device, once, before the first page: all of it is read into memory then, so that
 * nothing on a screen waits for it. Where the browser has no database, its small storage is used as it is, and where
 * it has neither, what is kept lasts as long as the page.
 *
 * @param reading what was asked for before the application was there
 */
export async function openDevice(reading = openAndRead()): Promise<void> {
  try {
    const { database: fresh, texts: kept, channel: pages, told } = await reading
    for (const [key, text] of kept) texts.set(key, text)
    database = fresh
    inMemory = true
    mayKeep.value = true
    onTakenAway(takenAway)
    told.forEach(hear)
    channel = pages
    channel.onmessage = ({ data }: MessageEvent<Change>) => {
      hear(data)
    }
    // What cannot come over now stays where it stands, and comes over another time.
    await takeOver(fresh).catch(() => undefined)
    // Asked once; a browser that says no may still keep it.
    if ('storage' in navigator) void navigator.storage.persist().catch(() => false)
  } catch {
    mayKeep.value = storage() !== null
  }
}

/** The text that is kept under a key; null when none is, or none can be. */
export function keptText(key: string): string | null {
  if (inMemory) return texts.get(key) ?? null
  try {
    const place = storage()
    mayKeep.value = place !== null
    return place === null ? (texts.get(key) ?? null) : place.getItem(key)
  } catch {
    return null
  }
}

/** What is kept under a key as JSON; null when nothing that can be read is. */
// oxlint-disable-next-line typescript/no-unnecessary-type-parameters -- the caller names what it kept there
export function keptJson<T>(key: string): T | null {
  try {
    return JSON.parse(keptText(key) ?? 'null') as T | null
  } catch {
    return null
  }
}

/** Every key that begins so, in order. */
export function keptKeys(prefix: string): string[] {
  try {
    const keys = inMemory ? [...texts.keys()] : Object.keys(storage() ?? {})
    return keys.filter((key) => key.startsWith(prefix)).sort()
  } catch {
    return []
  }
}

/** Keeps a text in the browser's small storage, and says whether it is: read back, not taken for granted. */
function keepSmall(key: string, text: string): Keeping {
  const place = storage()
  mayKeep.value = place !== null
  if (place === null) {
    texts.set(key, text)
    return 'forbidden'
  }
  try {
    place.setItem(key, text)
    return place.getItem(key) === text ? 'kept' : 'noRoom'
  } catch {
    return 'noRoom'
  }
}

/** Keeps something on the device, and says once it is, or why it is not; what was kept before stays then. */
export async function keep(key: string, text: string): Promise<Keeping> {
  if (!inMemory) return keepSmall(key, text)
  const before = texts.get(key)
  texts.set(key, text)
  const written = writeDown(key, text)
  // It is not gone any more: a slip that says so would take it away when the page is opened again.
  if (written) storage()?.removeItem(GONE + key)
  try {
    if (database === null) throw new Error('it was taken away')
    await database.put(TEXTS, text, key)
    if (!written && texts.get(key) === text) storage()?.removeItem(GONE + key)
    crossOut(key, text)
    tell(key, text)
    return 'kept'
  } catch {
    if (written) return 'kept'
    if (texts.get(key) === text) {
      if (before === undefined) texts.delete(key)
      else texts.set(key, before)
    }
    return 'noRoom'
  }
}

/** Keeps nothing under a key any more. */
export function forget(key: string): void {
  texts.delete(key)
  try {
    storage()?.removeItem(key)
  } catch {
    // What cannot be reached is not kept either.
  }
  if (!inMemory) return
  // No two slips are the same, so that none is crossed out for another.
  const slip = String(Math.random())
  writeDown(GONE + key, slip)
  database?.delete(TEXTS, key).then(
    () => {
      crossOut(GONE + key, slip)
      tell(key, null)
    },
    () => undefined,
  )
}

/** Listens for what other pages of this device keep and forget. */
export function onKeptElsewhere(page: Window, listener: Elsewhere): void {
  listeners.add(listener)
  page.addEventListener('storage', ({ key, newValue }) => {
    // Beside a database the small storage is a slip of paper of each page's own.
    if (key !== null && !inMemory) listener(key, newValue)
  })
}

/** For tests: as if the page had just been opened. */
export function closeDevice(): void {
  database?.close()
  channel?.close()
  ;[database, channel, inMemory] = [null, null, false]
  texts.clear()
  listeners.clear()
  mayKeep.value = null
  wasCleared.value = false
}
