import type { Backup, LogsAnswer, ProblemDetails } from '@undercliff/contract'
import type { Entry, NewEntry } from '@undercliff/core'
import { eq, sql } from 'drizzle-orm'
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest'
import { inChunks } from '../database/inChunks'
import { entries } from '../database/schema'
import {
  corrected,
  CREW,
  fitted,
  Harness,
  measured,
  NOW,
  PERSON,
  ran,
  registered,
  SAW,
  SECOND_SAW,
  SPEC,
  takenOff,
} from '../fixtures/harness'
import { ImportsUnderWay, readLogsSince } from '../store/logsSince'
import { verifySnapshots } from '../store/refold'

let harness: Harness
beforeAll(async () => {
  harness = await Harness.open()
})
afterAll(async () => {
  const { disagreements } = await verifySnapshots(harness.connected.db)
  await harness.close()
  expect(disagreements).toEqual([])
})

const loop = async (loopId: string, ...more: Parameters<Harness['write']>): Promise<string> => {
  const { status, body } = await harness.write(registered(loopId), ...more)
  expect(body.detail).toBeUndefined()
  expect(status).toBe(201)
  return loopId
}

describe('logs for a device that keeps them', () => {
  beforeEach(async () => {
    await harness.reset()
    // What a device asks for first.
    await harness.shed()
  })
  afterAll(() => harness.reset())
  const since = async (place: string | null): Promise<LogsAnswer> => {
    const { status, body } = await harness.request<LogsAnswer>(`/api/logs${place === null ? '' : `?since=${place}`}`)
    expect(status).toBe(200)
    return body
  }

  test('all of them, and from then on what is new; of nobody else’s', async () => {
    const first = await since(null)
    const loopId = await loop('kept-loop-1', ran('kept-loop-1', 1))
    const next = await since(first.place)
    expect(next.entries.filter((entry) => entry.loopId === loopId).map(({ kind }) => kind)).toEqual([
      'registered',
      'ran',
    ])
    expect(next.more).toBe(false)
    // Nothing is missed by a device that asks again from where it was told to go on.
    await harness.write(ran(loopId, 2))
    const last = await since(next.place)
    expect(last.entries.some((entry) => entry.kind === 'ran' && entry.tanks === 2)).toBe(true)
  })

  test('more than a page is read to its end, and each entry once', async () => {
    const loopId = await loop('paged-loop-1')
    const [row] = await harness.connected.db.select().from(entries).where(eq(entries.loopId, loopId))
    if (row === undefined) throw new Error('the registration is in the log')
    const { arrival: _arrival, ...one } = row
    const MANY = 8100
    const many = Array.from({ length: MANY }, (_, i) => ({ ...one, id: `one-of-many-${i}`, kind: 'ran' as const }))
    await inChunks(many, (some) => harness.connected.db.insert(entries).values(some))
    const told: string[] = []
    const places: string[] = []
    for (let answer = await since(null); ; answer = await since(answer.place)) {
      told.push(...answer.entries.map(({ id }) => id))
      places.push(answer.place)
      if (!answer.more) break
    }
    expect(told).toHaveLength(MANY + 1)
    expect(new Set(told).size).toBe(MANY + 1)
    expect(new Set(places).size).toBe(3)
  })

  test('what an import writes beside other people is told after it, whoever asked meanwhile', async () => {
    const { db } = harness.connected
    await loop('written-first-1')
    const [registration] = await db.select().from(entries).where(eq(entries.loopId, 'written-first-1'))
    if (registration === undefined) throw new Error('the registration is in the log')
    const { arrival: _arrival, ...imported } = { ...registration, id: 'imported-entry-1', loopId: 'imported-loop-1' }
    const imports = new ImportsUnderWay(db)
    const ask = (from: unknown) => readLogsSince(db, { crewId: CREW, since: from, sureTo: imports.sureTo(CREW) })
    const { place } = await ask(null)
    // It takes its arrivals before it locks the crew, and is seen when all of it is there.
    const meanwhile = await imports.during(CREW, () =>
      db.transaction(async (tx) => {
        await tx.execute(sql`set foreign_key_checks = 0`)
        await tx.insert(entries).values(imported)
        await tx.execute(sql`set foreign_key_checks = 1`)
        await harness.write(ran('written-first-1'))
        return ask(place)
      }),
    )
    expect(meanwhile.entries.map(({ kind }) => kind)).toEqual(['ran'])
    const after = await ask(meanwhile.place)
    expect(after.entries.map(({ id }) => id)).toContain('imported-entry-1')
    expect((await ask(after.place)).entries).toEqual([])
  })

  test('a place that nobody told is the beginning', async () => {
    const all = (await since(null)).entries.length
    for (const odd of ['x', '-1', '99999999999999999999', '1.5', ''])
      expect((await since(encodeURIComponent(odd))).entries).toHaveLength(all)
  })
})

