import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import { afterAll, describe, expect, test } from 'vitest'
import { freePort } from '../database/privateDatabase'
import { StartProblem } from '../database/startProblem'
import { Client, SET_UP } from '../fixtures/client'
import { ran, registered } from '../fixtures/harness'
import { lockFolder } from './lock'
import { HELP, readOptions } from './options'
import { serve } from './serve'

const dirs: string[] = []
const folder = (): string => {
  const dir = mkdtempSync(join(tmpdir(), 'undercliff-serve-'))
  dirs.push(dir)
  return dir
}
afterAll(() => {
  for (const dir of dirs) rmSync(dir, { recursive: true, force: true })
})
const quiet = (): void => undefined

describe('options', () => {
  test('what the help names is read', () => {
    expect(readOptions(['--port', '5000', '--data', '/tmp/x', '--fresh', '--yes', '--empty'], {})).toMatchObject({
      port: 5000,
      dataDir: '/tmp/x',
      fresh: true,
      yes: true,
      empty: true,
      host: '127.0.0.1',
      databaseUrl: null,
    })
    for (const flag of ['--port', '--data', '--fresh', '--empty', '--help', '--yes']) expect(HELP).toContain(flag)
  })

  test('how it is reached is read', () => {
    expect(readOptions(['--host', '0.0.0.0', '--name', 'Shed.local', '--name', 'crew.test'], {})).toMatchObject({
      names: ['shed.local', 'crew.test'],
      tls: null,
      proxied: null,
    })
    const env = { STARTED_IN: '/home/lead' }
    expect(readOptions(['--tls-cert', 'a.crt', '--tls-key', '/etc/a.key'], env).tls).toEqual({
      certificateFile: '/home/lead/a.crt',
      keyFile: '/etc/a.key',
    })
    const { proxied } = readOptions(
      ['--public-url', 'https://shed.example/', '--proxy', '10.0.0.0/8', '--proxy', '::1'],
      {},
    )
    expect([proxied?.publicUrl.origin, proxied?.proxies]).toEqual(['https://shed.example', ['10.0.0.0/8', '::1']])
    for (const flag of ['--host', '--name', '--tls-cert', '--tls-key', '--public-url', '--proxy'])
      expect(HELP).toContain(flag)
  })

  test.each([
    [['--tls-cert', 'a.crt'], '--tls-cert and --tls-key go together'],
    [['--name', 'no name'], '--name takes a host name'],
    [['--public-url', 'https://shed.example'], '--public-url goes with --proxy'],
    [['--proxy', '127.0.0.1'], '--proxy goes with --public-url'],
    [['--public-url', 'https://shed.example/under', '--proxy', '::1'], 'without a path'],
    [['--public-url', 'ftp://shed.example', '--proxy', '::1'], 'not "ftp://shed.example"'],
    [['--public-url', 'shed.example', '--proxy', '::1'], 'not "shed.example"'],
    [['--public-url', 'https://shed.example', '--proxy', 'nginx'], '--proxy takes an address'],
    [['--public-url', 'https://shed.example', '--proxy', '10.0.0.0/33'], '--proxy takes an address'],
    [['--public-url', 'https://shed.example', '--proxy', '0.0.0.0/0'], '--proxy takes an address'],
  ])('what cannot be reached so gets a sentence: %j', (args, sentence) => {
    expect(() => readOptions(args, {})).toThrow(sentence)
  })

  test('what is not known gets a sentence', () => {
    expect(() => readOptions(['--prot', '1'], {})).toThrow(StartProblem)
    expect(() => readOptions(['--port', 'x'], {})).toThrow('--port takes a number from 1 to 65535, not "x".')
    expect(() => readOptions(['--data', ' '], {})).toThrow('--data takes the name of a folder.')
  })
})

describe('the lock', () => {
  test('a holder is named; a killed one is taken over and told of, one that ended in good order is not', async () => {
    const dir = folder()
    const said: string[] = []
    const lock = (address: string) => lockFolder(dir, address, (line) => said.push(line))
    const first = await lock('http://127.0.0.1:1')
    await expect(lock('http://127.0.0.1:2')).rejects.toThrow(
      `running on this data folder already: http://127.0.0.1:1 (process ${process.pid})`,
    )
    await first()
    await (
      await lock('http://127.0.0.1:3')
    )()
    expect(said).toEqual([])
    writeFileSync(join(dir, 'undercliff.lock'), JSON.stringify({ pid: 1, address: 'http://127.0.0.1:4', locked: true }))
    await (
      await lock('http://127.0.0.1:5')
    )()
    expect(said).toEqual(['The last run did not end in good order; it is put right now.'])
  })

  test.each(['', '{"pid": 99999999, "address": "http://127.0.0.1:1", "locked": true}', '{"pid": 7', 'null'])(
    'however many come at once onto %j, one has it',
    async (left) => {
      const dir = folder()
      writeFileSync(join(dir, 'undercliff.lock'), left)
      const outcomes = await Promise.allSettled(
        Array.from({ length: 8 }, (_, i) => lockFolder(dir, `http://127.0.0.1:${i}`, quiet)),
      )
      const had = outcomes.filter((one) => one.status === 'fulfilled')
      expect(had).toHaveLength(1)
      for (const one of outcomes) if (one.status === 'rejected') expect(one.reason).toBeInstanceOf(StartProblem)
      await had[0]?.value()
    },
  )
})

