import type { FindingRules } from './findingRules'
import type { LoopState } from '../state'
import { targetSetting } from '../geometry'
import { gaugeRuleOf } from '../house'
import type { CutterSummary } from '../measure'
import type { LifetimeBelief } from '../stats'
import type { Um } from '../units'
import {
  gaugePassRange,
  nextGaugePass,
  sharpeningsLeft,
  type CountRange,
  type GaugePass,
  type RemovalMix,
  type StrokeBelief,
} from '../wear'
import { learnedOf } from '../jobs/learned'

/** What a loop has left and when its gauges are due. */
export interface Forecast {
  readonly summary: CutterSummary
  /** Length the worst cutter may still lose: down to the mark and the reserve above it. */
  readonly usableUm: Um
  /** What a sharpening takes off, in the mix that this loop gets. */
  readonly removal: RemovalMix
  readonly sharpeningsLeft: CountRange
  /** Mean length of a cutter now. */
  readonly meanLengthUm: Um
  /** Mean depth-gauge setting now, and what it should be. */
  readonly settingUm: Um
  readonly settingMeasured: boolean
  readonly targetUm: Um
  readonly gaugePass: GaugePass
  /** Sharpenings until the gauges are due, as a range; null when that may never be. */
  readonly gaugesDue: CountRange | null
  /** Fall of the top plate as learned on this loop, in degrees. */
  readonly slopeDeg: number
  /** Tanks, weighted by dirt, that it stays sharp. */
  readonly sharpness: LifetimeBelief
  /** Clean tanks that a tank of its usual work is worth. */
  readonly wearFactor: number
  readonly perStroke: StrokeBelief
}

/** Life and gauges of a loop as it stands, before anything is done to it. */
export function forecast(state: LoopState, rules: FindingRules): Forecast {
  const { spec } = state
  const learned = learnedOf(state)
  const { summary, settingUm, slopeDeg } = learned
  const removal = learned.mix
  const usableUm = Math.max(0, summary.worstAfterUm - spec.markLengthUm - rules.reserveUm)
  const targetUm = targetSetting(spec, learned.meanLengthUm, gaugeRuleOf(state, rules))
  return {
    summary,
    usableUm,
    removal,
    sharpeningsLeft: sharpeningsLeft(usableUm, summary.worst.length.sdUm, removal, learned.usedUp),
    meanLengthUm: learned.meanLengthUm,
    settingUm,
    settingMeasured: learned.settingMeasured,
    targetUm,
    gaugePass: nextGaugePass(settingUm, targetUm, rules.gaugeHighUm, removal.meanUm, slopeDeg),
    gaugesDue: gaugePassRange(settingUm, targetUm, rules.gaugeHighUm, removal, state.slope),
    slopeDeg,
    sharpness: learned.sharpness,
    wearFactor: learned.wearFactor,
    perStroke: learned.perStroke,
  }
}
