import { ACTIONS, type Action } from '../log'
import type { LoopCard } from './card'

/** Where a loop is counts first: on a saw it cuts next, on the truck soon. Starting value. */
const NEARNESS = { saw: 1000, truck: 500 } as const

/**
 * How far up the list a loop stands: on a saw before on the truck before on a hook, what must not
 * cut before what is due, then by how grave the verdict is.
 */
export function urgencyOf({ action, fitForUse, place, retired }: LoopCard): number {
  if (retired) return -1
  const near = place.at === 'saw' || place.at === 'truck' ? NEARNESS[place.at] : 0
  return near + (fitForUse ? 0 : 100) + ACTIONS.length - ACTIONS.indexOf(action)
}

/** Cards that need something done here, the most pressing first; what is at a shop is work there. */
export const whatNext = (cards: readonly LoopCard[]): LoopCard[] =>
  cards
    .filter(({ action, retired, place }) => !retired && action !== 'runOn' && place.at !== 'shop')
    .map((card) => ({ card, urgency: urgencyOf(card) }))
    .sort((a, b) => b.urgency - a.urgency || (a.card.tag < b.card.tag ? -1 : 1))
    .map(({ card }) => card)

/** Jobs that somebody settled on and that are still to be done here, the most pressing first: the list for tonight. */
export const tonight = (cards: readonly LoopCard[]): LoopCard[] => whatNext(cards).filter(({ settled }) => settled)

/** Actions that end something or cost money elsewhere: each is settled by itself, never with many others. */
const GRAVE: ReadonlySet<Action> = new Set<Action>(['retire', 'stop', 'shop', 'dirtyDuty'])

/** Whether a verdict may be accepted together with others. `acceptedWithOthers({ action: 'retire' }) // false` */
export const acceptedWithOthers = ({ action }: Pick<LoopCard, 'action'>): boolean => !GRAVE.has(action)

/** A part of the triage list, by what has to happen before the next job. */
export const TRIAGE_GROUPS = ['mustNotCut', 'beforeTheNextJob', 'whenThereIsTime'] as const
export type TriageGroup = (typeof TRIAGE_GROUPS)[number]

/** All loops that need something, parted by what matters before the next job, each the most pressing first. */
export function triage(cards: readonly LoopCard[]): Record<TriageGroup, LoopCard[]> {
  const parted: Record<TriageGroup, LoopCard[]> = { mustNotCut: [], beforeTheNextJob: [], whenThereIsTime: [] }
  for (const card of whatNext(cards)) {
    const near = card.place.at === 'saw' || card.place.at === 'truck'
    parted[!card.fitForUse ? 'mustNotCut' : near ? 'beforeTheNextJob' : 'whenThereIsTime'].push(card)
  }
  return parted
}
