import { drizzle } from 'drizzle-orm/mysql2'
import { readMigrationFiles } from 'drizzle-orm/migrator'
import { userInfo } from 'node:os'
import { join } from 'node:path'
import { createConnection, type Connection, type RowDataPacket } from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest'
import { MIGRATIONS_DIR } from '../paths'
import { StartProblem } from './startProblem'
import { upgrade, upgradeSteps } from './upgrade'
import { databaseUrl } from '../fixtures/databaseUrl'

const SCRATCH = `upgrade_under_test_${process.env['VITEST_POOL_ID'] ?? '1'}`
const migrations = readMigrationFiles({ migrationsFolder: MIGRATIONS_DIR })
let connection: Connection
let url: string

beforeAll(async () => {
  const shared = new URL(databaseUrl())
  connection = await createConnection({
    socketPath: join(inject('databaseFolder'), 'mariadb', 'mariadb.sock'),
    user: userInfo().username,
  })
  shared.pathname = `/${SCRATCH}`
  url = shared.href
  await connection.query(`grant all on ${SCRATCH}.* to '${shared.username}'@'127.0.0.1'`)
})
afterAll(async () => {
  await connection.query(`drop database if exists ${SCRATCH}`)
  await connection.end()
})

async function anew(): Promise<void> {
  await connection.query(`drop database if exists ${SCRATCH}`)
  await connection.query(`create database ${SCRATCH} character set utf8mb4 collate utf8mb4_unicode_ci`)
  await connection.query(`use ${SCRATCH}`)
}

/** The first `steps` steps as an earlier version did them, and so many statements of the next. */
async function upTo(steps: number, statements: number): Promise<void> {
  await anew()
  await connection.query(
    'create table __drizzle_migrations (id serial primary key, hash text not null, created_at bigint)',
  )
  for (const [i, { sql, hash, folderMillis }] of migrations.slice(0, steps + 1).entries()) {
    for (const statement of i < steps ? sql : sql.slice(0, statements)) await connection.query(statement)
    if (i === 0 && steps > 0) await fill()
    if (i < steps)
      await connection.query('insert into __drizzle_migrations (hash, created_at) values (?, ?)', [hash, folderMillis])
  }
}

/** A crew with a loop on a saw and one that is not, as the first version wrote them. */
async function fill(): Promise<void> {
  await connection.query(`insert into crews values ('crew-one', 'Zoë’s crew', 'mm', '{}', 3)`)
  await connection.query(`insert into people values ('crew-one', 'person-1', 'Zoë')`)
  await connection.query(`insert into saws values ('crew-one', 'saw-one-1', 'Heron', 'threeEighths', 1500, 72)`)
  for (const [loop, saw] of [
    ['loop-one', 'saw-one-1'],
    ['loop-two', null],
  ]) {
    await connection.query(`insert into loops values ('crew-one', ?, ?)`, [loop, loop])
    await connection.query(
      `insert into entries (crew_id, id, loop_id, kind, happened_at, written_at, person_id, body)
       values ('crew-one', ?, ?, 'ran', '2026-01-01', '2026-01-01', 'person-1', '{}')`,
      [`entry-${String(loop)}`, loop],
    )
    await connection.query(`insert into snapshots values ('crew-one', ?, ?, 'runOn', 1, '{}', '{}')`, [loop, saw])
  }
}

/** Every table as it is made, without where its numbers have got to. */
async function tables(): Promise<Record<string, string>> {
  const [rows] = await connection.query<RowDataPacket[]>('show tables')
  const made: Record<string, string> = {}
  for (const name of rows.map((row) => String(Object.values(row)[0])).sort()) {
    const [[row]] = (await connection.query<RowDataPacket[]>(`show create table ${name}`)) as [RowDataPacket[], unknown]
    const lines = String(row?.['Create Table'])
      .replace(/ AUTO_INCREMENT=\d+/, '')
      .split('\n')
    // Where a key stands among the others says nothing.
    made[name] = lines
      .map((line) => line.replace(/,$/, ''))
      .sort()
      .join('\n')
  }
  return made
}

const run = (said: string[] = []) =>
  upgrade(url, { keepCopy: () => Promise.resolve('A copy is kept.'), say: (line) => said.push(line) })

/** Every place where an upgrade may be cut short. */
const CUTS = migrations.flatMap(({ sql }, step) => sql.map((_statement, done) => [step, done] as const))

describe('tables are brought up to this version', () => {
  test(`wherever it was cut short before: ${CUTS.length} places`, async () => {
    await anew()
    await run()
    const wanted = await tables()
    expect(Object.keys(wanted)).toContain('sessions')
    for (const [step, done] of [...CUTS, [migrations.length - 1, migrations.at(-1)?.sql.length ?? 0] as const]) {
      await upTo(step, done)
      await run()
      expect(await tables(), `step ${step}, statement ${done}`).toEqual(wanted)
      if (step === 0) continue
      const [snapshots] = await connection.query('select loop_id, saw_id, place from snapshots order by loop_id')
      expect(snapshots).toEqual([
        { loop_id: 'loop-one', saw_id: 'saw-one-1', place: 'saw' },
        { loop_id: 'loop-two', saw_id: null, place: 'bench' },
      ])
      const [[count]] = (await connection.query('select count(*) as n from entries')) as [RowDataPacket[], unknown]
      expect(count?.['n']).toBe(2)
    }
  }, 180_000)

  test('data is kept as it was first, and both are said; nothing is kept or said where there is none', async () => {
    await upTo(migrations.length - 1, 0)
    const said: string[] = []
    await run(said)
    expect(said).toEqual([
      'Bringing the data up to this version. A copy is kept.',
      'The data is up to this version (1 step).',
    ])
    await run(said)
    await anew()
    await run(said)
    expect(said).toHaveLength(2)
  })

  test('when no copy can be made, nothing is changed', async () => {
    await upTo(1, 0)
    const before = await tables()
    const failing = () => Promise.reject(new StartProblem('No room.'))
    await expect(upgrade(url, { keepCopy: failing, say: () => undefined })).rejects.toThrow('No room.')
    expect(await tables()).toEqual(before)
  })

  test('what a newer version wrote is left alone', async () => {
    await anew()
    await run()
    const newer = (upgradeSteps().at(-1)?.when ?? 0) + 1
    await connection.query('insert into __drizzle_migrations (hash, created_at) values (?, ?)', ['newer', newer])
    const before = await tables()
    await expect(run()).rejects.toThrow(/newer Undercliff wrote this data/)
    expect(await tables()).toEqual(before)
  })

  test('several starts at once do it once', async () => {
    await upTo(0, 3)
    await Promise.all([run(), run(), run()])
    const db = drizzle(connection)
    const [rows] = await db.execute('select count(*) as n from __drizzle_migrations')
    expect((rows as unknown as { n: number }[])[0]?.n).toBe(migrations.length)
  })
})
