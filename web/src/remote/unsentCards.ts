import { asWritten, type Entry, type HouseRules, type LoopCard } from '@undercliff/core'
import { isOfSaw, type AnyNewEntry } from '@undercliff/contract'
import { keptLog } from './keptLogs'
import { reckon } from './reckoner'

/** The card of a loop by the log that this device has kept, with some entries more; null where it has kept none. */
export async function cardByLog(loopId: string, more: readonly Entry[], rules: HouseRules): Promise<LoopCard | null> {
  const kept = await keptLog(loopId)
  const known = new Set(kept.map(({ id }) => id))
  return reckon([...kept, ...more.filter(({ id }) => !known.has(id))], rules)
}

/** What was worked out last of each loop, by what waited then. */
const worked = new Map<string, { readonly of: string; readonly card: LoopCard | null }>()

/** Cards of the loops of which something waits to be sent, as it will be once it has gone home. */
export async function unsentCards(
  waiting: readonly AnyNewEntry[],
  rules: HouseRules,
): Promise<ReadonlyMap<string, LoopCard>> {
  const byLoop = new Map<string, Entry[]>()
  for (const entry of waiting) {
    if (isOfSaw(entry)) continue
    byLoop.set(entry.loopId, [...(byLoop.get(entry.loopId) ?? []), asWritten(entry)])
  }
  const cards = new Map<string, LoopCard>()
  for (const [loopId, entries] of byLoop) {
    const of = [rules.version, ...entries.map(({ id }) => id)].join(' ')
    const before = worked.get(loopId)
    const card = before?.of === of ? before.card : await cardByLog(loopId, entries, rules)
    worked.set(loopId, { of, card })
    if (card !== null) cards.set(loopId, card)
  }
  return cards
}
