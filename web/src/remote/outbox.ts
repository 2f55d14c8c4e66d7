import { MOST_ENTRIES, type AnyNewEntry, type EntriesAnswer } from '@undercliff/contract'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { postEntries, ServerRefusal } from './api'
import { useSession } from './sessionStore'

/** What goes to the server in one piece: all of it is written, or none. */
export interface Parcel {
  readonly key: string
  readonly entries: readonly AnyNewEntry[]
  /** Who wrote it; nobody else's session sends it. Missing from before people signed in. */
  readonly by?: string
  /** Why the server would not take it; it stays here until somebody has seen it. */
  readonly refused: string | null
}

/** What became of entries. */
export type Sent = { readonly taken: readonly AnyNewEntry[] } & (
  { readonly outcome: 'sent' | 'kept' } | { readonly outcome: 'refused'; readonly why: string }
)

const PREFIX = 'undercliff:outbox:'
const RETRY_MS = 2000

/** Every parcel has a place of its own, so that two open pages do not write over each other. */
function keptParcels(): Parcel[] {
  return Object.keys(localStorage)
    .filter((key) => key.startsWith(PREFIX))
    .sort()
    .map(readParcel)
    .filter((parcel) => parcel !== null)
}

function readParcel(key: string): Parcel | null {
  try {
    return JSON.parse(localStorage.getItem(key) ?? 'null') as Parcel | null
  } catch {
    return null
  }
}

/** Keeps a parcel on the device; where the device has no room, it is held until the page closes. */
function keep(parcel: Parcel): void {
  try {
    localStorage.setItem(PREFIX + parcel.key, JSON.stringify(parcel))
  } catch {
    // It is still in `parcels`, and is sent from there.
  }
}

/**
 * Entries on their way to the server. They are kept on this device before they are sent, and
 * until the server has said that they are written; ids are made here, so sending twice is safe.
 */
// eslint-disable-next-line max-lines-per-function -- a store is one setup function
export const useOutbox = defineStore('outbox', () => {
  const session = useSession()
  const parcels = ref<Parcel[]>(keptParcels())
  const waiting = computed(() => parcels.value.filter(({ refused }) => refused === null))
  /** Those that whoever is signed in wrote. */
  const mine = computed(() => waiting.value.filter(({ by }) => by === undefined || by === session.me?.personId))
  const others = computed(() => waiting.value.length - mine.value.length)
  const refused = computed(() => parcels.value.filter((parcel) => parcel.refused !== null))
  const listeners: ((answer: EntriesAnswer) => void)[] = []
  let timer: ReturnType<typeof setTimeout> | undefined
  let flushing: Promise<void> | null = null

  const drop = (key: string): void => {
    localStorage.removeItem(PREFIX + key)
    parcels.value = parcels.value.filter((parcel) => parcel.key !== key)
  }

  async function sendOne(parcel: Parcel): Promise<boolean> {
    try {
      const answer = await postEntries(parcel.entries)
      for (const listener of listeners) listener(answer)
      drop(parcel.key)
      return true
    } catch (error) {
      if (!(error instanceof ServerRefusal)) return false
      const told = { ...parcel, refused: error.problem.detail }
      keep(told)
      parcels.value = parcels.value.map((one) => (one.key === parcel.key ? told : one))
      return true
    }
  }

  async function flushAll(): Promise<void> {
    clearTimeout(timer)
    for (const parcel of [...mine.value]) {
      if (await sendOne(parcel)) continue
      timer = setTimeout(() => void flush(), RETRY_MS)
      return
    }
  }

  /** Sends what waits, in order; what cannot be sent is tried again by itself. */
  function flush(): Promise<void> {
    flushing ??= flushAll().finally(() => {
      flushing = null
    })
    return flushing
  }

  /** Keeps some entries on this device and sends them, all of them or none. */
  async function sendTogether(entries: readonly AnyNewEntry[]): Promise<Sent> {
    const key = `${Date.now().toString().padStart(15, '0')}-${entries[0]?.id ?? ''}`
    const by = session.me?.personId
    const parcel: Parcel = { key, entries, refused: null, ...(by === undefined ? {} : { by }) }
    keep(parcel)
    parcels.value = [...parcels.value, parcel]
    await (flushing ?? Promise.resolve())
    await flush()
    const left = parcels.value.find((one) => one.key === key)
    if (left === undefined) return { outcome: 'sent', taken: entries }
    if (left.refused === null) return { outcome: 'kept', taken: entries }
    drop(key)
    return { outcome: 'refused', why: left.refused, taken: [] }
  }

  /**
   * Keeps entries of loops and saws on this device and sends them, in batches that the server writes
   * all together or not at all.
   *
   * @returns `sent`; `kept` when the server is away; or why a batch was refused, after which no other is
   *   sent. `taken` are those that were sent or kept.
   */
  async function send(entries: readonly AnyNewEntry[]): Promise<Sent> {
    const taken: AnyNewEntry[] = []
    let outcome: 'sent' | 'kept' = 'sent'
    for (let from = 0; from < entries.length; from += MOST_ENTRIES) {
      const sent = await sendTogether(entries.slice(from, from + MOST_ENTRIES))
      taken.push(...sent.taken)
      if (sent.outcome === 'refused') return { ...sent, taken }
      if (sent.outcome === 'kept') outcome = 'kept'
    }
    return { outcome, taken }
  }

  /** Called with what the server answers once it has written entries. */
  const onWritten = (listener: (answer: EntriesAnswer) => void): void => {
    listeners.push(listener)
  }

  return { parcels, waiting, others, refused, send, flush, drop, onWritten }
})
