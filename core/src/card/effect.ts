import type { Action } from '../log'
import { whatNext } from './urgency'
import type { LoopCard } from './card'

/** What a change does to a figure that is summed over the shed. */
interface BeforeAfter {
  readonly before: number
  readonly after: number
}

/** What other house rules would do to all loops of a crew. */
export interface ShedEffect {
  /** Loops whose verdict turns, those first that turn to the gravest. */
  readonly turned: readonly { readonly tag: string; readonly from: Action; readonly to: Action }[]
  /** Loops that are in use. */
  readonly loops: number
  /** Minutes of work that are due. */
  readonly minutes: BeforeAfter
  /** What that work costs, in whole minor units. */
  readonly costMinor: BeforeAfter
  /** Loops that must not cut as they are. */
  readonly unfit: BeforeAfter
}

const sums = (cards: readonly LoopCard[]) => {
  const due = whatNext(cards)
  return {
    minutes: Math.round(due.reduce((sum, { minutes }) => sum + minutes.likely, 0)),
    costMinor: due.reduce((sum, { costMinor }) => sum + (costMinor ?? 0), 0),
    unfit: cards.filter(({ fitForUse, retired }) => !retired && !fitForUse).length,
  }
}

/**
 * What a change of the house rules does to the whole shed, from the cards under the rules before and after it.
 *
 * @param before cards of all loops, in any order
 * @param after cards of the same loops
 */
export function shedEffect(before: readonly LoopCard[], after: readonly LoopCard[]): ShedEffect {
  const was = new Map(before.map((card) => [card.loopId, card]))
  const [a, b] = [sums(before), sums(after)]
  const turned = whatNext(after)
    .concat(after.filter(({ action, place }) => action === 'runOn' || place.at === 'shop'))
    .flatMap(({ loopId, tag, action, retired }) => {
      const from = was.get(loopId)?.action
      return retired || from === undefined || from === action ? [] : [{ tag, from, to: action }]
    })
  return {
    turned,
    loops: after.filter(({ retired }) => !retired).length,
    minutes: { before: a.minutes, after: b.minutes },
    costMinor: { before: a.costMinor, after: b.costMinor },
    unfit: { before: a.unfit, after: b.unfit },
  }
}
