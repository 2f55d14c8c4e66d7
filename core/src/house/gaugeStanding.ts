import { targetSetting, type GaugeRule } from '../geometry'
import type { LoopSpec } from '../profile'
import { normalBelow } from '../stats'
import type { Um } from '../units'
import type { HouseRules } from './rules'

/** How a depth gauge stands against its target: `high` bites too little, `low` too much. */
export type GaugeStanding = 'high' | 'fine' | 'low'

/** A cutter whose gauge is judged. */
export interface GaugedCutter {
  readonly length: { readonly um: Um }
  readonly setting: { readonly um: Um; readonly sdUm?: number }
}

/**
 * A setting less the target for this loop at this wear: above nothing the gauge stands too low,
 * below nothing too high.
 *
 * @example
 * gaugeOffUm(spec38, { length: { um: 8000 }, setting: { um: 500 } }, constant) // -150: 0.15 mm high
 */
export const gaugeOffUm = (spec: LoopSpec, { length, setting }: GaugedCutter, rule: GaugeRule): Um =>
  setting.um - targetSetting(spec, length.um, rule)

/**
 * Chance that a gauge stands lower than the house lets run.
 *
 * @example
 * chanceTooLow(spec38, { length: { um: 8000 }, setting: { um: 800, sdUm: 30 } }, rules) // 0.5: at the limit
 */
export function chanceTooLow(
  spec: LoopSpec,
  cutter: GaugedCutter,
  rules: GaugeRule & Pick<HouseRules, 'gaugeLowUm'>,
): number {
  const beyondUm = gaugeOffUm(spec, cutter, rules) - rules.gaugeLowUm
  const { sdUm = 0 } = cutter.setting
  return sdUm <= 0 ? Number(beyondUm > 0) : normalBelow(beyondUm / sdUm)
}

/**
 * How a gauge stands, by the loop's own target and the limits of the house. Limits themselves are
 * still let run.
 */
export function gaugeStanding(
  spec: LoopSpec,
  cutter: GaugedCutter,
  rules: GaugeRule & Pick<HouseRules, 'gaugeHighUm' | 'gaugeLowUm'>,
): GaugeStanding {
  const offUm = gaugeOffUm(spec, cutter, rules)
  if (offUm > rules.gaugeLowUm) return 'low'
  return -offUm > rules.gaugeHighUm ? 'high' : 'fine'
}
