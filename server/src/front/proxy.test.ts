import { request, type IncomingHttpHeaders } from 'node:http'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { tries } from '../database/schema'
import { Harness } from '../fixtures/harness'
import { LOOPBACK_FRONT, type Front } from './front'

const PUBLIC = 'https://shed.example'
const behind = (proxies: readonly string[], publicUrl = PUBLIC): Front => ({
  ...LOOPBACK_FRONT,
  publicUrl: new URL(publicUrl),
  proxies,
  httpsAlone: new URL(publicUrl).port === '',
})
const WRONG = JSON.stringify({ login: 'ottoline', password: 'not her password at all' })

let believing: Harness
let doubting: Harness
beforeAll(async () => {
  believing = await Harness.open(undefined, null, behind(['127.0.0.1']))
  // Another machine is the proxy: what comes from this one is not believed.
  doubting = await Harness.open(undefined, null, behind(['10.9.9.9']))
})
afterAll(async () => {
  await believing.close()
  await doubting.close()
})

/** Asks as a proxy does; fetch would not let the host be said. */
const ask = (
  harness: Harness,
  headers: Record<string, string>,
  { method = 'GET', path = '/api/session', body }: { method?: string; path?: string; body?: string } = {},
): Promise<{ status: number; headers: IncomingHttpHeaders }> =>
  new Promise((resolve, reject) => {
    const type = body === undefined ? {} : { 'content-type': 'application/json' }
    request(harness.address(path), { method, headers: { ...type, ...headers } }, (response) => {
      response.resume()
      response.on('end', () => {
        resolve({ status: response.statusCode ?? 0, headers: response.headers })
      })
    })
      .on('error', reject)
      .end(body)
  })

const passesHost = { host: 'shed.example', 'x-forwarded-proto': 'https', 'x-forwarded-for': '203.0.113.7' }
const passesItsOwn = {
  'x-forwarded-host': 'shed.example',
  'x-forwarded-proto': 'https',
  'x-forwarded-for': '203.0.113.8',
}
const saysNothing = {}

const triedFrom = async (harness: Harness): Promise<string[]> =>
  (await harness.connected.db.select({ key: tries.key }).from(tries))
    .map(({ key }) => key)
    .filter((key) => key.startsWith('address:'))

describe('behind a proxy that is named', () => {
  test.each([
    ['passes the host on', passesHost],
    ['passes its own name for us, and says the host beside', passesItsOwn],
    ['passes its own name for us alone', saysNothing],
  ])('one that %s: pages of the public address are ours', async (_what, headers) => {
    expect((await ask(believing, { ...headers, origin: PUBLIC })).status).toBe(200)
    expect((await ask(believing, { ...headers, origin: 'https://elsewhere.example' })).status).toBe(403)
    expect((await ask(believing, { ...headers, origin: 'https://shed.example:8443' })).status).toBe(403)
  })

  test('each address has tries of its own', async () => {
    await believing.connected.db.delete(tries)
    for (const headers of [passesHost, passesItsOwn]) await ask(believing, headers, { method: 'POST', body: WRONG })
    expect((await triedFrom(believing)).sort()).toEqual(['address:203.0.113.7', 'address:203.0.113.8'])
  })

  test('browsers are told to come by https alone, where no other port of the host may be meant', async () => {
    expect((await ask(believing, passesHost)).headers['strict-transport-security']).toMatch(/^max-age=\d{7,}$/)
    const other = await Harness.open(undefined, null, behind(['127.0.0.1'], 'https://shed.example:8443'))
    const answer = await ask(other, { ...passesHost, host: 'shed.example:8443', origin: 'https://shed.example:8443' })
    await other.close()
    expect([answer.status, answer.headers['strict-transport-security']]).toEqual([200, undefined])
  })

  test('a host that is neither is refused', async () => {
    expect((await ask(believing, { ...passesHost, host: 'elsewhere.example' })).status).toBe(421)
  })
})

describe('anybody else', () => {
  test('is believed nothing of who asks, by which host and how', async () => {
    await doubting.connected.db.delete(tries)
    expect((await ask(doubting, passesHost)).status).toBe(421)
    expect((await ask(doubting, { ...passesItsOwn, origin: PUBLIC })).status).toBe(403)
    const answer = await ask(doubting, passesItsOwn, { method: 'POST', body: WRONG })
    expect(answer.headers['strict-transport-security']).toBeUndefined()
    expect(await triedFrom(doubting)).toEqual(['address:127.0.0.1'])
  })
})

describe('the cookie', () => {
  const setUp = async (harness: Harness, headers: Record<string, string>): Promise<string> => {
    await harness.connected.db.delete(tries)
    const answer = await ask(harness, { ...harness.headers('lead'), ...headers }, { method: 'DELETE' })
    return String(answer.headers['set-cookie'])
  }

  test('is for https alone where the page came so, and nowhere else', async () => {
    for (const headers of [passesHost, passesItsOwn, saysNothing]) {
      await believing.reset()
      expect(await setUp(believing, headers)).toContain('; Secure')
    }
    await doubting.reset()
    expect(await setUp(doubting, passesItsOwn)).not.toContain('Secure')
  })
})
