import type { LoopState, Population } from '../state'
import { summarise, type CutterSummary } from '../measure'
import { mean, type LifetimeBelief } from '../stats'
import type { Um } from '../units'
import { cuttersWorkedWith } from './heldOut'
import { onceFor } from './onceFor'
import {
  strokeBelief,
  learnMix,
  learnRemoval,
  learnSharpness,
  usingUp,
  usualWear,
  type RemovalBelief,
  type RemovalMix,
  type StrokeBelief,
  type UsedUp,
} from '../wear'

/** What a loop shows by itself, whatever the house rules are. */
export interface Learned {
  readonly summary: CutterSummary
  readonly removal: Readonly<Record<Population, RemovalBelief>>
  /** The same of whatever sharpening comes next, in the mix that this loop gets. */
  readonly mix: RemovalMix
  /** What hangs on the length of the shortest cutter while it is used up. */
  readonly usedUp: UsedUp
  readonly perStroke: StrokeBelief
  /** Tanks, weighted by dirt, that it stays sharp. */
  readonly sharpness: LifetimeBelief
  /** Clean tanks that a tank of its usual work is worth. */
  readonly wearFactor: number
  readonly meanLengthUm: Um
  readonly shortestUm: Um
  /** Deviation of the length that is known least. */
  readonly sdUm: number
  /** Mean depth-gauge setting. */
  readonly settingUm: Um
  readonly settingMeasured: boolean
  /** Fall of the top plate, in degrees. */
  readonly slopeDeg: number
}

/**
 * What a loop shows by itself, worked out once for each state: a decision asks for it under every
 * school.
 */
export const learnedOf = onceFor((state: LoopState): Learned => {
  const cutters = cuttersWorkedWith(state)
  const removal = {
    touchUp: learnRemoval(state, 'touchUp'),
    routine: learnRemoval(state, 'routine'),
    grind: learnRemoval(state, 'grind'),
  }
  const summary = summarise({ ...state, cutters })
  const mix = learnMix(removal, state.sharpenedBy)
  return {
    summary,
    removal,
    mix,
    usedUp: usingUp(state.lengths, summary.shortest.number - 1, mix),
    perStroke: strokeBelief(state),
    sharpness: learnSharpness(state.spells, state.spellOver ? 0 : state.wearTanksSinceSharpened),
    wearFactor: usualWear(state),
    meanLengthUm: Math.round(mean(cutters.map(({ length }) => length.um))),
    shortestUm: Math.min(...cutters.map(({ length }) => length.um)),
    sdUm: Math.max(...cutters.map(({ length }) => length.sdUm)),
    settingUm: Math.round(mean(cutters.map(({ setting }) => setting.um))) + 0,
    settingMeasured: cutters.every(({ setting }) => setting.known === 'measured'),
    slopeDeg: (Math.atan(state.slope.mean) * 180) / Math.PI,
  }
})
