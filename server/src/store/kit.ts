import type { KitAnswer } from '@undercliff/contract'
import { kitUsage, type KitItem, type SpentOn } from '@undercliff/core'
import { and, asc, eq, sql } from 'drizzle-orm'
import type { Database, Transaction } from '../database/connect'
import { kitItems, snapshots } from '../database/schema'
import { lockCrew } from './crewLock'
import { Refusal } from './refusal'

type KitRow = typeof kitItems.$inferSelect

/** A thing of the kit as its row keeps it. */
export function kitRow(crewId: string, item: KitItem): KitRow {
  const { id, kind, name, version, gone, ...body } = item
  return { crewId, id, kind, name, version, gone: gone ?? null, body }
}

const kitItemOf = ({ id, kind, name, version, gone, body }: KitRow): KitItem =>
  ({ id, kind, name, version, ...(gone === null ? {} : { gone }), ...body }) as KitItem

/** Everything of a crew's kit, what is gone too: it tells how long such things last. */
export async function readKit(db: Database | Transaction, crewId: string): Promise<KitItem[]> {
  const rows = await db
    .select()
    .from(kitItems)
    .where(eq(kitItems.crewId, crewId))
    .orderBy(asc(kitItems.kind), asc(kitItems.name), asc(kitItems.id))
  return rows.map(kitItemOf)
}

/** The kit with what each thing of it has done, by the sharpenings of all loops. */
export async function readKitUsage(db: Database, crewId: string): Promise<KitAnswer> {
  const kit = await readKit(db, crewId)
  const rows = await db
    // As text, whatever a driver makes of JSON.
    .select({ spent: sql<string | null>`cast(json_extract(${snapshots.state}, '$.spent') as char)` })
    .from(snapshots)
    .where(eq(snapshots.crewId, crewId))
    .orderBy(snapshots.loopId)
  const spent = rows.flatMap((row) => (row.spent === null ? [] : (JSON.parse(row.spent) as SpentOn[])))
  return { kit, usage: kitUsage(kit, spent) }
}

/**
 * Adds a thing of the kit, or changes it against the version that was read. Sending the same twice does no harm.
 *
 * @returns it as it stands now, with the crew's revision raised
 * @throws Refusal when somebody else changed it meanwhile, or it would become of another kind
 */
export const putKitItem = (db: Database, crewId: string, wanted: KitItem): Promise<KitItem> =>
  db.transaction(async (tx) => {
    await lockCrew(tx, crewId)
    const ours = and(eq(kitItems.crewId, crewId), eq(kitItems.id, wanted.id))
    const [before] = await tx.select().from(kitItems).where(ours)
    const fresh: KitItem = { ...wanted, version: before === undefined ? 1 : before.version + 1 }
    if (before === undefined) {
      await tx.insert(kitItems).values(kitRow(crewId, fresh))
      return fresh
    }
    const now = kitItemOf(before)
    if (sameButVersion(now, wanted)) return now
    if (before.version !== wanted.version || before.kind !== wanted.kind)
      throw new Refusal('kit-changed', `Somebody changed ${before.name} meanwhile. Look at it as it is now.`)
    await tx.update(kitItems).set(kitRow(crewId, fresh)).where(ours)
    return fresh
  })

/** What a thing of the kit says by the clock of a device. */
export const KIT_TIMES = ['openedAt', 'rungAt', 'dressedAt'] as const
/** Times that were put right come out a little otherwise each time that the same is sent, in ms. */
const NEAR_MS = 60_000

const sameButVersion = (a: KitItem, b: KitItem): boolean => {
  const times = (item: KitItem): (string | undefined)[] =>
    KIT_TIMES.map((field) => (item as Partial<Record<(typeof KIT_TIMES)[number], string>>)[field])
  const plain = (item: KitItem): string =>
    JSON.stringify(
      Object.entries(item)
        .filter(([field]) => field !== 'version' && !(KIT_TIMES as readonly string[]).includes(field))
        .sort(),
    )
  const near = times(a).every((time, i) => {
    const other = times(b)[i]
    if (time === undefined || other === undefined) return time === other
    return Math.abs(Date.parse(time) - Date.parse(other)) < NEAR_MS
  })
  return near && plain(a) === plain(b)
}
