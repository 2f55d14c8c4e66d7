import { MOST_ENTRIES, type AnyNewEntry, type EntriesAnswer } from '@undercliff/contract'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { postEntries, ServerAway, ServerRefusal, SignedOut } from './api'
import { onKeptElsewhere, type Keeping } from './device'
import {
  forgetParcel,
  inRequests,
  keepParcel,
  keptParcels,
  parcelKey,
  sayingOf,
  subjectsOf,
  type Parcel,
} from './parcels'
import { useSession } from './sessionStore'

/**
 * What became of entries. `kept`: on this device, until the server answers. `held`: in this page alone,
 * since the device keeps nothing.
 */
export type Sent = { readonly taken: readonly AnyNewEntry[] } & (
  | { readonly outcome: 'sent' | 'kept' | 'held' }
  | { readonly outcome: 'refused'; readonly why: string }
)

/** The first wait before what could not be sent is tried again, in ms; it doubles up to the last. */
const FIRST_WAIT_MS = 2000
const LAST_WAIT_MS = 30_000
/** How often the server may fail at a parcel before it is set aside. */
const MOST_FAILURES = 3
const LOCK = 'undercliff:outbox'

/** One page at a time sends what this device keeps; where the browser has no locks, each for itself. */
const inTurn = async (work: () => Promise<void>): Promise<void> => {
  const locks = (globalThis as { navigator?: { locks?: LockManager } }).navigator?.locks
  if (locks === undefined) await work()
  else await locks.request(LOCK, work)
}

/**
 * Entries on their way to the server. They are kept on this device before they are sent, and
 * until the server has said that they are written; ids are made here, so sending twice is safe.
 */
