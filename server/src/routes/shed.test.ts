import { afterAll, beforeAll, expect, test } from 'vitest'
import { Harness, measured, ran, registered, SPEC } from '../fixtures/harness'
import { verifySnapshots } from '../store/refold'

let harness: Harness
beforeAll(async () => {
  harness = await Harness.open()
})
afterAll(() => harness.close())

test('the shed is served again from memory until something changes', async () => {
  const first = await harness.request('/api/shed')
  const etag = first.headers.get('etag') ?? ''
  expect((await harness.request('/api/shed', { headers: { 'if-none-match': etag } })).status).toBe(304)
  await harness.write(registered('changes-shed'))
  const after = await harness.request<{ loops: unknown[] }>('/api/shed', { headers: { 'if-none-match': etag } })
  expect(after.status).toBe(200)
  expect(after.body.loops).toHaveLength(1)
})

test('saws and people are added once, by name', async () => {
  const saw = { id: 'added-saw-1', nickname: 'Petrel', pitchClass: 'p325', gaugeUm: 1300, driveLinks: 64 }
  expect((await harness.post('/api/saws', saw)).status).toBe(201)
  expect((await harness.post('/api/saws', saw)).status).toBe(201)
  expect((await harness.post('/api/saws', { ...saw, gaugeUm: 1500 })).body.code).toBe('id-taken')
  expect((await harness.post('/api/saws', { ...saw, id: 'added-saw-2' })).body.code).toBe('name-taken')
  expect((await harness.post('/api/people', { id: 'added-person', name: ' ' })).body.problems?.[0]?.field).toBe('name')
  expect((await harness.post('/api/people', { id: 'added-person', name: 'Wim Tarn' })).status).toBe(201)
  const { saws, people } = await harness.shed()
  expect(saws.filter(({ nickname }) => nickname === 'Petrel')).toHaveLength(1)
  expect(people.map(({ name }) => name)).toContain('Wim Tarn')
})

test('a crew reads lengths and writes days as it likes, and nothing else changes', async () => {
  const put = (body: unknown) =>
    harness.request<{ code?: string }>('/api/crew', {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    })
  expect((await put({ name: 'Heron Isle crew', lengths: 'furlong' })).body.code).toBe('invalid')
  expect((await put({ name: 'Heron Isle crew', lengths: 'both' })).status).toBe(200)
  expect((await harness.shed()).crew).toMatchObject({ name: 'Heron Isle crew', lengths: 'both', rules: { version: 1 } })
  expect((await put({ name: 'Heron Isle crew', lengths: 'mm', dates: 'sideways' })).body.code).toBe('invalid')
  expect((await put({ name: 'Heron Isle crew', lengths: 'mm', dates: 'monthFirst' })).status).toBe(200)
  // A device of an earlier version says nothing of days, and changes nothing of them.
  expect((await put({ name: 'Heron Isle crew', lengths: 'mm' })).status).toBe(200)
  expect((await harness.shed()).crew.dates).toBe('monthFirst')
})

test('pages of other sites are refused, and the headers are strict', async () => {
  const foreign = await harness.request<{ code: string }>('/api/shed', {
    headers: { origin: 'http://elsewhere.example' },
  })
  expect(foreign).toMatchObject({ status: 403, body: { code: 'foreign-origin' } })
  const { headers } = await harness.request('/api/shed')
  const policy = headers.get('content-security-policy') ?? ''
  expect(policy).toContain("default-src 'none'")
  expect(policy).not.toContain('unsafe')
  expect(headers.get('x-content-type-options')).toBe('nosniff')
  expect(headers.get('x-powered-by')).toBeNull()
})

test('the log says what was asked and how it went, and nothing of what was in it', async () => {
  await harness.write({ ...registered('noted-loop-1'), note: 'Ottoline was unwell' }, ran('noted-loop-1'))
  const logged = harness.logged.join('')
  expect(logged).toContain('"path":"/api/entries"')
  expect(logged).toContain('"status":201')
  expect(logged).not.toMatch(/Ottoline|unwell|127\.0\.0\.1|user-agent/)
})

test('a house rule is followed by every loop, under a version of its own', async () => {
  await harness.reset()
  await harness.write(registered('house-rules-1'), { ...measured('house-rules-1', 7900) })
  const fileOf = async () => (await harness.shed()).loops[0]?.spec.fileUm
  expect(await fileOf()).toBe(5200)
  const { rules } = (await harness.shed()).crew
  expect((await harness.send('PUT', '/api/rules', { ...rules, fileSchool: 'largerThenSmaller' })).status).toBe(200)
  expect(await fileOf()).toBe(5500)
  expect((await harness.shed()).crew.rules).toMatchObject({
    version: rules.version + 1,
    fileSchool: 'largerThenSmaller',
  })
  expect(
    (await harness.send('PUT', '/api/rules', { ...rules, fileSchool: 'whatever' })).body.problems?.[0]?.field,
  ).toBe('fileSchool')
  expect((await harness.send('PUT', '/api/rules', { ...rules, chiselAngleDeg: 80 })).status).toBe(422)
  expect((await verifySnapshots(harness.connected.db)).disagreements).toEqual([])
})

test('the crew keeps profiles of its own', async () => {
  await harness.reset()
  const { driveLinks: _links, firstHand: _hand, ...values } = SPEC
  const profile = { id: 'own-profile-1', name: 'Pole saw loop', values }
  expect((await harness.post('/api/profiles', profile)).status).toBe(201)
  expect((await harness.post('/api/profiles', profile)).status).toBe(201)
  expect((await harness.post('/api/profiles', { ...profile, id: 'own-profile-2' })).body.code).toBe('name-taken')
  expect(
    (
      await harness.post('/api/profiles', {
        ...profile,
        id: 'own-profile-3',
        name: 'Odd',
        values: { ...values, markLengthUm: 99_999 },
      })
    ).body.code,
  ).toBe('invalid')
  expect((await harness.shed()).profiles).toEqual([profile])
  expect((await harness.send('DELETE', '/api/profiles/own-profile-1', {})).status).toBe(204)
  expect((await harness.send('DELETE', '/api/profiles/own-profile-1', {})).body.code).toBe('no-such-profile')
})
