import type { Backup, ProblemDetails, SessionListed } from '@undercliff/contract'
import type { NewEntry } from '@undercliff/core'
import { hash, type verify } from '@node-rs/argon2'
import { parse } from 'papaparse'
import { afterAll, beforeAll, beforeEach, describe, expect, test, vi } from 'vitest'
import { Client, SET_UP } from '../fixtures/client'
import {
  corrected,
  CREW,
  Harness,
  measured,
  NOW,
  PERSON,
  ran,
  registered,
  SAW,
  SAWYER,
  SPEC,
} from '../fixtures/harness'
import { clearAll, createCrew } from '../store/crew'
import { hashSecret } from '../store/passwords'

vi.mock('@node-rs/argon2', async (original) => {
  const argon2 = await original<{ hash: typeof hash; verify: typeof verify }>()
  return { ...argon2, hash: vi.fn(argon2.hash), verify: vi.fn(argon2.verify) }
})

let harness: Harness
beforeAll(async () => {
  harness = await Harness.open()
})
beforeEach(async () => {
  await harness.reset()
  harness.steadyMs = () => harness.now.getTime()
})
afterAll(() => harness.close())

const DAY_MS = 86_400_000
const PASSWORD = 'salt wind and thorn'
const LOOP = 'loop-of-everybody'
const account = (personId: string, login: string, role: string) =>
  harness.send<ProblemDetails | null>('PUT', `/api/accounts/${personId}`, { login, password: PASSWORD, role })
const signIn = (login: string, password = PASSWORD, before?: Client) =>
  Client.enter(harness.address(''), '/api/session', { login, password }, before)
/** A status of what a client asks for. */
const statusOf = async (asked: Promise<Response>): Promise<number> => (await asked).status

describe('somebody who came by PIN', () => {
  /** A device that the lead shared, taken over with the lead's own PIN, beside a full session of theirs. */
  async function byPin(): Promise<{ full: Client; pinned: Client }> {
    await account(PERSON, 'ottoline', 'lead')
    const full = await signIn('ottoline')
    const bench = await signIn('ottoline')
    expect(await statusOf(bench.fetch('/api/pin', { method: 'PUT', body: { pin: '2580' } }))).toBe(200)
    expect(await statusOf(bench.fetch('/api/session/shared', { method: 'PUT', body: { shared: true } }))).toBe(200)
    const body = { personId: PERSON, pin: '2580' }
    return { full, pinned: await Client.enter(harness.address(''), '/api/session/switch', body, bench) }
  }
  const sessionsOf = async (client: Client): Promise<SessionListed[]> =>
    ((await (await client.fetch('/api/sessions')).json()) as { sessions: SessionListed[] }).sessions

  test('neither sees nor ends a session with a password', async () => {
    const { full, pinned } = await byPin()
    expect((await sessionsOf(pinned)).map(({ current }) => current)).toEqual([true])
    const mine = (await sessionsOf(full)).find(({ current }) => current)
    expect(await statusOf(pinned.fetch(`/api/sessions/${mine?.id ?? ''}`, { method: 'DELETE' }))).toBe(404)
    expect(await statusOf(full.fetch('/api/shed'))).toBe(200)
  })

  test('sets neither the PIN nor the password of whose PIN it is, nor does what a lead does', async () => {
    const { pinned } = await byPin()
    const changes = [
      ['/api/pin', { pin: '0000' }],
      ['/api/pin', { pin: null }],
      ['/api/password', { current: PASSWORD, next: 'another password here' }],
    ] as const
    for (const [path, body] of changes) {
      const answer = await pinned.fetch(path, { method: 'PUT', body })
      expect({ status: answer.status, code: ((await answer.json()) as ProblemDetails).code }).toEqual({
        status: 403,
        code: 'password-needed',
      })
    }
    expect(await statusOf(pinned.fetch('/api/accounts'))).toBe(403)
    expect(await statusOf(pinned.fetch('/api/rules', { method: 'PUT', body: { version: 1 } }))).toBe(403)
    expect(await statusOf(pinned.fetch('/api/backup'))).toBe(403)
  })
})

