import type { NewEntry } from '@undercliff/core'
import fc from 'fast-check'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import { mayKeep } from './device'
import { KEPT_SHED } from './keptShed'
import { useOutbox } from './outbox'
import { FullStorage, StandInStorage } from './standInStorage'

const entry = (id: string): NewEntry => ({
  id,
  loopId: 'a-loop-id-1',
  happenedAt: '2026-03-01T09:00:00.000Z',
  personId: null,
  kind: 'takenOff',
})

/** What is kept of the outbox; what others keep on the device comes and goes as it likes. */
const keptKeys = (): string[] => Object.keys(localStorage).filter((key) => key.startsWith('undercliff:outbox:'))

/** What the server does with each request in turn; the last goes on for ever. */
let answers: (() => Promise<Response> | Response)[]
const sent: string[][] = []
const written = (body: string): Response => new Response(body, { status: 201 })
const away = (): Promise<Response> => Promise.reject(new TypeError('no route'))
const busy = (): Response => new Response('{}', { status: 503 })
const refusal = (): Response => new Response(JSON.stringify({ detail: 'There is no such loop.' }), { status: 404 })

/** Lets so many milliseconds pass; bodies of answers are read between them, in turns of the real loop of events. */
async function pass(ms: number): Promise<void> {
  for (let left = ms; left > 0; left -= 500) {
    await vi.advanceTimersByTimeAsync(Math.min(500, left))
    for (let turn = 0; turn < 10; turn += 1) await new Promise(setImmediate)
  }
}

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout', 'Date'] })
  vi.stubGlobal('localStorage', new StandInStorage())
  sent.length = 0
  answers = []
  vi.stubGlobal('fetch', async (_path: string, init: RequestInit) => {
    const body = init.body as string
    sent.push((JSON.parse(body) as { entries: NewEntry[] }).entries.map(({ id }) => id))
    const answer = answers.length > 1 ? answers.shift() : answers[0]
    return answer === undefined ? written(body) : answer()
  })
  setActivePinia(createPinia())
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

test('an entry is sent, told to listeners, and no longer kept', async () => {
  const outbox = useOutbox()
  const told: string[] = []
  outbox.onWritten(({ entries }) => told.push(...entries.map(({ id }) => id)))
  expect(await outbox.send([entry('entry-one')])).toMatchObject({ outcome: 'sent' })
  expect(told).toEqual(['entry-one'])
  expect(outbox.parcels).toEqual([])
  expect(keptKeys()).toEqual([])
})

test.each([
  ['cannot be reached', away],
  ['has lost its database', busy],
])('while the server %s, entries are kept and sent later in order', async (_name, answer) => {
  const outbox = useOutbox()
  answers = [answer]
  expect(await outbox.send([entry('entry-one')])).toMatchObject({ outcome: 'kept' })
  await pass(5)
  expect(await outbox.send([entry('entry-two')])).toMatchObject({ outcome: 'kept' })
  expect(keptKeys()).toHaveLength(2)
  answers = []
  sent.length = 0
  await pass(2100)
  expect(sent).toEqual([['entry-one', 'entry-two']])
  expect(keptKeys()).toEqual([])
})

test('of much that waits each thing is written once and in order, and what is refused is set aside alone', async () => {
  const some = fc.array(fc.record({ bad: fc.boolean(), long: fc.boolean() }), { minLength: 1, maxLength: 70 })
  await fc.assert(
    fc.asyncProperty(some, async (waiting) => {
      vi.stubGlobal('localStorage', new StandInStorage())
      setActivePinia(createPinia())
      const outbox = useOutbox()
      answers = [away]
      const ids = waiting.map((_one, i) => `entry-${String(i).padStart(3, '0')}`)
      for (const [i, id] of ids.entries()) {
        vi.setSystemTime(1_772_000_000_000 + i)
        const note = waiting[i]?.long === true ? id.repeat(200) : id
        void outbox.send([{ ...entry(id), note }])
      }
      await pass(10)
      const bad = new Set(ids.filter((_id, i) => waiting[i]?.bad))
      const taken: string[] = []
      sent.length = 0
      answers = [
        () => {
          const asked = sent.at(-1) ?? []
          if (asked.some((id) => bad.has(id))) return refusal()
          taken.push(...asked)
          return written(JSON.stringify({ entries: [] }))
        },
      ]
      outbox.hurry()
      await pass(500)
      await outbox.flush()
      expect(taken).toEqual(ids.filter((id) => !bad.has(id)))
      expect(outbox.refused.map(({ entries }) => entries.map(({ id }) => id))).toEqual([...bad].map((id) => [id]))
      expect(outbox.waiting).toEqual([])
      expect(Math.max(...sent.map((request) => request.length))).toBeLessThanOrEqual(50)
    }),
    { numRuns: 40 },
  )
})

