import type { SawAnswer } from '@undercliff/contract'
import type { NewEntry, SawEntryBodies, SawEntryKind } from '@undercliff/core'
import { sql } from 'drizzle-orm'
import fc from 'fast-check'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { fitted, Harness, registered, SAW, SECOND_SAW, SPEC, type As } from '../fixtures/harness'
import { verifySnapshots } from '../store/refold'

let harness: Harness
beforeAll(async () => {
  harness = await Harness.open()
})
afterAll(() => harness.close())

let made = 0
const entry = (loopId: string, body: object): NewEntry => {
  made += 1
  return {
    id: `place-entry-${String(made).padStart(6, '0')}`,
    loopId,
    happenedAt: `2026-03-11T09:00:00.${String(made % 1000).padStart(3, '0')}Z`,
    personId: null,
    ...body,
  } as unknown as NewEntry
}
const sawEntry = <K extends SawEntryKind>(kind: K, body: SawEntryBodies[K], as: As = 'lead') => {
  made += 1
  return harness.post(
    '/api/entries',
    {
      entries: [
        {
          id: `saw-entry-${String(made).padStart(6, '0')}`,
          sawId: SAW,
          happenedAt: '2026-03-11T09:00:00.000Z',
          personId: null,
          kind,
          ...body,
        },
      ],
    },
    as,
  )
}

test('whatever several people move at once, the shed adds up', async () => {
  const loops = ['crowd-loop-a', 'crowd-loop-b', 'crowd-loop-c', 'crowd-loop-d']
  for (const loopId of loops) await harness.write(registered(loopId))
  const move = fc.tuple(
    fc.constantFrom(...loops),
    fc.constantFrom<object>(
      { kind: 'fitted', sawId: SAW },
      { kind: 'fitted', sawId: SECOND_SAW },
      { kind: 'takenOff', to: 'dullBox' },
      { kind: 'moved', to: 'truck' },
      { kind: 'sentOut', shop: 'Quay works' },
      { kind: 'cameBack', to: 'sharpRack' },
    ),
    fc.constantFrom<As>('lead', 'sawyer'),
  )
  await fc.assert(
    fc.asyncProperty(fc.array(move, { minLength: 4, maxLength: 12 }), async (moves) => {
      const answers = await Promise.all(
        moves.map(([loopId, body, as]) => harness.post('/api/entries', { entries: [entry(loopId, body)] }, as)),
      )
      for (const { status } of answers) expect([201, 409, 422]).toContain(status)
      const cards = (await harness.shed()).loops.filter(({ loopId }) => loops.includes(loopId))
      expect(cards).toHaveLength(loops.length)
      const onSaws = cards.flatMap(({ sawId }) => (sawId === null ? [] : [sawId]))
      expect(new Set(onSaws).size).toBe(onSaws.length)
      for (const { place, sawId } of cards) expect(sawId).toBe(place.at === 'saw' ? place.sawId : null)
    }),
    { numRuns: 25 },
  )
  expect((await verifySnapshots(harness.connected.db)).disagreements).toEqual([])
})

test('the database itself keeps a loop from two places and a saw from two loops', async () => {
  const { db } = harness.connected
  const spoil = (what: ReturnType<typeof sql>) => db.execute(what)
  await harness.write(registered('constrained-1'), entry('constrained-1', { kind: 'moved', to: 'truck' }))
  await expect(spoil(sql`update snapshots set place = 'saw' where loop_id = 'constrained-1'`)).rejects.toThrow()
  await expect(spoil(sql`update snapshots set saw_id = ${SAW} where loop_id = 'constrained-1'`)).rejects.toThrow()
  await expect(spoil(sql`update snapshots set place = 'cupboard' where loop_id = 'constrained-1'`)).rejects.toThrow()
  await expect(
    spoil(sql`insert into snapshots select * from snapshots where loop_id = 'constrained-1'`),
  ).rejects.toThrow()
  await harness.write(registered('constrained-2'))
  const occupied = (await harness.shed()).loops.find(({ sawId }) => sawId === SAW)
  if (occupied === undefined) expect((await harness.write(fitted('constrained-2'))).status).toBe(201)
  await expect(
    spoil(sql`update snapshots set place = 'saw', saw_id = ${SAW} where loop_id = 'constrained-1'`),
  ).rejects.toThrow()
})