describe('striking out', () => {
  const strike = (loopId: string, entryId: string, as: 'lead' | 'sawyer') =>
    harness.post(
      '/api/entries',
      { entries: [{ ...corrected(loopId, entryId), happenedAt: harness.now.toISOString() }] },
      as,
    )

  test('a sawyer takes back what they wrote or did, for some days; a lead anything', async () => {
    const theirs = ran(LOOP)
    const forThem = { ...ran(LOOP), personId: SAWYER }
    const own = [ran(LOOP), ran(LOOP)]
    await harness.write(registered(LOOP), theirs, forThem)
    expect((await harness.post('/api/entries', { entries: own }, 'sawyer')).status).toBe(201)
    const refused = await strike(LOOP, theirs.id, 'sawyer')
    expect({ status: refused.status, code: refused.body.code }).toEqual({ status: 403, code: 'lead-only' })
    expect((await strike(LOOP, forThem.id, 'sawyer')).status).toBe(201)
    expect((await strike(LOOP, own[0]?.id ?? '', 'sawyer')).status).toBe(201)
    harness.now = new Date(NOW.getTime() + 7.1 * DAY_MS)
    expect((await strike(LOOP, own[1]?.id ?? '', 'sawyer')).body.detail).toContain('more than 7 days ago')
    expect((await strike(LOOP, own[1]?.id ?? '', 'lead')).status).toBe(201)
    expect((await strike(LOOP, theirs.id, 'lead')).status).toBe(201)
  })

  test('the same in the log of a saw', async () => {
    const flip = (id: string) => ({ id, sawId: SAW, happenedAt: '2026-03-10T09:00:00.000Z', personId: null })
    await harness.post('/api/entries', { entries: [{ ...flip('flip-of-lead-1'), kind: 'barFlipped' }] })
    await harness.post('/api/entries', { entries: [{ ...flip('flip-of-theirs'), kind: 'barFlipped' }] }, 'sawyer')
    const take = (id: string, strikes: string) =>
      harness.post('/api/entries', { entries: [{ ...flip(id), kind: 'sawCorrected', strikes }] }, 'sawyer')
    expect((await take('strike-of-lead', 'flip-of-lead-1')).body.code).toBe('lead-only')
    expect((await take('strike-of-own', 'flip-of-theirs')).status).toBe(201)
  })
})

describe('what was advised', () => {
  const decided = (more: object): NewEntry =>
    ({
      id: 'a-decision-here',
      loopId: LOOP,
      happenedAt: '2026-03-12T09:00:00.000Z',
      personId: null,
      kind: 'decided',
      rulesVersion: 999,
      ...more,
    }) as NewEntry

  test('is what the log and the rules say, whatever a device says of it', async () => {
    await harness.write(registered(LOOP), measured(LOOP, 7600))
    const rulesVersion = (await harness.shed()).crew.rules.version
    // A loop that is new runs on: to say that grinding was advised is not so, and needs a reason.
    const forged = decided({ action: 'regrind', advised: 'regrind' })
    const refused = await harness.write(forged)
    expect(refused.body.problems?.[0]).toMatchObject({ field: 'entries[0].overruled', code: 'overrule-needed' })
    const sent = { ...forged, overruled: 'Somebody wants it so' }
    const first = await harness.write(sent)
    expect(first.status).toBe(201)
    expect(first.body.entries[0]).toMatchObject({ action: 'regrind', advised: 'runOn', rulesVersion })
    // Sent again it is the same entry, not another under its id.
    expect((await harness.write(sent)).body.entries).toEqual(first.body.entries)
    expect(await harness.log(LOOP)).toHaveLength(3)
  })
})

