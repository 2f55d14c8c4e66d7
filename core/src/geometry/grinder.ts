import { BENCH_FIGURES, PITCH_PROFILES, type LoopSpec } from '../profile'
import type { Um } from '../units'

/** How a grinder is set up for a loop. Angles in degrees, lengths in micrometres. */
export interface GrinderSettings {
  /** Thinnest and thickest wheel for the pitch. */
  readonly wheelUm: readonly [Um, Um]
  /** Square-ground chisel takes a wheel dressed to its corner, and its side plate leans forward by this much. */
  readonly squareGround: { readonly sidePlateLeanDeg: number } | null
  /** Turn of the clamp for left-hand cutters; right-hand ones take the same the other way. */
  readonly clampDeg: number
  /** Head tilts in use; one and the same twice where the loop's own sheet says which. */
  readonly headTiltDeg: readonly [number, number]
  /** Table tilt: 0 but for full chisel in a house that grinds it with a down angle. */
  readonly downAngleDeg: number
  /** Length that the stop is set to on the worst cutter. */
  readonly stopUm: Um
  /** Wheel, clamp and head for the depth gauges, and the setting they come down to. */
  readonly gauges: {
    readonly wheelUm: Um
    readonly clampDeg: 0
    readonly headDeg: readonly [number, number]
    readonly settingUm: Um
  }
}

/** How far the side plate of square-ground chisel leans forward. Common practice. */
const SIDE_PLATE_LEAN_DEG = 5

/**
 * Grinder settings for a loop. Common practice; the manuals of the grinder and the chain come first.
 *
 * @param angleDeg top plate angle wanted
 * @param stopUm length that every cutter comes down to
 * @param settingUm depth-gauge setting wanted afterwards
 * @example
 * grinderSettings(spec38, { angleDeg: 30, downAngleDeg: 0, stopUm: 5700, settingUm: 650 }).wheelUm // [4700, 4800]
 */
export function grinderSettings(
  spec: LoopSpec,
  wanted: { readonly angleDeg: number; readonly downAngleDeg: number; readonly stopUm: Um; readonly settingUm: Um },
): GrinderSettings {
  return {
    wheelUm: PITCH_PROFILES[spec.pitchClass].wheelUm.value,
    squareGround: spec.cutterType === 'squareGround' ? { sidePlateLeanDeg: SIDE_PLATE_LEAN_DEG } : null,
    clampDeg: wanted.angleDeg,
    headTiltDeg:
      spec.headTiltDeg === undefined ? BENCH_FIGURES.headTiltDeg.value : [spec.headTiltDeg, spec.headTiltDeg],
    downAngleDeg: spec.downAngleDeg ?? (spec.cutterType === 'fullChisel' ? wanted.downAngleDeg : 0),
    stopUm: wanted.stopUm,
    gauges: {
      wheelUm: BENCH_FIGURES.gaugeWheelUm.value,
      clampDeg: 0,
      headDeg: BENCH_FIGURES.gaugeHeadDeg.value,
      settingUm: wanted.settingUm,
    },
  }
}

/**
 * Speed of a wheel's rim, π·d·n/60: it must not pass the greatest speed marked on the wheel
 * (EN 12413, from memory; OSHA 29 CFR 1910.215(d)(1), from memory).
 *
 * @param diameterUm of the wheel
 * @param perMinute turns of the spindle
 * @returns metres a second
 * @example
 * rimSpeed(145_000, 2800) // 21.3
 */
export const rimSpeed = (diameterUm: Um, perMinute: number): number => (Math.PI * (diameterUm / 1e6) * perMinute) / 60
