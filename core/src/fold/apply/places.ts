import type { Place } from '../../state'
import type { EntryOf, Instant } from '../../log'
import { shortestUmOf, type Draft } from '../draft'
import type { Applier } from './applier'
import { ask } from './questions'
import { mountedAnew } from './signs'

/** The loop goes somewhere; leaving a saw ends its time on it. */
export function goTo(draft: Draft, place: Place, at: Instant): void {
  const stint = draft.stints.at(-1)
  if (stint?.to === null) stint.to = at
  if (place.at === 'saw' || draft.place.at === 'saw') mountedAnew(draft)
  draft.place = place
}

/**
 * Whoever moves it may not know that somebody else put it on a saw: two people out of range, or one whose screen is
 * old. The later word stands, in whichever order both come home, and the earlier is set aside for somebody to look.
 */
function overtake(draft: Draft, { from, personId }: EntryOf<'fitted' | 'takenOff' | 'moved' | 'sentOut'>): void {
  const { place, fitting } = draft
  const unknown = place.at === 'saw' && from !== undefined && from !== place.sawId
  draft.overtaken =
    unknown && fitting !== null
      ? { entryId: fitting.id, sawId: place.sawId, at: fitting.happenedAt, personId: fitting.personId, by: personId }
      : null
}

/** The loop went onto a saw. */
export const applyFitted: Applier<'fitted'> = (draft, entry) => {
  const { sawId, happenedAt, barFlipped } = entry
  // Two who say the same agree.
  if (draft.place.at !== 'saw' || draft.place.sawId !== sawId) overtake(draft, entry)
  draft.fitting = entry
  goTo(draft, { at: 'saw', sawId }, happenedAt)
  draft.stints.push({
    sawId,
    from: happenedAt,
    to: null,
    tanks: 0,
    flipped: barFlipped === true,
    shortestUm: shortestUmOf(draft),
  })
}

/** The loop came off its saw. */
export const applyTakenOff: Applier<'takenOff'> = (draft, entry) => {
  overtake(draft, entry)
  goTo(draft, { at: entry.to ?? 'bench' }, entry.happenedAt)
}

/** The loop was put somewhere. */
export const applyMoved: Applier<'moved'> = (draft, entry) => {
  overtake(draft, entry)
  goTo(draft, { at: entry.to }, entry.happenedAt)
}

/** The loop went to a shop. */
export const applySentOut: Applier<'sentOut'> = (draft, entry) => {
  const { shop, dueBackAt, happenedAt } = entry
  overtake(draft, entry)
  goTo(draft, { at: 'shop', shop, sentAt: happenedAt, dueBackAt: dueBackAt ?? null }, happenedAt)
}

/** The loop came back from a shop. */
export const applyCameBack: Applier<'cameBack'> = (draft, { id, to, costMinor, happenedAt }) => {
  const { place, lastSharpened } = draft
  const sharpened = place.at === 'shop' && lastSharpened !== null && lastSharpened.at >= place.sentAt
  if (!sharpened) ask(draft, 'shopWorkUnsaid', id)
  if (place.at === 'shop') for (const { number } of draft.cutters) draft.mayBeShorter.set(number, 'shop')
  goTo(draft, { at: to }, happenedAt)
  draft.shopCostMinor += costMinor ?? 0
}
