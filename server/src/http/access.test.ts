import { DEFAULT_RULES, specFromProfile } from '@undercliff/core'
import { sql } from 'drizzle-orm'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { allRoutes } from '../routes'
import { Tries } from '../store/tries'
import { corrected, fitted, Harness, ran, registered, SAW, SAWYER, SPEC, type As } from '../fixtures/harness'
import { DOT_PNG } from '../fixtures/pictures'
import type { Route } from './access'

/** A word that stands in every name of ours; another crew must never read it. */
const OURS = 'heronry'
const LOOP = 'our-own-loop-1'
const ENTRY = ran(LOOP)
const PROFILE = 'our-own-profile'
const PHOTO = 'our-own-photo'
const KIT = 'our-own-vise'
const VISE = { id: KIT, kind: 'vise', name: `${OURS} vise`, version: 1, where: 'stump' } as const

let harness: Harness
let routes: readonly Route[]
beforeAll(async () => {
  harness = await Harness.open()
  const { connected, workers, steadyMs } = harness
  const { db, writes } = connected
  routes = allRoutes({
    db,
    writes,
    workers,
    clock: () => new Date(),
    steadyMs,
    tries: new Tries(db, steadyMs),
    reach: { by: 'machine' },
  })
  await harness.send('PUT', '/api/crew', { name: `${OURS} crew`, lengths: 'mm' })
  await harness.post('/api/people', { id: 'named-person-1', name: `${OURS} person` })
  await harness.post('/api/profiles', { id: PROFILE, name: `${OURS} kind`, values: profileValues() })
  await harness.send('PUT', `/api/kit/${KIT}`, VISE)
  const photo = { id: PHOTO, sawId: SAW, shows: OURS, takenAt: '2026-03-01T00:00:00.000Z', picture: DOT_PNG }
  expect((await harness.send('PUT', `/api/photos/${PHOTO}`, photo)).status).toBe(201)
  const wrote = await harness.write({ ...registered(LOOP, 'OURS1'), note: OURS }, ENTRY)
  expect(wrote.status).toBe(201)
})
afterAll(() => harness.close())

function profileValues() {
  const { driveLinks: _links, firstHand: _hand, ...values } = specFromProfile(SPEC)
  return values
}

/**
 * How each route is called with our crew's own ids in it. A route that is not here fails the
 * suite, so that a new one cannot be forgotten.
 */
const CALLS: Record<string, { path: string; body?: unknown }> = {
  'get /session': { path: '/session' },
  'post /setup': { path: '/setup', body: { crewName: 'X', name: 'X', login: 'xx', password: 'long enough for it' } },
  'post /session': { path: '/session', body: { login: 'ottoline', password: 'not this one at all' } },
  'post /session/switch': { path: '/session/switch', body: { personId: SAWYER, pin: '1234' } },
  'put /session/shared': { path: '/session/shared', body: { shared: false } },
  'delete /session': { path: '/session' },
  'get /sessions': { path: '/sessions' },
  'delete /sessions/:id': { path: '/sessions/OUR_SESSION' },
  'put /password': { path: '/password', body: { current: 'x', next: 'long enough for it' } },
  'put /pin': { path: '/pin', body: { pin: null } },
  'post /people': { path: '/people', body: { id: 'named-person-1', name: 'Somebody Else' } },
  'put /people/:personId': { path: `/people/${SAWYER}`, body: { weakSide: 'left' } },
  'put /accounts/:personId/pin': { path: `/accounts/${SAWYER}/pin`, body: { pin: '4711' } },
  'get /accounts': { path: '/accounts' },
  'put /accounts/:personId': {
    path: `/accounts/${SAWYER}`,
    body: { login: 'stolen', password: 'long enough for it', role: 'lead' },
  },
  'delete /accounts/:personId': { path: `/accounts/${SAWYER}` },
  'get /shed': { path: '/shed' },
  'get /reach': { path: '/reach' },
  'get /set-aside': { path: '/set-aside' },
  'put /crew': { path: '/crew', body: { name: 'Another name', lengths: 'inch' } },
  'get /wear': { path: '/wear' },
  'post /loops/:loopId/job-sheet.pdf': {
    path: `/loops/${LOOP}/job-sheet.pdf`,
    body: { action: 'file', personId: null },
  },
  'get /loops/:loopId/under-way': { path: `/loops/${LOOP}/under-way` },
  'put /loops/:loopId/under-way': {
    path: `/loops/${LOOP}/under-way`,
    body: { deviceId: 'their-device', device: 'theirs', walk: { action: 'file', personId: null, events: [] } },
  },
  'delete /loops/:loopId/under-way/:deviceId': { path: `/loops/${LOOP}/under-way/their-device` },
  'get /kit': { path: '/kit' },
  'put /kit/:id': { path: `/kit/${KIT}`, body: { ...VISE, name: 'Theirs' } },
  'get /photos/:id': { path: `/photos/${PHOTO}` },
  'put /photos/:id': {
    path: `/photos/${PHOTO}`,
    body: { id: PHOTO, sawId: SAW, shows: 'theirs', takenAt: '2026-03-01T00:00:00.000Z', picture: DOT_PNG },
  },
  'delete /photos/:id': { path: `/photos/${PHOTO}` },
  'post /rules/effect': { path: '/rules/effect', body: DEFAULT_RULES },
  'put /rules': { path: '/rules', body: DEFAULT_RULES },
  'post /profiles': { path: '/profiles', body: { id: 'theirs-profile', name: 'Theirs', values: profileValues() } },
  'delete /profiles/:id': { path: `/profiles/${PROFILE}` },
  'post /saws': {
    path: '/saws',
    body: { id: SAW, nickname: 'Theirs now', pitchClass: 'p325', gaugeUm: 1300, driveLinks: 64 },
  },
  'get /loops/:loopId': { path: `/loops/${LOOP}` },
  'get /logs': { path: '/logs' },
  'post /entries': { path: '/entries', body: { entries: [corrected(LOOP, ENTRY.id)] } },
  'get /saws/:sawId': { path: `/saws/${SAW}` },
  'post /tags.pdf': { path: '/tags.pdf', body: { loopIds: [LOOP], sheet: 'a4-3x8', skip: 0 } },
  'get /backup': { path: '/backup' },
  'post /backup': { path: '/backup', body: {} },
  'post /import': { path: '/import', body: { saws: [], entries: [fitted(LOOP)] } },
  'get /tables/:name.csv': { path: '/tables/log.csv' },
}

