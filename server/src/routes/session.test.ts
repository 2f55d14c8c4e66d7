import type { AccountAnswer, ProblemDetails, SessionAnswer, SessionListed } from '@undercliff/contract'
import { sql } from 'drizzle-orm'
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest'
import { clearAll, createCrew } from '../store/crew'
import { Client, SET_UP } from '../fixtures/client'
import { CREW, Harness, PERSON, ran, registered, SAWYER } from '../fixtures/harness'

let harness: Harness
beforeAll(async () => {
  harness = await Harness.open()
})
beforeEach(() => harness.reset())
afterAll(() => harness.close())

const here = (): string => harness.address('')
const PASSWORD = 'salt wind and thorn'
/** Gives our sawyer a password, by the lead. */
const letIn = (more: object = {}) =>
  harness.send<ProblemDetails | null>('PUT', `/api/accounts/${SAWYER}`, {
    login: 'bram',
    password: PASSWORD,
    role: 'sawyer',
    ...more,
  })
const signIn = (password = PASSWORD, login = 'bram') => Client.enter(here(), '/api/session', { login, password })
const json = async <T>(response: Promise<Response>): Promise<T> => (await (await response).json()) as T

describe('the first run', () => {
  test('asks the lead to set up, once', async () => {
    await harness.connected.db.transaction(clearAll)
    await createCrew(harness.connected.db, CREW, 'Our crew')
    expect((await harness.request<SessionAnswer>('/api/session', {}, 'nobody')).body).toEqual({ state: 'setUp' })
    await expect(Client.enter(here(), '/api/setup', { ...SET_UP, password: 'short' })).rejects.toThrow(
      '422: A password has at least 10 characters',
    )
    const lead = await Client.enter(here(), '/api/setup', SET_UP)
    expect(lead.me).toMatchObject({ state: 'signedIn', role: 'lead', name: 'Ottoline Vane', shared: false })
    await expect(Client.enter(here(), '/api/setup', { ...SET_UP, login: 'second' })).rejects.toThrow('409')
    expect((await harness.request<SessionAnswer>('/api/session', {}, 'nobody')).body).toEqual({
      state: 'signedOut',
      demo: [],
    })
  })

  test('of two who set up at once, one does', async () => {
    await harness.connected.db.transaction(clearAll)
    await createCrew(harness.connected.db, CREW, 'Our crew')
    const both = await Promise.allSettled(
      ['one', 'two'].map((login) => Client.enter(here(), '/api/setup', { ...SET_UP, login })),
    )
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
  })
})

