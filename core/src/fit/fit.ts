import type { LoopSpec, PitchClass } from '../profile'
import { pitchUmOf } from '../profile'
import type { Um } from '../units'

/** What a saw's bar and sprocket take. */
export interface SawFit {
  readonly pitchClass: PitchClass
  /** Groove width of the bar. */
  readonly gaugeUm: Um
  readonly driveLinks: number
}

/** What keeps a loop off a saw. */
export type Misfit = 'pitch' | 'gauge' | 'driveLinks'

/**
 * What keeps a loop off a saw; empty when it fits. Low profile and standard 3/8" share a pitch, so
 * they are told apart by the drive links and gauge of the bar, not here.
 *
 * @example
 * misfits({ pitchClass: 'p325', gaugeUm: 1300, driveLinks: 64 }, saw) // ['gauge']
 */
export function misfits(spec: Pick<LoopSpec, 'pitchClass' | 'gaugeUm' | 'driveLinks'>, saw: SawFit): Misfit[] {
  const found: Misfit[] = []
  if (pitchUmOf(spec) !== pitchUmOf(saw)) found.push('pitch')
  if (spec.gaugeUm !== saw.gaugeUm) found.push('gauge')
  if (spec.driveLinks !== saw.driveLinks) found.push('driveLinks')
  return found
}

/** Whether pitch, gauge and drive links all agree. */
export const fits = (spec: Pick<LoopSpec, 'pitchClass' | 'gaugeUm' | 'driveLinks'>, saw: SawFit): boolean =>
  misfits(spec, saw).length === 0
