import express from 'express'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { get as getPlain } from 'node:http'
import { get as getSecure } from 'node:https'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { freePort } from '../database/privateDatabase'
import { readOptions } from '../run/options'
import { certifyServer, fingerprintOf } from './authority'
import { openDoors, type Doors } from './doors'
import { fingerprintLines } from './gatePage'
import { plainPortOf, prepareFront, type Prepared } from './prepare'

/** As foreign as any address of a network, and yet of this machine alone. */
const BEYOND = '127.0.0.2'
const NOW = new Date()
const app = express().use((_request, response) => {
  response.send('the whole of Undercliff')
})
const quiet = { say: () => undefined, clock: () => NOW }

let dataDir: string
let port: number
let prepared: Prepared
let doors: Doors
beforeAll(async () => {
  dataDir = mkdtempSync(join(tmpdir(), 'undercliff-doors-'))
  port = await freePort()
  const options = readOptions(['--host', BEYOND, '--name', 'shed.test', '--port', String(port), '--data', dataDir], {})
  prepared = await prepareFront(options, { crewName: 'Heron Isle crew', now: NOW })
  doors = await openDoors(options, prepared, app, quiet)
})
afterAll(async () => {
  await doors.close()
  rmSync(dataDir, { recursive: true, force: true })
})

interface Told {
  readonly status: number
  readonly type: string
  readonly bytes: Buffer
}
/** What answers at a URL; a name is looked up nowhere but on this machine. */
const told = (url: string, more: { host?: string; ca?: string } = {}): Promise<Told> =>
  new Promise((resolve, reject) => {
    const { protocol, hostname } = new URL(url)
    const options = {
      lookup: (
        _name: string,
        _options: object,
        done: (error: null, found: { address: string; family: number }[]) => void,
      ) => {
        done(null, [{ address: BEYOND, family: 4 }])
      },
      headers: more.host === undefined ? {} : { host: more.host },
      ...(protocol === 'https:' ? { ca: more.ca ?? '', servername: /^[\d.]+$/.test(hostname) ? '' : hostname } : {}),
    }
    const get = protocol === 'https:' ? getSecure : getPlain
    get(url, options, (response) => {
      const parts: Buffer[] = []
      response.on('data', (part: Buffer) => parts.push(part))
      response.on('end', () => {
        resolve({
          status: response.statusCode ?? 0,
          type: response.headers['content-type'] ?? '',
          bytes: Buffer.concat(parts),
        })
      })
    }).on('error', reject)
  })

describe('started beyond its own machine', () => {
  const plain = (): number => plainPortOf({ port })

  test('it is served by https to who took the authority, by address and by name', async () => {
    const ca = prepared.authority?.certificate ?? ''
    for (const host of [BEYOND, 'shed.test'])
      expect((await told(`https://${host}:${port}/`, { ca })).bytes.toString()).toBe('the whole of Undercliff')
    await expect(told(`https://${BEYOND}:${port}/`)).rejects.toThrow(/certificate/)
  })

  test('plain http has one page, which hands out the authority and not its key', async () => {
    const page = (await told(`http://${BEYOND}:${plain()}/`)).bytes.toString()
    expect(page).toContain(`https://${BEYOND}:${port}`)
    const fingerprint = fingerprintOf(prepared.authority?.certificate ?? '')
    for (const line of fingerprintLines(fingerprint)) expect(page).toContain(line)
    const { type, bytes } = await told(`http://${BEYOND}:${plain()}/undercliff.crt`)
    expect(type).toContain('application/x-x509-ca-cert')
    expect(fingerprintOf(`-----BEGIN CERTIFICATE-----\n${bytes.toString('base64')}\n-----END CERTIFICATE-----`)).toBe(
      fingerprint,
    )
    for (const path of ['/api/session', '/authority.key', '/authority/authority.key', '/x/../authority.key']) {
      const { status, bytes: answer } = await told(`http://${BEYOND}:${plain()}${path}`)
      expect([status, answer.toString()], path).toEqual([302, expect.not.stringContaining('PRIVATE')])
    }
  })

  test('this machine itself has the whole of it by plain http, and nobody who only says so', async () => {
    const whole = 'the whole of Undercliff'
    expect((await told(`http://127.0.0.1:${plain()}/`)).bytes.toString()).toBe(whole)
    // By its own name or another's, whoever came by the outer address gets the page.
    expect((await told(`http://127.0.0.1:${plain()}/`, { host: 'elsewhere.example' })).bytes.toString()).not.toBe(whole)
    expect((await told(`http://${BEYOND}:${plain()}/`)).bytes.toString()).not.toBe(whole)
  })

  test('a name that is not ours is not made a link of', async () => {
    const page = (await told(`http://${BEYOND}:${plain()}/`, { host: 'evil.example' })).bytes.toString()
    expect(page).not.toContain('evil.example')
  })

  test('a port that is taken is named, and nothing stays open', async () => {
    const options = readOptions(['--host', BEYOND, '--port', String(port - 1), '--data', dataDir], {})
    const again = await prepareFront(options, { crewName: 'Heron Isle crew', now: NOW })
    await expect(openDoors(options, again, app, quiet)).rejects.toThrow(
      `Port ${port}, for phones that come for the first time`,
    )
    await expect(told(`https://${BEYOND}:${port - 1}/`)).rejects.toThrow('ECONNREFUSED')
  })
})

test('with a certificate of its own it has the one port', async () => {
  const { certificate, key } = await certifyServer(
    prepared.authority ?? { certificate: '', key: '', names: [] },
    ['shed.test'],
    NOW,
  )
  const [crt, file] = [join(dataDir, 'given.crt'), join(dataDir, 'given.key')]
  writeFileSync(crt, certificate)
  writeFileSync(file, key)
  const own = await freePort()
  const args = ['--host', BEYOND, '--name', 'shed.test', '--port', String(own), '--tls-cert', crt, '--tls-key', file]
  const options = readOptions(args, {})
  const given = await prepareFront(options, { crewName: 'Heron Isle crew', now: NOW })
  expect(given.front.reach).toEqual({ by: 'certificate', address: `https://shed.test:${own}` })
  const open = await openDoors(options, given, app, quiet)
  const answer = await told(`https://shed.test:${own}/`, { ca: prepared.authority?.certificate ?? '' })
  await expect(told(`http://${BEYOND}:${own + 1}/`)).rejects.toThrow('ECONNREFUSED')
  await open.close()
  expect(answer.status).toBe(200)
})
