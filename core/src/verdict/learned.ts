import type { LoopState } from '../fold'
import { summarise, type CutterSummary } from '../measure'
import { mean, type LifetimeBelief } from '../stats'
import type { Um } from '../units'
import { workingsOf } from './workings'
import {
  learnPerStroke,
  learnRemoval,
  learnSharpness,
  usualWear,
  type Population,
  type RemovalBelief,
  type StrokeBelief,
} from '../wear'

/** What a loop shows by itself, whatever the house rules are. */
export interface Learned {
  readonly summary: CutterSummary
  readonly removal: Readonly<Record<Population, RemovalBelief>>
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
 * What a loop shows by itself. A state never changes, so it is worked out once for each: a decision
 * asks for it under every school.
 */
export function learnedOf(state: LoopState): Learned {
  const kept = workingsOf(state)
  let { learned } = kept
  if (learned === undefined) {
    const { removals } = state
    learned = {
      summary: summarise(state),
      removal: {
        touchUp: learnRemoval(removals, 'touchUp'),
        routine: learnRemoval(removals, 'routine'),
        grind: learnRemoval(removals, 'grind'),
      },
      perStroke: learnPerStroke(removals),
      sharpness: learnSharpness(state.spells, state.spellOver ? 0 : state.wearTanksSinceSharpened),
      wearFactor: usualWear(state),
      meanLengthUm: Math.round(mean(state.cutters.map(({ length }) => length.um))),
      shortestUm: Math.min(...state.cutters.map(({ length }) => length.um)),
      sdUm: Math.max(...state.cutters.map(({ length }) => length.sdUm)),
      settingUm: Math.round(mean(state.cutters.map(({ setting }) => setting.um))),
      settingMeasured: state.cutters.every(({ setting }) => setting.known === 'measured'),
      slopeDeg: (Math.atan(state.slope.mean) * 180) / Math.PI,
    }
    kept.learned = learned
  }
  return learned
}
