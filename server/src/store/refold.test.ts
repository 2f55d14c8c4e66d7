import { ENTRY_KINDS, PITCH_CLASSES, ROLES, SAW_ENTRY_KINDS, SHELVES, STORED_VERSION } from '@undercliff/core'
import { sql } from 'drizzle-orm'
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { begin, installedCrew } from './crew'
import { countOutdated, renewOutdated, verifySnapshots } from './refold'
import { Harness, NOW } from '../fixtures/harness'
import { MIGRATIONS_DIR } from '../paths'
import { changeRules } from './rules'
import { readShed } from './shed'

let harness: Harness
beforeAll(async () => {
  harness = await Harness.open()
  await begin(harness.connected.db, { crewId: 'demo-crew-here', now: NOW, fresh: true, empty: false })
})
afterAll(() => harness.close())

test('the demo is loaded whole, and every snapshot agrees with its log', async () => {
  const { db } = harness.connected
  expect(await installedCrew(db)).toBe('demo-crew-here')
  const verified = await verifySnapshots(db)
  expect(verified.disagreements).toEqual([])
  expect(verified.loops).toBeGreaterThanOrEqual(30)
  expect(verified.entries).toBeGreaterThan(500)
})

test('a snapshot that was tampered with is found', async () => {
  const { db } = harness.connected
  const [{ loop_id: loopId } = { loop_id: '' }] = (
    await db.execute(sql`select loop_id from snapshots limit 1`)
  )[0] as unknown as { loop_id: string }[]
  await db.execute(sql`update snapshots set state = json_set(state, '$.tanks', 999) where loop_id = ${loopId}`)
  const { disagreements } = await verifySnapshots(db)
  expect(disagreements).toMatchObject([{ loopId, what: 'state' }])
  await db.execute(sql`update snapshots set fold_version = ${STORED_VERSION - 1} where loop_id = ${loopId}`)
  expect(await renewOutdated(db)).toBe(1)
  expect((await verifySnapshots(db)).disagreements).toEqual([])
})

/** Everything as an older version might have left it: nothing of it says what is so. */
const makeOutdated = async (): Promise<void> => {
  const { db } = harness.connected
  await db.execute(sql`update snapshots set card = json_set(card, '$.action', 'retire', '$.tag', 'stale'),
    state = json_set(state, '$.tanks', 999), fold_version = ${STORED_VERSION - 1}`)
}

test('no list shows what an older version stored, renewed or not', async () => {
  const { db } = harness.connected
  const before = await readShed(db, 'demo-crew-here')
  await makeOutdated()
  const { loops } = await readShed(db, 'demo-crew-here')
  expect(loops).toEqual(before.loops)
})

test('everything outdated is renewed in batches, and what was ended goes on from there', async () => {
  const { db } = harness.connected
  await makeOutdated()
  const all = await countOutdated(db)
  const told: number[] = []
  const first = await renewOutdated(db, (done) => {
    told.push(done)
    return told.length < 2
  })
  expect(told).toHaveLength(2)
  expect(first).toBeLessThan(all)
  expect(await countOutdated(db)).toBe(all - first)
  expect(await renewOutdated(db)).toBe(all - first)
  expect(await countOutdated(db)).toBe(0)
  expect((await verifySnapshots(db)).disagreements).toEqual([])
})

test('rules that change while something is outdated leave no stale card behind', async () => {
  const { db } = harness.connected
  await makeOutdated()
  const { crew } = await readShed(db, 'demo-crew-here')
  await changeRules(db, 'demo-crew-here', { ...crew.rules, benchTanks: crew.rules.benchTanks + 3 })
  await renewOutdated(db)
  expect((await verifySnapshots(db)).disagreements).toEqual([])
})

test('the kinds and places that the database knows are those of the core', () => {
  const folder = join(MIGRATIONS_DIR, 'meta')
  const newest = readdirSync(folder)
    .filter((file) => file.endsWith('_snapshot.json'))
    .sort()
    .at(-1)
  const { tables } = JSON.parse(readFileSync(join(folder, newest ?? ''), 'utf8')) as {
    tables: Record<string, { checkConstraint: Record<string, { value: string }> }>
  }
  const known = (table: string, check: string): string[] =>
    [...(tables[table]?.checkConstraint[check]?.value ?? '').matchAll(/'(\w+)'/g)].map(([, value = '']) => value)
  // `npm run migrations` writes what is missing.
  expect(known('entries', 'entries_kind').sort()).toEqual([...ENTRY_KINDS].sort())
  expect(known('saw_entries', 'saw_entries_kind').sort()).toEqual([...SAW_ENTRY_KINDS].sort())
  expect(known('snapshots', 'snapshots_place').sort()).toEqual(['saw', 'shop', 'retired', ...SHELVES].sort())
  expect(known('saws', 'saws_pitch_class').sort()).toEqual([...PITCH_CLASSES].sort())
  expect(known('people', 'people_role').sort()).toEqual([...ROLES].sort())
})

test('the database itself refuses what code should never ask of it', async () => {
  const { db } = harness.connected
  const saw = sql`(select id from saws limit 1)`
  await expect(db.execute(sql`update snapshots set saw_id = ${saw}`)).rejects.toThrow()
  await expect(
    db.execute(sql`insert into entries (crew_id, id, loop_id, kind, happened_at, written_at, body)
      values ('demo-crew-here', 'stray-entry', 'no-such-loop', 'ran', now(), now(), '{}')`),
  ).rejects.toThrow()
  await expect(db.execute(sql`update entries set kind = 'danced' limit 1`)).rejects.toThrow()
  await expect(db.execute(sql`update saws set drive_links = 5`)).rejects.toThrow()
  expect((await verifySnapshots(db)).disagreements).toEqual([])
})
