import type { Backup, SetAsideAnswer } from '@undercliff/contract'
import { DEFAULT_RULES, type NewSawEntry } from '@undercliff/core'
import { eq } from 'drizzle-orm'
import { createHash } from 'node:crypto'
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { request } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest'
import { allRoutes } from '.'
import { Harness, PERSON, ran, registered, SAW, SAWYER, SECOND_SAW, type As } from '../fixtures/harness'
import { accounts, people, saws, sessions } from '../database/schema'
import { Tries } from '../store/tries'
import { databaseUrl } from '../fixtures/databaseUrl'

const LOOP = 'loop-for-bad-input'
let harness: Harness
const dist = mkdtempSync(join(tmpdir(), 'undercliff-dist-'))
beforeAll(async () => {
  mkdirSync(join(dist, 'assets'))
  writeFileSync(join(dist, 'index.html'), '<!doctype html><title>A page</title>')
  writeFileSync(join(dist, 'assets', 'there.js'), '1')
  harness = await Harness.open(databaseUrl(), dist)
})
afterAll(async () => {
  await harness.close()
  rmSync(dist, { recursive: true, force: true })
})

const routes = () => {
  const { connected, workers, steadyMs } = harness
  const { db, writes } = connected
  return allRoutes({
    db,
    writes,
    workers,
    clock: () => harness.now,
    steadyMs,
    tries: new Tries(db, steadyMs),
    reach: { by: 'machine' },
  })
}
/** Each route that changes something, called with ids that there are. */
const changing = () =>
  routes()
    .filter(({ method }) => method === 'post' || method === 'put')
    .map(({ method, path }) => [method.toUpperCase(), `/api${path.replace(':personId', SAWYER)}`] as const)

interface Raw {
  readonly method: string
  readonly path: string
  readonly headers?: Record<string, string>
  readonly body?: string
}

/** A request byte for byte, past everything that a well-behaved client puts right. */
const raw = ({ method, path, headers = {}, body }: Raw, as: As = 'lead'): Promise<number> =>
  new Promise((resolve, reject) => {
    const sent = request(harness.address(''), { method, path, headers: { ...harness.headers(as), ...headers } })
    sent.on('response', (response) => {
      response.resume()
      response.on('end', () => {
        resolve(response.statusCode ?? 0)
      })
    })
    sent.on('error', reject)
    sent.end(body)
  })

describe('no body at all', () => {
  test('is told on every route that wants one, and changes nothing', async () => {
    await harness.reset()
    const before = JSON.stringify(await harness.shed())
    for (const [method, path] of changing()) {
      for (const headers of [{}, { 'content-type': 'application/json' }, { 'content-length': '0' }]) {
        const status = await raw({ method, path, headers })
        expect(status, `${method} ${path} ${JSON.stringify(headers)}`).toBeGreaterThanOrEqual(400)
        expect(status, `${method} ${path} ${JSON.stringify(headers)}`).toBeLessThan(500)
      }
    }
    expect(JSON.stringify(await harness.shed())).toBe(before)
  })

  test('house rules that are not named stay as they are', async () => {
    await harness.reset()
    const { version } = DEFAULT_RULES
    expect((await harness.send('PUT', '/api/rules', { version, benchTanks: 21 })).status).toBe(200)
    const set = (await harness.shed()).crew.rules
    expect(set.benchTanks).toBe(21)
    const changed = await harness.send<typeof set>('PUT', '/api/rules', { version: set.version, touchUpTanks: 3 })
    expect(changed.body).toEqual({ ...set, version: set.version + 1, touchUpTanks: 3 })
    for (const body of [{}, { benchTanks: 5 }, [], null]) {
      expect([400, 422], JSON.stringify(body)).toContain((await harness.send('PUT', '/api/rules', body)).status)
    }
    expect((await harness.shed()).crew.rules).toEqual(changed.body)
  })
})

