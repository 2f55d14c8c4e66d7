import type { NewPhoto } from '@undercliff/contract'
import type { DBSchema } from 'idb'
import { keptDatabase } from './keptDatabase'

/** A photograph that the server does not have yet. */
export interface WaitingPhoto {
  readonly photo: NewPhoto
  /** Who took it; nobody else's session sends it. */
  readonly by: string
  /** Why the server would not take it; null while it waits. */
  readonly refused: string | null
}

/** Pictures are larger than what is held in memory, and read one by one. */
interface Schema extends DBSchema {
  waiting: { key: string; value: WaitingPhoto }
  /** Pictures that were looked at, in Base64: the server has them too. */
  seen: { key: string; value: string }
}

let takenAway = (): void => undefined

const { get: database, close } = keptDatabase<Schema>(
  'undercliff-photos',
  1,
  (fresh) => {
    fresh.createObjectStore('waiting')
    fresh.createObjectStore('seen')
  },
  () => {
    takenAway()
  },
)

/** What is done when the photographs that wait were taken from under an open page. */
export function onPhotosTaken(act: () => void): void {
  takenAway = act
}

/** Photographs that wait on this device, whoever took them, the oldest first. */
export async function waitingPhotos(): Promise<readonly WaitingPhoto[]> {
  const all = (await (await database())?.getAll('waiting').catch(() => [])) ?? []
  return all.sort((a, b) => (a.photo.takenAt < b.photo.takenAt ? -1 : 1))
}

/**
 * Keeps a photograph until the server has it; what can be fetched again makes room for it.
 *
 * @returns whether it is kept
 */
export async function keepWaitingPhoto(one: WaitingPhoto): Promise<boolean> {
  const db = await database()
  if (db === null) return false
  const put = (): Promise<boolean> =>
    db.put('waiting', one, one.photo.id).then(
      () => true,
      () => false,
    )
  if (await put()) return true
  await forgetSeenPhotos()
  return put()
}

/** The server has a photograph, or somebody threw it away. */
export async function forgetWaitingPhoto(id: string): Promise<void> {
  await (await database())?.delete('waiting', id).catch(() => undefined)
}

/** A picture that was looked at on this device, in Base64; null where it was not. */
export const seenPhoto = async (id: string): Promise<string | null> =>
  (await (await database())?.get('seen', id).catch(() => undefined)) ?? null

/** Keeps a picture to be looked at when nothing answers; where there is no room it is fetched again. */
export async function keepSeenPhoto(id: string, picture: string): Promise<void> {
  await (await database())?.put('seen', picture, id).catch(() => undefined)
}

/** Pictures that the server has too are kept no more: somebody signs out, or the device has no room. */
export async function forgetSeenPhotos(): Promise<void> {
  await (await database().catch(() => null))?.clear('seen').catch(() => undefined)
}

/** For tests: as if the page had just been opened. */
export const closePhotos = close