test('what waits goes home as it was logged, also where the clock was put back meanwhile', async () => {
  answers = [away]
  const ids = ['z-ahead', 'y-put-back', 'x-at-once']
  const at = Date.now()
  for (const [i, id] of ids.entries()) {
    vi.setSystemTime(i === 0 ? at + 172_800_000 : at)
    void useOutbox().send([{ ...entry(id), note: id }])
  }
  await pass(10)
  // Another page of the device reads them back.
  setActivePinia(createPinia())
  answers = []
  sent.length = 0
  await useOutbox().flush()
  expect(sent).toEqual([ids])
})

test('what was kept outlives the page', async () => {
  answers = [away]
  await useOutbox().send([entry('entry-one')])
  setActivePinia(createPinia())
  answers = []
  const fresh = useOutbox()
  expect(fresh.waiting).toHaveLength(1)
  await fresh.flush()
  expect(sent.at(-1)).toEqual(['entry-one'])
  expect(fresh.waiting).toEqual([])
})

test('a refusal is told at once, and does not stand in the way of what follows', async () => {
  const outbox = useOutbox()
  answers = [refusal]
  expect(await outbox.send([entry('entry-one')])).toMatchObject({
    outcome: 'refused',
    why: 'There is no such loop.',
    taken: [],
  })
  answers = []
  expect(await outbox.send([entry('entry-two')])).toMatchObject({ outcome: 'sent' })
})

test('what is refused later, when nobody waits, stays to be seen', async () => {
  const outbox = useOutbox()
  answers = [away]
  await outbox.send([entry('entry-one')])
  answers = [refusal]
  await pass(2100)
  expect(outbox.refused).toMatchObject([{ refused: 'There is no such loop.' }])
  expect(keptKeys()).toHaveLength(1)
  outbox.drop(outbox.refused[0]?.key ?? '')
  expect(keptKeys()).toEqual([])
})

/** Answers of a server that is there and cannot do it. */
const fault = (): Response =>
  new Response(JSON.stringify({ code: 'internal-error', detail: 'Nothing was written.' }), { status: 500 })
const portal = (): Response => new Response('<!doctype html>Sign in to this network', { status: 200 })
const hangs = (): Promise<Response> => new Promise<Response>(() => undefined)
/** A request that hangs until it is given up. */
const hangsUntilGivenUp = (): void => {
  vi.stubGlobal('fetch', (_path: string, init: RequestInit) => {
    sent.push((JSON.parse(init.body as string) as { entries: NewEntry[] }).entries.map(({ id }) => id))
    return new Promise<Response>((_resolve, reject) => {
      init.signal?.addEventListener('abort', () => {
        reject(new DOMException('aborted', 'AbortError'))
      })
    })
  })
}