describe('writing', () => {
  test('entries come back as they stand in the log, and the shed follows', async () => {
    const loopId = await loop('written-loop-1', ran('written-loop-1', 3))
    expect(await harness.log(loopId)).toMatchObject([
      { kind: 'registered' },
      { kind: 'ran', tanks: 3, writtenAt: '2026-03-20T12:00:00.000Z' },
    ])
    const card = (await harness.shed()).loops.find((one) => one.loopId === loopId)
    expect(card).toMatchObject({ action: 'touchUp', reason: { rule: 'touchUpDue' } })
  })

  test('the same entry sent twice is written once and answers the same', async () => {
    const loopId = await loop('sent-twice-1')
    const entry = ran(loopId)
    const first = await harness.write(entry)
    const second = await harness.write(entry)
    expect(second).toMatchObject({ status: 201, body: first.body })
    const { status, body } = await harness.write({ ...entry, tanks: 9 } as never)
    expect({ status, code: body.code }).toEqual({ status: 409, code: 'id-taken' })
    expect(await harness.log(loopId)).toHaveLength(2)
  })

  test('a loop that comes is registered with what readings of the crew’s other loops have shown', async () => {
    const first = registered('before-anything-1')
    const base = { loopId: first.loopId, personId: PERSON }
    const read = (id: string, hours: number, um: (cutter: number) => number): NewEntry => ({
      ...base,
      id,
      happenedAt: `2026-03-10T${String(hours).padStart(2, '0')}:00:00.000Z`,
      kind: 'measured',
      readings: Array.from({ length: 36 }, (_, i) => ({ cutter: i + 1, lengthUm: um(i + 1) })),
    })
    const filing: NewEntry = {
      ...base,
      id: 'filed-by-somebody-1',
      happenedAt: '2026-03-10T10:00:00.000Z',
      kind: 'sharpened',
      method: 'fileBench',
      gaugesLowered: false,
      strokes: { left: 10, right: 10 },
    }
    await harness.write(
      first,
      read('read-before-filed-1', 9, () => 7900),
      filing,
    )
    await harness.write(read('read-after-filed-1', 11, (cutter) => 7900 - (cutter % 2 === 1 ? 320 : 280)))
    expect((await harness.log(first.loopId))[0]).not.toHaveProperty('knownBite')

    const second = registered('after-readings-1')
    const { body } = await harness.write(second)
    const [written] = body.entries as Extract<Entry, { kind: 'registered' }>[]
    expect(written?.knownBite?.strokeUm).toBeGreaterThan(24)
    expect(written?.knownBite?.people).toMatchObject([{ personId: PERSON, factor: 1 }])
    expect(written?.knownBite?.people[0]?.leanUm).toBeGreaterThan(0.5)
    // A device that sends it again, as it had it, gets the same answer.
    expect(await harness.write(second)).toMatchObject({ status: 201, body: { entries: [written] } })
    // One that comes with what was known elsewhere keeps that.
    const knownBite = { strokeUm: 15, strokeSdUm: 2, uncounted: 0, uncountedSd: 0.1, people: [] }
    const { body: third } = await harness.write({ ...registered('came-with-its-own-1'), knownBite } as NewEntry)
    expect(third.entries[0]).toMatchObject({ knownBite })
    const spreadsheet = { saws: [], entries: [registered('from-a-sheet-1')] }
    expect((await harness.post('/api/import', spreadsheet)).status).toBe(201)
    expect((await harness.log('from-a-sheet-1'))[0]).toMatchObject({ knownBite: written?.knownBite })
    // A backup carries it, and takes it back.
    const backup = await harness.request<Backup>('/api/backup')
    expect(backup.body.content.entries.filter((entry) => 'knownBite' in entry)).toHaveLength(3)
  })

  test('the answer carries the cards and saws that changed, and no others', async () => {
    await loop('left-alone-1')
    const loopId = await loop('answered-for-1')
    const { body } = await harness.write(fitted(loopId), ran(loopId, 3))
    const shed = await harness.shed()
    expect(body.cards).toEqual(shed.loops.filter((one) => one.loopId === loopId))
    expect(body.saws).toEqual(shed.saws.filter(({ id }) => id === SAW))
    const again = await harness.write(takenOff(loopId))
    expect(again.body.cards).toMatchObject([{ loopId, sawId: null }])
  })

  test('entries of saws go through the same door, and an id means one entry', async () => {
    const flipped = {
      id: 'a-flipped-bar-1',
      sawId: SAW,
      happenedAt: '2026-03-10T09:00:00.000Z',
      personId: null,
      kind: 'barFlipped',
    } as const
    const send = (entry: unknown) => harness.post('/api/entries', { entries: [entry] })
    expect((await send(flipped)).status).toBe(201)
    expect((await send(flipped)).status).toBe(201)
    for (const other of [
      { ...flipped, sawId: SECOND_SAW },
      { ...flipped, note: 'And cleaned' },
    ])
      expect((await send(other)).body.code).toBe('id-taken')
    expect((await send({ ...flipped, id: 'a-flipped-bar-2', sawId: 'no-such-saw-here' })).body.code).toBe('no-such-saw')
    const log = await harness.request<{ entries: { id: string }[] }>(`/api/saws/${SAW}`)
    expect(log.body.entries.filter(({ id }) => id === flipped.id)).toHaveLength(1)
  })

  test('the same entry twice in one request is written once', async () => {
    const loopId = await loop('twice-in-one')
    const entry = ran(loopId)
    expect((await harness.write(entry, entry)).status).toBe(201)
    expect(await harness.log(loopId)).toHaveLength(2)
  })

  test('all of a request or nothing of it', async () => {
    const loopId = await loop('all-or-nothing')
    const { status, body } = await harness.write(ran(loopId), measured(loopId, 50_000))
    expect(status).toBe(422)
    expect(body.problems).toMatchObject([{ field: 'entries[1].readings[0].lengthUm', code: 'length-cannot-be' }])
    expect(await harness.log(loopId)).toHaveLength(1)
  })

  test('two people writing to one loop at once both keep their entries', async () => {
    const loopId = await loop('two-at-once-1')
    const answers = await Promise.all(Array.from({ length: 30 }, () => harness.write(ran(loopId))))
    expect(answers.map(({ status }) => status)).toEqual(Array.from({ length: 30 }, () => 201))
    expect(await harness.log(loopId)).toHaveLength(31)
    const card = (await harness.shed()).loops.find((one) => one.loopId === loopId)
    expect(card?.reason).toMatchObject({ value: { amount: 30 } })
  })

  test('the same entry from two pages at once is written once', async () => {
    const loopId = await loop('raced-twice-1')
    const entry = ran(loopId)
    const answers = await Promise.all([harness.write(entry), harness.write(entry), harness.write(entry)])
    expect(answers.map(({ status }) => status)).toEqual([201, 201, 201])
    expect(await harness.log(loopId)).toHaveLength(2)
  })

  test('an entry is struck out once, and what it did is undone', async () => {
    const loopId = await loop('struck-out-1')
    const entry = ran(loopId, 9)
    await harness.write(entry)
    expect((await harness.write(corrected(loopId, entry.id))).status).toBe(201)
    expect((await harness.shed()).loops.find((one) => one.loopId === loopId)?.action).toBe('runOn')
    const again = await harness.write(corrected(loopId, entry.id))
    expect(again.body.problems?.[0]?.code).toBe('struck-out-already')
    const correction = (await harness.log(loopId)).at(-1)
    const twice = await harness.write(corrected(loopId, correction?.id ?? ''))
    expect(twice.body.problems?.[0]?.code).toBe('correction-of-correction')
  })
})

