import type { ProblemDetails, ShedAnswer } from '@undercliff/contract'
import { DEFAULT_RULES } from '@undercliff/core'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { CuttingWay } from '../campaign/cutting'
import { fitted, Harness, ran, registered, SAW, type Answer } from '../fixtures/harness'
import { verifySnapshots } from '../store/refold'
import { isDatabaseAway, isDiskFull } from './errors'
import { databaseUrl } from '../fixtures/databaseUrl'

/** More statements than any of the requests makes. */
const MOST_CUTS = 60
let way: CuttingWay
let harness: Harness
beforeAll(async () => {
  const cut = await CuttingWay.to(databaseUrl())
  way = cut.way
  harness = await Harness.open(cut.url)
})
afterAll(async () => {
  await harness.close()
  way.close()
})

let made = 0
const next = (): string => {
  made += 1
  return `dies-under-it-${String(made).padStart(4, '0')}`
}

describe('the database dies under a request, at each of its statements', () => {
  test.each<[string, () => () => Promise<Answer<ProblemDetails>>, number]>([
    [
      'entries of two loops',
      () => {
        const [one, two] = [next(), next()]
        const entries = [registered(one), ran(one), registered(two), ran(two)]
        return () => harness.post('/api/entries', { entries })
      },
      201,
    ],
    [
      'a saw',
      () => {
        const id = next()
        const saw = { id, nickname: id, pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72 }
        return () => harness.post('/api/saws', saw)
      },
      201,
    ],
    [
      'a person',
      () => {
        const id = next()
        return () => harness.post('/api/people', { id, name: id })
      },
      201,
    ],
    ['what the crew is called', () => () => harness.send('PUT', '/api/crew', { name: 'Ours', lengths: 'inch' }), 200],
    ['who is here', () => () => harness.request('/api/session'), 200],
    ['the shed', () => () => harness.request('/api/shed'), 200],
  ])('%s: told as the database being away, and the same again is written once', async (_name, make, done) => {
    let cuts = 0
    for (let at = 0; at < MOST_CUTS; at += 1) {
      const send = make()
      way.cutAfter(at)
      const first = await send()
      const wasCut = way.mend()
      cuts += Number(wasCut)
      if (wasCut && first.status !== done) {
        expect({ at, status: first.status, code: first.body.code }).toEqual({ at, status: 503, code: 'database-away' })
        expect(first.headers.get('retry-after')).toBe('1')
      } else expect({ at, status: first.status }).toEqual({ at, status: done })
      // Connections that died are found out by whoever uses them first.
      for (let tries = 0; tries < 30; tries += 1) {
        const again = await send()
        if (again.status === done) break
        expect(again.status).toBe(503)
        expect(tries, 'it never comes back').toBeLessThan(29)
      }
      if (!wasCut) break
    }
    expect(cuts).toBeGreaterThanOrEqual(1)
    expect((await verifySnapshots(harness.connected.db)).disagreements).toEqual([])
  })

  test('what was added and the crew’s revision go together: nothing is there that no shed shows', async () => {
    for (let at = 0; at < 12; at += 1) {
      const before = await harness.request<ShedAnswer>('/api/shed')
      const id = next()
      way.cutAfter(at)
      await harness.post('/api/saws', { id, nickname: id, pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72 })
      way.mend()
      const rows = (await harness.connected.db.query.saws.findMany()).map((saw) => saw.id)
      const after = await harness.request<ShedAnswer>('/api/shed')
      expect(after.body.saws.some((saw) => saw.id === id)).toBe(rows.includes(id))
      expect(after.headers.get('etag') !== before.headers.get('etag')).toBe(rows.includes(id))
    }
  })
})

test('two sends of one new saw, person or profile at once answer alike', async () => {
  for (const [path, body] of [
    ['/api/saws', { nickname: 'Sent twice', pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72 }],
    ['/api/people', { name: 'Sent Twice' }],
  ] as const) {
    const sent = { id: next(), ...body }
    const answers = await Promise.all(Array.from({ length: 6 }, () => harness.post<unknown>(path, sent)))
    expect(answers.map(({ status }) => status)).toEqual(answers.map(() => 201))
    expect(new Set(answers.map((answer) => JSON.stringify(answer.body))).size).toBe(1)
  }
})

test('two loops that come to one saw at once: one is on it', async () => {
  const loops = [next(), next()]
  await harness.write(...loops.map((id) => registered(id)))
  const answers = await Promise.all(loops.map((id) => harness.write(fitted(id, SAW))))
  expect(answers.map(({ status }) => status).sort()).toEqual([201, 409])
})

test('two changes of the house rules at once: one holds, and the other is told', async () => {
  const { version } = (await harness.shed()).crew.rules
  const answers = await Promise.all(
    [15, 16].map((benchTanks) => harness.send('PUT', '/api/rules', { ...DEFAULT_RULES, version, benchTanks })),
  )
  expect(answers.map(({ status }) => status).sort()).toEqual([200, 409])
})

describe('errors are told apart', () => {
  const driver = (code: string, sqlMessage?: string, syscall?: string): Error =>
    Object.assign(new Error('failed'), { code, sqlMessage, syscall })
  test.each<[string, Error, boolean, boolean]>([
    ['a full disk', driver('ER_DISK_FULL'), false, true],
    ['a full table', driver('ER_RECORD_FILE_FULL', "The table 'entries' is full"), false, true],
    [
      'an engine without room',
      driver('ER_GET_ERRNO', 'Got error 28 "No space left on device" from storage'),
      false,
      true,
    ],
    [
      'a scratch file without room',
      driver('ER_ERROR_ON_WRITE', 'Error writing (Errcode: 28 "No space left on device")'),
      false,
      true,
    ],
    ['error 28 elsewhere', driver('ER_DUP_ENTRY', 'Duplicate entry 28'), false, false],
    ['a file that is not there', driver('ENOENT', undefined, 'open'), false, false],
    ['a socket that is not there', driver('ENOENT', undefined, 'connect'), true, false],
    ['a connection that was reset', driver('ECONNRESET'), true, false],
    [
      'what the driver says of a dead one',
      new Error("Can't add new command when connection is in closed state"),
      true,
      false,
    ],
    [
      'the same, wrapped',
      new Error('Failed query', { cause: new Error('Connection lost: The server closed it.') }),
      true,
      false,
    ],
    ['a mistake of ours', new TypeError('x is not a function'), false, false],
  ])('%s', (_name, error, away, full) => {
    expect([isDatabaseAway(error), isDiskFull(error)]).toEqual([away, full])
  })
})