test('an unfit loop goes on no saw, whatever a program sends', async () => {
  await harness.reset()
  const loopId = 'cracked-loop-1'
  await harness.write(
    registered(loopId),
    entry(loopId, { kind: 'inspected', readings: [], parts: [{ kind: 'strapCracked', nearCutter: 3 }] }),
  )
  const { status, body } = await harness.write(fitted(loopId))
  expect({ status, code: body.code }).toEqual({ status: 409, code: 'does-not-fit' })
  expect(body.detail).toContain('it is not fit for use as it is')
  expect(
    (await harness.write(entry(loopId, { kind: 'fitted', sawId: SAW, overruled: 'I know better' }))).body.code,
  ).toBe('does-not-fit')
})

test('striking an entry out puts no loop back on a saw that it must not be on', async () => {
  await harness.reset()
  const loopId = 'back-again-1'
  const [on, off] = [fitted(loopId), entry(loopId, { kind: 'takenOff' })]
  await harness.write(registered(loopId), on, off)
  const cracked = entry(loopId, { kind: 'inspected', readings: [], parts: [{ kind: 'strapCracked', nearCutter: 3 }] })
  await harness.write(cracked)
  const strike = (strikes: string) => harness.write(entry(loopId, { kind: 'corrected', strikes }))
  expect((await strike(off.id)).body.code).toBe('does-not-fit')
  expect((await strike(on.id)).status).toBe(201)
  expect((await strike(off.id)).status).toBe(201)
  expect((await harness.shed()).loops[0]?.place).toEqual({ at: 'bench' })
})

test('a drawback can be overruled with a reason, which is logged', async () => {
  await harness.reset()
  const loopId = 'leaning-loop-1'
  await harness.write(registered(loopId))
  expect((await sawEntry('barChecked', { grooveWidthUm: 1760 })).status).toBe(201)
  const plain = await harness.write(fitted(loopId))
  expect({ status: plain.status, code: plain.body.code }).toEqual({ status: 409, code: 'overrule-needed' })
  expect(
    (await harness.write(entry(loopId, { kind: 'fitted', sawId: SAW, overruled: 'One stump, then a new bar' }))).status,
  ).toBe(201)
  expect((await harness.log(loopId)).at(-1)).toMatchObject({ overruled: 'One stump, then a new bar' })
})

test('a saw of which nobody knows what it takes is added, takes no loop, and does once it is read off', async () => {
  await harness.reset()
  const unknown = { id: 'saw-not-known', nickname: 'Skua', pitchClass: null, gaugeUm: null, driveLinks: null }
  expect((await harness.post('/api/saws', { ...unknown, gaugeUm: undefined })).status).toBe(422)
  expect((await harness.post('/api/saws', unknown)).status).toBe(201)
  await harness.write(registered('loop-of-it'))
  const on = () => harness.write(entry('loop-of-it', { kind: 'fitted', sawId: 'saw-not-known' }))
  const refused = await on()
  expect(refused.body.code).toBe('does-not-fit')
  expect(JSON.stringify(refused.body)).toContain('nobody has said')
  const { pitchClass, gaugeUm, driveLinks } = SPEC
  const read = { kind: 'fitRead', id: 'read-off-1', sawId: 'saw-not-known', personId: null }
  const at = { happenedAt: new Date().toISOString() }
  const sent = await harness.post('/api/entries', { entries: [{ ...read, ...at, pitchClass, gaugeUm, driveLinks }] })
  expect(sent.status).toBe(201)
  expect((await on()).status).toBe(201)
  const { saws } = await harness.shed()
  expect(saws.find(({ id }) => id === 'saw-not-known')).toMatchObject({ pitchClass, gaugeUm, driveLinks })
  expect((await harness.request('/api/tables/saws.csv')).status).toBe(200)
})