describe('saws', () => {
  test('no saw holds two loops; one that comes off makes room in the same request', async () => {
    const [first, second] = [await loop('on-the-saw-1', fitted('on-the-saw-1')), await loop('wants-the-saw')]
    expect((await harness.write(fitted(second))).body.code).toBe('saw-occupied')
    expect(await harness.log(second)).toHaveLength(1)
    expect((await harness.write(takenOff(first), fitted(second))).status).toBe(201)
    const on = (await harness.shed()).loops.filter(({ sawId }) => sawId === SAW)
    expect(on.map(({ loopId }) => loopId)).toEqual([second])
  })

  test('of two who fit two loops on one saw at once, one is told', async () => {
    const loops = [await loop('rush-for-saw-a'), await loop('rush-for-saw-b')]
    const answers = await Promise.all(loops.map((loopId) => harness.write(fitted(loopId, SECOND_SAW))))
    expect(answers.map(({ status }) => status).sort()).toEqual([201, 409])
  })

  test('two phones that put one loop on two saws come to the same end, whichever comes home first', async () => {
    const hour = (h: number): string => new Date(Date.UTC(2026, 2, 20, h)).toISOString()
    const at = (entry: NewEntry, h: number, person: string): NewEntry => ({
      ...entry,
      id: `${person}-${h}-${entry.kind}-x`,
      happenedAt: hour(h),
      personId: null,
    })
    const both = ['contested-loop', 'was-on-the-saw'] as const
    const phones = {
      first: [
        at({ ...takenOff(both[1]), kind: 'takenOff', from: SAW, to: 'truck' }, 8, 'first'),
        at({ ...fitted(both[0]), from: null } as NewEntry, 8, 'first'),
        at(ran(both[0]), 9, 'first'),
      ],
      // A clock two hours behind: by its own word it was before the other.
      second: [
        at({ ...fitted(both[0], SECOND_SAW), from: null } as NewEntry, 7, 'second'),
        at(ran(both[0], 2), 8, 'second'),
      ],
    }
    const home = async (phone: keyof typeof phones): Promise<number> => {
      const clock = phone === 'second' ? NOW.getTime() - 2 * 3_600_000 : NOW.getTime()
      const headers = { 'content-type': 'application/json', 'x-device-time': String(clock) }
      const body = JSON.stringify({ entries: phones[phone] })
      return (await harness.request('/api/entries', { method: 'POST', headers, body })).status
    }
    const ends = []
    for (const order of [['first', 'second'] as const, ['second', 'first'] as const]) {
      await harness.reset()
      await harness.write(registered(both[0]), registered(both[1]), fitted(both[1]))
      for (const phone of order) expect(await home(phone), `${order.join()} ${phone}`).toBe(201)
      const { loops } = await harness.shed()
      ends.push(loops)
      const [contested, other] = both.map((id) => loops.find(({ loopId }) => loopId === id))
      expect(contested).toMatchObject({
        sawId: SECOND_SAW,
        overtaken: { sawId: SAW, entryId: 'first-8-fitted-x', at: hour(8) },
      })
      expect(other?.place).toEqual({ at: 'truck' })
    }
    expect(ends[0]).toEqual(ends[1])
    await harness.reset()
  })

  test('a loop that does not fit is kept off, with the reason', async () => {
    const wrong = 'wrong-gauge-1'
    await harness.write(registered(wrong, 'WG1', { ...SPEC, gaugeUm: 1600, driveLinks: 70 }))
    const { status, body } = await harness.write(fitted(wrong))
    expect({ status, code: body.code }).toEqual({ status: 409, code: 'does-not-fit' })
    expect(body.detail).toContain(
      'gauge is 1.6 mm, the groove takes 1.5 mm: it binds and heats; it has 70 drive links, the bar takes 72',
    )
  })
})

