import { inShedOrder, type ShedAnswer, type ShedChanges } from '@undercliff/contract'
import { and, eq, sql } from 'drizzle-orm'
import { createHash } from 'node:crypto'
import { nanoid } from 'nanoid'
import pLimit, { type LimitFunction } from 'p-limit'
import type { Database, Transaction } from '../database/connect'
import { atOneMoment } from '../database/atOneMoment'
import { inChunks } from '../database/inChunks'
import { crews, shedParts, snapshots } from '../database/schema'
import { readAround, readShedWithin, type AroundLoops } from './shed'
import { readCards } from './snapshot'

type Part = typeof shedParts.$inferSelect
type Kind = Part['kind']

/** What tells the places of a crew's shed and logs from those of any other; null before anybody asked for the shed. */
export async function readEpoch(db: Database, crewId: string): Promise<string | null> {
  const [head] = await db
    .select({ epoch: shedParts.digest })
    .from(shedParts)
    .where(and(eq(shedParts.crewId, crewId), eq(shedParts.kind, 'index')))
  return head?.epoch ?? null
}

/** What is known of the parts of a crew's shed: what each looked like, and since which revision it does. */
interface Index {
  /** Another one is begun with the crew's rows, as after a restore: places of one mean nothing in the other. */
  readonly epoch: string
  readonly revision: number
  readonly parts: ReadonlyMap<string, Part>
}

const keyOf = ({ kind, id }: Pick<Part, 'kind' | 'id'>): string => `${kind} ${id}`
const digestOf = (what: unknown): string => createHash('md5').update(JSON.stringify(what)).digest('hex')
const placeOf = ({ epoch, revision }: Index): string => `${epoch}.${revision}`

/** The revision of a place that this index wrote; null where it knows no such place. */
function revisionAt(index: Index, place: string): number | null {
  const [epoch, revision = ''] = place.split('.')
  const at = /^\d{1,9}$/.test(revision) ? Number(revision) : Infinity
  return epoch === index.epoch && at <= index.revision ? at : null
}

/** More loops than this are told with the whole shed, which is kept ready. */
const MOST_CHANGED = 500

/**
 * Tells devices what changed in the shed since they asked last. Nothing that writes has to know of it: parts are
 * told apart by what they look like, and when one was first seen to look so is kept in the database, so that a
 * device that was away for a week while the server was started anew gets no more than what changed.
 */
export class ShedIndex {
  private readonly known = new Map<string, Index>()
  /** One refresh of a crew's index at a time. */
  private readonly turns = new Map<string, LimitFunction>()

  constructor(private readonly db: Database) {}

  /** Whether nothing changed since a place, where that can be said without asking the database. */
  isNow(crewId: string, revision: number, since: string): boolean {
    const index = this.known.get(crewId)
    return index?.revision === revision && placeOf(index) === since
  }

  /** The whole shed with the place to ask on from. */
  whole(crewId: string): Promise<ShedAnswer> {
    return this.inTurn(crewId, async (tx) => {
      const shed = await readShedWithin(tx, crewId)
      return inShedOrder({ ...shed, place: placeOf(await this.refreshed(tx, crewId, shed)) })
    })
  }

  /** What changed since a place; null where that place is not known, or where the whole is the shorter answer. */
  changes(crewId: string, since: string): Promise<ShedChanges | null> {
    return this.inTurn(crewId, async (tx) => {
      const around = await readAround(tx, crewId)
      const index = await this.refreshed(tx, crewId, around)
      const at = revisionAt(index, since)
      if (at === null) return null
      const changed = [...index.parts.values()].filter(({ revision }) => revision > at)
      const ids = (kind: Kind, gone = false): string[] =>
        changed.filter((part) => part.kind === kind && part.gone === gone).map(({ id }) => id)
      if (ids('loop').length > MOST_CHANGED) return null
      const has = (kind: Kind): boolean => ids(kind).length > 0
      const { crew, people, profiles, kit } = around
      const [saws, photos] = [new Set(ids('saw')), new Set(ids('photo'))]
      return {
        since,
        place: placeOf(index),
        ...(has('crew') ? { crew } : {}),
        ...(has('people') ? { people } : {}),
        ...(has('profiles') ? { profiles } : {}),
        ...(has('kit') ? { kit } : {}),
        saws: around.saws.filter(({ id }) => saws.has(id)),
        photos: around.photos.filter(({ id }) => photos.has(id)),
        loops: await readCards(tx, crewId, crew.rules, ids('loop')),
        gone: { saws: ids('saw', true), photos: ids('photo', true), loops: ids('loop', true) },
      }
    })
  }

