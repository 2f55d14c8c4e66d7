import type { AnyNewEntry } from '@undercliff/contract'
import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import { useReminders } from './reminders'
import { StandInStorage } from './standInStorage'

const MINUTE_MS = 60_000
let written: AnyNewEntry[] = []
beforeEach(() => {
  vi.useFakeTimers()
  vi.stubGlobal('localStorage', new StandInStorage())
  written = []
  vi.stubGlobal('fetch', (_path: string, init: RequestInit) => {
    written.push(...(JSON.parse(init.body as string) as { entries: AnyNewEntry[] }).entries)
    return new Response(JSON.stringify({ entries: [], cards: [], saws: [] }), { status: 201 })
  })
  setActivePinia(createPinia())
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})
const pass = (minutes: number): Promise<unknown> => vi.advanceTimersByTimeAsync(minutes * MINUTE_MS)

describe('the tension', () => {
  test('is asked for after a minute, then every ten until it stays', async () => {
    const reminders = useReminders()
    reminders.remindTension('saw-of-wren', 1)
    expect(reminders.due).toEqual([])
    await pass(1.5)
    expect(reminders.due).toEqual([{ sawId: 'saw-of-wren', what: 'tension' }])
    await reminders.looked('saw-of-wren', false)
    expect(reminders.due).toEqual([])
    await pass(9)
    expect(reminders.due).toEqual([])
    await pass(2)
    expect(reminders.due).toHaveLength(1)
    await reminders.looked('saw-of-wren', true)
    await pass(60)
    expect(reminders.due).toEqual([])
    expect(written).toMatchObject([
      { kind: 'tensionLooked', stayed: false },
      { kind: 'tensionLooked', stayed: true },
    ])
  })

  test('what an earlier version kept is asked for, and outlives the page', async () => {
    localStorage.setItem('undercliff:reminders', JSON.stringify([{ sawId: 'saw-of-wren', dueAt: 1 }]))
    expect(useReminders().due).toEqual([{ sawId: 'saw-of-wren', what: 'tension' }])
    useReminders().later('saw-of-wren', 'tension')
    await pass(0.1)
    setActivePinia(createPinia())
    expect(useReminders().due).toEqual([])
    await pass(6)
    expect(useReminders().due).toHaveLength(1)
  })
})

describe('oil', () => {
  test('is asked for with a tank, beside the tension, and answered into the log of the saw', async () => {
    const reminders = useReminders()
    reminders.remindTension('saw-of-wren', 1)
    reminders.remindOil('saw-of-wren')
    await pass(1.5)
    expect(reminders.due.map(({ what }) => what)).toEqual(['tension', 'oil'])
    await reminders.oiled('saw-of-wren')
    expect(reminders.due.map(({ what }) => what)).toEqual(['tension'])
    expect(written).toMatchObject([{ kind: 'oilFilled', sawId: 'saw-of-wren' }])
  })

  test('is not asked for where nobody wants it, on this saw', async () => {
    const reminders = useReminders()
    reminders.remindOil('saw-of-wren')
    reminders.neverOil('saw-of-wren')
    reminders.remindOil('saw-of-wren')
    reminders.remindOil('saw-of-tern')
    await pass(2)
    expect(reminders.due).toEqual([{ sawId: 'saw-of-tern', what: 'oil' }])
  })
})