describe('signing in', () => {
  test('the cookie is for this site alone and out of reach of scripts', async () => {
    await letIn()
    const response = await fetch(`${here()}/api/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ login: ' BRAM ', password: PASSWORD }),
    })
    expect(response.status).toBe(201)
    const cookie = response.headers.get('set-cookie') ?? ''
    for (const part of ['HttpOnly', 'SameSite=Strict', 'Path=/']) expect(cookie).toContain(part)
  })

  test('signing in again gives another token and ends the one before', async () => {
    await letIn()
    const first = await signIn()
    const second = await Client.enter(here(), '/api/session', { login: 'bram', password: PASSWORD }, first)
    expect(second.token).not.toBe(first.token)
    expect((await first.fetch('/api/shed')).status).toBe(401)
    expect((await second.fetch('/api/shed')).status).toBe(200)
  })

  test('a name that nobody has and a wrong password say the same', async () => {
    await letIn()
    await expect(signIn('not the password')).rejects.toThrow('401: The name or the password is not right.')
    await expect(signIn(PASSWORD, 'nobody')).rejects.toThrow('401: The name or the password is not right.')
  })

  test('ten guesses at once are no more than five, and somebody else is not shut out', async () => {
    await letIn()
    const guesses = await Promise.allSettled(Array.from({ length: 10 }, (_, i) => signIn(`guess number ${i}`)))
    const said = guesses.map((guess) =>
      guess.status === 'rejected' ? (guess.reason as Error).message.slice(0, 3) : 'in',
    )
    expect(said.filter((code) => code === '401')).toHaveLength(5)
    expect(said.filter((code) => code === '429')).toHaveLength(5)
    await expect(signIn()).rejects.toThrow('429')
    await harness.send('PUT', `/api/accounts/${PERSON}`, { login: 'ottoline', password: SET_UP.password, role: 'lead' })
    expect((await signIn(SET_UP.password, 'ottoline')).me.role).toBe('lead')
  })

  test('passwords, PINs and tokens are in the database as hashes only', async () => {
    await letIn()
    const client = await signIn()
    await client.fetch('/api/pin', { method: 'PUT', body: { pin: '4711' } })
    const [accounts] = await harness.connected.db.execute(sql`select * from accounts`)
    const [sessions] = await harness.connected.db.execute(sql`select * from sessions`)
    const all = JSON.stringify([accounts, sessions])
    expect(all).toContain('$argon2id$')
    expect(all).not.toContain(PASSWORD)
    expect(all).not.toContain('4711')
    expect(all).not.toContain(client.token)
  })

  test('a session that nobody used for a month is over', async () => {
    await letIn()
    const client = await signIn()
    harness.now = new Date(harness.now.getTime() + 29 * 86_400_000)
    expect((await client.fetch('/api/shed')).status).toBe(200)
    harness.now = new Date(harness.now.getTime() + 31 * 86_400_000)
    expect((await client.fetch('/api/shed')).status).toBe(401)
  })
})

describe('sessions', () => {
  test('are listed and can be ended; a sawyer sees and ends their own alone', async () => {
    await letIn()
    const bram = await signIn()
    const listed = await json<{ sessions: SessionListed[] }>(bram.fetch('/api/sessions'))
    expect(new Set(listed.sessions.map(({ personId }) => personId))).toEqual(new Set([SAWYER]))
    expect(listed.sessions.filter(({ current }) => current)).toHaveLength(1)
    const all = (await harness.request<{ sessions: SessionListed[] }>('/api/sessions')).body.sessions
    const leads = all.find(({ personId }) => personId === PERSON)
    expect((await bram.fetch(`/api/sessions/${leads?.id ?? ''}`, { method: 'DELETE' })).status).toBe(404)
    const brams = listed.sessions.find(({ current }) => current)
    expect((await harness.send('DELETE', `/api/sessions/${brams?.id ?? ''}`, {})).status).toBe(204)
    expect((await bram.fetch('/api/shed')).status).toBe(401)
  })

  test('a new password ends the other sessions', async () => {
    await letIn()
    const [phone, bench] = [await signIn(), await signIn()]
    expect(
      (await phone.fetch('/api/password', { method: 'PUT', body: { current: 'wrong', next: 'another long one' } }))
        .status,
    ).toBe(401)
    expect(
      (await phone.fetch('/api/password', { method: 'PUT', body: { current: PASSWORD, next: 'another long one' } }))
        .status,
    ).toBe(204)
    expect((await bench.fetch('/api/shed')).status).toBe(401)
    expect((await phone.fetch('/api/shed')).status).toBe(200)
    await expect(signIn()).rejects.toThrow('401')
    await signIn('another long one')
  })

  test('signing out ends the session', async () => {
    await letIn()
    const bram = await signIn()
    expect((await bram.fetch('/api/session', { method: 'DELETE' })).status).toBe(204)
    expect((await bram.fetch('/api/shed')).status).toBe(401)
  })
})

describe('a shared bench device', () => {
  test('is taken over by PIN once a lead has marked it, for logging work and no more', async () => {
    await letIn()
    await harness.send('PUT', `/api/accounts/${PERSON}`, { login: 'ottoline', password: SET_UP.password, role: 'lead' })
    const bram = await signIn()
    await bram.fetch('/api/pin', { method: 'PUT', body: { pin: '4711' } })
    const lead = await signIn(SET_UP.password, 'ottoline')
    await lead.fetch('/api/pin', { method: 'PUT', body: { pin: '90210' } })
    await expect(Client.enter(here(), '/api/session/switch', { personId: SAWYER, pin: '4711' }, lead)).rejects.toThrow(
      '403',
    )
    const shared = await json<SessionAnswer>(
      lead.fetch('/api/session/shared', { method: 'PUT', body: { shared: true } }),
    )
    expect(shared).toMatchObject({ switchable: [{ name: 'Bram Quill' }, { name: 'Ottoline Vane' }] })
    await expect(Client.enter(here(), '/api/session/switch', { personId: SAWYER, pin: '4712' }, lead)).rejects.toThrow(
      '401: That is not the PIN.',
    )
    const now = await Client.enter(here(), '/api/session/switch', { personId: SAWYER, pin: '4711' }, lead)
    expect(now.me).toMatchObject({ personId: SAWYER, role: 'sawyer', byPin: true, shared: true })
    expect((await lead.fetch('/api/shed')).status).toBe(401)
    // A lead who comes by PIN works as a sawyer.
    const back = await Client.enter(here(), '/api/session/switch', { personId: PERSON, pin: '90210' }, now)
    expect(back.me.role).toBe('sawyer')
    expect((await back.fetch('/api/accounts')).status).toBe(403)
  })

  test('a PIN that is taken away, by oneself or a lead, ends what was opened by it and nothing else', async () => {
    for (const taken of ['by oneself', 'by a lead'] as const) {
      await harness.reset()
      await letIn()
      await harness.send('PUT', `/api/accounts/${PERSON}`, {
        ...{ login: 'ottoline', password: SET_UP.password, role: 'lead' },
      })
      const bram = await signIn()
      await bram.fetch('/api/pin', { method: 'PUT', body: { pin: '4711' } })
      const lead = await signIn(SET_UP.password, 'ottoline')
      await lead.fetch('/api/session/shared', { method: 'PUT', body: { shared: true } })
      const bench = await Client.enter(here(), '/api/session/switch', { personId: SAWYER, pin: '4711' }, lead)
      expect((await bench.fetch('/api/shed')).status).toBe(200)
      const gone =
        taken === 'by oneself'
          ? await bram.fetch('/api/pin', { method: 'PUT', body: { pin: null } })
          : await harness.send('PUT', `/api/accounts/${SAWYER}/pin`, { pin: null })
      expect(gone.status, taken).toBeLessThan(300)
      expect((await bench.fetch('/api/shed')).status, taken).toBe(401)
      expect((await bram.fetch('/api/shed')).status, taken).toBe(200)
    }
  })

  test('a PIN cannot be guessed through', async () => {
    await letIn()
    await harness.send('PUT', `/api/accounts/${PERSON}`, { login: 'ottoline', password: SET_UP.password, role: 'lead' })
    const lead = await signIn(SET_UP.password, 'ottoline')
    await lead.fetch('/api/session/shared', { method: 'PUT', body: { shared: true } })
    const guesses: string[] = []
    for (let pin = 1000; pin < 1007; pin += 1) {
      await Client.enter(here(), '/api/session/switch', { personId: SAWYER, pin: String(pin) }, lead).catch(
        (error: unknown) => guesses.push((error as Error).message.slice(0, 3)),
      )
    }
    expect(guesses).toEqual(['401', '401', '401', '401', '401', '429', '429'])
  })
})

describe('what a lead does for others', () => {
  test('lets people in, changes roles, shuts them out, and never the last lead', async () => {
    await letIn({ role: 'lead' })
    const accounts = (await harness.request<{ accounts: AccountAnswer[] }>('/api/accounts')).body.accounts
    expect(accounts).toMatchObject([
      { name: 'Bram Quill', role: 'lead', login: 'bram' },
      { name: 'Ottoline Vane', role: 'lead' },
    ])
    await letIn({ role: 'sawyer' })
    expect(
      (await harness.send('PUT', `/api/accounts/${PERSON}`, { login: 'ottoline', role: 'sawyer' })).body.code,
    ).toBe('last-lead')
    expect((await harness.send('DELETE', `/api/accounts/${PERSON}`, {})).body.code).toBe('last-lead')
    expect((await letIn({ login: 'hesper' })).body?.code).toBe('name-taken')
    const bram = await signIn()
    expect((await harness.send('DELETE', `/api/accounts/${SAWYER}`, {})).status).toBe(204)
    expect((await bram.fetch('/api/shed')).status).toBe(401)
    expect((await harness.shed()).people.map(({ name }) => name)).toContain('Bram Quill')
    expect(
      (
        await harness.send('PUT', '/api/accounts/nobody-here-1', {
          login: 'nobody',
          password: PASSWORD,
          role: 'sawyer',
        })
      ).body.code,
    ).toBe('no-such-person')
  })
})

test('every entry knows who wrote it and who did the work', async () => {
  await harness.write(registered('whose-work-1'))
  const entry = { ...ran('whose-work-1'), personId: PERSON }
  expect((await harness.post('/api/entries', { entries: [entry] }, 'sawyer')).status).toBe(201)
  expect((await harness.log('whose-work-1')).at(-1)).toMatchObject({ personId: PERSON, writtenBy: SAWYER })
  const forged = { ...ran('whose-work-1'), writtenBy: PERSON }
  expect((await harness.post('/api/entries', { entries: [forged] }, 'sawyer')).status).toBe(422)
})

test('specs, tags, retiring and money are a lead’s to write, and to strike out', async () => {
  await harness.write(registered('leads-only-1'))
  const base = { loopId: 'leads-only-1', happenedAt: '2026-03-10T09:00:00.000Z', personId: null }
  const leads = [
    { ...base, id: 'lead-entry-1', kind: 'specChanged', origin: 'box', changes: { settingUm: 600 } },
    { ...base, id: 'lead-entry-2', kind: 'retagged', tag: '222Y' },
  ]
  const away = { ...base, id: 'lead-entry-3', kind: 'sentOut', shop: 'Quay works' }
  const back = {
    ...base,
    id: 'lead-entry-4',
    happenedAt: '2026-03-11T09:00:00.000Z',
    kind: 'cameBack',
    to: 'bench',
    costMinor: 1450,
  }
  for (const entry of [...leads, registered('leads-only-2')]) {
    expect((await harness.post('/api/entries', { entries: [entry] }, 'sawyer')).body.code).toBe('lead-only')
  }
  expect((await harness.post('/api/entries', { entries: [away] }, 'sawyer')).status).toBe(201)
  expect((await harness.post('/api/entries', { entries: [back] }, 'sawyer')).body.code).toBe('lead-only')
  expect((await harness.post('/api/entries', { entries: [...leads, back] })).status).toBe(201)
  const strike = {
    ...base,
    id: 'strike-entry-1',
    happenedAt: '2026-03-12T09:00:00.000Z',
    kind: 'corrected',
    strikes: 'lead-entry-1',
  }
  expect((await harness.post('/api/entries', { entries: [strike] }, 'sawyer')).body.code).toBe('lead-only')
  expect((await harness.shed()).loops.find(({ loopId }) => loopId === 'leads-only-1')).toMatchObject({
    tag: '222Y',
    place: { at: 'bench' },
  })
})
