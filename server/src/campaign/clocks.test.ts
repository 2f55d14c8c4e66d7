import { isInstant, isSaidInstant, type Backup } from '@undercliff/contract'
import { ne } from 'drizzle-orm'
import fc from 'fast-check'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { crews } from '../database/schema'
import { CREW, Harness, measured, NOW, ran, registered, SAW } from '../fixtures/harness'
import { DOT_PNG } from '../fixtures/pictures'
import { verifySnapshots } from '../store/refold'
import { clearCrew } from './clearCrew'
import { report, times } from './long'

const REQUESTS = times(250, 20_000)
const LOOPS = 12
const NOW_MS = NOW.getTime()
const DAY_MS = 86_400_000

let harness: Harness
beforeAll(async () => {
  harness = await Harness.open()
})
afterAll(() => harness.close())

/** What a clock shows, from right to as wrong as a clock of ECMA-262 can be. */
const clocks = fc.oneof(
  fc.constantFrom(0, Date.UTC(1980, 0, 1), Date.UTC(2000, 0, 1), Date.UTC(2126, 0, 1), 999_999_999_999_999, -1),
  fc.constantFrom(8.64e15, -8.64e15, Date.parse('9999-12-31T23:59:59.999Z'), Date.UTC(10_000, 0, 1)),
  fc.integer({ min: -8.64e15, max: 8.64e15 }),
  fc.integer({ min: NOW_MS - 2 * DAY_MS, max: NOW_MS + 2 * DAY_MS }),
)
/** What a device says that its clock shows; what cannot be read is passed over. */
const said = (ms: number) =>
  fc.oneof({ weight: 4, arbitrary: fc.constant(String(ms)) }, fc.constantFrom('', 'nonsense', '1e9', 'Infinity'))

type Deed = (
  at: string,
  n: number,
  send: (method: 'POST' | 'PUT', path: string, body: unknown) => Promise<number>,
) => Promise<number>
let counter = 0
const next = (): string => String((counter += 1)).padStart(6, '0')
const loopOf = (n: number): string => `clocked-loop-${n % LOOPS}`
const entry = (body: object, at: string): unknown => ({
  entries: [{ ...body, id: `clocked-${next()}`, happenedAt: at }],
})
const DEEDS: Readonly<Record<string, Deed>> = {
  tank: (at, n, send) => send('POST', '/api/entries', entry(ran(loopOf(n)), at)),
  strike: (at, n, send) =>
    send(
      'POST',
      '/api/entries',
      entry({ ...ran(loopOf(n)), kind: 'struck', against: 'stone', tanks: undefined, conditions: undefined }, at),
    ),
  reading: (at, n, send) => send('POST', '/api/entries', entry(measured(loopOf(n), 6500 - (n % 50)), at)),
  loop: (at, _n, send) => {
    const id = next()
    return send('POST', '/api/entries', entry(registered(`fresh-loop-${id}`, `F${id}`), at))
  },
  bar: (at, _n, send) => send('POST', '/api/entries', entry({ kind: 'barFlipped', sawId: SAW, personId: null }, at)),
  file: (at, _n, send) => {
    const id = `file-of-${next()}`
    return send('PUT', `/api/kit/${id}`, { id, kind: 'file', name: id, version: 1, fileUm: 5200, openedAt: at })
  },
  photo: (at, n, send) => {
    const id = `photo-of-${next()}`
    const saw = { id, loopId: loopOf(n), shows: '', takenAt: at, picture: DOT_PNG }
    return send('PUT', `/api/photos/${id}`, saw)
  },
}

test(`${REQUESTS} requests by devices of any clock: each is taken, and all comes back from a backup`, async () => {
  for (let n = 0; n < LOOPS; n += 1) await harness.write(registered(loopOf(n), `C${n}`))
  const one = clocks.chain((ms) =>
    fc.record({ ms: fc.constant(ms), header: said(ms), deed: fc.constantFrom(...Object.keys(DEEDS)), n: fc.nat(999) }),
  )
  let done = 0
  const photos = new Map<string, number>()
  await fc.assert(
    fc.asyncProperty(one, async ({ ms, header, deed, n }) => {
      // A loop has room for a few photographs.
      const many = photos.get(loopOf(n)) ?? 0
      fc.pre(deed !== 'photo' || many < 12)
      const readable = /^\d{1,15}$/.test(header)
      // Without a word of the clock, a day before the loop came is a day that somebody may have meant.
      fc.pre(readable || ms < Date.UTC(1990, 0, 1) || ms >= NOW_MS - 2 * DAY_MS)
      if (deed === 'photo') photos.set(loopOf(n), many + 1)
      const send = async (method: 'POST' | 'PUT', path: string, body: unknown): Promise<number> => {
        const headers = { 'content-type': 'application/json', 'x-device-time': header }
        const answer = await harness.request(path, { method, headers, body: JSON.stringify(body) })
        if (answer.status >= 300) throw new Error(`${answer.status} ${JSON.stringify(answer.body)}`)
        return answer.status
      }
      await DEEDS[deed]?.(new Date(ms).toISOString(), n, send)
      done += 1
    }),
    { numRuns: REQUESTS },
  )
  expect(done).toBe(REQUESTS)
  expect((await verifySnapshots(harness.connected.db)).disagreements).toEqual([])

  const backup = (await harness.request<Backup>('/api/backup')).body
  for (const { happenedAt, saidAt } of [...backup.content.entries, ...backup.content.sawEntries]) {
    expect(isInstant(happenedAt), happenedAt).toBe(true)
    if (saidAt !== undefined) expect(isSaidInstant(saidAt), saidAt).toBe(true)
    expect(Date.parse(happenedAt)).toBeLessThanOrEqual(NOW_MS + 5 * 60_000)
  }
  const { db } = harness.connected
  const [other] = await db.select().from(crews).where(ne(crews.id, CREW))
  await db.transaction((tx) => clearCrew(tx, other?.id ?? ''))
  expect(await harness.post('/api/backup', backup, 'otherLead')).toMatchObject({ status: 204 })
  const again = (await harness.request<Backup>('/api/backup', {}, 'otherLead')).body
  for (const part of ['entries', 'sawEntries', 'kit', 'photos', 'saws'] as const)
    expect(again.content[part], part).toEqual(backup.content[part])
  report(`clocks: ${done} requests by devices of any clock, all taken; backup and restore equal`)
}, 3_600_000)
