import fc from 'fast-check'
import { request } from 'node:http'
import { connect } from 'node:net'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { CREW, Harness, PERSON, registered, SAWYER } from '../fixtures/harness'
import { allRoutes } from '../routes'
import { verifySnapshots } from '../store/refold'
import { Tries } from '../store/tries'
import { LONG, report, times } from './long'
import { FUZZED_LOOP, oddBytes, oddRequests, type Asked, type RouteName } from './oddRequests'

const REQUESTS = times(4000, 47_000)
const SOCKETS = times(200, 3000)
let harness: Harness
let routes: readonly RouteName[]
beforeAll(async () => {
  harness = await Harness.open()
  await harness.write(registered(FUZZED_LOOP))
  const { connected, workers, steadyMs } = harness
  const { db, writes } = connected
  routes = allRoutes({
    db,
    writes,
    workers,
    clock: () => harness.now,
    steadyMs,
    tries: new Tries(db, steadyMs),
    reach: { by: 'machine' },
  })
})
afterAll(() => harness.close())

/** Sends it; 0 when the connection was closed, or Node would not even send it. */
const send = ({ method, path, as, headers: more, body }: Asked): Promise<number> =>
  new Promise((resolve) => {
    const all = {
      ...harness.headers(as),
      ...(body === undefined ? {} : { 'content-type': 'application/json' }),
      ...Object.fromEntries(more),
    }
    try {
      const sent = request(harness.address(''), { method, path, headers: all, timeout: 20_000 })
      sent.on('response', (response) => {
        response.resume()
        response.on('close', () => {
          resolve(response.statusCode ?? 0)
        })
      })
      sent.on('timeout', () => sent.destroy())
      sent.on('error', () => {
        resolve(0)
      })
      sent.end(body)
    } catch {
      resolve(0)
    }
  })

const tally = (counts: ReadonlyMap<number, number>): string =>
  [...counts]
    .sort(([a], [b]) => a - b)
    .map(([status, count]) => `${status}: ${count}`)
    .join(', ')

test(
  `${REQUESTS} requests over every route, and not one 5xx`,
  async () => {
    const counts = new Map<number, number>()
    let done = 0
    await fc.assert(
      fc.asyncProperty(oddRequests(routes), async (one) => {
        // Some requests sign out whoever makes them.
        if (done % 100 === 0)
          for (const as of ['lead', 'sawyer'] as const) await harness.signIn(as, CREW, as === 'lead' ? PERSON : SAWYER)
        done += 1
        const status = await send(one)
        counts.set(status, (counts.get(status) ?? 0) + 1)
        expect(status, JSON.stringify(one)).toBeLessThan(500)
      }),
      { numRuns: REQUESTS, ...(LONG ? {} : { seed: 606 }) },
    )
    report(`fuzz: ${done} requests, by status ${tally(counts)}`)
    expect(done).toBeGreaterThanOrEqual(REQUESTS)
    for (const status of [200, 201, 400, 401, 403, 404, 422])
      expect(counts.get(status), String(status)).toBeGreaterThan(5)
    expect((await verifySnapshots(harness.connected.db)).disagreements).toEqual([])
    expect((await harness.request('/healthz')).status).toBe(200)
  },
  LONG ? 3_600_000 : 180_000,
)

const overSocket = (sent: Buffer): Promise<string> =>
  new Promise((resolve) => {
    const socket = connect(Number(new URL(harness.address('')).port), '127.0.0.1')
    let got = ''
    socket.setTimeout(60, () => socket.destroy())
    socket.on('data', (some) => (got += some.toString('latin1')))
    socket.on('error', () => undefined)
    socket.on('close', () => {
      resolve(got)
    })
    socket.write(sent)
  })

test(
  `${SOCKETS} sockets with whatever bytes, and not one 5xx`,
  async () => {
    let answered = 0
    await fc.assert(
      fc.asyncProperty(fc.array(oddBytes, { minLength: 8, maxLength: 8 }), async (some) => {
        for (const got of await Promise.all(some.map(overSocket))) {
          if (got !== '') answered += 1
          expect(got).toMatch(/^(?:$|HTTP\/1\.1 [1-4]\d\d )/)
        }
      }),
      { numRuns: Math.ceil(SOCKETS / 8) },
    )
    report(`fuzz: ${SOCKETS} raw sockets, ${answered} answered, no 5xx`)
    expect(answered).toBeGreaterThan(SOCKETS / 8)
    expect((await harness.request('/healthz')).status).toBe(200)
  },
  LONG ? 600_000 : 60_000,
)
