import 'fake-indexeddb/auto'
import type { NewPhoto, ShedAnswer, SignedIn } from '@undercliff/contract'
import { DEFAULT_RULES } from '@undercliff/core'
import { IDBFactory } from 'fake-indexeddb'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import { closePhotos, keepSeenPhoto, seenPhoto, waitingPhotos } from './keptPhotos'
import { useOutbox } from './outbox'
import { photosOfOthers } from './photosOfOthers'
import { usePhotos } from './photoStore'
import { useSession } from './sessionStore'
import { StandInStorage } from './standInStorage'

const WREN = { sawId: 'saw-of-wren' } as const
const JPEG = 'anBlZw=='
let sent: NewPhoto[] = []
/** What the server says to a photograph; nothing answers where it throws. */
let answer: () => Response = () => new Response('{}', { status: 201 })
const away = (): Response => {
  throw new TypeError('no route')
}
const refusal = (): Response =>
  new Response(JSON.stringify({ code: 'photos-full', detail: 'It has 12 photographs already.' }), { status: 409 })

const shed = (): Response => {
  const crew = {
    id: 'crew',
    name: 'Crew',
    lengths: 'mm',
    dates: 'dayFirst',
    rules: DEFAULT_RULES,
    demo: false,
  } as const
  const photos = sent.map(({ picture: _picture, ...about }) => ({ ...about, personId: 'person-maren' }))
  const all: ShedAnswer = { place: null, crew, people: [], saws: [], profiles: [], kit: [], photos, loops: [] }
  return new Response(JSON.stringify(all))
}
const signIn = (personId: string): void => {
  useSession().me = { personId, crewId: 'crew', role: 'sawyer' } as unknown as SignedIn
}

/** As if the page was closed, and opened again by somebody. */
async function again(personId: string): Promise<ReturnType<typeof usePhotos>> {
  await closePhotos()
  setActivePinia(createPinia())
  signIn(personId)
  return usePhotos()
}

beforeEach(() => {
  vi.stubGlobal('indexedDB', new IDBFactory())
  vi.stubGlobal('localStorage', new StandInStorage())
  sent = []
  answer = () => new Response('{}', { status: 201 })
  vi.stubGlobal('fetch', (path: string, init: RequestInit): Response => {
    if (path === '/api/shed') return shed()
    if (init.method !== 'PUT') return new Response(JSON.stringify({ entries: [], place: '0', more: false }))
    const answered = answer()
    if (answered.ok) sent.push(JSON.parse(init.body as string) as NewPhoto)
    return answered
  })
  setActivePinia(createPinia())
  signIn('person-maren')
})
afterEach(async () => {
  vi.useRealTimers()
  await closePhotos()
  vi.unstubAllGlobals()
})

