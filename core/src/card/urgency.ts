import { ACTIONS } from '../verdict'
import type { LoopCard } from './card'

/** How far up the list a loop stands: what must not run comes first, on a saw before on a hook. */
export function urgencyOf({ action, fitForUse, sawId, retired }: LoopCard): number {
  if (retired) return -1
  return (ACTIONS.length - ACTIONS.indexOf(action)) * 2 + (sawId === null ? 0 : 1) + (fitForUse ? 0 : 100)
}

/** Cards that need something done, the most pressing first. */
export const whatNext = (cards: readonly LoopCard[]): LoopCard[] =>
  cards
    .filter(({ action, retired }) => !retired && action !== 'runOn')
    .sort((a, b) => urgencyOf(b) - urgencyOf(a) || (a.tag < b.tag ? -1 : 1))
