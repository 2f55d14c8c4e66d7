import { specFromProfile, type Entry, type NewEntry } from '@undercliff/core'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { useLoop } from './loopStore'
import { useOutbox } from './outbox'
import { StandInStorage } from './standInStorage'

const base = { loopId: 'a-loop-id-1', personId: null, happenedAt: '2026-03-01T09:00:00.000Z' }
const registered: Entry = {
  ...base,
  id: 'registration',
  writtenAt: base.happenedAt,
  writtenBy: null,
  kind: 'registered',
  tag: 'K3',
  spec: specFromProfile({ pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72, cutterType: 'semiChisel' }),
}
const ran: NewEntry = { ...base, id: 'ran-three-tanks', kind: 'ran', tanks: 3, conditions: 'clean' }

/** Answers of the server that the test lets go when it likes. */
let logAnswer: ((entries: Entry[]) => void) | undefined
/** Lets the answer go once the log has been asked for. */
const answerWith = (entries: Entry[]): Promise<void> =>
  vi.waitFor(() => {
    if (logAnswer === undefined) throw new Error('the log has not been asked for yet')
    logAnswer(entries)
  })
const json = (body: unknown): Response => new Response(JSON.stringify(body))

beforeEach(() => {
  logAnswer = undefined
  vi.stubGlobal('localStorage', new StandInStorage())
  vi.stubGlobal('fetch', (path: string) => {
    if (path === '/api/shed')
      return Promise.resolve(json({ crew: null, people: [], saws: [], loops: [{ loopId: base.loopId, tag: 'K3' }] }))
    if (path === '/api/entries')
      return Promise.resolve(
        json({ entries: [{ ...ran, writtenAt: '2026-03-02T09:00:00.000Z', writtenBy: null }], cards: [], saws: [] }),
      )
    return new Promise<Response>((resolve) => {
      logAnswer = (entries) => {
        resolve(json({ loopId: base.loopId, entries }))
      }
    })
  })
  setActivePinia(createPinia())
})
afterEach(() => {
  vi.unstubAllGlobals()
})

test('a log that was asked for before an entry was written does not take the entry back', async () => {
  const loop = useLoop()
  const opened = loop.open('K3')
  await vi.waitFor(() => {
    expect(logAnswer).toBeDefined()
  })
  expect(await useOutbox().send([ran])).toMatchObject({ outcome: 'sent' })
  await answerWith([registered])
  await opened
  expect(loop.entries.map(({ id }) => id).sort()).toEqual(['ran-three-tanks', 'registration'])
  expect(loop.state?.tanks).toBe(3)
  expect(loop.status).toBe('ready')
})

test('an entry that would break the log is refused here, and nothing is kept or sent', async () => {
  const loop = useLoop()
  const opened = loop.open('K3')
  await answerWith([registered])
  await opened
  const wrong = await loop.write(
    { kind: 'measured', readings: [{ cutter: 99, lengthUm: 5000 }], personId: null },
    'Measured',
  )
  expect(wrong).toBe('There is no cutter 99: this loop has 36.')
  expect(useOutbox().parcels).toEqual([])
  expect(loop.entries).toHaveLength(1)
})
