import { PITCH_PROFILES, usableLengthUm, type LoopSpec } from '../profile'
import type { Um } from '../units'

const RADIANS = Math.PI / 180

/**
 * How far the edge sinks when a length is filed off: the top plate falls toward the heel, so
 * filing ΔL off the length lowers the edge by ΔL·tan(slope).
 *
 * @param removedUm length filed off
 * @param slopeDeg fall of the top plate
 * @example
 * edgeDrop(800, 7) // 98
 */
export const edgeDrop = (removedUm: Um, slopeDeg: number): Um => Math.round(removedUm * Math.tan(slopeDeg * RADIANS))

/**
 * Bevel under the top plate left by a round file with a part of its diameter above the plate:
 * arccos(1 − 2p). The file is a circle; this is the angle of its tangent where it meets the plate.
 *
 * @param partAbove part of the diameter above the top plate, 0 to 1
 * @throws RangeError outside 0 to 1
 * @example
 * fileBevelDeg(0.25) // 60; a fifth gives 53.1: the trade's 50 to 60
 */
export function fileBevelDeg(partAbove: number): number {
  if (!(partAbove >= 0 && partAbove <= 1)) throw new RangeError('part above the plate must be from 0 to 1')
  return Math.acos(1 - 2 * partAbove) / RADIANS
}

/** Which depth-gauge setting a crew files to as a loop wears. */
export const GAUGE_SCHOOLS = ['constant', 'progressive'] as const
export type GaugeSchool = (typeof GAUGE_SCHOOLS)[number]

/** The step of a progressive plate: more bite in softer wood, less in harder. */
export const WOOD_STEPS = ['softer', 'standard', 'harder'] as const
export type WoodStep = (typeof WOOD_STEPS)[number]

/** How far a wood step moves the setting. Starting value: common practice names the steps, no figure. */
export const WOOD_STEP_UM: Um = 100

/** What decides a target setting. */
export interface GaugeRule {
  readonly gaugeSchool: GaugeSchool
  readonly woodStep: WoodStep
}

/**
 * Depth-gauge tip to working corner at a given cutter length: grows in a straight line from new
 * to the witness mark.
 *
 * @example
 * reachAt(spec38, 0) // 12_000 at the mark
 */
export function reachAt(spec: LoopSpec, lengthUm: Um): Um {
  const [atNew, atMark] = PITCH_PROFILES[spec.pitchClass].reachUm.value
  const usable = usableLengthUm(spec)
  const worn = Math.min(1, Math.max(0, (spec.newLengthUm - lengthUm) / usable))
  return Math.round(atNew + (atMark - atNew) * worn)
}

const STEP: Record<WoodStep, number> = { softer: 1, standard: 0, harder: -1 }

/** What a step of a progressive plate is stamped with for this loop: the setting that it leaves on a new cutter. */
export const stampOf = ({ settingUm }: Pick<LoopSpec, 'settingUm'>, step: WoodStep): Um =>
  settingUm + STEP[step] * WOOD_STEP_UM

/** By how much a target setting grows for each unit that the cutter gets shorter. */
function targetGrowth(spec: LoopSpec, { gaugeSchool, woodStep }: GaugeRule): number {
  if (gaugeSchool === 'constant') return 0
  const [atNew, atMark] = PITCH_PROFILES[spec.pitchClass].reachUm.value
  const usable = usableLengthUm(spec)
  return (stampOf(spec, woodStep) / atNew) * ((atMark - atNew) / usable)
}

/**
 * The setting to lower the gauge to. *Constant* is the new setting for life; *progressive* keeps
 * the attack angle of a new cutter, so the setting grows with the reach, and its plate has a step
 * for softer and one for harder wood.
 *
 * @returns target setting in micrometres
 * @example
 * // double at the mark:
 * targetSetting(spec38, 0, { gaugeSchool: 'progressive', woodStep: 'standard' }) // 1300
 */
export function targetSetting(spec: LoopSpec, lengthUm: Um, rule: GaugeRule): Um {
  switch (rule.gaugeSchool) {
    case 'constant':
      return spec.settingUm
    case 'progressive': {
      const attack = stampOf(spec, rule.woodStep) / reachAt(spec, spec.newLengthUm)
      return Math.round(attack * reachAt(spec, lengthUm))
    }
  }
}

/** What of a plate decides on the setting that it leaves. */
interface PlateLike {
  readonly rests: GaugeSchool
  readonly step?: WoodStep
  readonly stampedUm?: Um
}

/**
 * The setting that a plate leaves on a cutter. A constant one leaves what is stamped on it; a progressive one the same
 * attack as it does on a new cutter, so that its setting grows with the reach.
 *
 * @param stampedUm what it leaves on a new cutter; as the loop was new where it is left out
 * @example
 * plateLeaves(spec38, 3500, { rests: 'progressive', stampedUm: 650 }) // 1016: the reach is 9.4 mm there
 */
export function plateLeaves(spec: LoopSpec, lengthUm: Um, { rests, step = 'standard', stampedUm }: PlateLike): Um {
  if (rests === 'constant') return stampedUm ?? spec.settingUm
  if (stampedUm === undefined) return targetSetting(spec, lengthUm, { gaugeSchool: rests, woodStep: step })
  return Math.round((stampedUm / reachAt(spec, spec.newLengthUm)) * reachAt(spec, lengthUm))
}

/**
 * Attack angle of a cutter: the slope of the line from the gauge's tip to the working corner.
 *
 * @example
 * attackAngleDeg(650, 6000) // 6.18
 */
export const attackAngleDeg = (settingUm: Um, reachUm: Um): number => Math.atan(settingUm / reachUm) / RADIANS

/**
 * Length that has to be filed off a cutter before a gauge that stands too low is right again: the
 * setting shrinks by tan(slope) for each unit of length, and under the progressive rule the target
 * comes to meet it.
 *
 * @param overUm setting now less target
 * @param slopeDeg fall of the top plate
 * @returns length in micrometres; null when no length does it
 * @example
 * lengthToRight(spec38, 300, constant, 7) // 2444: 0.3 mm ÷ tan 7°
 */
export function lengthToRight(spec: LoopSpec, overUm: Um, rule: GaugeRule, slopeDeg: number): Um | null {
  if (overUm <= 0) return 0
  const each = Math.tan(slopeDeg * RADIANS) + targetGrowth(spec, rule)
  return each > 0 ? Math.ceil(overUm / each) : null
}
