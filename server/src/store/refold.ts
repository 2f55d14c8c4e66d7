import { FOLD_VERSION, withDefaults, type Entry } from '@undercliff/core'
import { asc, eq, ne } from 'drizzle-orm'
import type { Database } from '../database/connect'
import { crews, entries, snapshots } from '../database/schema'
import { entryOf } from './rows'
import { readLog, snapshotRow, writeSnapshots } from './snapshot'

/** A loop whose snapshot is not what its log comes to. */
export interface Disagreement {
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
  for (const { id: crewId, rules: keptRules } of await db.select().from(crews)) {
    const rules = withDefaults(keptRules)
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

/** Folds again the logs whose snapshots an older version wrote. Returns how many there were. */
export async function refoldOutdated(db: Database): Promise<number> {
  const outdated = await db
    .select({ crewId: snapshots.crewId, loopId: snapshots.loopId })
    .from(snapshots)
    .where(ne(snapshots.foldVersion, FOLD_VERSION))
  for (const { crewId, loopId } of outdated) {
    await db.transaction(async (tx) => {
      const [crew] = await tx.select().from(crews).where(eq(crews.id, crewId)).for('update')
      if (crew === undefined) return
      const row = snapshotRow(crewId, await readLog(tx, crewId, loopId), withDefaults(crew.rules))
      if (row !== null) await writeSnapshots(tx, crewId, [row])
    })
  }
  return outdated.length
}
