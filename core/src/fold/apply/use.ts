import { damageDepth, spreadStrike, type CutterDamageKind } from '../../damage'
import type { Conditions, StrikeObject } from '../../log'
import { CUTTER_TYPE_PROFILES, type CutterType } from '../../profile'
import { beyondAnyEdge } from '../../wear/sharpness'
import type { Applier } from './applier'
import { goTo } from './places'
import { endSpell } from './spells'

/** How much of the extra wear of dirty wood each kind of work brings: 0 none, 1 all of it. Starting value. */
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
  draft.taughtTanks += entry.tanks
  draft.sharpenedLast = null
  if (draft.openStrikes.length > 0)
    draft.openStrikes = draft.openStrikes.map((one) => ({ ...one, tanksSince: one.tanksSince + entry.tanks }))
  draft.tanksSinceSharpened += entry.tanks
  const stint = draft.stints.at(-1)
  if (stint?.to === null) stint.tanks += entry.tanks
  const worn = entry.tanks * wearFactor(draft.spec.cutterType, entry.conditions)
  draft.wearTanksSinceSharpened += worn
  draft.wearTanks += worn
  // Nobody runs one edge so long: what was written down for this spell says nothing of how long edges are used.
  if (beyondAnyEdge(draft)) draft.taughtTanks -= draft.tanksSinceSharpened - draft.untaughtTanks
  if (beyondAnyEdge(draft)) draft.untaughtTanks = draft.tanksSinceSharpened
  draft.spellTanks[entry.conditions] += entry.tanks
}

const LEAVES: Record<StrikeObject, CutterDamageKind> = {
  stone: 'stone',
  metal: 'metal',
  soil: 'dirtDulled',
  unknown: 'stone',
}

/** The loop hit something; it waits to be looked at. */
export const applyStruck: Applier<'struck'> = (draft, entry) => {
  const cutters = entry.cutters ?? []
  draft.openStrikes.push({ at: entry.happenedAt, against: entry.against, cutters, tanksSince: 0, looked: [] })
  const met = cutters.length > 0 ? cutters : draft.cutters.map(({ number }) => number)
  if (entry.against !== 'soil') for (const number of met) draft.mayBeShorter.set(number, 'struck')
  endSpell(draft, false)
  if (entry.deepest === undefined) return
  const kind = LEAVES[entry.against]
  const run = cutters.includes(entry.deepest.cutter) ? cutters : [entry.deepest.cutter]
  for (const [number, depthUm] of spreadStrike(run, entry.deepest)) {
    const cutter = draft.cutters[number - 1]
    if (cutter === undefined) continue
    const before = damageDepth(cutter.damage.filter((one) => one.kind === kind)).knownUm
    if (before >= depthUm) continue
    const looked = number === entry.deepest.cutter
    cutter.damage = [
      ...cutter.damage.filter((one) => one.kind !== kind),
      { kind, depthUm, ...(looked ? {} : { estimated: true as const }) },
    ]
  }
}

/** The loop is done with. */
export const applyRetired: Applier<'retired'> = (draft, entry) => {
  draft.retired = { at: entry.happenedAt, reason: entry.reason }
  goTo(draft, { at: 'retired' }, entry.happenedAt)
}
