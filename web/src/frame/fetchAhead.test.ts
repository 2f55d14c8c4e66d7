import 'fake-indexeddb/auto'
import { IDBFactory } from 'fake-indexeddb'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { closeDevice, openDevice } from '../remote/device'
import { StandInStorage } from '../remote/standInStorage'
import { fetchAhead } from './fetchAhead'

const NOW = Date.UTC(2026, 11, 2, 8)
const HOUR_MS = 3_600_000

/** A server that has a version of some files, but for one that is not to be had. */
function serve(version: string, files: readonly string[], missing?: string): string[] {
  const asked: string[] = []
  vi.stubGlobal('fetch', (path: string) => {
    asked.push(path)
    const body = path === '/screens.json' ? JSON.stringify({ version, files }) : 'code'
    return Promise.resolve(new Response(body, { status: path === missing ? 404 : 200 }))
  })
  return asked
}

beforeEach(async () => {
  vi.stubGlobal('indexedDB', new IDBFactory())
  vi.stubGlobal('localStorage', new StandInStorage())
  vi.stubGlobal('navigator', { storage: { persist: () => Promise.resolve(true) } })
  await openDevice()
})
afterEach(() => {
  closeDevice()
  vi.unstubAllGlobals()
})

test('every file of a version is fetched once in a day', async () => {
  const asked = serve('one', ['/a.js', '/b.css'])
  await fetchAhead(NOW)
  expect(asked).toEqual(['/screens.json', '/a.js', '/b.css'])
  await fetchAhead(NOW + HOUR_MS)
  expect(asked).toHaveLength(4)
  await fetchAhead(NOW + 13 * HOUR_MS)
  expect(asked.filter((path) => path === '/a.js')).toHaveLength(2)
})

test('another version is fetched at once, and so is what did not all come', async () => {
  serve('one', ['/a.js'])
  await fetchAhead(NOW)
  const broken = serve('two', ['/c.js', '/d.js'], '/c.js')
  await fetchAhead(NOW)
  expect(broken).toEqual(['/screens.json', '/c.js'])
  const asked = serve('two', ['/c.js', '/d.js'])
  await fetchAhead(NOW)
  expect(asked).toEqual(['/screens.json', '/c.js', '/d.js'])
})

test('nothing is fetched where the browser keeps all of it, and nothing goes wrong without a server', async () => {
  vi.stubGlobal('fetch', () => Promise.reject(new TypeError('no network')))
  await expect(fetchAhead(NOW)).resolves.toBeUndefined()
  const asked = serve('one', ['/a.js'])
  vi.stubGlobal('navigator', { serviceWorker: { controller: {} } })
  await fetchAhead(NOW)
  expect(asked).toEqual([])
})