// eslint-disable-next-line max-lines-per-function -- a store is one setup function
export const useOutbox = defineStore('outbox', () => {
  const session = useSession()
  const parcels = ref<Parcel[]>(keptParcels())
  /** Parcels that are in this page alone, with why the device does not keep them. */
  const unkept = shallowRef<ReadonlyMap<string, Exclude<Keeping, 'kept'>>>(new Map())
  const waiting = computed(() => parcels.value.filter(({ refused }) => refused === null))
  /** Those that whoever is signed in wrote. */
  const mine = computed(() => waiting.value.filter(({ by }) => by === undefined || by === session.me?.personId))
  const countOf = (some: readonly Parcel[]): number => some.reduce((sum, { entries }) => sum + entries.length, 0)
  /** Those of somebody else, and how many entries they hold. */
  const ofOthers = computed(() => waiting.value.filter(({ by }) => by !== undefined && by !== session.me?.personId))
  const others = computed(() => countOf(ofOthers.value))
  /** Entries that wait on this device, and those that wait in this page alone. */
  const keptHere = computed(() => countOf(waiting.value.filter(({ key }) => !unkept.value.has(key))))
  const heldHere = computed(() => countOf(waiting.value.filter(({ key }) => unkept.value.has(key))))
  const refused = computed(() => parcels.value.filter((parcel) => parcel.refused !== null))
  /** What the server says while it cannot write; null when it does not say anything. */
  const awayBecause = ref<string | null>(null)
  const listeners: ((answer: EntriesAnswer) => void)[] = []
  const elsewhere: (() => void)[] = []
  let waitMs = FIRST_WAIT_MS
  let timer: ReturnType<typeof setTimeout> | undefined
  let flushing: Promise<void> | null = null
  /** When a parcel that the server failed at may be tried again, however much else is sent meanwhile. */
  const restsUntil = new Map<string, number>()
  /** What is on its way for the first time, by what it says: a button that is pressed again says the same. */
  const underWay = new Map<string, Promise<Sent>>()

  /** Puts a parcel into the list and onto the device; settles once the device has it, or will not. */
  async function put(parcel: Parcel): Promise<Keeping> {
    const known = parcels.value.some(({ key }) => key === parcel.key)
    parcels.value = known
      ? parcels.value.map((one) => (one.key === parcel.key ? parcel : one))
      : [...parcels.value, parcel]
    const keeping = await keepParcel(parcel)
    const map = new Map(unkept.value)
    if (keeping === 'kept') map.delete(parcel.key)
    // What went home meanwhile need be kept no more.
    else if (parcels.value.some(({ key }) => key === parcel.key)) map.set(parcel.key, keeping)
    unkept.value = map
    return keeping
  }

  const dropAll = (some: readonly Pick<Parcel, 'key'>[]): void => {
    const gone = new Set(some.map(({ key }) => key))
    for (const key of gone) forgetParcel(key)
    unkept.value = new Map([...unkept.value].filter(([one]) => !gone.has(one)))
    parcels.value = parcels.value.filter(({ key }) => !gone.has(key))
  }
  const drop = (key: string): void => {
    dropAll([{ key }])
  }

  /**
   * Takes in what other pages of this device left. What this page has and the device has lost is no less
   * to be sent: sending twice is safe, and losing is not.
   */
  function sync(): void {
    const kept = keptParcels()
    const known = new Set(kept.map(({ key }) => key))
    const here = parcels.value.filter(
      ({ key, refused: why }) => !known.has(key) && (why === null || unkept.value.has(key)),
    )
    parcels.value = [...kept, ...here].sort((one, other) => (one.key < other.key ? -1 : 1))
    for (const parcel of here) void put(parcel)
  }

  /** Another page of this device sent a parcel, or somebody threw it away there. */
  function goneElsewhere(key: string): void {
    drop(key)
    for (const listener of elsewhere) listener()
  }

  const setAside = async (parcel: Parcel, why: string, code?: string): Promise<void> => {
    await put({ ...parcel, refused: why, ...(code === undefined ? {} : { code }) })
  }

  /** @returns whether what follows may be sent; what the server cannot do for one parcel it may for another */
  async function sendOne(parcel: Parcel): Promise<'goOn' | 'failed' | 'away'> {
    try {
      const answer = await postEntries(parcel.entries)
      drop(parcel.key)
      for (const listener of listeners) listener(answer)
      return 'goOn'
    } catch (error) {
      if (error instanceof ServerAway) awayBecause.value = error.said
      if (error instanceof ServerAway || error instanceof SignedOut) return 'away'
      if (error instanceof ServerRefusal) {
        const { detail, code, problems } = error.problem
        await setAside(parcel, detail, problems?.[0]?.code ?? code)
        return 'goOn'
      }
      const failed = (parcel.failed ?? 0) + 1
      if (failed < MOST_FAILURES) {
        restsUntil.set(parcel.key, Date.now() + waitMs)
        await put({ ...parcel, failed })
        return 'failed'
      }
      await setAside({ ...parcel, failed }, (error as Error).message)
      return 'goOn'
    }
  }

  /** Tries again by itself, less and less often. */
  function later(): void {
    clearTimeout(timer)
    timer = setTimeout(() => {
      waitMs = Math.min(LAST_WAIT_MS, waitMs * 2)
      void flush()
    }, waitMs)
  }

  /** Those that may be sent now; what comes after one that may not, of the same loop or saw, waits for it. */
  function mayGo(some: readonly Parcel[], behind: Set<string>): Parcel[] {
    const here = new Map(mine.value.map((parcel) => [parcel.key, parcel]))
    return some.flatMap(({ key }) => {
      const parcel = here.get(key)
      if (parcel === undefined) return []
      const subjects = subjectsOf(parcel)
      const rests = (restsUntil.get(key) ?? 0) > Date.now() || subjects.some((one) => behind.has(one))
      if (rests) for (const one of subjects) behind.add(one)
      return rests ? [] : [parcel]
    })
  }

  /**
   * Sends parcels in one request. Where the server will not have all of them, each half goes by itself, so that in the
   * end the one that is wrong stands alone, and what it is wrong with is said of it.
   */
  async function sendGroup(group: readonly Parcel[], behind: Set<string>): Promise<'goOn' | 'away'> {
    const going = mayGo(group, behind)
    const [first] = going
    if (first === undefined) return 'goOn'
    if (going.length === 1) {
      const outcome = await sendOne(first)
      if (outcome === 'failed') for (const one of subjectsOf(first)) behind.add(one)
      return outcome === 'away' ? 'away' : 'goOn'
    }
    try {
      const answer = await postEntries(going.flatMap(({ entries }) => entries))
      dropAll(going)
      for (const listener of listeners) listener(answer)
      return 'goOn'
    } catch (error) {
      if (error instanceof ServerAway) awayBecause.value = error.said
      if (error instanceof ServerAway || error instanceof SignedOut) return 'away'
      const middle = going.length >> 1
      const earlier = await sendGroup(going.slice(0, middle), behind)
      return earlier === 'away' ? 'away' : sendGroup(going.slice(middle), behind)
    }
  }

  async function flushAll(): Promise<void> {
    clearTimeout(timer)
    sync()
    const behind = new Set<string>()
    for (const group of inRequests(mine.value)) {
      if ((await sendGroup(group, behind)) === 'away') {
        later()
        return
      }
    }
    awayBecause.value = null
    if (behind.size > 0) later()
    else waitMs = FIRST_WAIT_MS
  }

  /** Sends what waits, in order; what cannot be sent is tried again by itself. */
  function flush(): Promise<void> {
    flushing ??= inTurn(flushAll).finally(() => {
      flushing = null
    })
    return flushing
  }

  /** Sends at once what waits, when there is reason to think that the server can be reached again. */
  function hurry(): void {
    waitMs = FIRST_WAIT_MS
    restsUntil.clear()
    if (waiting.value.length > 0) void flush()
  }

  /** Where a parcel stands: behind all that is here, also once the clock of the device was put back. */
  function nextKey(id: string): string {
    const last = Math.max(0, ...parcels.value.map(({ key }) => Number.parseInt(key, 10) || 0))
    return `${Math.max(Date.now(), last + 1)
      .toString()
      .padStart(15, '0')}-${id}`
  }

  /** Keeps some entries on this device and sends them, all of them or none. */
  async function sendTogether(entries: readonly AnyNewEntry[]): Promise<Sent> {
    const key = nextKey(entries[0]?.id ?? '')
    const by = session.me?.personId
    const keeping = await put({ key, entries, refused: null, ...(by === undefined ? {} : { by }) })
    await (flushing ?? Promise.resolve())
    await flush()
    const left = parcels.value.find((one) => one.key === key)
    if (left === undefined) return { outcome: 'sent', taken: entries }
    if (left.refused === null) return { outcome: keeping === 'kept' ? 'kept' : 'held', taken: entries }
    // Whoever pressed the button has it before them still, and is told why.
    if ((left.failed ?? 0) === 0) drop(key)
    return { outcome: 'refused', why: left.refused, taken: [] }
  }

  async function sendAll(entries: readonly AnyNewEntry[]): Promise<Sent> {
    const taken: AnyNewEntry[] = []
    let outcome: 'sent' | 'kept' | 'held' = 'sent'
    for (let from = 0; from < entries.length; from += MOST_ENTRIES) {
      const sent = await sendTogether(entries.slice(from, from + MOST_ENTRIES))
      taken.push(...sent.taken)
      if (sent.outcome === 'refused') return { ...sent, taken }
      if (sent.outcome !== 'sent' && outcome !== 'held') outcome = sent.outcome
    }
    return { outcome, taken }
  }

  /**
   * Keeps entries of loops and saws on this device and sends them, in batches that the server writes
   * all together or not at all. The same again, while the first is on its way, is the first, as with a button that
   * is pressed twice; where `again` is said it is another one, as with a second tank.
   *
   * @returns `sent`; `kept` or `held` when the server is away; or why a batch was refused, after which no
   *   other is sent. `taken` are those that were sent, kept or held.
   */
  function send(entries: readonly AnyNewEntry[], again?: 'again'): Promise<Sent> {
    if (again !== undefined) return sendAll(entries)
    const saying = sayingOf(entries)
    const before = underWay.get(saying)
    if (before !== undefined) return before
    const sending = sendAll(entries).finally(() => underWay.delete(saying))
    underWay.set(saying, sending)
    return sending
  }

  /** Sends a parcel that was set aside once more, as it is or put right. */
  async function sendAgain(key: string, entries: readonly AnyNewEntry[]): Promise<void> {
    const parcel = parcels.value.find((one) => one.key === key)
    if (parcel === undefined) return
    const { code: _code, ...rest } = parcel
    await put({ ...rest, entries, refused: null, failed: 0 })
    await (flushing ?? Promise.resolve())
    await flush()
  }

  /** What somebody left on this device who cannot send it any more is sent by whoever is signed in. */
  async function takeOver(from: string): Promise<void> {
    const by = session.me?.personId
    if (by === undefined) return
    for (const parcel of ofOthers.value.filter((one) => one.by === from)) await put({ ...parcel, by })
    await (flushing ?? Promise.resolve())
    await flush()
  }

  /** Called with what the server answers once it has written entries. */
  const onWritten = (listener: (answer: EntriesAnswer) => void): void => {
    listeners.push(listener)
  }
  /** Called when another page of this device sent something. */
  const onSentElsewhere = (listener: () => void): void => {
    elsewhere.push(listener)
  }

  /** Listens for what the browser tells: the network is back, another page changed what is kept. */
  function watchDevice(page: Window): void {
    page.addEventListener('online', hurry)
    page.document.addEventListener('visibilitychange', () => {
      if (page.document.visibilityState === 'visible') hurry()
    })
    onKeptElsewhere(page, (key, text) => {
      const parcel = parcelKey(key)
      if (parcel === null) return
      if (text === null) {
        goneElsewhere(parcel)
        return
      }
      sync()
      // Whoever left it may be closed by the time that the server answers.
      if (mine.value.length > 0 && flushing === null) later()
    })
    page.addEventListener('beforeunload', (event) => {
      if (waiting.value.some(({ key }) => unkept.value.has(key))) event.preventDefault()
    })
  }

  return {
    parcels,
    waiting,
    others,
    ofOthers,
    takeOver,
    keptHere,
    heldHere,
    refused,
    unkept,
    awayBecause,
    send,
    sendAgain,
    flush,
    hurry,
    drop,
    onWritten,
    onSentElsewhere,
    watchDevice,
  }
})
