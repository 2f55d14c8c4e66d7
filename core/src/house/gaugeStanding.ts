import { targetSetting, type GaugeRule } from '../geometry'
import type { Entry, NewEntry } from '../log'
import type { LoopSpec } from '../profile'
import type { LoopState } from '../state'
import { normalBelow } from '../stats'
import type { Um } from '../units'
import type { HouseRules } from './rules'

/**
 * What gauges of a loop are judged by: the house's school, and the step of the plate that they were last lowered with,
 * which goes by the saw and the day. The house's own step holds where nobody said.
 */
export const gaugeRuleOf = <R extends GaugeRule>({ woodStep }: Pick<LoopState, 'woodStep'>, rules: R): R =>
  woodStep === null || rules.gaugeSchool !== 'progressive' || woodStep === rules.woodStep
    ? rules
    : { ...rules, woodStep }

/**
 * An entry that says that gauges were lowered and not to what: by the house's own plate, under the house's school, on
 * this loop at its wear. What says more stays as it is; what a two-in-one did follows from the tool.
 */
export function withHousePlate<E extends NewEntry | Entry>(
  entry: E,
  { gaugeSchool: rests, woodStep: step }: GaugeRule,
): E {
  const lowers = entry.kind === 'gaugesLowered' || (entry.kind === 'sharpened' && entry.gaugesLowered)
  if (!lowers || (entry.kind === 'sharpened' && entry.tool === 'twoInOne')) return entry
  if (entry.settingUm !== undefined || entry.plate !== undefined || entry.gaugesByEye === true) return entry
  return { ...entry, plate: rests === 'constant' ? { rests } : { rests, step } }
}

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
