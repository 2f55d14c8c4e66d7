import type { PhotoAbout } from './photos'
import type { Saw, ShedAnswer } from './answers'
import type { LoopCard } from '@undercliff/core'

/** What is left out of the shed. */
export interface ShedGone {
  readonly saws: readonly string[]
  readonly photos: readonly string[]
  readonly loops: readonly string[]
}

/** What changed in a shed since a place: what is not named stays as it was. */
export interface ShedChanges {
  /** The place that it goes on from. */
  readonly since: string
  readonly place: string
  readonly crew?: ShedAnswer['crew']
  readonly people?: ShedAnswer['people']
  readonly profiles?: ShedAnswer['profiles']
  readonly kit?: ShedAnswer['kit']
  /** Each whole, new ones among them. */
  readonly saws: readonly Saw[]
  readonly photos: readonly PhotoAbout[]
  readonly loops: readonly LoopCard[]
  readonly gone: ShedGone
}

/** Answer of `GET /api/shed?since=…`: what changed, or all of it where that place is not known (any more). */
export type ShedNews = ShedAnswer | ShedChanges

export const isChanges = (news: ShedNews): news is ShedChanges => 'since' in news

let collator: Intl.Collator | undefined
function byText(a: string, b: string): number {
  collator ??= new Intl.Collator('en', { numeric: true })
  return collator.compare(a, b)
}
const byId = (a: string, b: string): number => (a < b ? -1 : Number(a > b))

/** The lists of a shed in the order in which an answer has them, whoever put it together. */
export function inShedOrder<T extends Pick<ShedAnswer, 'saws' | 'photos' | 'loops'>>(shed: T): T {
  return {
    ...shed,
    saws: shed.saws.toSorted((a, b) => byText(a.nickname, b.nickname) || byId(a.id, b.id)),
    photos: shed.photos.toSorted((a, b) => byId(a.takenAt, b.takenAt) || byId(a.id, b.id)),
    loops: shed.loops.toSorted((a, b) => byId(a.loopId, b.loopId)),
  }
}

function replaced<T>(all: readonly T[], fresh: readonly T[], gone: readonly string[], idOf: (one: T) => string): T[] {
  const out = new Set([...gone, ...fresh.map(idOf)])
  return [...all.filter((one) => !out.has(idOf(one))), ...fresh]
}

/** A shed with what changed since it was told: the same as if all of it were asked for anew. */
export function withChanges(shed: ShedAnswer, changes: ShedChanges): ShedAnswer {
  const { place, crew, people, profiles, kit, saws, photos, loops, gone } = changes
  return inShedOrder({
    place,
    crew: crew ?? shed.crew,
    people: people ?? shed.people,
    profiles: profiles ?? shed.profiles,
    kit: kit ?? shed.kit,
    saws: replaced(shed.saws, saws, gone.saws, ({ id }) => id),
    photos: replaced(shed.photos, photos, gone.photos, ({ id }) => id),
    loops: replaced(shed.loops, loops, gone.loops, ({ loopId }) => loopId),
  })
}