  private async inTurn<T>(crewId: string, read: (tx: Transaction) => Promise<T>): Promise<T> {
    const turn = this.turns.get(crewId) ?? pLimit(1)
    this.turns.set(crewId, turn)
    return turn(() => atOneMoment(this.db, read))
  }

  /** The index as it is at the moment that is read; what is seen to have changed is written down first. */
  private async refreshed(tx: Transaction, crewId: string, around: AroundLoops): Promise<Index> {
    const [row] = await tx.select({ revision: crews.revision }).from(crews).where(eq(crews.id, crewId))
    const revision = row?.revision ?? 0
    const before = await this.before(tx, crewId)
    if (before?.revision === revision) return before
    const now = [...partsAround(around), ...(await loopParts(tx, crewId))]
    const index = seenAt(crewId, revision, now, before)
    await this.keep(crewId, index, before)
    this.known.set(crewId, index)
    return index
  }

  /** The index as it was left; null for a crew that has none, or whose rows were put back from a backup. */
  private async before(tx: Transaction, crewId: string): Promise<Index | null> {
    const ours = eq(shedParts.crewId, crewId)
    const [head] = await tx
      .select()
      .from(shedParts)
      .where(and(ours, eq(shedParts.kind, 'index')))
    if (head === undefined) return null
    const known = this.known.get(crewId)
    if (known?.epoch === head.digest && known.revision === head.revision) return known
    const rows = await tx.select().from(shedParts).where(ours)
    const parts = new Map(rows.filter(({ kind }) => kind !== 'index').map((part) => [keyOf(part), part]))
    return { epoch: head.digest, revision: head.revision, parts }
  }

  private async keep(crewId: string, index: Index, before: Index | null): Promise<void> {
    const head: Part = { crewId, kind: 'index', id: '', digest: index.epoch, revision: index.revision, gone: false }
    const fresh = [...index.parts.values()].filter((part) => before?.parts.get(keyOf(part)) !== part)
    await this.db.transaction(async (tx) => {
      if (before === null) await tx.delete(shedParts).where(eq(shedParts.crewId, crewId))
      await inChunks([head, ...fresh], (some) =>
        tx
          .insert(shedParts)
          .values(some)
          .onDuplicateKeyUpdate({
            set: { digest: sql`values(digest)`, revision: sql`values(revision)`, gone: sql`values(gone)` },
          }),
      )
    })
  }
}

type Seen = Pick<Part, 'kind' | 'id' | 'digest'>

const partsAround = ({ crew, people, profiles, kit, saws, photos }: AroundLoops): Seen[] => [
  ...Object.entries({ crew, people, profiles, kit }).map(([kind, what]) => ({
    kind: kind as Kind,
    id: '',
    digest: digestOf(what),
  })),
  ...saws.map((saw): Seen => ({ kind: 'saw', id: saw.id, digest: digestOf(saw) })),
  ...photos.map((photo): Seen => ({ kind: 'photo', id: photo.id, digest: digestOf(photo) })),
]

/** Cards are told apart where they lie: two thousand of them are not fetched for one that changed. */
async function loopParts(tx: Transaction, crewId: string): Promise<Seen[]> {
  const rows = await tx
    .select({ id: snapshots.loopId, digest: sql<string>`md5(${snapshots.card})` })
    .from(snapshots)
    .where(eq(snapshots.crewId, crewId))
  return rows.map((row) => ({ kind: 'loop', ...row }))
}

/** The index after a look at every part: one that looks as before keeps its revision. */
function seenAt(crewId: string, revision: number, now: readonly Seen[], before: Index | null): Index {
  const parts = new Map<string, Part>()
  for (const seen of now) {
    const known = before?.parts.get(keyOf(seen))
    const same = known !== undefined && !known.gone && known.digest === seen.digest
    parts.set(keyOf(seen), same ? known : { crewId, ...seen, revision, gone: false })
  }
  for (const [key, part] of before?.parts ?? [])
    if (!parts.has(key)) parts.set(key, part.gone ? part : { ...part, digest: '', revision, gone: true })
  return { epoch: before?.epoch ?? nanoid(), revision, parts }
}
