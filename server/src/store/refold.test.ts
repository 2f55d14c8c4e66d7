import { FOLD_VERSION } from '@undercliff/core'
import { sql } from 'drizzle-orm'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { loadDemo, clearAll, installedCrew } from './crew'
import { refoldOutdated, verifySnapshots } from './refold'
import { Harness, NOW } from '../fixtures/harness'

let harness: Harness
beforeAll(async () => {
  harness = await Harness.open()
  await clearAll(harness.connected.db)
  await loadDemo(harness.connected.db, 'demo-crew-here', NOW)
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
  await db.execute(sql`update snapshots set fold_version = ${FOLD_VERSION - 1} where loop_id = ${loopId}`)
  expect(await refoldOutdated(db)).toBe(1)
  expect((await verifySnapshots(db)).disagreements).toEqual([])
})

test('the database itself refuses what code should never ask of it', async () => {
  const { db } = harness.connected
  const saw = sql`(select id from saws limit 1)`
  await expect(db.execute(sql`update snapshots set saw_id = ${saw}`)).rejects.toThrow()
  await expect(
    db.execute(
      sql`insert into entries (crew_id, id, loop_id, kind, happened_at, written_at, body) values ('demo-crew-here', 'stray-entry', 'no-such-loop', 'ran', now(), now(), '{}')`,
    ),
  ).rejects.toThrow()
  await expect(db.execute(sql`update entries set kind = 'danced' limit 1`)).rejects.toThrow()
  await expect(db.execute(sql`update saws set drive_links = 5`)).rejects.toThrow()
  expect((await verifySnapshots(db)).disagreements).toEqual([])
})