const keyOf = ({ method, path }: Route): string => `${method} ${path}`
const call = (route: Route, as: As, extra: Record<string, string> = {}) => {
  const { path, body } = CALLS[keyOf(route)] ?? { path: '/missing' }
  const json = body === undefined ? {} : { body: JSON.stringify(body) }
  return harness.request(
    `/api${path}`,
    { method: route.method.toUpperCase(), headers: { 'content-type': 'application/json', ...extra }, ...json },
    as,
  )
}

/** Everything of our crew's, as the database has it. */
async function ours(): Promise<string> {
  const tables = [
    'crews',
    'people',
    'accounts',
    'saws',
    'saw_entries',
    'profiles',
    'loops',
    'entries',
    'snapshots',
    'photos',
  ]
  const rows = await Promise.all(
    tables.map(async (table) => {
      const [found] = await harness.connected.db.execute(
        sql`select * from ${sql.identifier(table)}
          where ${sql.identifier(table === 'crews' ? 'id' : 'crew_id')} = 'crew-number-one' order by 1, 2`,
      )
      return { table, found }
    }),
  )
  return JSON.stringify(rows)
}

test('every route is in the list of calls, and nothing else answers below /api', async () => {
  expect(Object.keys(CALLS).sort()).toEqual(routes.map(keyOf).sort())
  expect((await harness.request('/api/missing', {}, 'lead')).status).toBe(404)
})

test('without a session every route but the open ones says 401 and does nothing', async () => {
  const before = await ours()
  for (const route of routes) {
    const { status } = await call(route, 'nobody')
    if (route.access === 'open') continue
    expect(status, keyOf(route)).toBe(401)
  }
  expect(
    routes
      .filter(({ access }) => access === 'open')
      .map(keyOf)
      .sort(),
  ).toEqual(['get /session', 'post /session', 'post /setup'])
  expect(await ours()).toBe(before)
})

test('with a session and without its token no route changes anything', async () => {
  const before = await ours()
  for (const route of routes) {
    if (route.access === 'open' || route.method === 'get') continue
    const { status, body } = await call(route, 'lead', { 'x-csrf-token': 'f'.repeat(64) })
    expect({ status, code: (body as { code: string }).code }, keyOf(route)).toEqual({ status: 403, code: 'no-token' })
  }
  expect(await ours()).toBe(before)
})

test('a sawyer is turned away from every route that is a lead’s', async () => {
  const before = await ours()
  const leads = routes.filter(({ access }) => access === 'lead')
  expect(leads.length).toBeGreaterThan(8)
  for (const route of leads) {
    const { status, body } = await call(route, 'sawyer')
    expect({ status, code: (body as { code: string }).code }, keyOf(route)).toEqual({ status: 403, code: 'lead-only' })
  }
  expect(await ours()).toBe(before)
})

test('another crew reads nothing of ours and changes nothing of ours by any route', async () => {
  const before = await ours()
  const [mine] = (await harness.request<{ sessions: { id: string }[] }>('/api/sessions', {}, 'sawyer')).body.sessions
  const known = CALLS['delete /sessions/:id']
  if (known !== undefined) known.path = `/sessions/${mine?.id ?? ''}`
  // Signing out ends the session that the walk is made with, so it comes last.
  const order = [...routes].sort(
    (a, b) => Number(keyOf(a) === 'delete /session') - Number(keyOf(b) === 'delete /session'),
  )
  for (const route of order) {
    const { status, body } = await call(route, 'otherLead')
    expect(status, keyOf(route)).toBeLessThan(500)
    expect(JSON.stringify(body), keyOf(route)).not.toContain(OURS)
    expect(JSON.stringify(body), keyOf(route)).not.toMatch(/OURS1|Ottoline|Bram Quill/)
  }
  expect(await ours()).toBe(before)
  expect((await harness.request('/api/shed', {}, 'sawyer')).status).toBe(200)
})
