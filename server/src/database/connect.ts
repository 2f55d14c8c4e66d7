import { drizzle, type MySql2Database } from 'drizzle-orm/mysql2'
import { migrate } from 'drizzle-orm/mysql2/migrator'
import { createPool, type Pool } from 'mysql2/promise'
import { MIGRATIONS_DIR } from '../paths'
import * as schema from './schema'

export type Database = MySql2Database<typeof schema>

/** The database inside one transaction. */
export type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0]

export interface Connected {
  readonly db: Database
  readonly pool: Pool
}

/** A pool of connections in UTC; nothing is connected until it is used. */
export function connect(url: string): Connected {
  const pool = createPool({
    uri: url.replace(/^mariadb:/, 'mysql:'),
    timezone: 'Z',
    charset: 'utf8mb4',
    connectionLimit: 10,
    connectTimeout: 3000,
    enableKeepAlive: true,
    dateStrings: true,
    supportBigNumbers: true,
  })
  return { pool, db: drizzle(pool, { schema, mode: 'planetscale' }) }
}

/** Brings the tables up to this version. Running it again does nothing. */
export const migrateUp = ({ db }: Connected): Promise<void> => migrate(db, { migrationsFolder: MIGRATIONS_DIR })