describe('tries of secrets', () => {
  const guess = (login: string, i: number, before?: Client) =>
    signIn(login, `not it, number ${i}`, before).then(
      () => 201,
      (error: unknown) => Number((error as Error).message.slice(0, 3)),
    )
  /** The cookies of a device on which somebody signed in, without the session. */
  async function deviceOf(login: string): Promise<string> {
    const response = await fetch(harness.address('/api/session'), {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ login, password: PASSWORD }),
    })
    expect(response.status).toBe(201)
    return response.headers
      .getSetCookie()
      .map((cookie) => cookie.split(';')[0] ?? '')
      .filter((cookie) => cookie.startsWith('undercliff_known_'))
      .join('; ')
  }
  const from = async (cookie: string, login: string, password: string): Promise<number> =>
    (
      await fetch(harness.address('/api/session'), {
        method: 'POST',
        headers: { 'content-type': 'application/json', cookie },
        body: JSON.stringify({ login, password }),
      })
    ).status

  test('a stranger’s five do not shut out a device that is known, and its own five do', async () => {
    await account(SAWYER, 'bram', 'sawyer')
    const device = await deviceOf('bram')
    expect(device).not.toBe('')
    for (let i = 0; i < 6; i += 1) await guess('bram', i)
    expect(await from('', 'bram', PASSWORD)).toBe(429)
    expect(await from(device, 'bram', PASSWORD)).toBe(201)
    for (let i = 0; i < 5; i += 1) expect(await from(device, 'bram', `wrong ${i}`)).toBe(401)
    expect(await from(device, 'bram', PASSWORD)).toBe(429)
  })

  test('a mark of somebody else’s, a forged one, or one from before another password, marks a stranger', async () => {
    await account(SAWYER, 'bram', 'sawyer')
    await account(PERSON, 'ottoline', 'lead')
    const [brams, ottolines] = [await deviceOf('bram'), await deviceOf('ottoline')]
    for (let i = 0; i < 6; i += 1) await guess('bram', i)
    const moved = `${brams.split('=')[0] ?? ''}=${ottolines.split('=')[1] ?? ''}`
    const forged = brams.replace(/.$/, (last) => (last === '0' ? '1' : '0'))
    for (const cookie of [moved, forged, ottolines, `${brams.split('=')[0] ?? ''}=é.x`])
      expect(await from(cookie, 'bram', PASSWORD), cookie).toBe(429)
    expect(await from(brams, 'bram', PASSWORD)).toBe(201)
    await harness.send('PUT', `/api/accounts/${SAWYER}`, {
      login: 'bram',
      password: 'quite another one',
      role: 'sawyer',
    })
    expect(await from(brams, 'bram', 'quite another one')).toBe(429)
  })

  test('a name written another way is the same name, and has no tries of its own', async () => {
    await account(SAWYER, 'bram', 'sawyer')
    const spelled = ['bram', 'BRAM', 'brám', 'bra\u0301m', ' bram ', 'b\u200bram', 'bråm']
    const said: number[] = []
    for (const [i, login] of spelled.entries()) said.push(await guess(login, i))
    expect(said.filter((status) => status === 401).length).toBeLessThanOrEqual(5)
    expect(await guess('bram', 99)).toBe(429)
  })

  test('setting the machine’s date forgives nothing and ends nobody’s session', async () => {
    await account(SAWYER, 'bram', 'sawyer')
    const steady = NOW.getTime()
    harness.steadyMs = () => steady
    const client = await signIn('bram')
    for (let i = 0; i < 6; i += 1) await guess('bram', i)
    for (const days of [400, -400]) {
      harness.now = new Date(NOW.getTime() + days * DAY_MS)
      expect(await guess('bram', 7)).toBe(429)
      expect(await statusOf(client.fetch('/api/shed'))).toBe(200)
    }
    harness.steadyMs = () => steady + 16 * 60_000
    expect(await guess('bram', 8)).toBe(401)
    harness.steadyMs = () => steady + 31 * DAY_MS
    expect(await statusOf(client.fetch('/api/shed'))).toBe(401)
  })
})

