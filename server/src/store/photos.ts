import {
  CREW_PHOTO_BYTES,
  MOST_PHOTOS,
  type BackedUpPhoto,
  type NewPhoto,
  type PhotoAbout,
  type PhotoSubject,
} from '@undercliff/contract'
import { believeClock } from '@undercliff/core'
import { and, asc, count, eq, sql } from 'drizzle-orm'
import type { Database, Transaction } from '../database/connect'
import { loops, photos, saws } from '../database/schema'
import type { Caller } from './caller'
import { cleanPicture, keptPicture } from './cleanPicture'
import { lockCrew } from './crewLock'
import { Refusal } from './refusal'

type PhotoRow = typeof photos.$inferSelect
const ABOUT = {
  id: photos.id,
  sawId: photos.sawId,
  loopId: photos.loopId,
  shows: photos.shows,
  takenAt: photos.takenAt,
  personId: photos.personId,
}
type AboutRow = Pick<PhotoRow, keyof typeof ABOUT>

const subjectOf = ({ sawId, loopId }: Pick<PhotoRow, 'sawId' | 'loopId'>): PhotoSubject =>
  sawId === null ? { loopId: loopId ?? '' } : { sawId }

const aboutOf = ({ id, shows, takenAt, personId, ...row }: AboutRow): PhotoAbout => ({
  id,
  ...subjectOf(row),
  shows,
  takenAt,
  personId,
})

const ours = (crewId: string, id: string) => and(eq(photos.crewId, crewId), eq(photos.id, id))

/** What is known of a crew's photographs, the oldest first. */
export async function readPhotoAbouts(db: Database | Transaction, crewId: string): Promise<PhotoAbout[]> {
  const rows = await db
    .select(ABOUT)
    .from(photos)
    .where(eq(photos.crewId, crewId))
    .orderBy(asc(photos.takenAt), asc(photos.id))
  return rows.map(aboutOf)
}

/**
 * A photograph as a JPEG.
 *
 * @throws Refusal when the crew has no such photograph
 */
export async function readPicture(db: Database, crewId: string, id: string | null): Promise<Buffer> {
  const [row] = id === null ? [] : await db.select({ picture: photos.picture }).from(photos).where(ours(crewId, id))
  if (row === undefined) throw new Refusal('no-such-photo', 'There is no such photograph.')
  return row.picture
}

async function checkSubject(tx: Transaction, crewId: string, { sawId, loopId }: PhotoSubject): Promise<void> {
  const [found] =
    sawId === undefined
      ? await tx
          .select({ id: loops.id })
          .from(loops)
          .where(and(eq(loops.crewId, crewId), eq(loops.id, loopId)))
      : await tx
          .select({ id: saws.id })
          .from(saws)
          .where(and(eq(saws.crewId, crewId), eq(saws.id, sawId)))
  if (found !== undefined) return
  throw sawId === undefined
    ? new Refusal('no-such-loop', 'There is no such loop.')
    : new Refusal('no-such-saw', 'There is no such saw.')
}

async function checkRoom(tx: Transaction, crewId: string, { sawId, loopId }: PhotoSubject, more: number) {
  const ofIt = sawId === undefined ? eq(photos.loopId, loopId) : eq(photos.sawId, sawId)
  const [those] = await tx
    .select({ many: count() })
    .from(photos)
    .where(and(eq(photos.crewId, crewId), ofIt))
  if ((those?.many ?? 0) >= MOST_PHOTOS)
    throw new Refusal('photos-full', `It has ${MOST_PHOTOS} photographs already. Delete one that says nothing new.`)
  const [all] = await tx
    .select({ bytes: sql<string | null>`sum(octet_length(${photos.picture}))` })
    .from(photos)
    .where(eq(photos.crewId, crewId))
  if (Number(all?.bytes ?? 0) + more > CREW_PHOTO_BYTES)
    throw new Refusal(
      'photos-full',
      `All photographs together take ${CREW_PHOTO_BYTES / 1_000_000} MB, and no more can be kept. Delete some first.`,
    )
}

/** A photograph and what the clock of its device showed when it was sent. */
interface Sent {
  readonly photo: NewPhoto
  readonly now: Date
  readonly deviceMs: number | null
}

/**
 * Keeps a photograph with its saw or loop, made clean first. Sending it twice does no harm and answers alike.
 *
 * @throws Refusal when it is no picture, of nothing that the crew has, or there is no room for it
 */
export async function addPhoto(
  db: Database,
  { crewId, personId }: Caller,
  { photo, now, deviceMs }: Sent,
): Promise<PhotoAbout> {
  const picture = await cleanPicture(personId, Buffer.from(photo.picture, 'base64'))
  return db.transaction(async (tx) => {
    await lockCrew(tx, crewId)
    const [before] = await tx.select(ABOUT).from(photos).where(ours(crewId, photo.id))
    if (before !== undefined) {
      const same = before.shows === photo.shows && before.personId === personId
      if (!same) throw new Refusal('id-taken', 'Something else was added under this id.')
      return aboutOf(before)
    }
    await checkSubject(tx, crewId, photo)
    await checkRoom(tx, crewId, photo, picture.length)
    const [timed] = believeClock([{ happenedAt: photo.takenAt }], now.getTime(), deviceMs)
    const { id, sawId = null, loopId = null, shows } = photo
    const row = { crewId, id, sawId, loopId, shows, takenAt: timed?.happenedAt ?? photo.takenAt, personId }
    await tx.insert(photos).values({ ...row, picture })
    return aboutOf(row)
  })
}

/**
 * Deletes a photograph for good: a lead any, everybody their own.
 *
 * @throws Refusal when it is somebody else's, or there is none
 */
export const removePhoto = (db: Database, { crewId, personId, role }: Caller, id: string | null): Promise<void> =>
  db.transaction(async (tx) => {
    await lockCrew(tx, crewId)
    const [row] = id === null ? [] : await tx.select(ABOUT).from(photos).where(ours(crewId, id))
    if (row === undefined) throw new Refusal('no-such-photo', 'There is no such photograph.')
    if (role !== 'lead' && row.personId !== personId)
      throw new Refusal('lead-only', 'Somebody else kept this photograph; ask them or a lead.')
    await tx.delete(photos).where(ours(crewId, row.id))
  })

/** Every photograph of a crew with its picture, for a backup. */
export async function backedUpPhotos(tx: Transaction, crewId: string): Promise<BackedUpPhoto[]> {
  const rows = await tx
    .select()
    .from(photos)
    .where(eq(photos.crewId, crewId))
    .orderBy(asc(photos.takenAt), asc(photos.id))
  return rows.map((row) => ({ ...aboutOf(row), picture: row.picture.toString('base64') }))
}

/** Writes the photographs of a backup as they stand in it; see {@link keptPicture}. */
export async function restorePhotos(tx: Transaction, crewId: string, sent: readonly BackedUpPhoto[]): Promise<void> {
  for (const { id, sawId = null, loopId = null, shows, takenAt, personId, picture } of sent)
    await tx.insert(photos).values({
      ...{ crewId, id, sawId, loopId, shows, takenAt, personId },
      picture: await keptPicture(Buffer.from(picture, 'base64')),
    })
}
