import { ENTRY_KINDS, SAW_ENTRY_KINDS } from '@undercliff/core'
import fc from 'fast-check'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { Harness, measured, ran, registered, SAW } from '../fixtures/harness'
import { verifySnapshots } from '../store/refold'

const BODIES = 2400
const LOOP = 'fuzzed-loop-1'
/** Entries most often: they have the most to go wrong. */
const PATHS = [
  ...Array.from({ length: 8 }, () => ['POST', '/api/entries'] as const),
  ...(
    [
      '/api/saws',
      '/api/people',
      '/api/profiles',
      '/api/import',
      '/api/tags.pdf',
      '/api/backup',
      '/api/session',
      '/api/session/switch',
    ] as const
  ).map((path) => ['POST', path] as const),
  ...(['/api/rules', '/api/crew', '/api/pin', '/api/session/shared', '/api/accounts/person-of-ours'] as const).map(
    (path) => ['PUT', path] as const,
  ),
]
let harness: Harness
beforeAll(async () => {
  harness = await Harness.open()
  await harness.write(registered(LOOP))
})
afterAll(() => harness.close())

const nasty = fc.oneof(
  fc.jsonValue({ maxDepth: 3 }),
  fc.constantFrom<unknown>(
    null,
    '',
    0,
    -1,
    1e300,
    'constructor',
    '__proto__',
    '\u0000',
    '\ud800',
    [],
    {},
    [[[]]],
    true,
    '2026-02-31T00:00:00.000Z',
    2 ** 53,
    "'; drop table entries; --",
  ),
)
const fields = [
  'id',
  'loopId',
  'happenedAt',
  'personId',
  'note',
  'kind',
  'tanks',
  'conditions',
  'readings',
  'tag',
  'spec',
  'strikes',
  'sawId',
  'parts',
  'method',
  'pairs',
  'strokes',
  'gaugesLowered',
  'cutters',
  'against',
  'to',
  'shop',
  'changes',
  'origin',
  'costMinor',
  'overruled',
  '__proto__',
  'toString',
]
/** A good entry with some of its fields spoilt. */
const spoilt = fc
  .tuple(
    fc.constantFrom<string>(...ENTRY_KINDS, ...SAW_ENTRY_KINDS),
    fc.array(fc.tuple(fc.constantFrom(...fields), nasty), { maxLength: 4 }),
    fc.uuid(),
  )
  .map(([kind, changes, uuid]) => {
    const entry: Record<string, unknown> = { ...(kind === 'measured' ? measured(LOOP) : ran(LOOP)), id: uuid, kind }
    if ((SAW_ENTRY_KINDS as readonly string[]).includes(kind)) Object.assign(entry, { sawId: SAW, loopId: undefined })
    for (const [field, value] of changes)
      Object.defineProperty(entry, field, { value, enumerable: true, configurable: true, writable: true })
    return { entries: [entry] }
  })
const brokenText = fc.oneof(
  fc.string(),
  fc.json().map((text) => text.slice(0, -1)),
  fc.constant('{"entries":'),
  fc.constant('[[[[[[[['),
)
const anyBody = fc.oneof(
  { weight: 5, arbitrary: spoilt.map((body) => JSON.stringify(body)) },
  { weight: 2, arbitrary: nasty.map((body) => JSON.stringify({ entries: body })) },
  { weight: 2, arbitrary: nasty.map((body) => JSON.stringify(body)) },
  { weight: 1, arbitrary: brokenText },
)

test(`${BODIES} bodies, and not one 5xx`, async () => {
  const statuses = new Map<number, number>()
  await fc.assert(
    fc.asyncProperty(anyBody, fc.constantFrom(...PATHS), async (body, [method, path]) => {
      const { status } = await harness.send(method, path, body)
      statuses.set(status, (statuses.get(status) ?? 0) + 1)
      expect(status).toBeLessThan(500)
    }),
    { numRuns: BODIES },
  )
  expect([...statuses.values()].reduce((a, b) => a + b, 0)).toBeGreaterThanOrEqual(BODIES)
  expect(statuses.get(422)).toBeGreaterThan(500)
  expect((await verifySnapshots(harness.connected.db)).disagreements).toEqual([])
})