describe('a photograph', () => {
  test('is sent, and is the shed’s from then on', async () => {
    const photos = usePhotos()
    expect(await photos.add(WREN, JPEG, 'bar')).toBe('sent')
    expect(photos.photosOf(WREN)).toMatchObject([{ shows: 'bar', waits: false }])
    expect(photos.photosOf({ loopId: 'some-loop' })).toEqual([])
    expect(await waitingPhotos()).toEqual([])
    expect(await photos.addressFor(sent[0]?.id ?? '')).toBe(`data:image/jpeg;base64,${JPEG}`)
  })

  test('waits on the device while nothing answers, and is sent by whoever took it and nobody else', async () => {
    answer = away
    expect(await usePhotos().add(WREN, JPEG, 'bar')).toBe('kept')
    answer = () => new Response('{}', { status: 201 })
    const iskas = await again('person-iska')
    await iskas.send()
    expect(sent).toEqual([])
    expect(iskas.photosOf(WREN)).toEqual([])
    const marens = await again('person-maren')
    await marens.send()
    expect(sent).toMatchObject([{ ...WREN, shows: 'bar', picture: JPEG }])
    expect(await waitingPhotos()).toEqual([])
  })

  test('goes after the entries that wait, since its loop may be among them', async () => {
    answer = away
    const registered = { id: 'entry-of-loop', loopId: 'new-loop', kind: 'ran', tanks: 1, conditions: 'clean' } as const
    const when = { happenedAt: '2026-03-01T09:00:00.000Z', personId: null }
    const order: string[] = []
    vi.stubGlobal('fetch', (path: string): Response => {
      order.push(path)
      return path === '/api/shed' ? shed() : answer()
    })
    void useOutbox().send([{ ...registered, ...when }])
    expect(await usePhotos().add({ loopId: 'new-loop' }, JPEG, 'box')).toBe('kept')
    order.length = 0
    answer = () => new Response(JSON.stringify({ entries: [], cards: [], saws: [] }), { status: 201 })
    await usePhotos().send()
    expect(order.filter((path) => path !== '/api/shed').map((path) => path.slice(0, 12))).toEqual([
      '/api/entries',
      '/api/photos/',
    ])
  })

  test.each([
    ['nothing answered', away],
    ['the server made a mistake', () => new Response('{}', { status: 500 })],
  ])('is tried again by itself where %s', async (_what, first) => {
    vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
    answer = first
    expect(await usePhotos().add(WREN, JPEG, 'bar')).toBe('kept')
    answer = () => new Response('{}', { status: 201 })
    await vi.advanceTimersByTimeAsync(60_000)
    vi.useRealTimers()
    await vi.waitFor(() => {
      expect(sent).toHaveLength(1)
    })
  })

  test('that is refused stays with the reason until it is thrown away, and is not sent again by itself', async () => {
    answer = refusal
    const photos = usePhotos()
    expect(await photos.add(WREN, JPEG, 'bar')).toBe('kept')
    const [refused] = photos.photosOf(WREN)
    expect(refused).toMatchObject({ waits: true, refused: 'It has 12 photographs already.' })
    answer = () => new Response('{}', { status: 201 })
    const later = await again('person-maren')
    await later.send()
    expect(sent).toEqual([])
    expect(later.photosOf(WREN)).toHaveLength(1)
    await later.remove({ id: refused?.id ?? '', waits: true })
    expect(later.photosOf(WREN)).toEqual([])
    expect(await waitingPhotos()).toEqual([])
  })

  test('that the device cannot keep is said to be in this page alone, which asks before it is closed', async () => {
    vi.stubGlobal('indexedDB', undefined)
    answer = away
    const photos = usePhotos()
    const page = new EventTarget()
    photos.watchPage(page as Window)
    const asksFirst = (): boolean => !page.dispatchEvent(new Event('beforeunload', { cancelable: true }))
    expect(asksFirst()).toBe(false)
    expect(await photos.add(WREN, JPEG, 'bar')).toBe('held')
    expect(photos.photosOf(WREN)).toHaveLength(1)
    expect(asksFirst()).toBe(true)
    answer = () => new Response('{}', { status: 201 })
    await photos.send()
    expect(sent).toHaveLength(1)
    expect(asksFirst()).toBe(false)
  })

  test('that somebody left who cannot send it any more is sent by a lead', async () => {
    answer = away
    await usePhotos().add(WREN, JPEG, 'bar')
    answer = () => new Response('{}', { status: 201 })
    const leads = await again('person-lead')
    await leads.takeOver('person-of-another')
    expect(sent).toEqual([])
    expect(leads.ofOthers).toMatchObject([{ by: 'person-maren' }])
    expect(photosOfOthers.value).toBe(1)
    await leads.takeOver('person-maren')
    expect(sent).toMatchObject([{ ...WREN, shows: 'bar', picture: JPEG }])
    expect(photosOfOthers.value).toBe(0)
    expect(await waitingPhotos()).toEqual([])
  })

  test('that waits is kept anew where it was wiped under an open page, which asks before it is closed', async () => {
    answer = away
    const photos = usePhotos()
    const page = new EventTarget()
    photos.watchPage(page as Window)
    const asksFirst = (): boolean => !page.dispatchEvent(new Event('beforeunload', { cancelable: true }))
    await photos.add(WREN, JPEG, 'bar')
    expect(asksFirst()).toBe(false)
    await new Promise((resolve) => (indexedDB.deleteDatabase('undercliff-photos').onsuccess = resolve))
    expect(asksFirst()).toBe(true)
    await vi.waitFor(async () => {
      expect(await waitingPhotos()).toHaveLength(1)
    })
    await vi.waitFor(() => {
      expect(asksFirst()).toBe(false)
    })
    answer = () => new Response('{}', { status: 201 })
    await (await again('person-maren')).send()
    expect(sent).toMatchObject([{ picture: JPEG }])
  })

  test('that was looked at here is forgotten when somebody signs out; what waits stays', async () => {
    answer = away
    const photos = usePhotos()
    await photos.add(WREN, JPEG, 'bar')
    await keepSeenPhoto('photo-of-others', JPEG)
    vi.stubGlobal('fetch', () => new Response(JSON.stringify({ state: 'signedOut', demo: [] })))
    await useSession().signOut()
    await vi.waitFor(async () => {
      expect(await seenPhoto('photo-of-others')).toBeNull()
    })
    expect(await waitingPhotos()).toHaveLength(1)
  })
})
