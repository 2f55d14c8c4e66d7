import type { SaveUnderWay, UnderWay } from '@undercliff/contract'
import { and, eq, inArray } from 'drizzle-orm'
import type { Database } from '../database/connect'
import { loops, people, underWay } from '../database/schema'
import type { Caller } from './caller'
import { Refusal } from './refusal'

const ofLoop = (crewId: string, loopId: string) => and(eq(underWay.crewId, crewId), eq(underWay.loopId, loopId))

/** The sharpening of a loop that is under way somewhere; null for none. */
export async function readUnderWay(db: Database, crewId: string, loopId: string): Promise<UnderWay | null> {
  const [row] = await db.select().from(underWay).where(ofLoop(crewId, loopId))
  if (row === undefined) return null
  const { crewId: _crew, loopId: _loop, ...rest } = row
  return rest
}

/**
 * Keeps a sharpening as far as it has come, so that another device can go on with it.
 *
 * @throws Refusal when another device is at that loop and it is not to be taken over, or there is no such loop
 */
export const saveUnderWay = (
  db: Database,
  { crewId, personId }: Caller,
  loopId: string,
  { deviceId, device, takeOver = false, walk }: SaveUnderWay,
  now: Date,
): Promise<UnderWay> =>
  db.transaction(async (tx) => {
    const [loop] = await tx
      .select({ id: loops.id })
      .from(loops)
      .where(and(eq(loops.crewId, crewId), eq(loops.id, loopId)))
      .for('update')
    if (loop === undefined) throw new Refusal('no-such-loop', 'There is no such loop.')
    const [before] = await tx.select().from(underWay).where(ofLoop(crewId, loopId))
    if (before !== undefined && before.deviceId !== deviceId && !takeOver) {
      const [who] = await tx
        .select({ name: people.name })
        .from(people)
        .where(and(eq(people.crewId, crewId), eq(people.id, before.personId)))
      throw new Refusal('under-way-elsewhere', `${who?.name ?? 'Somebody'} is at this loop on ${before.device}.`)
    }
    const saved: UnderWay = {
      personId,
      deviceId,
      device,
      version: (before?.version ?? 0) + 1,
      savedAt: now.toISOString(),
      walk,
    }
    await tx
      .insert(underWay)
      .values({ crewId, loopId, ...saved })
      .onDuplicateKeyUpdate({ set: saved })
    return saved
  })

/** Forgets a sharpening that was logged or thrown away; one that another device took over stays. */
export async function endUnderWay(db: Database, crewId: string, loopId: string, deviceId: string): Promise<void> {
  await db.delete(underWay).where(and(ofLoop(crewId, loopId), eq(underWay.deviceId, deviceId)))
}

/** What was under way at loops that have been sharpened since, on whatever device it was, is over. */
export async function overSince(db: Database, crewId: string, loopIds: readonly string[]): Promise<void> {
  if (loopIds.length === 0) return
  await db.delete(underWay).where(and(eq(underWay.crewId, crewId), inArray(underWay.loopId, [...loopIds])))
}
