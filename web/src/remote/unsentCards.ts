import {
  asWritten,
  cardWithoutWork,
  withHousePlate,
  type Entry,
  type HouseRules,
  type LoopCard,
  type NewEntry,
} from '@undercliff/core'
import { isOfSaw, type AnyNewEntry } from '@undercliff/contract'
import { keptLog } from './keptLogs'
import { reckon } from './reckoner'

/** The card of a loop by the log that this device has kept, with some entries more; null where it has kept none. */
export async function cardByLog(loopId: string, more: readonly Entry[], rules: HouseRules): Promise<LoopCard | null> {
  const kept = await keptLog(loopId)
  const known = new Set(kept.map(({ id }) => id))
  return reckon([...kept, ...more.filter(({ id }) => !known.has(id))], rules)
}

/** What waits of each loop, in its order. */
function byLoop(waiting: readonly AnyNewEntry[]): Map<string, NewEntry[]> {
  const sorted = new Map<string, NewEntry[]>()
  for (const entry of waiting) {
    if (isOfSaw(entry)) continue
    sorted.set(entry.loopId, [...(sorted.get(entry.loopId) ?? []), entry])
  }
  return sorted
}

/** What was worked out last of each loop, by what waited then. */
const worked = new Map<string, { readonly of: string; readonly card: LoopCard | null }>()

/** Cards of loops of which something waits, and why some of them could not be worked out. */
export interface UnsentCards {
  readonly cards: ReadonlyMap<string, LoopCard>
  /** Loops whose cards rest on the rules that keep people safe alone, with what went wrong. */
  readonly unworked: ReadonlyMap<string, string>
}

/**
 * Cards of the loops of which something waits to be sent, as they will be once it has gone home. One that cannot be
 * worked out says so, and keeps what was struck, or half done, off all the same.
 *
 * @param told cards as the server last told them
 */
export async function unsentCards(
  waiting: readonly AnyNewEntry[],
  rules: HouseRules,
  told: ReadonlyMap<string, LoopCard>,
): Promise<UnsentCards> {
  const cards = new Map<string, LoopCard>()
  const unworked = new Map<string, string>()
  for (const [loopId, entries] of byLoop(waiting)) {
    const of = [rules.version, JSON.stringify(rules.pace), ...entries.map(({ id }) => id)].join(' ')
    const before = worked.get(loopId)
    const last = told.get(loopId)
    try {
      const more = entries.map((entry) => asWritten(withHousePlate(entry, rules)))
      const card = before?.of === of ? before.card : await cardByLog(loopId, more, rules)
      worked.set(loopId, { of, card })
      if (card !== null) cards.set(loopId, card)
      else if (last !== undefined) {
        unworked.set(loopId, 'Its log is not on this device.')
        cards.set(loopId, cardWithoutWork(last, entries))
      }
    } catch (error) {
      unworked.set(loopId, (error as Error).message)
      if (last !== undefined) cards.set(loopId, cardWithoutWork(last, entries))
    }
  }
  return { cards, unworked }
}

/** Cards at once, before anything is worked out: what keeps people safe does not wait for a worker. */
export function safeCards(
  waiting: readonly AnyNewEntry[],
  shown: ReadonlyMap<string, LoopCard>,
): ReadonlyMap<string, LoopCard> {
  const cards = new Map<string, LoopCard>()
  for (const [loopId, entries] of byLoop(waiting)) {
    const card = shown.get(loopId)
    const safe = card === undefined ? undefined : cardWithoutWork(card, entries)
    if (safe !== undefined && card?.fitForUse === true && !safe.fitForUse) cards.set(loopId, safe)
  }
  return cards
}