describe('hashing a secret', () => {
  const hashing = vi.mocked(hash)
  const setUp = (login: string) =>
    harness.send('POST', '/api/setup', { ...SET_UP, login }, 'nobody').then(({ status }) => status)

  test('on a page that is set up already nothing is hashed', async () => {
    await account(PERSON, 'ottoline', 'lead')
    hashing.mockClear()
    expect(await Promise.all(['one', 'two', 'three'].map(setUp))).toEqual([409, 409, 409])
    expect(hashing).not.toHaveBeenCalled()
  })

  test('on an empty first page a stranger has a few tries, and no more', async () => {
    await harness.connected.db.transaction(clearAll)
    await createCrew(harness.connected.db, CREW, 'Our crew')
    // A name that no crew takes fails after the hashing.
    hashing.mockClear()
    const statuses = await Promise.all(Array.from({ length: 30 }, (_, i) => setUp(`stranger-${i}`)))
    expect(statuses.filter((status) => status === 201)).toHaveLength(1)
    expect(hashing.mock.calls.length).toBeLessThanOrEqual(6)
  })

  test('a PIN is set so often and no oftener', async () => {
    await account(SAWYER, 'bram', 'sawyer')
    const client = await signIn('bram')
    const statuses: number[] = []
    for (let i = 0; i < 24; i += 1) {
      statuses.push(await statusOf(client.fetch('/api/pin', { method: 'PUT', body: { pin: String(1000 + i) } })))
    }
    expect(statuses.slice(0, 15).every((status) => status === 200)).toBe(true)
    expect(statuses.at(-1)).toBe(429)
  })

  test('more at once than anybody would wait for are turned away, and reading goes on', async () => {
    const many = Array.from({ length: 60 }, (_, i) =>
      hashSecret(`secret ${i}`).then(
        () => 'done',
        () => 'turned away',
      ),
    )
    const read = await harness.request('/api/session')
    expect(read.status).toBe(200)
    const outcomes = await Promise.all(many)
    expect(outcomes.filter((one) => one === 'turned away').length).toBeGreaterThan(20)
    expect(outcomes.filter((one) => one === 'done').length).toBeGreaterThanOrEqual(20)
  })
})

describe('names', () => {
  test.each([
    ['what cannot be seen', 'Zo\u200bë'],
    ['a mark of direction', 'Zoë\u202e'],
    ['a soft hyphen', 'Zo\u00adë'],
    ['an emoji', 'Zoë 🌲'],
    ['another emoji', '🌳'],
    ['a variation', 'Zoë\ufe0f'],
    ['a line break', 'Zoë\nLead'],
    ['marks without a letter', '\u0301\u0308'],
    ['signs alone', '--'],
  ])('with %s are refused when they are made', async (_what, name) => {
    for (const [path, body] of [
      ['/api/people', { id: 'a-new-person', name }],
      ['/api/saws', { id: 'a-new-saw-1', nickname: name, pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72 }],
      ['/api/crew', { name, lengths: 'mm' }],
    ] as const)
      expect((await harness.send(path === '/api/crew' ? 'PUT' : 'POST', path, body)).status, path).toBe(422)
  })

  test('of people anywhere are taken, and those that look alike are one', async () => {
    const add = (id: string, name: string) => harness.post('/api/people', { id, name })
    for (const [i, name] of ['Ørjan Ås', 'Ngũgĩ', '木村', 'Šárka-Lil', "D'Arcy 2", 'Αλέξης'].entries())
      expect((await add(`named-person-${i}`, name)).status, name).toBe(201)
    for (const name of ['ngugi', 'NGŨGĨ', 'Sarka-lil', 'αλεξησ'])
      expect((await add('looks-alike-1', name)).body.code, name).toBe('name-taken')
  })
})

test('a spreadsheet takes no cell for a formula, whatever blanks are before it', async () => {
  const notes = ['=1+1', ' =1+1', '\n=1+1', '\t\t@SUM(A1)', ' +1', '\u00a0-1', 'plain = text']
  await harness.write(registered(LOOP), ...notes.map((note): NewEntry => ({ ...ran(LOOP), note })))
  const csv = (await harness.request<string>('/api/tables/log.csv')).body
  const { data } = parse<{ note: string }>(csv, { header: true, skipEmptyLines: true })
  const written = data.map(({ note }) => note).filter((note) => note !== '')
  const bare = (note: string): string => note.replaceAll("'", '')
  expect(written.map(bare)).toEqual(notes)
  expect(written.filter((note) => !note.startsWith("'"))).toEqual(['plain = text'])
})

