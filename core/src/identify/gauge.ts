import { GAUGES_UM } from '../profile'
import type { Um } from '../units'
import { likelihood, THICKNESS_SD_UM, type Reading } from './instrument'

/** Worn drive links measure a few hundredths under. Common practice. */
export const LINK_WEAR_UM: Um = 30

/** A gauge that a thickness may belong to. */
export interface GaugeCandidate {
  readonly gaugeUm: Um
  /** From 0 to 1; all of them together are 1. */
  readonly probability: number
}

/** What a drive-link thickness says of the gauge. */
export type GaugeFinding =
  | {
      readonly ok: true
      readonly candidates: readonly GaugeCandidate[]
      readonly sure: boolean
      /** It lies between gauges: no link is made so, and none wears so far. */
      readonly between: boolean
    }
  | { readonly ok: false; readonly reason: 'tooThin' | 'tooThick' }

/** Above this a candidate is taken as found. Starting value. */
export const SURE = 0.9

/** Deviations beyond which a reading belongs to no candidate at all. Starting value. */
const OUTSIDE_DEVIATIONS = 6

/**
 * Gauges that a measured drive-link thickness may belong to, the likeliest first, allowing for
 * worn links.
 *
 * @example
 * gaugeCandidates({ um: 1470, instrument: 'caliper' }) // { ok: true, sure: true, … }: 1.5 mm
 */
export function gaugeCandidates(thickness: Reading): GaugeFinding {
  const sd = THICKNESS_SD_UM[thickness.instrument]
  const spread = Math.hypot(sd, LINK_WEAR_UM)
  const thinnest = Math.min(...GAUGES_UM)
  const thickest = Math.max(...GAUGES_UM)
  if (thickness.um < thinnest - LINK_WEAR_UM - OUTSIDE_DEVIATIONS * spread) return { ok: false, reason: 'tooThin' }
  if (thickness.um > thickest + OUTSIDE_DEVIATIONS * spread) return { ok: false, reason: 'tooThick' }
  const weights = GAUGES_UM.map((gaugeUm) => ({
    gaugeUm,
    weight: likelihood(thickness.um, gaugeUm - LINK_WEAR_UM, spread),
  }))
  const total = weights.reduce((sum, { weight }) => sum + weight, 0)
  const candidates = weights
    .map(({ gaugeUm, weight }) => ({ gaugeUm, probability: weight / total }))
    .sort((a, b) => b.probability - a.probability)
  const likely = (candidates[0]?.probability ?? 0) >= SURE
  const [first] = candidates
  const between = thickness.instrument === 'caliper' && (first === undefined || !isNear(thickness.um, first.gaugeUm))
  return { ok: true, candidates, sure: likely && !between && thickness.instrument !== 'ruler', between }
}

/** Most that a link in use measures under its gauge, and over it by a caliper's slip. Starting values. */
const NEAR_UM = { under: 60, over: 30 } as const

/** Whether a thickness is that of a gauge, new or worn. `isNear(1470, 1500) // true` */
export const isNear = (um: Um, gaugeUm: Um): boolean => um >= gaugeUm - NEAR_UM.under && um <= gaugeUm + NEAR_UM.over

/** Gauges as they are stamped on links and bars, in thousandths of an inch. Common practice. */
const STAMPED: Readonly<Record<string, Um>> = { '43': 1100, '50': 1300, '58': 1500, '63': 1600, '80': 2000 }

/**
 * A gauge that somebody read off a stamp instead of measuring; null for anything else.
 *
 * @example
 * stampedGauge('.050') // 1300
 * stampedGauge('58') // 1500: .058"
 */
export function stampedGauge(text: string): Um | null {
  const found = /^(?:0?[.,]0?)?(43|50|58|63|80)\s*(?:"|in|inch|thou)?$/.exec(text.trim().toLowerCase())
  return found === null ? null : (STAMPED[found[1] ?? ''] ?? null)
}