describe('a running Undercliff', () => {
  test('keeps its password to its owner, says 503 while the database is away, and recovers by itself', async () => {
    const dataDir = folder()
    const port = await freePort()
    const options = { ...readOptions(['--port', String(port), '--data', dataDir, '--empty'], {}) }
    const running = await serve(options, null, quiet)
    try {
      expect(statSync(join(dataDir, 'database.json')).mode & 0o777).toBe(0o600)
      const client = await Client.enter(running.address, '/api/setup', SET_UP)
      const post = (entry: unknown) => client.fetch('/api/entries', { method: 'POST', body: { entries: [entry] } })
      expect((await post(registered('survives-it-1'))).status).toBe(201)

      await expect(serve({ ...options, dataDir: folder() }, null, quiet)).rejects.toThrow(`Port ${port} is taken`)

      // A storm of entries, with the database killed in the middle of it.
      const storm = Array.from({ length: 60 }, () => ran('survives-it-1'))
      const acknowledged: string[] = []
      const sending = storm.map(async (one) => {
        if ((await post(one)).status === 201) acknowledged.push(one.id)
      })
      while (acknowledged.length < 5) await sleep(1)
      process.kill(running.databasePid() ?? 0, 'SIGKILL')
      await Promise.all(sending)
      const entry = ran('survives-it-1')
      const statuses = new Set<number>()
      for (let tries = 0; tries < 200 && !statuses.has(201); tries += 1) {
        statuses.add((await post(entry)).status)
        await sleep(50)
      }
      expect([...statuses].filter((status) => status !== 503)).toEqual([201])
      expect((await fetch(`${running.address}/healthz`)).status).toBe(200)
      const { entries } = (await (await client.fetch('/api/loops/survives-it-1')).json()) as {
        entries: { id: string }[]
      }
      const kept = new Set(entries.map(({ id }) => id))
      expect([...acknowledged, entry.id].filter((id) => !kept.has(id))).toEqual([])
      expect(kept.size).toBeLessThanOrEqual(storm.length + 2)
    } finally {
      await running.stop()
    }
    expect(readFileSync(join(dataDir, 'undercliff.lock'), 'utf8')).toBe('')
    expect(() => process.kill(Number(readFileSync(join(dataDir, 'mariadb', 'mariadb.pid'), 'utf8')), 0)).toThrow()
  })

  test('refuses to listen beyond loopback before anybody can sign in', async () => {
    const options = readOptions(
      ['--empty', '--host', '0.0.0.0', '--data', folder(), '--port', String(await freePort())],
      {},
    )
    await expect(serve(options, null, quiet)).rejects.toThrow('Nobody can sign in yet')
  })

  test('forgives no failed sign-in over a restart, and then says when to try again', async () => {
    const dataDir = folder()
    const options = { ...readOptions(['--port', String(await freePort()), '--data', dataDir, '--empty'], {}) }
    const first = await serve(options, null, quiet)
    const guess = (address: string, password: string) =>
      Client.enter(address, '/api/session', { login: SET_UP.login, password })
    try {
      await Client.enter(first.address, '/api/setup', SET_UP)
      await expect(guess(first.address, 'four quiet ducks')).rejects.toThrow(
        '401: The name or the password is not right.',
      )
      await expect(guess(first.address, 'four quiet geese')).rejects.toThrow('401')
      await expect(guess(first.address, 'four quiet swans')).rejects.toThrow('401')
    } finally {
      await first.stop()
    }
    const second = await serve(options, null, quiet)
    try {
      await expect(guess(second.address, 'four quiet crows')).rejects.toThrow('401')
      await expect(guess(second.address, 'four quiet owls')).rejects.toThrow('401')
      await expect(guess(second.address, SET_UP.password)).rejects.toThrow(
        /429: Too many tries\. Try again in \d+ minutes\./,
      )
    } finally {
      await second.stop()
    }
  })

  test('--fresh without --yes is refused where nobody can be asked', async () => {
    const options = readOptions(['--fresh', '--data', folder(), '--port', String(await freePort())], {})
    if (process.stdin.isTTY) return
    await expect(serve(options, null, quiet)).rejects.toThrow('Add --yes')
  })
})
