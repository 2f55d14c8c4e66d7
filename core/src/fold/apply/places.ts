import type { Place } from '../../state'
import type { Instant } from '../../log'
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

/** The loop went onto a saw. */
export const applyFitted: Applier<'fitted'> = (draft, { sawId, happenedAt, barFlipped }) => {
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
export const applyTakenOff: Applier<'takenOff'> = (draft, { to, happenedAt }) => {
  goTo(draft, { at: to ?? 'bench' }, happenedAt)
}

/** The loop was put somewhere. */
export const applyMoved: Applier<'moved'> = (draft, { to, happenedAt }) => {
  goTo(draft, { at: to }, happenedAt)
}

/** The loop went to a shop. */
export const applySentOut: Applier<'sentOut'> = (draft, { shop, dueBackAt, happenedAt }) => {
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
