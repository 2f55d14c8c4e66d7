import type { Conditions } from '../../log'
import { CUTTER_TYPE_PROFILES, type CutterType } from '../../profile'
import type { Applier } from './applier'
import { goTo } from './places'

/** How much of the extra wear of dirty wood each kind of work brings: 0 none, 1 all of it. */
const DIRT_SHARE: Record<Conditions, number> = { clean: 0, gritty: 0.5, soil: 1 }

/**
 * How many clean tanks a tank under these conditions is worth to an edge.
 *
 * @example
 * wearFactor('fullChisel', 'soil') // 3
 */
export const wearFactor = (cutterType: CutterType, conditions: Conditions): number =>
  1 + (CUTTER_TYPE_PROFILES[cutterType].dirtFactor.value - 1) * DIRT_SHARE[conditions]

/** The loop cut for so many tanks. */
export const applyRan: Applier<'ran'> = (draft, entry) => {
  draft.tanks += entry.tanks
  draft.tanksSinceSharpened += entry.tanks
  const stint = draft.stints.at(-1)
  if (stint?.to === null) stint.tanks += entry.tanks
  draft.wearTanksSinceSharpened += entry.tanks * wearFactor(draft.spec.cutterType, entry.conditions)
}

/** The loop hit something; it waits to be looked at. */
export const applyStruck: Applier<'struck'> = (draft, entry) => {
  draft.openStrikes.push({ at: entry.happenedAt, against: entry.against, cutters: entry.cutters ?? [] })
}

/** The loop is done with. */
export const applyRetired: Applier<'retired'> = (draft, entry) => {
  draft.retired = { at: entry.happenedAt, reason: entry.reason }
  goTo(draft, { at: 'retired' }, entry.happenedAt)
}