describe('what is said to be kept is kept', () => {
  test('a device that is full says so, and the entry is sent from the page all the same', async () => {
    vi.stubGlobal('localStorage', new FullStorage())
    const outbox = useOutbox()
    answers = [away]
    expect(await outbox.send([entry('entry-one')])).toMatchObject({ outcome: 'held' })
    expect([outbox.keptHere, outbox.heldHere]).toEqual([0, 1])
    answers = []
    await pass(2100)
    expect(sent.at(-1)).toEqual(['entry-one'])
    expect([outbox.keptHere, outbox.heldHere]).toEqual([0, 0])
  })

  test('what is set aside on a device that is full stays in the page, whatever else is sent', async () => {
    vi.stubGlobal('localStorage', new FullStorage())
    const outbox = useOutbox()
    answers = [away]
    await outbox.send([entry('entry-one')])
    answers = [refusal]
    await pass(2100)
    answers = []
    await outbox.send([entry('entry-two')])
    expect(outbox.refused.map(({ entries }) => entries)).toEqual([[entry('entry-one')]])
  })

  test('what can be asked for anew makes room', async () => {
    const storage = new StandInStorage()
    storage.setItem(KEPT_SHED, 'x'.repeat(1000))
    const setItem = storage.setItem.bind(storage)
    storage.setItem = (key, value) => {
      if (storage.getItem(KEPT_SHED) !== null) throw new DOMException('full', 'QuotaExceededError')
      setItem(key, value)
    }
    Object.defineProperty(storage, 'setItem', { enumerable: false })
    vi.stubGlobal('localStorage', storage)
    answers = [away]
    expect(await useOutbox().send([entry('entry-one')])).toMatchObject({ outcome: 'kept' })
    expect(storage.getItem(KEPT_SHED)).toBeNull()
  })

  test('where the page may keep nothing at all it opens and works, and says what that means', async () => {
    vi.stubGlobal('localStorage', undefined)
    Object.defineProperty(globalThis, 'localStorage', {
      configurable: true,
      get: () => {
        throw new DOMException('denied', 'SecurityError')
      },
    })
    const outbox = useOutbox()
    expect(mayKeep.value).toBe(false)
    expect(await outbox.send([entry('entry-one')])).toMatchObject({ outcome: 'sent' })
    answers = [away]
    expect(await outbox.send([entry('entry-two')])).toMatchObject({ outcome: 'held' })
  })

  test('what the device loses while the page is open is sent, and kept again', async () => {
    const outbox = useOutbox()
    answers = [away]
    await outbox.send([entry('entry-one')])
    for (const key of keptKeys()) localStorage.removeItem(key)
    await pass(2100)
    expect(keptKeys()).toHaveLength(1)
    answers = []
    await pass(4100)
    expect(sent.at(-1)).toEqual(['entry-one'])
    expect(outbox.parcels).toEqual([])
  })

  test('what cannot be read on the device keeps nothing else from being sent', async () => {
    localStorage.setItem('undercliff:outbox:000-broken', '{"key": ')
    localStorage.setItem('undercliff:outbox:001-odd', '{"key": 7}')
    expect(await useOutbox().send([entry('entry-one')])).toMatchObject({ outcome: 'sent' })
  })
})

describe('nothing jams', () => {
  test('a request ends after some seconds, and what it carried is kept', async () => {
    hangsUntilGivenUp()
    const sending = useOutbox().send([entry('entry-one')])
    await pass(10_100)
    expect(await sending).toMatchObject({ outcome: 'kept' })
  })

  test('a button that is pressed four times while the server hangs writes one thing', async () => {
    const outbox = useOutbox()
    answers = [hangs]
    const presses = ['one', 'two', 'three', 'four'].map((id, i) => ({
      ...entry(`entry-${id}`),
      happenedAt: `2026-03-01T09:00:0${i}.000Z`,
    }))
    for (const press of presses) void outbox.send([press])
    await pass(5)
    expect(outbox.parcels.map(({ entries }) => entries.map(({ id }) => id))).toEqual([['entry-one']])
    expect(sent).toEqual([['entry-one']])
    // Another thing is another thing.
    void outbox.send([{ ...entry('entry-five'), loopId: 'a-loop-id-2' }])
    await pass(5)
    expect(outbox.parcels).toHaveLength(2)
  })

  test.each([
    ['makes a mistake', fault, 'Undercliff made a mistake. Nothing was written.'],
    ['is not Undercliff', portal, 'What answers is not Undercliff. Is this network asking for a sign-in?'],
    ['says nothing that can be read', () => new Response('oops', { status: 404 }), /not Undercliff/],
  ])(
    'when what answers %s, the parcel is set aside after a few tries, with all that it held',
    async (_n, answer, why) => {
      const outbox = useOutbox()
      answers = [answer]
      expect(await outbox.send([entry('entry-one')])).toMatchObject({ outcome: 'kept' })
      expect(outbox.refused).toEqual([])
      await pass(10_000)
      expect(sent).toHaveLength(3)
      expect(outbox.refused).toHaveLength(1)
      expect(outbox.refused[0]?.refused).toMatch(why)
      expect(outbox.refused[0]?.entries).toEqual([entry('entry-one')])
      expect(keptKeys()).toHaveLength(1)
      // It is tried no more, until somebody asks for it.
      await pass(60_000)
      expect(sent).toHaveLength(3)
      answers = []
      const right = { ...entry('entry-one'), happenedAt: '2026-03-02T09:00:00.000Z' }
      await outbox.sendAgain(outbox.refused[0]?.key ?? '', [right])
      expect(outbox.parcels).toEqual([])
      expect(keptKeys()).toEqual([])
    },
  )

  test('a parcel that fails holds up what follows of the same loop, and nothing else', async () => {
    const outbox = useOutbox()
    const other = { ...entry('entry-of-other'), loopId: 'a-loop-id-2' }
    answers = [fault]
    await outbox.send([entry('entry-one')])
    answers = [() => new Response('{}', { status: 201 })]
    vi.stubGlobal('fetch', (_path: string, init: RequestInit) => {
      const ids = (JSON.parse(init.body as string) as { entries: NewEntry[] }).entries.map(({ id }) => id)
      sent.push(ids)
      return ids.includes('entry-one') ? fault() : written('{"entries":[],"cards":[],"saws":[]}')
    })
    sent.length = 0
    expect(await outbox.send([entry('entry-two')])).toMatchObject({ outcome: 'kept' })
    expect(await outbox.send([other])).toMatchObject({ outcome: 'sent' })
    expect(sent.flat()).not.toContain('entry-two')
    // Once it is set aside, they go on.
    await pass(10_000)
    expect(sent.flat()).toContain('entry-two')
    expect(outbox.waiting).toEqual([])
    expect(outbox.refused).toHaveLength(1)
  })

  test('tries grow rarer, to one in half a minute, and the network’s return is taken at once', async () => {
    const outbox = useOutbox()
    answers = [away]
    await outbox.send([entry('entry-one')])
    const at: number[] = []
    const began = Date.now()
    let seen = sent.length
    for (let s = 0; s < 130; s += 1) {
      await pass(1000)
      if (sent.length > seen) at.push(Math.round((Date.now() - began) / 1000))
      seen = sent.length
    }
    expect(at).toEqual([2, 6, 14, 30, 60, 90, 120])
    answers = []
    outbox.hurry()
    await pass(1)
    expect(outbox.waiting).toEqual([])
  })

  test('a full disk on the server is said, and what was to be written waits', async () => {
    const outbox = useOutbox()
    const detail = 'Nothing was written: the disk of the server is full.'
    answers = [() => new Response(JSON.stringify({ code: 'disk-full', detail }), { status: 507 })]
    expect(await outbox.send([entry('entry-one')])).toMatchObject({ outcome: 'kept' })
    expect(outbox.awayBecause).toBe(detail)
    answers = []
    await pass(2100)
    expect(outbox.awayBecause).toBeNull()
    expect(outbox.parcels).toEqual([])
  })
})

