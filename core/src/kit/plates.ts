import { plateLeaves, stampOf, WOOD_STEPS, type GaugeRule, type WoodStep } from '../geometry'
import type { PlateUsed } from '../log'
import type { LoopSpec } from '../profile'
import type { Um } from '../units'
import { kitOf, type KitItem, type KitItemOf } from './kitItem'

/** A plate that the crew owns, and the step of it that is used. */
export interface PlateChoice {
  readonly plate: KitItemOf<'plate'>
  /** What is stamped on that step: what it leaves on a new cutter. */
  readonly stampedUm: Um
  /** What a progressive plate calls the step; null on a plate that has no steps. */
  readonly step: WoodStep | null
  /** What it leaves on this loop at this wear. */
  readonly leavesUm: Um
  /** By how much that is off what is wanted; below nothing it leaves gauges higher than that. */
  readonly offUm: Um
}

/** What a step of a progressive plate is called on a loop: by what it leaves on a new cutter. */
const stepNamed = (spec: LoopSpec, stampedUm: Um): WoodStep =>
  WOOD_STEPS.reduce((near, step) =>
    Math.abs(stampOf(spec, step) - stampedUm) < Math.abs(stampOf(spec, near) - stampedUm) ? step : near,
  )

/** One step of a plate as it comes out on a loop. */
function choiceOf(plate: KitItemOf<'plate'>, stampedUm: Um, spec: LoopSpec, lengthUm: Um, wantedUm: Um): PlateChoice {
  const leavesUm = plateLeaves(spec, lengthUm, { rests: plate.rests, stampedUm })
  const step = plate.rests === 'progressive' ? stepNamed(spec, stampedUm) : null
  return { plate, stampedUm, step, leavesUm, offUm: leavesUm - wantedUm }
}

/**
 * The plate of a kit, and its step, that comes nearest to what a loop wants at its wear; of two as near the one that
 * leaves gauges higher, since what is filed off is not put back. A progressive plate is chosen by its step, whose
 * setting grows with wear by itself, and never by what is stamped on it. A plate that rests otherwise than the house
 * lowers its gauges by is none.
 *
 * @param lengthUm of a cutter in the middle of the loop
 */
export function plateFor(kit: readonly KitItem[], spec: LoopSpec, lengthUm: Um, rule: GaugeRule): PlateChoice | null {
  const { gaugeSchool, woodStep } = rule
  const wantedUm = plateLeaves(spec, lengthUm, { rests: gaugeSchool, step: woodStep })
  const all = kitOf(kit, 'plate')
    .filter(({ rests }) => rests === gaugeSchool)
    .flatMap((plate) => plate.stepsUm.map((stampedUm) => choiceOf(plate, stampedUm, spec, lengthUm, wantedUm)))
  return all.sort((a, b) => Math.abs(a.offUm) - Math.abs(b.offUm) || a.offUm - b.offUm)[0] ?? null
}

/** A plate as an entry names it: one of the crew's own, or the house's by its school and the step of the day. */
export const plateUsed = (choice: PlateChoice | null, { gaugeSchool: rests, woodStep: step }: GaugeRule): PlateUsed => {
  if (choice === null) return rests === 'constant' ? { rests } : { rests, step }
  const { stampedUm, step: ownStep } = choice
  return ownStep === null ? { rests, stampedUm } : { rests, step: ownStep, stampedUm }
}
