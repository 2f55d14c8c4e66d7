import type { HouseRules } from '../house'
import type { Um } from '../units'
import { kitOf, type KitItem, type KitItemOf } from './kitItem'

/** A plate that the crew owns, and the step of it that is used. */
export interface PlateChoice {
  readonly plate: KitItemOf<'plate'>
  readonly stepUm: Um
  /** By how much it is off what is wanted; below nothing it leaves gauges higher than that. */
  readonly offUm: Um
}

/**
 * The plate of a kit that comes nearest to a setting; of two as near the one that leaves gauges higher, since what is
 * filed off is not put back. A plate that rests otherwise than the house lowers its gauges by is none.
 */
export function plateFor(
  kit: readonly KitItem[],
  settingUm: Um,
  gaugeSchool: HouseRules['gaugeSchool'],
): PlateChoice | null {
  const rests = gaugeSchool === 'constant' ? 'constant' : 'progressive'
  const all = kitOf(kit, 'plate')
    .filter((plate) => plate.rests === rests)
    .flatMap((plate) => plate.stepsUm.map((stepUm): PlateChoice => ({ plate, stepUm, offUm: stepUm - settingUm })))
  return all.sort((a, b) => Math.abs(a.offUm) - Math.abs(b.offUm) || a.offUm - b.offUm)[0] ?? null
}
