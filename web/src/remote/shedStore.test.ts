import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { useLoop } from './loopStore'
import { useSession } from './sessionStore'
import { useShed } from './shedStore'
import { StandInStorage } from './standInStorage'

const logs = vi.hoisted(() => ({ keepUpWithLogs: vi.fn<(crewId: string) => Promise<boolean>>() }))
vi.mock('./logKeeper', () => ({ ...logs, keepUpWithSaws: () => Promise.resolve(true) }))

/** Questions for the shed that wait for their answer, in the order in which they were put. */
let asked: ((response: Response) => void)[]
const shedOf = (...tags: string[]): Response =>
  new Response(
    JSON.stringify({
      crew: null,
      people: [],
      saws: [],
      profiles: [],
      loops: tags.map((tag) => ({ loopId: tag, tag })),
    }),
  )

beforeEach(() => {
  vi.useFakeTimers()
  logs.keepUpWithLogs.mockReset().mockResolvedValue(true)
  asked = []
  vi.stubGlobal('localStorage', new StandInStorage())
  vi.stubGlobal('fetch', (path: string) =>
    path.startsWith('/api/shed')
      ? new Promise<Response>((resolve) => asked.push(resolve))
      : Promise.resolve(new Response(JSON.stringify({ loopId: 'K5', entries: [] }))),
  )
  setActivePinia(createPinia())
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})
const settle = () => vi.advanceTimersByTimeAsync(1)

test('a loop is not said to be missing because somebody else asked for the shed meanwhile', async () => {
  const [loop, shed] = [useLoop(), useShed()]
  const opened = loop.open('K5')
  await settle()
  void shed.load()
  await settle()
  asked[0]?.(shedOf('K5'))
  await settle()
  expect(loop.status).toBe('loading')
  asked[1]?.(shedOf('K5'))
  await opened
  expect(loop.status).toBe('ready')
})

test('only a shed that answered has no such loop; one that is away or made a mistake does not say so', async () => {
  const loop = useLoop()
  const answers = [
    [shedOf('K1'), 'missing'],
    [new Response('{"code":"database-away","detail":"Away."}', { status: 503 }), 'away'],
    [new Response('{"code":"internal-error","detail":"No."}', { status: 500 }), 'away'],
  ] as const
  for (const [answer, status] of answers) {
    setActivePinia(createPinia())
    const mine = useLoop()
    const opened = mine.open('K9')
    await settle()
    asked.at(-1)?.(answer)
    await opened
    expect(mine.status).toBe(status)
  }
  expect(loop.status).toBe('loading')
})

test('a shed that is away is asked again by itself, less and less often; a mistake is said', async () => {
  const shed = useShed()
  void shed.load()
  await settle()
  for (const waitMs of [2000, 4000, 8000, 16_000, 30_000, 30_000]) {
    const before = asked.length
    asked.at(-1)?.(new Response('{}', { status: 503 }))
    await vi.advanceTimersByTimeAsync(waitMs - 100)
    expect([shed.away, asked.length]).toEqual([true, before])
    await vi.advanceTimersByTimeAsync(200)
    expect(asked).toHaveLength(before + 1)
  }
  asked.at(-1)?.(new Response('{"code":"internal-error","detail":"No."}', { status: 500 }))
  await settle()
  expect([shed.away, shed.fault]).toEqual([false, 'Undercliff made a mistake. No.'])
})

test('what somebody else changed while it was looked at is marked for a while, what was there is not', async () => {
  const shed = useShed()
  const answer = (...loops: [string, string][]): Response =>
    new Response(
      JSON.stringify({
        ...{ crew: null, people: [], saws: [], profiles: [] },
        loops: loops.map(([tag, lastEntryAt]) => ({ loopId: tag, tag, lastEntryAt })),
      }),
    )
  const told = async (...loops: [string, string][]) => {
    const waiting = shed.load()
    await settle()
    asked.at(-1)?.(answer(...loops))
    await waiting
  }
  await told(['K5', '1'], ['K6', '1'])
  expect([...shed.changed]).toEqual([])
  await told(['K5', '2'], ['K6', '1'])
  expect([...shed.changed]).toEqual(['K5'])
  await vi.advanceTimersByTimeAsync(31_000)
  expect([...shed.changed]).toEqual([])
})

test('a page reads the logs on although nothing changed: the one before may have been left meanwhile', async () => {
  const unchanged = async (shed: ReturnType<typeof useShed>): Promise<number> => {
    const waiting = shed.load()
    await settle()
    asked.at(-1)?.(new Response(null, { status: 204 }))
    await waiting
    await vi.advanceTimersByTimeAsync(1000)
    return logs.keepUpWithLogs.mock.calls.length
  }
  useSession().me = { crewId: 'crew', personId: 'one' } as never
  const shed = useShed()
  shed.answer = { place: 'here', loops: [], saws: [] } as never
  logs.keepUpWithLogs.mockResolvedValue(false)
  expect(await unchanged(shed)).toBe(1)
  // What could not be read waits a while, and no longer.
  expect(await unchanged(shed)).toBe(1)
  logs.keepUpWithLogs.mockResolvedValue(true)
  await vi.advanceTimersByTimeAsync(30_000)
  expect(await unchanged(shed)).toBe(2)
  await vi.advanceTimersByTimeAsync(60_000)
  expect(await unchanged(shed)).toBe(2)
})

test('a shed that an older version kept stays where its cards cannot be worked out', async () => {
  // There are no workers here, and so nothing that works cards out.
  const kept = JSON.stringify({ crew: { rules: {} }, loops: [{ loopId: 'one' }] })
  localStorage.setItem('undercliff:shed:1', kept)
  const shed = useShed()
  await vi.advanceTimersByTimeAsync(1000)
  expect(shed.answer).toBeNull()
  expect(localStorage.getItem('undercliff:shed:1')).toBe(kept)
})
