import { STORED_VERSION, type Entry } from '@undercliff/core'
import { and, asc, count, eq, inArray, ne } from 'drizzle-orm'
import type { Database } from '../database/connect'
import { crews, entries, snapshots } from '../database/schema'
import { entryOf } from './rows'
import { breathe } from './breathe'
import { lockCrew, rulesOf } from './crewLock'
import { readLogs, snapshotRow, writeSnapshots, type SnapshotRow } from './snapshot'

/** A loop whose snapshot is not what its log comes to. */
interface Disagreement {
  readonly crewId: string
  readonly loopId: string
  readonly what: 'missing' | 'state' | 'card' | 'saw' | 'place' | 'extra'
}

export interface Verified {
  readonly loops: number
  readonly entries: number
  readonly disagreements: readonly Disagreement[]
}

/** Folds every log again and compares it with its snapshot. Writes nothing. */
export async function verifySnapshots(db: Database): Promise<Verified> {
  const disagreements: Disagreement[] = []
  let loopCount = 0
  let entryCount = 0
  for (const crew of await db.select().from(crews)) {
    const crewId = crew.id
    const rules = rulesOf(crew)
    const logs = new Map<string, Entry[]>()
    const rows = await db.select().from(entries).where(eq(entries.crewId, crewId)).orderBy(asc(entries.arrival))
    for (const row of rows) {
      const log = logs.get(row.loopId)
      if (log === undefined) logs.set(row.loopId, [entryOf(row)])
      else log.push(entryOf(row))
    }
    loopCount += logs.size
    entryCount += rows.length
    const kept = new Map(
      (await db.select().from(snapshots).where(eq(snapshots.crewId, crewId))).map((row) => [row.loopId, row]),
    )
    for (const [loopId, log] of logs) {
      const snapshot = kept.get(loopId)
      const wanted = snapshotRow(crewId, log, rules)
      const say = (what: Disagreement['what']) => disagreements.push({ crewId, loopId, what })
      if (snapshot === undefined || wanted === null) say('missing')
      else {
        if (JSON.stringify(snapshot.state) !== JSON.stringify(wanted.state)) say('state')
        if (JSON.stringify(snapshot.card) !== JSON.stringify(wanted.card)) say('card')
        if (snapshot.sawId !== wanted.sawId) say('saw')
        if (snapshot.place !== wanted.place || JSON.stringify(snapshot.stints) !== JSON.stringify(wanted.stints))
          say('place')
      }
      kept.delete(loopId)
    }
    for (const loopId of kept.keys()) disagreements.push({ crewId, loopId, what: 'extra' })
  }
  return { loops: loopCount, entries: entryCount, disagreements }
}

/** Loops that are renewed in one transaction; requests come in between. */
const BATCH = 10

/** How many snapshots an older version wrote. */
export async function countOutdated(db: Database): Promise<number> {
  const [row] = await db.select({ loops: count() }).from(snapshots).where(ne(snapshots.storedVersion, STORED_VERSION))
  return row?.loops ?? 0
}

/**
 * Works out again whatever an older version wrote, a batch at a time, so that requests are answered
 * in between. It may be ended at any moment and begun again: what is done stays done.
 *
 * @param onBatch told after each batch how many are done; false ends it
 * @returns how many there were
 */
export async function renewOutdated(db: Database, onBatch: (done: number) => boolean = () => true): Promise<number> {
  let done = 0
  for (;;) {
    const outdated = await db
      .select({ crewId: snapshots.crewId, loopId: snapshots.loopId })
      .from(snapshots)
      .where(ne(snapshots.storedVersion, STORED_VERSION))
      .orderBy(asc(snapshots.crewId), asc(snapshots.loopId))
      .limit(BATCH)
    const [first] = outdated
    if (first === undefined) return done
    const loopIds = outdated.filter(({ crewId }) => crewId === first.crewId).map(({ loopId }) => loopId)
    await db.transaction(async (tx) => {
      const rules = await lockCrew(tx, first.crewId)
      const rows: SnapshotRow[] = []
      for (const log of (await readLogs(tx, first.crewId, loopIds)).values()) {
        const row = snapshotRow(first.crewId, log, rules)
        if (row !== null) rows.push(row)
        await breathe()
      }
      await writeSnapshots(tx, first.crewId, rows)
      // One whose log comes to nothing is left to `npm run verify`, and not tried for ever.
      await tx
        .update(snapshots)
        .set({ storedVersion: STORED_VERSION })
        .where(and(eq(snapshots.crewId, first.crewId), inArray(snapshots.loopId, loopIds)))
    })
    done += loopIds.length
    if (!onBatch(done)) return done
  }
}
