import type { LoopState } from '../fold'
import type { HouseRules } from '../house'
import { soundUm } from '../sharpen'
import type { Um } from '../units'
import { dullness, endings, gaugesHigh, repairs, stops, unknowns } from './findings'
import type { Forecast } from './forecast'
import type { Reason } from './verdict'

/** What a loop calls for. */
export interface Needs {
  /** Damage, shape and evenness, the deepest first. */
  readonly repairs: readonly Reason[]
  readonly dullness: readonly Reason[]
  /** Everything that takes metal off: repairs, then dullness. */
  readonly metal: readonly Reason[]
  readonly gauges: readonly Reason[]
  readonly all: readonly Reason[]
  /** Duller than a touch-up puts right. */
  readonly bench: boolean
}

/** What bounds every option. */
export interface HouseLimits {
  /** Most that any cutter needs to lose. */
  readonly deepestUm: Um
  /** Why the loop is fit for nothing, dirty work included, until somebody has seen to it. */
  readonly unfit: readonly Reason[]
}

/** What stands in the way of use, gravest first. */
export interface Standing {
  readonly ends: readonly Reason[]
  readonly stopping: readonly Reason[]
  readonly unknown: readonly Reason[]
}

/** Everything found on a loop under a crew's rules. */
export function findAll(state: LoopState, rules: HouseRules, ahead: Forecast): { needs: Needs; limits: HouseLimits; standing: Standing } {
  const deepestUm = Math.max(...state.cutters.map((cutter) => soundUm(cutter, 0)))
  const repairing = repairs(state, rules, deepestUm, ahead)
  const dull = dullness(state, rules)
  const gauges = gaugesHigh(rules, ahead)
  const metal = [...repairing, ...dull]
  const standing: Standing = {
    ends: endings(state, ahead),
    stopping: stops(state, rules, ahead),
    unknown: unknowns(state, rules, ahead),
  }
  const unfit = [...standing.ends, ...standing.stopping, ...standing.unknown]
  return {
    needs: {
      repairs: repairing,
      dullness: dull,
      metal,
      gauges,
      all: [...metal, ...gauges],
      bench: dull.some(({ rule }) => rule === 'dull' || rule === 'benchDue'),
    },
    limits: { deepestUm, unfit: unfit.length === 0 ? [] : [{ rule: 'notFitForAnything' }] },
    standing,
  }
}
