import { type LoopState, type Population, POPULATIONS } from '../state'
import type { Conditions, KnownBite } from '../log'
import { CUTTER_TYPES, type CutterType } from '../profile'
import {
  kaplanMeier,
  learnLifetime,
  medianSurvival,
  type LifetimeBelief,
  type Spell,
  type SurvivalStep,
} from '../stats'
import { CONDITIONS } from '../log'
import { knownBite } from './knownBite'
import { learnBy, type RemovalGroups } from './learnBy'
import { paceGroups, type PaceGroup } from './pace'
import { learnPerStroke, type StrokeBelief } from './perStroke'
import { SHARP_PRIOR } from './sharpness'

/** How long loops of one cutter type stay sharp in one kind of wood. Times are tanks. */
export interface SharpCurve {
  readonly cutterType: CutterType
  readonly conditions: Conditions
  readonly spells: number
  /** Spells that ended dull; the others were sharpened, or struck, while they still cut. */
  readonly ended: number
  readonly steps: readonly SurvivalStep[]
  /** Tanks by which half are dull; null while more than half outlast everything seen. */
  readonly medianTanks: number | null
  readonly mean: LifetimeBelief
}

/** What all of a crew's loops have shown. */
export interface CrewWear {
  readonly removal: Readonly<Record<Population, RemovalGroups>>
  readonly perStroke: StrokeBelief
  readonly curves: readonly SharpCurve[]
  /** How long sharpenings take, against the starting times. */
  readonly pace: readonly PaceGroup[]
  /** What its files are known to take off by now, and whose; null where nothing was read yet. */
  readonly known: KnownBite | null
}

/** What sharpening takes off and how long loops stay sharp, over many loops. */
export function crewWear(all: readonly LoopState[]): CrewWear {
  // What was registered by mistake was never there.
  const states = all.filter(({ retired }) => retired?.reason !== 'mistake')
  const removals = states.flatMap((state) => state.removals)
  const curves: SharpCurve[] = []
  for (const cutterType of CUTTER_TYPES) {
    const mine = states.filter(({ spec }) => spec.cutterType === cutterType).flatMap(({ spells }) => spells)
    for (const conditions of CONDITIONS) {
      const spells: Spell[] = mine
        .filter((spell) => spell.conditions === conditions)
        .map(({ tanks, dulled }) => ({ time: tanks, ended: dulled }))
      if (spells.length === 0) continue
      const steps = kaplanMeier(spells)
      curves.push({
        cutterType,
        conditions,
        spells: spells.length,
        ended: spells.filter(({ ended }) => ended).length,
        steps,
        medianTanks: medianSurvival(steps),
        mean: learnLifetime(spells, SHARP_PRIOR),
      })
    }
  }
  const groups = Object.fromEntries(
    POPULATIONS.map((population) => [population, learnBy(removals, population)]),
  ) as Record<Population, RemovalGroups>
  return {
    removal: groups,
    perStroke: learnPerStroke(removals),
    curves,
    pace: paceGroups(states.flatMap(({ timed }) => timed)),
    known: knownBite(removals) ?? null,
  }
}
