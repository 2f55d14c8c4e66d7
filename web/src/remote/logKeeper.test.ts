import type { LogsAnswer } from '@undercliff/contract'
import { beforeEach, expect, test, vi } from 'vitest'
import { fetchLogs } from './api'
import { keepUpWithLogs, keepUpWithSaws } from './logKeeper'
import { keptSaw } from './keptLogs'

vi.mock('./api', () => ({ fetchLogs: vi.fn(), fetchSaw: vi.fn() }))
const kept = vi.hoisted(() => [] as string[])
vi.mock('./keptLogs', () => ({
  keepLogs: (crewId: string) => Promise.resolve(void kept.push(crewId)),
  keptPlace: () => Promise.resolve(null),
  keepSaw: () => Promise.resolve(),
  keptSaw: vi.fn(),
}))
vi.mock('./todaysEntries', () => ({ hearToday: () => undefined }))

const answer = { entries: [], place: 'here', more: false } as unknown as LogsAnswer
beforeEach(() => {
  kept.length = 0
  vi.mocked(fetchLogs).mockReset().mockResolvedValue(answer)
})

test('whoever asks while others are read has their own read next, and is told what came of that', async () => {
  const first = keepUpWithLogs('one')
  const second = keepUpWithLogs('other')
  vi.mocked(fetchLogs).mockResolvedValueOnce(answer).mockRejectedValueOnce(new Error('away'))
  expect([await first, await second]).toEqual([false, false])
  expect(kept).toEqual(['one'])
  expect(await keepUpWithLogs('other')).toBe(true)
  expect(kept).toEqual(['one', 'other'])
})

test('a device that cannot keep what it read says so, of saws too', async () => {
  vi.mocked(keptSaw).mockRejectedValue(new Error('no room'))
  expect(await keepUpWithSaws([{ id: 'saw' } as never])).toBe(false)
  expect(await keepUpWithSaws([])).toBe(true)
})