describe('what is no request of ours', () => {
  beforeAll(() => harness.reset())

  test.each([40, 1000, 100_000])('nesting %d deep is told on every route', async (deep) => {
    for (const [method, path] of changing()) {
      for (const body of [
        '['.repeat(deep) + ']'.repeat(deep),
        `{"entries":${'{"a":'.repeat(deep)}1${'}'.repeat(deep)}}`,
      ]) {
        const status = await raw({ method, path, headers: { 'content-type': 'application/json' }, body })
        expect([400, 401, 403, 409, 413, 422], `${method} ${path}`).toContain(status)
      }
    }
  })

  test.each([
    's%C3%A4ge-number-one',
    '%F0%9F%8C%B2%F0%9F%8C%B2%F0%9F%8C%B2',
    '%00%00%00%00%00%00%00%00',
    'a%27b%22c--d',
  ])('nothing has the id %s', async (id) => {
    const paths = routes().filter(({ path }) => /:(?!name)/.test(path))
    expect(paths.length).toBeGreaterThanOrEqual(6)
    for (const { method, path } of paths) {
      const body = method === 'put' ? { login: 'somebody', password: 'long enough for it', role: 'sawyer' } : undefined
      const sent = {
        method: method.toUpperCase(),
        path: `/api${path.replace(/:\w+/, id)}`,
        headers: { 'content-type': 'application/json' },
      }
      const status = await raw(body === undefined ? sent : { ...sent, body: JSON.stringify(body) })
      expect([404, 422], `${method} ${path}`).toContain(status)
    }
  })

  test('a token of the right length with other bytes is no token', async () => {
    const right = harness.headers('lead')['x-csrf-token'] ?? ''
    for (const token of ['é'.repeat(right.length), 'ÿ' + right.slice(1), right.slice(1) + '\u0080', 'x', '']) {
      const headers = { 'x-csrf-token': token, 'content-type': 'application/json' }
      expect(await raw({ method: 'PUT', path: '/api/crew', headers, body: '{}' })).toBe(403)
    }
  })

  test('a file that is not in this version is not there, and is not the database', async () => {
    for (const path of ['/assets/gone-12345678.js', '/assets/', '/assets/%2e%2e/index.html', '/assets/there.js/x']) {
      expect(await raw({ method: 'GET', path })).toBe(404)
    }
    expect(await raw({ method: 'GET', path: '/assets/there.js' })).toBe(200)
    expect(await raw({ method: 'GET', path: '/some/place', headers: { accept: 'text/html' } })).toBe(200)
  })

  test('no answer below /api is kept on the way', async () => {
    for (const path of ['/api/session', '/api/shed', '/api/wear', '/api/sessions', '/api/accounts', '/api/nowhere']) {
      const { headers } = await harness.request(path)
      expect(headers.get('cache-control'), path).toBe('private, no-store')
    }
  })
})

describe('an id again', () => {
  const flipped = (id: string, sawId: string, more: object = {}): NewSawEntry => ({
    id,
    sawId,
    happenedAt: '2026-03-10T09:00:00.000Z',
    personId: null,
    kind: 'barFlipped',
    ...more,
  })
  const post = (...entries: unknown[]) => harness.post('/api/entries', { entries })
  const countOf = async (sawId: string): Promise<number> =>
    (await harness.request<{ entries: unknown[] }>(`/api/saws/${sawId}`)).body.entries.length
  beforeEach(async () => {
    await harness.reset()
    await harness.write(registered(LOOP, 'BAD1'))
  })

  test.each([
    ['of a saw, for another saw', flipped('one-id-for-all', SECOND_SAW)],
    ['of a saw, with another time', flipped('one-id-for-all', SAW, { happenedAt: '2026-03-11T09:00:00.000Z' })],
    ['of a saw, of another kind', { ...flipped('one-id-for-all', SAW), kind: 'railsDressed' }],
    ['of a saw, with a note', flipped('one-id-for-all', SAW, { note: 'and dressed' })],
    ['of a saw, for a loop', { ...ran(LOOP), id: 'one-id-for-all' }],
  ])('%s: refused, and the first one stays', async (_name, again) => {
    const first = flipped('one-id-for-all', SAW)
    expect((await post(first)).status).toBe(201)
    for (const sent of [[again], [first, again]]) {
      const { status, body } = await post(...sent)
      expect({ status, code: body.code }).toEqual({ status: 409, code: 'id-taken' })
    }
    expect((await post(first)).status).toBe(201)
    expect([await countOf(SAW), await countOf(SECOND_SAW), (await harness.log(LOOP)).length]).toEqual([1, 0, 1])
  })

  test('of a loop, for a saw; and twice within one request', async () => {
    const entry = { ...ran(LOOP), id: 'one-id-for-all' }
    expect((await post(entry)).status).toBe(201)
    expect((await post(flipped('one-id-for-all', SAW))).body.code).toBe('id-taken')
    const both = await post(flipped('another-id-1', SAW), flipped('another-id-1', SECOND_SAW))
    expect(both.body.code).toBe('id-taken')
    expect([await countOf(SAW), await countOf(SECOND_SAW)]).toEqual([0, 0])
  })
})

