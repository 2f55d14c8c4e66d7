import 'fake-indexeddb/auto'
import { IDBFactory } from 'fake-indexeddb'
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import { watch } from 'vue'
import {
  closeDevice,
  forget,
  keep,
  keptJson,
  keptKeys,
  keptText,
  mayKeep,
  onKeptElsewhere,
  openDevice,
  wasCleared,
} from './device'
import { openAndRead } from './deviceTexts'
import { keepLogs, keptLog, keptPlace } from './keptLogs'
import { FullStorage, StandInStorage } from './standInStorage'

beforeEach(() => {
  vi.stubGlobal('indexedDB', new IDBFactory())
  vi.stubGlobal('localStorage', new StandInStorage())
  vi.stubGlobal('navigator', { storage: { persist: () => Promise.resolve(true) } })
})
afterEach(() => {
  closeDevice()
  vi.unstubAllGlobals()
})

/** As if the page was closed, and opened again. */
async function again(): Promise<void> {
  closeDevice()
  await openDevice()
}

describe('what is kept on a device', () => {
  test('is there when the page is opened again', async () => {
    await openDevice()
    expect(mayKeep.value).toBe(true)
    expect(await keep('undercliff:one', '{"a":1}')).toBe('kept')
    await again()
    expect(keptJson('undercliff:one')).toEqual({ a: 1 })
    forget('undercliff:one')
    await again()
    expect(keptText('undercliff:one')).toBeNull()
  })

  test('what an earlier version kept in the small storage comes over once', async () => {
    localStorage.setItem('undercliff:outbox:1', 'old')
    localStorage.setItem('another', 'not ours')
    await openDevice()
    expect(keptKeys('undercliff:outbox:')).toEqual(['undercliff:outbox:1'])
    expect(localStorage.getItem('undercliff:outbox:1')).toBeNull()
    expect(localStorage.getItem('another')).toBe('not ours')
    await again()
    expect(keptText('undercliff:outbox:1')).toBe('old')
  })

  test('a page that goes before the database has it has written it down', async () => {
    await openDevice()
    await keep('undercliff:one', 'first')
    await keep('undercliff:two', 'goes')
    void keep('undercliff:one', 'second')
    forget('undercliff:two')
    // The page is gone at once: nothing of what the database was asked for arrives.
    const slips = Object.fromEntries(Object.entries(localStorage)) as Record<string, string>
    expect(slips['undercliff:one']).toBe('second')
    expect(slips).toHaveProperty('undercliff-gone:undercliff:two')
    await new Promise((resolve) => setTimeout(resolve, 50))
    expect(Object.keys(localStorage)).toEqual([])
    for (const [key, text] of Object.entries(slips)) localStorage.setItem(key, text)
    await again()
    expect(keptText('undercliff:one')).toBe('second')
    expect(keptText('undercliff:two')).toBeNull()
    expect(Object.keys(localStorage)).toEqual([])
  })

  test.each([
    ['a word', 'again'],
    ['more than is written down at once', 'long '.repeat(50_000)],
  ])('what is kept again after it was forgotten stays: %s', async (_what, text) => {
    await openDevice()
    await keep('undercliff:one', 'first')
    const remove = vi.spyOn(IDBObjectStore.prototype, 'delete').mockImplementationOnce(() => {
      throw new DOMException('The connection was closed.', 'InvalidStateError')
    })
    forget('undercliff:one')
    expect(remove).toHaveBeenCalledOnce()
    remove.mockRestore()
    expect(await keep('undercliff:one', text)).toBe('kept')
    await again()
    expect(keptText('undercliff:one')?.length).toBe(text.length)
  })

  test('whatever is kept and forgotten while a database is opened anew, the last of it counts', async () => {
    for (let moment = 0; moment < 16; moment += 1) {
      vi.stubGlobal('indexedDB', new IDBFactory())
      vi.stubGlobal('localStorage', new StandInStorage())
      await openDevice()
      await keep('undercliff:goes', 'before')
      await keep('undercliff:stays', 'before')
      const cleared = new Promise((resolve) => watch(wasCleared, resolve, { flush: 'sync' }))
      await new Promise((resolve) => (indexedDB.deleteDatabase('undercliff').onsuccess = resolve))
      void keep('undercliff:meanwhile', 'kept')
      await cleared
      // Into every step of it.
      for (let tick = 0; tick < moment; tick += 1) await new Promise((resolve) => setImmediate(resolve))
      forget('undercliff:goes')
      forget('undercliff:stays')
      void keep('undercliff:stays', 'after')
      await vi.waitFor(() => {
        expect(localStorage).toEqual(new StandInStorage())
      })
      await again()
      expect(keptKeys('undercliff:')).toEqual(['undercliff:meanwhile', 'undercliff:stays'])
      expect(keptText('undercliff:stays')).toBe('after')
      closeDevice()
    }
  })

  test('where there is no room, what was kept before stays', async () => {
    await openDevice()
    await keep('undercliff:one', 'first')
    vi.stubGlobal('localStorage', new FullStorage())
    const put = vi.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(() => {
      throw new DOMException('The quota has been exceeded.', 'QuotaExceededError')
    })
    expect(await keep('undercliff:one', 'second')).toBe('noRoom')
    expect(keptText('undercliff:one')).toBe('first')
    put.mockRestore()
  })

  test('without a database the small storage is used, and without that the page itself', async () => {
    vi.stubGlobal('indexedDB', undefined)
    await openDevice()
    expect(await keep('undercliff:one', 'small')).toBe('kept')
    expect(localStorage.getItem('undercliff:one')).toBe('small')
    vi.stubGlobal('localStorage', undefined)
    expect(await keep('undercliff:two', 'page')).toBe('forbidden')
    expect(keptText('undercliff:two')).toBe('page')
    expect(mayKeep.value).toBe(false)
  })

  test('what is wiped under an open page is kept anew, with what came meanwhile', async () => {
    await openDevice()
    await keep('undercliff:one', 'before')
    await keep('undercliff:two', 'goes')
    await new Promise((resolve, reject) => {
      const wiping = indexedDB.deleteDatabase('undercliff')
      wiping.onsuccess = resolve
      wiping.onerror = reject
    })
    // It is not there for a moment: what is known is still known, and what is typed is written down.
    expect(keptText('undercliff:one')).toBe('before')
    expect(await keep('undercliff:three', 'meanwhile')).toBe('kept')
    await vi.waitFor(() => {
      expect(wasCleared.value).toBe(true)
    })
    forget('undercliff:two')
    await vi.waitFor(() => {
      expect(localStorage.getItem('undercliff:three')).toBeNull()
    })
    vi.stubGlobal('localStorage', new StandInStorage())
    await again()
    expect(keptKeys('undercliff:')).toEqual(['undercliff:one', 'undercliff:three'])
    expect(keptText('undercliff:three')).toBe('meanwhile')
  })

  test('another page of the device hears of it', async () => {
    await openDevice()
    const heard: [string, string | null][] = []
    onKeptElsewhere({ addEventListener: () => undefined } as unknown as Window, (key, text) => heard.push([key, text]))
    const other = new BroadcastChannel('undercliff-device')
    other.postMessage({ key: 'undercliff:one', text: 'theirs' })
    await vi.waitFor(() => {
      expect(heard).toEqual([['undercliff:one', 'theirs']])
    })
    expect(keptText('undercliff:one')).toBe('theirs')
    other.close()
  })

  test('what another page changes while this one is got ready is not missed', async () => {
    await openDevice()
    await keep('undercliff:one', 'before')
    closeDevice()
    const reading = openAndRead()
    const { told } = await reading
    const other = new BroadcastChannel('undercliff-device')
    other.postMessage({ key: 'undercliff:one', text: 'theirs' })
    await vi.waitFor(() => {
      expect(told).toHaveLength(1)
    })
    await openDevice(reading)
    expect(keptText('undercliff:one')).toBe('theirs')
    other.close()
  })

  test('what is wiped while the page is got ready is kept anew', async () => {
    await openDevice()
    await keep('undercliff:one', 'before')
    closeDevice()
    const reading = openAndRead()
    await reading
    await new Promise((resolve) => (indexedDB.deleteDatabase('undercliff').onsuccess = resolve))
    await openDevice(reading)
    await vi.waitFor(() => {
      expect(wasCleared.value).toBe(true)
    })
    await again()
    expect(keptText('undercliff:one')).toBe('before')
  })
})

describe('logs that are kept', () => {
  const base = { happenedAt: '2026-03-01T09:00:00.000Z', writtenAt: '', personId: null, writtenBy: null }
  const took = (id: string, loopId: string) => ({ ...base, id, loopId, kind: 'takenOff' }) as const

  test('grow by what is new, each entry once; of another crew nothing stays', async () => {
    const answer = { entries: [took('a', 'one'), took('b', 'two')], more: false }
    await keepLogs('crew', { ...answer, place: '2' })
    await keepLogs('crew', { entries: [took('b', 'two'), took('c', 'two')], place: '3', more: false })
    expect((await keptLog('two')).map(({ id }) => id)).toEqual(['b', 'c'])
    expect(await keptPlace('crew')).toBe('3')
    expect(await keptPlace('another')).toBeNull()
    await keepLogs('another', { entries: [took('d', 'three')], place: '1', more: false })
    expect(await keptLog('two')).toEqual([])
    expect(await keptLog('three')).toHaveLength(1)
  })
})
