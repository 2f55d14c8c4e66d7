import type { SharpSpell } from '../state'
import type { Duty } from '../log'
import { learnLifetime, type LifetimeBelief } from '../stats'

/**
 * Clean tanks that a sharpened loop stays sharp, and how many dulled loops that expectation is
 * worth: between the touch-up that is due at two tanks and the bench at six. Starting value.
 */
export const SHARP_PRIOR = { mean: 4, worth: 4 } as const

/** Part of that which a touch-up gives. Starting value. */
export const TOUCH_UP_LASTS = 0.7

/**
 * Tanks, weighted by dirt, that a loop stays sharp: from its own spells, most of which ended in a
 * sharpening while it still cut, shrunk toward the starting value.
 *
 * @param current tanks since it was sharpened, while it is still cutting
 */
export const learnSharpness = (spells: readonly SharpSpell[], current = 0): LifetimeBelief =>
  learnLifetime(
    [
      ...spells.map(({ wearTanks, dulled }) => ({ time: wearTanks, ended: dulled })),
      ...(current > 0 ? [{ time: current, ended: false }] : []),
    ],
    SHARP_PRIOR,
  )

/** Clean tanks that a tank of its usual work is worth; at least one. */
export const usualWear = ({
  tanks,
  wearTanks,
  duty,
}: {
  readonly tanks: number
  readonly wearTanks: number
  readonly duty: Duty
}): number => (tanks <= 0 ? (duty === 'dirty' ? 2 : 1) : Math.max(1, wearTanks / tanks))

/** Tanks, weighted by dirt, that no edge stays sharp for. Starting value. */
const BEYOND_ANY_EDGE_TANKS = 25

/**
 * Whether a loop ran longer since its sharpening than any edge lasts.
 *
 * @example
 * beyondAnyEdge({ wearTanksSinceSharpened: 40 }) // true
 */
export const beyondAnyEdge = ({ wearTanksSinceSharpened }: { readonly wearTanksSinceSharpened: number }): boolean =>
  wearTanksSinceSharpened > BEYOND_ANY_EDGE_TANKS
