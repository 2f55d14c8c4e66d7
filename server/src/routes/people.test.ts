import type { AccountAnswer, Person, ShedAnswer } from '@undercliff/contract'
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest'
import { CREW, Harness, PERSON, SAWYER, type As } from '../fixtures/harness'

let harness: Harness
beforeAll(async () => {
  harness = await Harness.open()
})
beforeEach(() => harness.reset())
afterAll(() => harness.close())

const change = (personId: string, body: object, as: As = 'lead') =>
  harness.send('PUT', `/api/people/${personId}`, body, as)
const pin = (personId: string, is: string | null) => harness.send('PUT', `/api/accounts/${personId}/pin`, { pin: is })
const account = (personId: string, more: object = {}) =>
  harness.send('PUT', `/api/accounts/${personId}`, { login: 'bram', role: 'sawyer', ...more })
const accounts = async () =>
  (await harness.request<{ accounts: readonly AccountAnswer[] }>('/api/accounts')).body.accounts
const sawyer = async (): Promise<Person | undefined> => (await harness.shed()).people.find(({ id }) => id === SAWYER)

describe('somebody of the crew', () => {
  test('is called something else, and every screen hears of it', async () => {
    const before = (await harness.shed()).crew.id
    const revision = (await harness.request<ShedAnswer>('/api/shed')).headers.get('etag')
    expect((await change(SAWYER, { name: 'Bramwell Quill' })).status).toBe(200)
    expect(await sawyer()).toMatchObject({ name: 'Bramwell Quill', role: 'sawyer', gone: false })
    const after = await harness.request<ShedAnswer>('/api/shed')
    expect([after.body.crew.id, after.headers.get('etag') === revision]).toEqual([before, false])
  })

  test('has a name of their own: one that is taken is refused, and nothing changes', async () => {
    const { status, body } = await change(SAWYER, { name: 'Ottoline Vane' })
    expect([status, body.code]).toEqual([409, 'name-taken'])
    expect(await sawyer()).toMatchObject({ name: 'Bram Quill' })
  })

  test('says which side comes out weaker, and takes it back', async () => {
    await change(SAWYER, { weakSide: 'right' })
    expect(await sawyer()).toMatchObject({ name: 'Bram Quill', weakSide: 'right' })
    await change(SAWYER, { weakSide: null })
    expect(await sawyer()).toMatchObject({ weakSide: null })
  })

  test('is changed by a lead alone, and by nobody of another crew', async () => {
    expect((await change(SAWYER, { name: 'Somebody' }, 'sawyer')).status).toBe(403)
    expect((await change(SAWYER, { name: 'Somebody' }, 'otherLead')).body.code).toBe('no-such-person')
    expect((await change('nobody-such-here', { name: 'Somebody' })).body.code).toBe('no-such-person')
    expect(await sawyer()).toMatchObject({ name: 'Bram Quill' })
  })
})

describe('who leaves', () => {
  test('is signed out everywhere at once, and signs in no more; what they wrote stays theirs', async () => {
    expect((await harness.request('/api/shed', {}, 'sawyer')).status).toBe(200)
    expect((await change(SAWYER, { gone: true })).status).toBe(200)
    expect((await harness.request('/api/shed', {}, 'sawyer')).status).toBe(401)
    expect((await accounts()).map(({ personId }) => personId)).toEqual([PERSON])
    expect(await sawyer()).toMatchObject({ name: 'Bram Quill', gone: true })
  })

  test('gets neither a sign-in nor a PIN while they are gone, and both once they are back', async () => {
    await change(SAWYER, { gone: true })
    expect((await account(SAWYER, { password: 'salt wind and thorn' })).body.code).toBe('no-such-person')
    expect((await pin(SAWYER, '4711')).body.code).toBe('no-such-person')
    await change(SAWYER, { gone: false })
    expect((await account(SAWYER, { password: 'salt wind and thorn' })).status).toBe(204)
    expect((await pin(SAWYER, '4711')).status).toBe(204)
  })

  test('is never the last lead', async () => {
    const { status, body } = await change(PERSON, { gone: true })
    expect([status, body.code]).toEqual([409, 'last-lead'])
    expect((await harness.shed()).people.find(({ id }) => id === PERSON)).toMatchObject({ gone: false })
    await account(SAWYER, { role: 'lead' })
    expect((await change(PERSON, { gone: true }, 'sawyer')).status).toBe(200)
  })
})

describe('a PIN that a lead sets', () => {
  test('is there at once, and is taken away again', async () => {
    const hasPin = async () => (await accounts()).find(({ personId }) => personId === SAWYER)?.hasPin
    expect((await pin(SAWYER, '4711')).status).toBe(204)
    expect(await hasPin()).toBe(true)
    expect((await pin(SAWYER, null)).status).toBe(204)
    expect(await hasPin()).toBe(false)
  })

  test('needs a sign-in behind it', async () => {
    await harness.post('/api/people', { id: 'a-new-helper', name: 'Wren Oduya' })
    const { status, body } = await pin('a-new-helper', '4711')
    expect([status, body.code]).toEqual([404, 'no-such-account'])
    expect(body.detail).toContain('Give them a sign-in first')
  })

  test('is digits, and nobody’s of another crew', async () => {
    expect((await pin(SAWYER, '47')).status).toBe(422)
    const theirs = await harness.send('PUT', `/api/accounts/${SAWYER}/pin`, { pin: '4711' }, 'otherLead')
    expect(theirs.body.code).toBe('no-such-person')
    expect((await harness.shed()).crew.id).toBe(CREW)
  })
})
