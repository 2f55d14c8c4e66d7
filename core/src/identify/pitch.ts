import { PITCH_CLASSES, PITCH_PROFILES, type PitchClass } from '../profile'
import { otherUnit, type Um } from '../units'
import { gaugeCandidates, SURE } from './gauge'
import { INSTRUMENT_SD_UM, likelihood, type Reading } from './instrument'

/** How a cutter stands beside one of the same pitch: a low-profile cutter is the smaller. */
export type CutterBuild = 'low' | 'tall'

/** What is known of a loop that nobody knows. */
export interface Clues {
  /** Centre of one rivet to the centre of the next but one: three rivets, two gaps. */
  readonly span?: Reading
  /** Thickness of a drive link. */
  readonly thickness?: Reading
  readonly build?: CutterBuild
}

/** A pitch class that the clues may belong to. */
export interface PitchCandidate {
  readonly pitchClass: PitchClass
  /** From 0 to 1; all of them together are 1. */
  readonly probability: number
  /** How far the span read is from this pitch's own; null without a span. */
  readonly spanOffUm: Um | null
  /** Whether the thickness read is usual for this pitch; null without a thickness. */
  readonly usualGauge: boolean | null
}

/** The measurement that would tell most apart next. */
export type NextClue = 'span' | 'caliperSpan' | 'thickness' | 'caliperThickness' | 'groove' | 'build' | 'none'

/** What the clues come to. */
export type PitchFinding =
  | {
      readonly ok: true
      readonly candidates: readonly PitchCandidate[]
      /** Whether the first candidate is likely enough to go on with. */
      readonly likely: boolean
      /** Whether it is certain besides: a ruler's answer never is. */
      readonly sure: boolean
      readonly next: NextClue
    }
  | {
      readonly ok: false
      /** The span fits no pitch. `oneGap`: one gap was measured instead of two. */
      readonly reason: 'oneGap' | 'wrongUnit' | 'noSuchPitch'
      readonly meantUm: Um | null
    }

/** Deviations within which a span belongs to some pitch: a ruler is read to a millimetre. Starting values. */
const WITHIN_DEVIATIONS = { caliper: 3.5, ruler: 2.3 } as const
/** A worn chain's span is longer by up to this part of it before it is past the tensioner. Starting value. */
const WORN_PART = 0.01
/** How much less likely a gauge is that is not usual for a pitch. Starting value. */
const UNUSUAL_GAUGE = 0.1
/** How much less likely a build is that is not that of the pitch class. Starting value. */
const WRONG_BUILD = 0.03

const pitchOf = (pitchClass: PitchClass): Um => PITCH_PROFILES[pitchClass].pitchUm.value

/** Whether a pitch class has small, low cutters. */
const isLow = (pitchClass: PitchClass): boolean => pitchClass === 'lowProfile' || pitchClass === 'quarter'

const spreadOf = ({ instrument }: Reading, pitchClass: PitchClass): number =>
  Math.hypot(INSTRUMENT_SD_UM[instrument], 2 * pitchOf(pitchClass) * WORN_PART)

const fitsSome = (span: Reading, um: Um): boolean =>
  PITCH_CLASSES.some(
    (pitchClass) =>
      Math.abs(um - 2 * pitchOf(pitchClass)) <= WITHIN_DEVIATIONS[span.instrument] * spreadOf(span, pitchClass),
  )

/** Why a span belongs to no pitch, and what was probably measured. */
function strayed(span: Reading): PitchFinding {
  const swapped = [otherUnit(span.um, 'mm'), otherUnit(span.um, 'inch')].find((um) => fitsSome(span, um))
  if (swapped !== undefined) return { ok: false, reason: 'wrongUnit', meantUm: swapped }
  return fitsSome({ ...span, instrument: 'ruler' }, span.um * 2)
    ? { ok: false, reason: 'oneGap', meantUm: span.um * 2 }
    : { ok: false, reason: 'noSuchPitch', meantUm: null }
}

function usualGauge(thickness: Reading | undefined, pitchClass: PitchClass): boolean | null {
  if (thickness === undefined) return null
  const found = gaugeCandidates(thickness)
  if (!found.ok) return null
  const usual = PITCH_PROFILES[pitchClass].gaugesUm.value
  const weight = found.candidates.reduce(
    (sum, { gaugeUm, probability }) => sum + (usual.includes(gaugeUm) ? probability : 0),
    0,
  )
  return weight >= 0.5
}

function weightOf(clues: Clues, pitchClass: PitchClass): number {
  const { span, thickness, build } = clues
  let weight = 1
  if (span !== undefined) weight *= likelihood(span.um, 2 * pitchOf(pitchClass), spreadOf(span, pitchClass))
  if (usualGauge(thickness, pitchClass) === false) weight *= UNUSUAL_GAUGE
  if (build !== undefined && (build === 'low') !== isLow(pitchClass)) weight *= WRONG_BUILD
  return weight
}

/** The next best measurement: the one that separates the two likeliest. */
function nextClue(clues: Clues, candidates: readonly PitchCandidate[], sure: boolean): NextClue {
  if (clues.span === undefined) return 'span'
  const [first, second] = candidates
  if (!sure && first !== undefined && second !== undefined) {
    const samePitch = pitchOf(first.pitchClass) === pitchOf(second.pitchClass)
    if (!samePitch) return clues.span.instrument === 'ruler' ? 'caliperSpan' : 'thickness'
    if (clues.thickness === undefined) return 'thickness'
    if (clues.build === undefined) return 'build'
  }
  if (clues.thickness === undefined) return 'thickness'
  const gauge = gaugeCandidates(clues.thickness)
  if (!gauge.ok || gauge.sure) return 'none'
  // A caliper has said what it can: the groove that the link runs in tells the rest.
  return clues.thickness.instrument === 'caliper' ? 'groove' : 'caliperThickness'
}

/**
 * Pitch classes that a loop may be of, the likeliest first, from whatever has been measured: the
 * span over three rivets tells the pitch, drive-link thickness and the build of the cutter tell
 * low profile from standard 3/8".
 *
 * Pitch is half the span of three rivets (USDA Forest Service saw course, from memory).
 *
 * @returns candidates and the next best measurement, or why the span fits no pitch
 * @example
 * identifyPitch({ span: { um: 16_500, instrument: 'caliper' } }) // { ok: true, next: 'thickness', … }: .325", sure
 */
export function identifyPitch(clues: Clues): PitchFinding {
  const { span } = clues
  if (span !== undefined && !fitsSome(span, span.um)) return strayed(span)
  const weights = PITCH_CLASSES.map((pitchClass) => ({ pitchClass, weight: weightOf(clues, pitchClass) }))
  const total = weights.reduce((sum, { weight }) => sum + weight, 0)
  const candidates = weights
    .map(({ pitchClass, weight }) => ({
      pitchClass,
      probability: weight / total,
      spanOffUm: span === undefined ? null : span.um - 2 * pitchOf(pitchClass),
      usualGauge: usualGauge(clues.thickness, pitchClass),
    }))
    .sort((a, b) => b.probability - a.probability)
  const likely = (candidates[0]?.probability ?? 0) >= SURE
  const sure = likely && span?.instrument !== 'ruler'
  return { ok: true, candidates, likely, sure, next: nextClue(clues, candidates, sure) }
}
