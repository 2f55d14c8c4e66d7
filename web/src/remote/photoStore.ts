import type { PhotoAbout, PhotoSubject } from '@undercliff/contract'
import { nanoid } from 'nanoid'
import { defineStore } from 'pinia'
import { computed, shallowRef, watchEffect } from 'vue'
import { deletePhoto, fetchPicture, putPhoto, ServerAway, ServerRefusal, SignedOut } from './api'
import {
  forgetWaitingPhoto,
  keepSeenPhoto,
  keepWaitingPhoto,
  onPhotosTaken,
  seenPhoto,
  waitingPhotos,
  type WaitingPhoto,
} from './keptPhotos'
import { useOutbox } from './outbox'
import { photosOfOthers } from './photosOfOthers'
import { useSession } from './sessionStore'
import { useShed } from './shedStore'

/** A photograph as a page shows it: the server's, or one that waits here. */
export interface ShownPhoto extends Pick<PhotoAbout, 'id' | 'shows' | 'takenAt' | 'personId'> {
  /** Whether the server does not have it yet. */
  readonly waits: boolean
  readonly refused: string | null
}

/** Bytes in Base64 as an address that an image takes. */
const addressOf = (base64: string): string => `data:image/jpeg;base64,${base64}`

/** How long a page waits before it keeps anew what was taken from it, in ms. */
const AGAIN_MS = 250
/** How long a photograph that could not be sent waits before it is tried again, in ms. */
const RETRY_MS = 30_000

