import type { AnyNewEntry, EntriesAnswer, ShedAnswer } from '@undercliff/contract'
import { DEFAULT_RULES, type LoopCard, type NewEntry } from '@undercliff/core'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { useNotices } from './notices'
import { useOutbox } from './outbox'
import { StandInStorage } from './standInStorage'
import { useShed } from './shedStore'
import { useWriting } from './writing'

const moved = (id: string): NewEntry => ({
  id,
  loopId: `loop-of-${id}`,
  happenedAt: '2026-03-01T09:00:00.000Z',
  personId: null,
  kind: 'moved',
  to: 'truck',
})
const flipped: AnyNewEntry = {
  id: 'flip',
  sawId: 'saw',
  happenedAt: '2026-03-01T09:00:00.000Z',
  personId: null,
  kind: 'barFlipped',
}
const card = (loopId: string, tag: string): LoopCard => ({ loopId, tag, sawId: null }) as LoopCard

/** Every batch that was sent, and what the server says to each in turn. */
const batches: AnyNewEntry[][] = []
let answers: ('written' | 'refused' | 'away')[]
let answer: EntriesAnswer

beforeEach(() => {
  vi.useFakeTimers()
  vi.stubGlobal('localStorage', new StandInStorage())
  batches.length = 0
  answers = []
  answer = { entries: [], cards: [], saws: [] }
  vi.stubGlobal('fetch', (_path: string, init: RequestInit) => {
    const { entries } = JSON.parse(init.body as string) as { entries: AnyNewEntry[] }
    batches.push(entries)
    const said = answers.shift() ?? 'written'
    if (said === 'away') return Promise.reject(new TypeError('no route'))
    if (said === 'refused') return new Response(JSON.stringify({ detail: 'Loop is at a shop.' }), { status: 422 })
    return new Response(JSON.stringify(answer), { status: 201 })
  })
  setActivePinia(createPinia())
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

/** Presses the undo of the notice that is up. */
async function undo(): Promise<void> {
  await useNotices().notice?.undo?.()
}

test('many entries go in batches that the server takes, and one undo strikes all out, the last first', async () => {
  const entries = Array.from({ length: 51 }, (_, i) => moved(`entry-${i}`))
  expect(await useWriting().write(entries, (taken) => `${taken} loops moved`)).toBeNull()
  expect(batches.map(({ length }) => length)).toEqual([50, 1])
  expect(useNotices().notice?.text).toBe('51 loops moved.')
  await undo()
  const struck = batches.slice(2).flat()
  expect(struck.map((entry) => entry.kind === 'corrected' && entry.strikes)).toEqual(
    entries.map(({ id }) => id).reverse(),
  )
  expect(struck.map(({ happenedAt }) => happenedAt)).toEqual(struck.map(({ happenedAt }) => happenedAt).sort())
  expect(useNotices().notice?.undo).toBeUndefined()
})

test('what a batch refuses is said, what went before it stays written and can be undone', async () => {
  answers = ['written', 'refused']
  const entries = Array.from({ length: 60 }, (_, i) => moved(`entry-${i}`))
  expect(await useWriting().write(entries, (taken) => `${taken} loops moved`)).toBe('Loop is at a shop.')
  expect(useNotices().notice?.text).toBe('50 loops moved.')
  await undo()
  expect(batches.slice(2).flat()).toHaveLength(50)
})

test('an entry of a saw goes through the same outbox, and is taken back in its own log', async () => {
  await useWriting().write([flipped], 'Bar flipped')
  await undo()
  expect(batches[1]?.[0]).toMatchObject({ kind: 'sawCorrected', sawId: 'saw', strikes: 'flip' })
})

test('while the shed is away it is kept, and said so', async () => {
  answers = ['away', 'away']
  expect(await useWriting().write([flipped], 'Bar flipped')).toBeNull()
  expect(useNotices().notice?.text).toBe('Bar flipped; kept on this device until the shed answers.')
  expect(useOutbox().waiting).toHaveLength(1)
})

test('a loop that was added has no undo: its registration stays', async () => {
  await useWriting().write(
    [{ ...moved('one'), kind: 'registered', tag: 'K9' } as unknown as NewEntry],
    'K9 is in the shed',
  )
  expect(useNotices().notice?.undo).toBeUndefined()
})

test('the shed takes in what an answer carries, and asks for nothing', async () => {
  const shed = useShed()
  shed.answer = {
    place: null,
    crew: { id: 'crew', name: 'Crew', lengths: 'mm', dates: 'dayFirst', rules: DEFAULT_RULES, demo: false },
    people: [],
    saws: [],
    profiles: [],
    kit: [],
    photos: [],
    loops: [card('one', 'K1'), card('two', 'K2')],
  } satisfies ShedAnswer
  answer = { entries: [], cards: [card('two', 'K7'), card('three', 'K3')], saws: [] }
  await useWriting().write([moved('entry')], 'Moved')
  expect(shed.loops.map(({ tag }) => tag)).toEqual(['K1', 'K7', 'K3'])
  expect(shed.loopByTag('K7')?.loopId).toBe('two')
  expect(batches).toHaveLength(1)
})
