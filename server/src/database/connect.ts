import { drizzle, type MySql2Database } from 'drizzle-orm/mysql2'
import { createPool, type Pool } from 'mysql2/promise'
import * as schema from './schema'

export type Database = MySql2Database<typeof schema>

/** The database inside one transaction. */
export type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0]

export interface Connected {
  /** For reading, and for writes that wait for nobody. */
  readonly db: Database
  /**
   * For transactions that lock a crew. However many of them wait for one another, they hold none of
   * the connections that reading needs.
   */
  readonly writes: Database
  /** Ends all connections. */
  readonly end: () => Promise<void>
}

const CONNECTIONS = 10

const pool = (url: string): Pool =>
  createPool({
    uri: url.replace(/^mariadb:/, 'mysql:'),
    timezone: 'Z',
    charset: 'utf8mb4',
    connectionLimit: CONNECTIONS,
    connectTimeout: 3000,
    enableKeepAlive: true,
    dateStrings: true,
    supportBigNumbers: true,
  })

/** Pools of connections in UTC; nothing is connected until it is used. */
export function connect(url: string): Connected {
  const pools = [pool(url), pool(url)] as const
  const over = (one: Pool): Database => drizzle(one, { schema, mode: 'planetscale' })
  return {
    db: over(pools[0]),
    writes: over(pools[1]),
    end: async () => {
      for (const one of pools) await one.end()
    },
  }
}