/** Photographs of what is stamped on bars and boxes: kept on this device until the server has them. */
// eslint-disable-next-line max-lines-per-function -- a store is one setup function
export const usePhotos = defineStore('photos', () => {
  const shed = useShed()
  const session = useSession()
  const outbox = useOutbox()
  const all = shallowRef<readonly WaitingPhoto[]>([])
  const mine = computed(() => all.value.filter(({ by }) => by === session.me?.personId))
  /** Those that somebody else took and did not send. */
  const ofOthers = computed(() => all.value.filter((one) => one.by !== session.me?.personId && one.refused === null))
  watchEffect(() => (photosOfOthers.value = ofOthers.value.length))
  /** Those that the device would not keep: they go with the page. */
  const unkept = new Set<string>()
  let sending: Promise<void> | null = null
  let again: ReturnType<typeof setTimeout> | undefined
  const read = waitingPhotos().then((kept) => {
    all.value = [...kept, ...all.value]
  })

  /** Keeps a photograph on the device; one that it will not keep goes with the page. */
  async function keepHere(one: WaitingPhoto): Promise<boolean> {
    const kept = await keepWaitingPhoto(one)
    if (kept) unkept.delete(one.photo.id)
    else unkept.add(one.photo.id)
    return kept
  }
  onPhotosTaken(() => {
    for (const { photo } of all.value) unkept.add(photo.id)
    setTimeout(() => {
      for (const one of all.value) void keepHere(one)
    }, AGAIN_MS)
  })

  /** Photographs of a saw or a loop, the oldest first. */
  function photosOf({ sawId, loopId }: PhotoSubject): ShownPhoto[] {
    const ofIt = (one: PhotoSubject): boolean => (sawId === undefined ? one.loopId === loopId : one.sawId === sawId)
    const told = (shed.answer?.photos ?? []).filter(ofIt)
    const known = new Set(told.map(({ id }) => id))
    return [
      ...told.map((one) => ({ ...one, waits: false, refused: null })),
      ...mine.value
        .filter(({ photo }) => ofIt(photo) && !known.has(photo.id))
        .map(({ photo, by, refused }) => ({ ...photo, personId: by, waits: true, refused })),
    ]
  }

  /** @returns whether the next may be sent */
  async function sendOne(one: WaitingPhoto): Promise<boolean> {
    const { photo } = one
    try {
      await putPhoto(photo)
    } catch (error) {
      if (error instanceof ServerRefusal) {
        const refused = { ...one, refused: error.problem.detail }
        all.value = all.value.map((other) => (other === one ? refused : other))
        await keepHere(refused)
        return true
      }
      if (error instanceof ServerAway || error instanceof SignedOut) return false
      // A server that makes a mistake may make none the next time.
      return true
    }
    await keepSeenPhoto(photo.id, photo.picture)
    await forgetWaitingPhoto(photo.id)
    await shed.load()
    all.value = all.value.filter((other) => other.photo.id !== photo.id)
    return true
  }

  async function sendAll(): Promise<void> {
    await read
    if (mine.value.length === 0) return
    // A loop that was put down on this device goes before its photographs.
    await outbox.flush()
    for (const one of mine.value.filter(({ refused }) => refused === null)) if (!(await sendOne(one))) return
  }

  /** Sends what waits of whoever is signed in; what cannot be sent is tried again by itself. */
  const send = (): Promise<void> =>
    (sending ??= sendAll().finally(() => {
      sending = null
      clearTimeout(again)
      if (mine.value.some(({ refused }) => refused === null)) again = setTimeout(() => void send(), RETRY_MS)
    }))

  /**
   * Keeps a photograph with a saw or loop and sends it.
   *
   * @param picture a JPEG in Base64, scaled down
   * @returns what became of it
   */
  async function add(subject: PhotoSubject, picture: string, shows: string): Promise<'sent' | 'kept' | 'held'> {
    const photo = { id: nanoid(), ...subject, shows, takenAt: new Date().toISOString(), picture }
    const one: WaitingPhoto = { photo, by: session.me?.personId ?? '', refused: null }
    const kept = await keepHere(one)
    await read
    all.value = [...all.value, one]
    await sending
    await send()
    if (!all.value.some((other) => other.photo.id === photo.id)) return 'sent'
    return kept ? 'kept' : 'held'
  }

  /**
   * Deletes a photograph for good, or throws one away that was never sent.
   *
   * @throws when the server would not, or cannot be reached
   */
  async function remove({ id, waits }: Pick<ShownPhoto, 'id' | 'waits'>): Promise<void> {
    if (!waits) {
      await deletePhoto(id).catch((error: unknown) => {
        // Somebody was quicker.
        if (!(error instanceof ServerRefusal && error.problem.code === 'no-such-photo')) throw error
      })
      await shed.load()
      return
    }
    await forgetWaitingPhoto(id)
    all.value = all.value.filter(({ photo }) => photo.id !== id)
  }

  /** What somebody left on this device who cannot send it any more is sent by whoever is signed in. */
  async function takeOver(from: string): Promise<void> {
    const by = session.me?.personId
    if (by === undefined) return
    await read
    const theirs = new Set(ofOthers.value.filter((one) => one.by === from))
    all.value = all.value.map((one) => (theirs.has(one) ? { ...one, by } : one))
    for (const one of theirs) await keepHere({ ...one, by })
    await sending
    await send()
  }

  /** Where an image finds a picture; null where it is neither on this device nor can be fetched. */
  async function addressFor(id: string): Promise<string | null> {
    await read
    const here = all.value.find(({ photo }) => photo.id === id)?.photo.picture ?? (await seenPhoto(id))
    if (here !== null) return addressOf(here)
    const picture = await fetchPicture(id).catch(() => null)
    if (picture === null) return null
    void keepSeenPhoto(id, picture)
    return addressOf(picture)
  }

  /** Whoever closes the page is asked first, where a photograph would go with it. */
  function watchPage(page: Pick<Window, 'addEventListener'>): void {
    page.addEventListener('beforeunload', (event) => {
      if (all.value.some(({ photo }) => unkept.has(photo.id))) event.preventDefault()
    })
  }
  if (typeof window !== 'undefined') watchPage(window)

  return { waiting: mine, ofOthers, photosOf, takeOver, add, remove, send, addressFor, watchPage }
})
