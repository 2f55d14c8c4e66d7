import { isOfSaw, MOST_ENTRIES, type AnyNewEntry } from '@undercliff/contract'
import { forget, keep, keptJson, keptKeys, type Keeping } from './device'
import { forgetLogs } from './keptLogs'
import { forgetSeenPhotos } from './keptPhotos'
import { KEPT_SHED } from './keptShed'

/** What goes to the server in one piece: all of it is written, or none. */
export interface Parcel {
  readonly key: string
  readonly entries: readonly AnyNewEntry[]
  /** Who wrote it; nobody else's session sends it. Missing from before people signed in. */
  readonly by?: string
  /** Why it is set aside: the server would not take it, or could make nothing of it. It stays until it is put right. */
  readonly refused: string | null
  /** The code of that, where the server gave one. */
  readonly code?: string
  /** How often the server failed at it. */
  readonly failed?: number
}

const PREFIX = 'undercliff:outbox:'

/** The key of the parcel that is kept under a key of the device's storage; null when none is. */
export const parcelKey = (key: string | null): string | null =>
  key?.startsWith(PREFIX) === true ? key.slice(PREFIX.length) : null

/** Every parcel has a place of its own, so that two open pages do not write over each other. */
export const keptParcels = (): Parcel[] =>
  keptKeys(PREFIX)
    .map((key) => keptJson<Parcel>(key))
    .filter((parcel): parcel is Parcel => Array.isArray(parcel?.entries) && typeof parcel.key === 'string')

/** Keeps a parcel on the device; what can be asked for anew makes room for it. */
export async function keepParcel(parcel: Parcel): Promise<Keeping> {
  const text = JSON.stringify(parcel)
  const first = await keep(PREFIX + parcel.key, text)
  if (first !== 'noRoom') return first
  forget(KEPT_SHED)
  await forgetLogs()
  await forgetSeenPhotos()
  const second = await keep(PREFIX + parcel.key, text)
  // Half of it, or an older form of it, would be sent for the whole.
  if (second !== 'kept') forget(PREFIX + parcel.key)
  return second
}

export const forgetParcel = (key: string): void => {
  forget(PREFIX + key)
}

/** The loops and saws that a parcel is about. */
export const subjectsOf = ({ entries }: Pick<Parcel, 'entries'>): string[] =>
  entries.map((entry) => (isOfSaw(entry) ? entry.sawId : entry.loopId))

/** Longest text of the entries in one request; the server takes twice as much. */
const LONGEST_REQUEST = 100_000

/** Parcels in their order, as many together as go into one request. */
export function inRequests(parcels: readonly Parcel[]): Parcel[][] {
  const requests: Parcel[][] = []
  let [entries, length] = [Infinity, 0]
  for (const parcel of parcels) {
    const text = JSON.stringify(parcel.entries).length
    if (entries + parcel.entries.length > MOST_ENTRIES || length + text > LONGEST_REQUEST) {
      requests.push([])
      ;[entries, length] = [0, 0]
    }
    requests.at(-1)?.push(parcel)
    entries += parcel.entries.length
    length += text
  }
  return requests
}

/** Text that is the same for entries that say the same, whenever they were made and under whatever id. */
export const sayingOf = (entries: readonly AnyNewEntry[]): string =>
  JSON.stringify(entries.map((entry) => ({ ...entry, id: undefined, happenedAt: undefined })))
