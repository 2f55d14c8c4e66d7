import type { NewEntry } from '@undercliff/core'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { useOutbox } from './outbox'

const entry = (id: string): NewEntry => ({
  id,
  loopId: 'a-loop-id-1',
  happenedAt: '2026-03-01T09:00:00.000Z',
  personId: null,
  kind: 'takenOff',
})

/** A stand-in for the device's storage; its keys are its own, as the browser's are. */
class Storage {
  getItem(key: string): string | null {
    return (this as unknown as Record<string, string>)[key] ?? null
  }
  setItem(key: string, value: string): void {
    ;(this as unknown as Record<string, string>)[key] = value
  }
  removeItem(key: string): void {
    Reflect.deleteProperty(this, key)
  }
}

/** What the server does with each request in turn; the last goes on for ever. */
let answers: (() => Promise<Response> | Response)[]
const sent: string[][] = []
const written = (body: string): Response => new Response(body, { status: 201 })
const away = (): Promise<Response> => Promise.reject(new TypeError('no route'))
const busy = (): Response => new Response('{}', { status: 503 })
const refusal = (): Response => new Response(JSON.stringify({ detail: 'There is no such loop.' }), { status: 404 })

beforeEach(() => {
  vi.useFakeTimers()
  vi.stubGlobal('localStorage', new Storage())
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
  expect(Object.keys(localStorage)).toEqual([])
})

test.each([
  ['cannot be reached', away],
  ['has lost its database', busy],
])('while the server %s, entries are kept and sent later in order', async (_name, answer) => {
  const outbox = useOutbox()
  answers = [answer]
  expect(await outbox.send([entry('entry-one')])).toMatchObject({ outcome: 'kept' })
  await vi.advanceTimersByTimeAsync(5)
  expect(await outbox.send([entry('entry-two')])).toMatchObject({ outcome: 'kept' })
  expect(Object.keys(localStorage)).toHaveLength(2)
  answers = []
  sent.length = 0
  await vi.advanceTimersByTimeAsync(2100)
  expect(sent).toEqual([['entry-one'], ['entry-two']])
  expect(Object.keys(localStorage)).toEqual([])
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
  await vi.advanceTimersByTimeAsync(2100)
  expect(outbox.refused).toMatchObject([{ refused: 'There is no such loop.' }])
  expect(Object.keys(localStorage)).toHaveLength(1)
  outbox.drop(outbox.refused[0]?.key ?? '')
  expect(Object.keys(localStorage)).toEqual([])
})