describe('clocks that are wrong', () => {
  const headers = (ms: number) => ({ 'content-type': 'application/json', 'x-device-time': String(ms) })
  const sendFrom = (ms: number | null, ...entries: unknown[]) =>
    harness.request<ProblemDetails>('/api/entries', {
      method: 'POST',
      headers: ms === null ? { 'content-type': 'application/json' } : headers(ms),
      body: JSON.stringify({ entries }),
    })
  const at = (ms: number): string => new Date(ms).toISOString()

  test.each([
    ['a day ahead, and says so', DAY_MS, true],
    ['a day ahead, and says nothing', DAY_MS, false],
    ['a day behind, and says so', -DAY_MS, true],
    ['years ahead', 3000 * DAY_MS, false],
  ])('a device %s: kept once, with what it said and what the server thinks', async (_name, off, says) => {
    const said = NOW.getTime() + off
    const sent = { ...registered(LOOP), happenedAt: at(said - 60_000) }
    const after = { ...ran(LOOP), happenedAt: at(said) }
    for (let i = 0; i < 2; i += 1) expect((await sendFrom(says ? said : null, sent, after)).status).toBe(201)
    const log = await harness.log(LOOP)
    expect(log.map(({ happenedAt, saidAt }) => [happenedAt, saidAt])).toEqual([
      [at(NOW.getTime() - 60_000), sent.happenedAt],
      [at(NOW.getTime()), after.happenedAt],
    ])
    // Another thing under the id is still another thing.
    const other = { ...after, happenedAt: at(said + 1000) }
    expect((await sendFrom(says ? said : null, other)).body.code).toBe('id-taken')
  })

  test('the server a day behind, then put right: what was written is kept, and its backup is read', async () => {
    harness.steadyMs = () => NOW.getTime()
    harness.now = new Date(NOW.getTime() - DAY_MS)
    const flip = { id: 'flip-while-wrong', sawId: SAW, happenedAt: at(NOW.getTime()), personId: null }
    const wrote = await sendFrom(
      NOW.getTime(),
      { ...registered(LOOP), happenedAt: at(NOW.getTime() - 1000) },
      { ...ran(LOOP), happenedAt: at(NOW.getTime()) },
      { ...flip, kind: 'barFlipped' },
    )
    expect(wrote.status).toBe(201)
    // And a day ahead of what it is put back to.
    harness.now = new Date(NOW.getTime() + 40 * DAY_MS)
    const late = { ...ran(LOOP), happenedAt: harness.now.toISOString() }
    expect((await harness.write(late)).status).toBe(201)
    harness.now = NOW
    const backup = (await harness.request<Backup>('/api/backup')).body
    expect(backup.content.entries.map(({ saidAt }) => saidAt !== undefined)).toEqual([true, true, false])
    expect(backup.content.sawEntries[0]?.saidAt).toBe(flip.happenedAt)
    expect((await harness.post('/api/backup', backup, 'otherLead')).status).toBe(204)
    const again = (await harness.request<Backup>('/api/backup', {}, 'otherLead')).body
    expect(again.content.entries).toEqual(backup.content.entries)
    expect(again.content.sawEntries).toEqual(backup.content.sawEntries)
  })

  test('an import of a device with a wrong clock is kept as well', async () => {
    const said = NOW.getTime() + DAY_MS
    const entry: NewEntry = { ...registered(LOOP, 'IMP1', SPEC), happenedAt: at(said) }
    const answer = await harness.request('/api/import', {
      method: 'POST',
      headers: headers(said),
      body: JSON.stringify({ saws: [], entries: [entry] }),
    })
    expect(answer.status).toBe(201)
    expect((await harness.log(LOOP))[0]).toMatchObject({ happenedAt: NOW.toISOString(), saidAt: at(said) })
  })
})
