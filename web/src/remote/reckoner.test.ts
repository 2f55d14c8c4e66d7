import { DEFAULT_RULES, specFromProfile, type Entry } from '@undercliff/core'
import { afterEach, describe, expect, test, vi } from 'vitest'
import type { ToReckon } from './reckonWorker'

type Told = (event: { readonly data: unknown }) => void

/** A worker that runs the module of the real one within the test. */
class StandInWorker {
  static begun = 0
  static breaks = false
  onmessage: Told = () => undefined
  onerror: () => void = () => undefined
  constructor() {
    StandInWorker.begun += 1
  }
  postMessage(asked: ToReckon): void {
    void this.answer(structuredClone(asked))
  }
  terminate(): void {
    this.onmessage = () => undefined
  }
  private async answer(data: ToReckon): Promise<void> {
    if (StandInWorker.breaks) {
      this.onerror()
      return
    }
    const inside: { onmessage?: Told; postMessage: (told: unknown) => void } = {
      postMessage: (told) => {
        this.onmessage({ data: structuredClone(told) })
      },
    }
    vi.stubGlobal('self', inside)
    vi.resetModules()
    await import('./reckonWorker')
    inside.onmessage?.({ data })
  }
}

const log: Entry[] = [
  {
    id: 'one',
    loopId: 'loop',
    kind: 'registered',
    happenedAt: '2026-03-01T09:00:00.000Z',
    writtenAt: '2026-03-01T09:00:00.000Z',
    personId: null,
    writtenBy: null,
    tag: 'L001',
    spec: specFromProfile({ pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72, cutterType: 'semiChisel' }),
  },
]

describe('cards that are worked out beside the page', () => {
  afterEach(() => {
    vi.unstubAllGlobals()
    vi.resetModules()
    StandInWorker.begun = 0
    StandInWorker.breaks = false
  })

  test('a log comes back as the card of its loop, an empty one as none, by one worker', async () => {
    vi.stubGlobal('Worker', StandInWorker)
    const { reckon } = await import('./reckoner')
    expect(await reckon(log, DEFAULT_RULES)).toMatchObject({ loopId: 'loop', tag: 'L001' })
    expect(await reckon([], DEFAULT_RULES)).toBeNull()
    expect(StandInWorker.begun).toBe(1)
  })

  test('what cannot be folded is said, and what is asked next is answered', async () => {
    vi.stubGlobal('Worker', StandInWorker)
    const { reckon } = await import('./reckoner')
    await expect(reckon([null as unknown as Entry], DEFAULT_RULES)).rejects.toThrow('TypeError')
    expect(await reckon(log, DEFAULT_RULES)).toMatchObject({ tag: 'L001' })
  })

  test('a worker that broke is begun anew when something is asked again', async () => {
    vi.stubGlobal('Worker', StandInWorker)
    const { reckon } = await import('./reckoner')
    StandInWorker.breaks = true
    await expect(reckon(log, DEFAULT_RULES)).rejects.toThrow('cannot be worked out')
    StandInWorker.breaks = false
    expect(await reckon(log, DEFAULT_RULES)).toMatchObject({ tag: 'L001' })
    expect(StandInWorker.begun).toBe(2)
  })

  test('where there are no workers it says so, and nobody waits', async () => {
    vi.stubGlobal('Worker', undefined)
    const { reckon, reckonerAtHand } = await import('./reckoner')
    expect(reckonerAtHand()).toBeNull()
    await expect(reckon(log, DEFAULT_RULES)).rejects.toThrow('cannot be worked out')
  })
})
