import type { SetAsideRow } from '@undercliff/contract'
import { asc, eq } from 'drizzle-orm'
import { nanoid } from 'nanoid'
import type { Database, Transaction } from '../database/connect'
import { inChunks } from '../database/inChunks'
import { setAside } from '../database/schema'

const REASON_LENGTH = 500

/** Keeps what a backup held and could not be brought in, so that the next backup has it too. */
export const keepAside = (tx: Transaction, crewId: string, rows: readonly SetAsideRow[]): Promise<void> =>
  inChunks(rows, (some) =>
    tx.insert(setAside).values(
      some.map(({ part, why, row }) => ({
        crewId,
        id: nanoid(),
        part,
        why: why.slice(0, REASON_LENGTH),
        row: [row ?? null] as const,
      })),
    ),
  )

/** What was set aside when a backup was brought back. */
export async function readAside(db: Database | Transaction, crewId: string): Promise<SetAsideRow[]> {
  const rows = await db
    .select()
    .from(setAside)
    .where(eq(setAside.crewId, crewId))
    .orderBy(asc(setAside.part), asc(setAside.id))
  return rows.map(({ part, why, row }) => ({ part, why, row: row[0] }))
}