test('another bar changes what fits, and is a lead’s to write', async () => {
  await harness.reset()
  const bar = { gaugeUm: 1300, driveLinks: 64, nosePitchClass: 'p325' } as const
  expect((await sawEntry('barFitted', bar, 'sawyer')).body.code).toBe('lead-only')
  expect((await sawEntry('barFlipped', {}, 'sawyer')).status).toBe(201)
  expect((await sawEntry('barFitted', bar)).status).toBe(201)
  expect((await sawEntry('sprocketRenewed', { pitchClass: 'p325' })).status).toBe(201)
  await harness.write(
    registered('old-kind-loop'),
    registered('new-kind-loop', 'NEWKIND', {
      ...SPEC,
      pitchClass: 'p325',
      gaugeUm: 1300,
      driveLinks: 64,
      fileUm: 4800,
    }),
  )
  expect((await harness.write(fitted('old-kind-loop'))).body.code).toBe('does-not-fit')
  expect((await harness.write(fitted('new-kind-loop'))).status).toBe(201)
  const { state, entries } = (await harness.request<SawAnswer>(`/api/saws/${SAW}`)).body
  expect(state.fit).toMatchObject({ pitchClass: 'p325', gaugeUm: 1300, driveLinks: 64 })
  expect(entries).toHaveLength(3)
  const flipped = entries.find(({ kind }) => kind === 'barFitted')?.id ?? ''
  expect((await sawEntry('sawCorrected', { strikes: flipped }, 'sawyer')).body.code).toBe('lead-only')
  expect((await sawEntry('sawCorrected', { strikes: flipped })).status).toBe(201)
  expect((await sawEntry('sawCorrected', { strikes: flipped })).status).toBe(422)
  expect((await sawEntry('barChecked', { grooveWidthUm: 300 })).body.code).toBe('not-admitted')
})

test('a tag given to a loop is its tag everywhere, once', async () => {
  await harness.reset()
  await harness.write(registered('tagged-loop-1', 'A1'), registered('tagged-loop-2', 'A2'))
  expect((await harness.write(entry('tagged-loop-1', { kind: 'retagged', tag: 'A2' }))).body.code).toBe('tag-taken')
  expect((await harness.write(entry('tagged-loop-1', { kind: 'retagged', tag: '222Y' }))).status).toBe(201)
  expect((await harness.write(registered('tagged-loop-3', '222Y'))).body.code).toBe('tag-taken')
  expect((await harness.write(registered('tagged-loop-4', 'A1'))).status).toBe(201)
})

test('a saw gets another name, once in a crew, and its old one is free again', async () => {
  await harness.reset()
  const old = SAW
  const renamed = (to: string, who: 'lead' | 'sawyer' = 'lead') => sawEntry('sawRenamed', { from: old, to }, who)
  expect((await renamed('Gannet', 'sawyer')).body.code).toBe('lead-only')
  expect((await renamed(SECOND_SAW)).body.code).toBe('name-taken')
  for (const to of ['', ' '.repeat(5), 'x'.repeat(41)]) expect((await renamed(to)).status, to).toBeGreaterThan(399)
  // Right to left, as it is written.
  expect((await renamed('نورس')).status).toBe(201)
  const names = async () => (await harness.shed()).saws.map(({ nickname }) => nickname).sort()
  expect(await names()).toEqual([SECOND_SAW, 'نورس'].sort())
  const { entries } = (await harness.request<SawAnswer>(`/api/saws/${SAW}`)).body
  const strikes = entries.find(({ kind }) => kind === 'sawRenamed')?.id ?? ''
  expect((await sawEntry('sawCorrected', { strikes })).status).toBe(201)
  expect(await names()).toEqual([old, SECOND_SAW].sort())
})

test('a saw that is lent out takes no loop, and one with a loop on it is not done with', async () => {
  await harness.reset()
  await harness.write(registered('lent-with-loop'), registered('another-loop-1', 'A9'))
  expect((await harness.write(fitted('lent-with-loop'))).status).toBe(201)
  expect((await sawEntry('sawGone', { how: 'retired' })).body.code).toBe('not-admitted')
  expect((await harness.write(entry('lent-with-loop', { kind: 'takenOff' }))).status).toBe(201)
  expect((await sawEntry('sawGone', { how: 'lent', to: 'the north crew' })).status).toBe(201)
  expect((await harness.shed()).saws.find(({ id }) => id === SAW)?.gone).toMatchObject({
    how: 'lent',
    to: 'the north crew',
  })
  const refused = await harness.write(fitted('another-loop-1'))
  expect(refused.body).toMatchObject({ code: 'does-not-fit', detail: expect.stringContaining('lent out') as string })
  expect((await sawEntry('sawGone', { how: 'lent' })).status).toBe(422)
  expect((await sawEntry('sawBack', {})).status).toBe(201)
  expect((await harness.write(fitted('another-loop-1'))).status).toBe(201)
})
