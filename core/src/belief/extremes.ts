import type { Hand } from '../loop'
import { normalBelow } from '../stats'
import { figureOf, type Tied } from './tied'

/** Steps of what a side shares, in deviations, and the weight of each: the trapezium rule over the normal curve. */
const STEP = 0.25
const NODES = Array.from({ length: 41 }, (_, i) => {
  const node = (i - 20) * STEP
  return [node, (STEP * Math.exp(-0.5 * node * node)) / Math.sqrt(2 * Math.PI)] as const
})

/** Beyond so many deviations a cutter is no part of the question. */
const FAR = 6

/**
 * Chance that some cutter lies at or below a limit. On each side what its cutters share is taken as
 * one figure, and the sides as if they had nothing in common: never less than it is.
 *
 * @param limit to which each cutter is held, by its place from 0
 */
export function someAtOrBelow(tied: Tied, hands: readonly Hand[], limit: (cutter: number) => number): number {
  const none = { left: 1, right: 1 }
  for (const hand of ['left', 'right'] as const) {
    const near = hands.flatMap((one, i) => {
      if (one !== hand) return []
      const { mean, variance, common } = figureOf(tied, i)
      const above = mean - limit(i)
      if (above > FAR * Math.sqrt(variance)) return []
      return [{ above, common: Math.sqrt(common), own: Math.sqrt(Math.max(1e-6, variance - common)) }]
    })
    if (near.length === 0) continue
    none[hand] = NODES.reduce(
      (sum, [node, weight]) =>
        sum +
        weight * near.reduce((all, { above, common, own }) => all * normalBelow((above + common * node) / own), 1),
      0,
    )
  }
  return Math.max(0, 1 - none.left * none.right)
}