describe('bad input', () => {
  const expectProblem = async (
    send: () => Promise<{ status: number; body: unknown; headers: Headers }>,
    status: number,
    code: string,
    field?: string,
  ) => {
    const answer = await send()
    const problem = answer.body as ProblemDetails
    expect({ status: answer.status, code: problem.code }).toEqual({ status, code })
    expect(answer.headers.get('content-type')).toContain('application/problem+json')
    expect(problem.detail.length).toBeGreaterThan(5)
    expect(JSON.stringify(problem)).not.toMatch(/\n\s+at |node_modules/)
    if (field !== undefined) expect(problem.problems?.map((one) => one.field)).toContain(field)
  }
  const id = 'bad-input-loop'
  beforeAll(() => loop(id))

  test.each([
    ['longer than new', { ...measured(id, 10_500) }, 'not-admitted', 'entries[0].readings[0].lengthUm'],
    ['ten times off', { ...measured(id, 60_000) }, 'not-admitted', 'entries[0].readings[0].lengthUm'],
    ['shorter than nothing', { ...measured(id, -1) }, 'invalid', 'entries[0].readings[0].lengthUm'],
    ['half a micrometre', { ...measured(id, 0.5) }, 'invalid', 'entries[0].readings[0].lengthUm'],
    [
      'a text for a length',
      { ...measured(id), readings: [{ cutter: 1, lengthUm: '5.2 mm' }] },
      'invalid',
      'entries[0].readings[0].lengthUm',
    ],
    [
      'no such cutter',
      { ...measured(id), readings: [{ cutter: 99, lengthUm: 5000 }] },
      'not-admitted',
      'entries[0].readings[0].cutter',
    ],
    [
      'before registration',
      { ...ran(id), happenedAt: '2026-02-01T09:00:00.000Z' },
      'not-admitted',
      'entries[0].happenedAt',
    ],
    ['no such day', { ...ran(id), happenedAt: '2026-02-30T09:00:00.000Z' }, 'invalid', 'entries[0].happenedAt'],
    ['an unknown kind', { ...ran(id), kind: 'danced' }, 'invalid', 'entries[0].kind'],
    ['an unknown field', { ...ran(id), colour: 'red' }, 'invalid', 'entries[0]'],
    ['a correction of nothing', corrected(id, 'no-such-entry'), 'not-admitted', 'entries[0].strikes'],
    ['nobody of the crew', { ...ran(id), personId: 'a-stranger-1' }, 'no-such-person', 'entries[0].personId'],
    ['no saw of the crew', fitted(id, 'a-strange-saw'), 'no-such-saw', 'entries[0].sawId'],
  ])('%s', async (_name, entry, code, field) => {
    await expectProblem(() => harness.post('/api/entries', { entries: [entry] }), 422, code, field)
    expect(await harness.log(id)).toHaveLength(1)
  })

  test('broken, huge, empty and foreign bodies', async () => {
    await expectProblem(() => harness.post('/api/entries', '{"entries": ['), 400, 'malformed-json')
    await expectProblem(
      () => harness.post('/api/entries', `{"entries": "${'x'.repeat(300_000)}"}`),
      413,
      'body-too-large',
    )
    await expectProblem(() => harness.post('/api/entries', { entries: [] }), 422, 'invalid', 'entries')
    await expectProblem(() => harness.post('/api/entries', []), 422, 'invalid')
    await expectProblem(
      () =>
        harness.request('/api/entries', {
          method: 'POST',
          body: 'a=b',
          headers: { 'content-type': 'application/x-www-form-urlencoded' },
        }),
      415,
      'not-json',
    )
    await expectProblem(() => harness.request('/api/nothing'), 404, 'no-such-route')
    await expectProblem(() => harness.request('/api/loops/%00'), 404, 'no-such-loop')
    await expectProblem(() => harness.request('/api/loops/%E0%A4%A'), 400, 'bad-request')
  })

  test('a tag that is taken', async () => {
    await expectProblem(() => harness.write(registered('same-tag-again', id.slice(-12))), 409, 'tag-taken')
  })
})

describe('another crew', () => {
  test('sees nothing of ours and writes to nothing of ours', async () => {
    const loopId = await loop('ours-alone-1')
    expect((await harness.request(`/api/loops/${loopId}`, {}, 'otherLead')).status).toBe(404)
    const { status, body } = await harness.post('/api/entries', { entries: [ran(loopId)] }, 'otherLead')
    expect({ status, code: body.code }).toEqual({ status: 404, code: 'no-such-loop' })
    expect(await harness.log(loopId)).toHaveLength(1)
    expect(await harness.shed('otherLead')).toMatchObject({ people: [{ name: 'Hesper Dunn' }], saws: [], loops: [] })
    const person = await harness.post(
      '/api/entries',
      { entries: [{ ...registered('theirs-alone'), personId: PERSON }] },
      'otherLead',
    )
    expect(person.body.code).toBe('no-such-person')
  })
})
