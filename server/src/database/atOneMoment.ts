import type { Database, Transaction } from './connect'

/** Reads everything as it was at the moment of the first reading, whatever is written meanwhile. */
export const atOneMoment = <T>(db: Database, read: (tx: Transaction) => Promise<T>): Promise<T> =>
  db.transaction(read, { isolationLevel: 'repeatable read', accessMode: 'read only' })
