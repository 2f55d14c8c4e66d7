import { targetSetting } from '../geometry'
import type { LoopState } from '../fold'
import { summarise, type CutterSummary } from '../measure'
import { PITCH_PROFILES } from '../profile'
import { mean } from '../stats'
import type { Um } from '../units'
import {
  learnRemoval,
  nextGaugePass,
  sharpeningsLeft,
  type CountRange,
  type GaugePass,
  type RemovalBelief,
} from '../wear'
import type { HouseRules } from './rules'

/** What a loop has left and when its gauges are due. */
export interface Forecast {
  readonly summary: CutterSummary
  /** Length the worst cutter may still lose: down to the mark and the reserve above it. */
  readonly usableUm: Um
  readonly removal: RemovalBelief
  readonly sharpeningsLeft: CountRange
  /** Mean depth-gauge setting now, and what it should be. */
  readonly settingUm: Um
  readonly settingMeasured: boolean
  readonly targetUm: Um
  readonly gaugePass: GaugePass
}

/** Life and gauges of a loop as it stands, before anything is done to it. */
export function forecast(state: LoopState, rules: HouseRules): Forecast {
  const { spec, cutters } = state
  const summary = summarise(state)
  const removal = learnRemoval(state.removals, 'routine')
  const usableUm = Math.max(0, summary.worstAfterUm - spec.markLengthUm - rules.reserveUm)
  const settingUm = Math.round(mean(cutters.map(({ setting }) => setting.um)))
  const targetUm = targetSetting(spec, Math.round(mean(cutters.map(({ length }) => length.um))), rules.gaugeSchool)
  const slopeDeg = PITCH_PROFILES[spec.pitchClass].topPlateSlopeDeg.value
  return {
    summary,
    usableUm,
    removal,
    sharpeningsLeft: sharpeningsLeft(usableUm, summary.worst.length.sdUm, removal),
    settingUm,
    settingMeasured: cutters.every(({ setting }) => setting.known === 'measured'),
    targetUm,
    gaugePass: nextGaugePass(settingUm, targetUm, rules.gaugeHighUm, removal.meanUm, slopeDeg),
  }
}