describe('a backup with what cannot be', () => {
  let good: Backup
  beforeAll(async () => {
    await harness.reset()
    const flip = { id: 'flip-of-the-bar', sawId: SAW, happenedAt: '2026-03-10T09:00:00.000Z', personId: PERSON }
    const wrote = await harness.post('/api/entries', {
      entries: [registered(LOOP, 'BAD1'), ran(LOOP), { ...flip, kind: 'barFlipped' }],
    })
    expect(wrote.status).toBe(201)
    good = (await harness.request<Backup>('/api/backup')).body
  })
  const restore = async (change: (content: Content) => void) => {
    const { db } = harness.connected
    const content = structuredClone(good.content) as unknown as Content
    change(content)
    await harness.reset()
    await db.delete(saws)
    for (const table of [sessions, accounts]) await db.delete(table).where(eq(table.personId, SAWYER))
    await db.delete(people).where(eq(people.id, SAWYER))
    const checksum = createHash('sha256').update(JSON.stringify(content)).digest('hex')
    return harness.post('/api/backup', { ...good, content, checksum })
  }
  interface Content {
    entries: Record<string, unknown>[]
    sawEntries: Record<string, unknown>[]
    people: Record<string, unknown>[]
    saws: Record<string, unknown>[]
    crew: { rules: Record<string, unknown> }
  }
  const last = (content: Content) => content.entries.at(-1) ?? {}

  test('as it was written it is read', async () => {
    expect((await restore(() => undefined)).status).toBe(204)
  })

  test.each<[string, string, (content: Content) => unknown]>([
    ['a person', 'entries personId', (c) => (last(c)['personId'] = 'nobody-at-all')],
    ['a writer', 'entries writtenBy', (c) => (last(c)['writtenBy'] = 'nobody-at-all')],
    ['a writer that is no id', 'entries writtenBy', (c) => (last(c)['writtenBy'] = 'ünbekannt')],
    ['a writer that is no text', 'entries writtenBy', (c) => (last(c)['writtenBy'] = { id: 1 })],
    ['a year', 'entries writtenAt', (c) => (last(c)['writtenAt'] = '0001-01-01T00:00:00.000Z')],
    ['a long year', 'entries writtenAt', (c) => (last(c)['writtenAt'] = '+275760-09-13T00:00:00.000Z')],
    ['a said year', 'entries saidAt', (c) => (last(c)['saidAt'] = '-000001-01-01T00:00:00.000Z')],
    [
      'a saw',
      'entries sawId',
      (c) =>
        c.entries.push({
          ...last(c),
          id: 'fits-nowhere',
          kind: 'fitted',
          tanks: undefined,
          conditions: undefined,
          sawId: 'no-such-saw',
        }),
    ],
    ['the saw of a log', 'sawEntries sawId', (c) => ((c.sawEntries[0] ?? {})['sawId'] = 'no-such-saw')],
    [
      'the writer of a saw’s log',
      'sawEntries writtenBy',
      (c) => ((c.sawEntries[0] ?? {})['writtenBy'] = 'nobody-at-all'),
    ],
    [
      'what is struck out',
      'sawEntries strikes',
      (c) =>
        c.sawEntries.push({
          ...c.sawEntries[0],
          id: 'strikes-nothing',
          kind: 'sawCorrected',
          strikes: 'no-such-entry',
        }),
    ],
  ])('a row that names %s that is not in it is set aside, and the rest comes in', async (_name, odd, change) => {
    const { status, body } = await restore(change)
    const { rows } = body as unknown as SetAsideAnswer
    expect({ status, odd: rows.map(({ part, why }) => `${part} ${why.split(':')[0] ?? ''}`) }).toEqual({
      status: 200,
      odd: [odd],
    })
    expect((await harness.shed()).loops.map(({ tag }) => tag)).toEqual(['BAD1'])
  })

  test('two of one name, id or saw', async () => {
    for (const change of [
      (c: Content) => c.people.push({ ...c.people[0], id: 'somebody-else' }),
      (c: Content) => c.people.push({ id: 'somebody-else', name: 'OTTOLINE VÁNE', role: 'sawyer' }),
      (c: Content) => c.saws.push({ ...c.saws[0] }),
      (c: Content) => c.entries.push({ ...last(c) }),
    ]) {
      const { status, body } = await restore(change)
      expect({ status, code: body.code }).toEqual({ status: 422, code: 'backup-damaged' })
    }
  })
})