describe('two pages on one device', () => {
  /** What the browser tells a page. */
  const page = () => {
    const listeners = new Map<string, (event: unknown) => void>()
    const target = {
      addEventListener: (name: string, listener: (event: unknown) => void) => listeners.set(name, listener),
      document: { addEventListener: () => undefined, visibilityState: 'visible' },
    }
    return { window: target as unknown as Window, tell: (name: string, event: object) => listeners.get(name)?.(event) }
  }

  test('what a closed one left is sent by the other', async () => {
    const outbox = useOutbox()
    const { window, tell } = page()
    outbox.watchDevice(window)
    const parcel = { key: '000000000000001-left', entries: [entry('entry-left')], refused: null }
    localStorage.setItem(`undercliff:outbox:${parcel.key}`, JSON.stringify(parcel))
    tell('storage', { key: `undercliff:outbox:${parcel.key}`, newValue: '{}' })
    expect(outbox.waiting).toHaveLength(1)
    await pass(2100)
    expect(sent).toEqual([['entry-left']])
    expect(keptKeys()).toEqual([])
  })

  test('what the other one sent is not counted or sent here', async () => {
    const outbox = useOutbox()
    const { window, tell } = page()
    let told = 0
    outbox.onSentElsewhere(() => (told += 1))
    outbox.watchDevice(window)
    answers = [away]
    await outbox.send([entry('entry-one')])
    const [key = ''] = keptKeys()
    localStorage.removeItem(key)
    tell('storage', { key, newValue: null })
    expect([outbox.waiting.length, told]).toEqual([0, 1])
    sent.length = 0
    answers = []
    await pass(60_000)
    expect(sent).toEqual([])
  })

  test('leaving the page is asked about while something is in it alone', async () => {
    vi.stubGlobal('localStorage', new FullStorage())
    const outbox = useOutbox()
    const { window, tell } = page()
    outbox.watchDevice(window)
    const leave = { preventDefault: vi.fn() }
    tell('beforeunload', leave)
    expect(leave.preventDefault).not.toHaveBeenCalled()
    answers = [away]
    await outbox.send([entry('entry-one')])
    tell('beforeunload', leave)
    expect(leave.preventDefault).toHaveBeenCalledOnce()
  })
})
