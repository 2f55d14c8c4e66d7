import { drizzle } from 'drizzle-orm/mysql2'
import { migrate } from 'drizzle-orm/mysql2/migrator'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { createConnection, type Connection, type RowDataPacket } from 'mysql2/promise'
import { MIGRATIONS_DIR } from '../paths'
import { StartProblem } from './startProblem'

/** What goes on while the tables are brought up to this version. */
export interface UpgradeParts {
  /** Keeps the data as it is before anything is changed; the sentence says where. */
  readonly keepCopy: () => Promise<string>
  readonly say: (line: string) => void
}

/** How long another start may take to bring the tables up, in seconds. */
const WAIT_S = 120

interface Step {
  readonly when: number
  readonly tag: string
}

/** Every step from nothing to this version, in order. */
export const upgradeSteps = (dir = MIGRATIONS_DIR): readonly Step[] =>
  (JSON.parse(readFileSync(join(dir, 'meta', '_journal.json'), 'utf8')) as { entries: Step[] }).entries

async function firstCell(connection: Connection, query: string): Promise<unknown> {
  const [rows] = await connection.query<RowDataPacket[]>(query)
  return Object.values(rows[0] ?? {})[0]
}

const hasTable = async (connection: Connection, name: string): Promise<boolean> =>
  (await firstCell(connection, `show tables like '${name}'`)) !== undefined

/** When the last step that was done was made; 0 when none was. */
async function doneUntil(connection: Connection): Promise<number> {
  if (!(await hasTable(connection, '__drizzle_migrations'))) return 0
  return Number((await firstCell(connection, 'select max(created_at) from __drizzle_migrations')) ?? 0)
}

const hasData = async (connection: Connection): Promise<boolean> =>
  (await hasTable(connection, 'crews')) && Number(await firstCell(connection, 'select count(*) from crews')) > 0

/**
 * Brings the tables up to this version, one start at a time. Every statement of every step may be run
 * again, so what was cut short is done to the end; data is kept as it was before the first.
 *
 * @throws StartProblem when a newer Undercliff wrote the data
 */
export async function upgrade(url: string, { keepCopy, say }: UpgradeParts): Promise<void> {
  const connection = await createConnection({ uri: url.replace(/^mariadb:/, 'mysql:'), timezone: 'Z' })
  try {
    if ((await firstCell(connection, `select get_lock('undercliff upgrade', ${WAIT_S})`)) !== 1)
      throw new StartProblem('Another start is bringing the database up to its version. Try again in a while.')
    const done = await doneUntil(connection)
    const steps = upgradeSteps()
    if (done > (steps.at(-1)?.when ?? 0)) {
      throw new StartProblem(
        'A newer Undercliff wrote this data, and this one cannot read it. Update Undercliff first.',
      )
    }
    const left = steps.filter(({ when }) => when > done).length
    if (left === 0) return
    const upgrading = await hasData(connection)
    if (upgrading) say(`Bringing the data up to this version. ${await keepCopy()}`)
    await migrate(drizzle(connection), { migrationsFolder: MIGRATIONS_DIR })
    if (upgrading) say(`The data is up to this version (${left} ${left === 1 ? 'step' : 'steps'}).`)
  } finally {
    connection.destroy()
  }
}
