import { ACTIONS } from '../verdict'
import type { LoopCard } from './card'

/**
 * How far up the list a loop stands: on a saw before on a hook, what must not cut before what is
 * due, then by how grave the verdict is.
 */
export function urgencyOf({ action, fitForUse, sawId, retired }: LoopCard): number {
  if (retired) return -1
  return (sawId === null ? 0 : 1000) + (fitForUse ? 0 : 100) + ACTIONS.length - ACTIONS.indexOf(action)
}

/** Cards that need something done, the most pressing first. */
export const whatNext = (cards: readonly LoopCard[]): LoopCard[] =>
  cards
    .filter(({ action, retired }) => !retired && action !== 'runOn')
    .map((card) => ({ card, urgency: urgencyOf(card) }))
    .sort((a, b) => b.urgency - a.urgency || (a.card.tag < b.card.tag ? -1 : 1))
    .map(({ card }) => card)
