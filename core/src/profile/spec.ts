import { SEQUENCES, type Hand, type Sequence } from '../loop'
import { writeMm, type Um } from '../units'
import type { CutterType, PitchClass } from './profile'
import { CUTTER_TYPE_PROFILES, PITCH_PROFILES } from './profiles'

/** Everything about a loop that does not wear. Lengths in micrometres. */
export interface LoopSpec {
  readonly pitchClass: PitchClass
  readonly gaugeUm: Um
  readonly driveLinks: number
  readonly sequence: Sequence
  readonly cutterType: CutterType
  readonly firstHand: Hand
  /** Cutter length when new, as the crew reads it. */
  readonly newLengthUm: Um
  /** What the same reading shows at the witness mark. */
  readonly markLengthUm: Um
  /** Depth-gauge setting when new. */
  readonly settingUm: Um
  /** Round file diameter the crew uses on it. */
  readonly fileUm: Um
  readonly topPlateAngleDeg: number
}

/** What has to be said of a loop; the rest comes from its profile. */
export type SpecChoice = Pick<LoopSpec, 'pitchClass' | 'gaugeUm' | 'driveLinks' | 'cutterType'> &
  Partial<LoopSpec>

/**
 * A full spec from the few facts that tell a loop apart, the rest filled in from the profile.
 *
 * @example
 * specFromProfile({ pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72, cutterType: 'semiChisel' }).fileUm // 5200
 */
export function specFromProfile(choice: SpecChoice): LoopSpec {
  const profile = PITCH_PROFILES[choice.pitchClass]
  return {
    sequence: SEQUENCES[0] ?? 'full',
    firstHand: 'left',
    newLengthUm: profile.newLengthUm.value,
    markLengthUm: profile.markLengthUm.value,
    settingUm: profile.settingUm.value,
    fileUm: profile.filesUm.value[0] ?? 0,
    topPlateAngleDeg: CUTTER_TYPE_PROFILES[choice.cutterType].topPlateAngleDeg.value,
    ...choice,
  }
}

/** Pitch of a loop, half the span of three rivets. */
export const pitchUmOf = (spec: Pick<LoopSpec, 'pitchClass'>): Um => PITCH_PROFILES[spec.pitchClass].pitchUm.value

/** Cutter length between new and the witness mark. */
export const usableLengthUm = (spec: Pick<LoopSpec, 'newLengthUm' | 'markLengthUm'>): Um =>
  spec.newLengthUm - spec.markLengthUm

/**
 * Pitch, gauge and drive links on one line, enough to tell what bar it goes on.
 *
 * @example
 * specLine(spec) // '3/8" · 1.5 mm · 72 links'
 */
export const specLine = (spec: Pick<LoopSpec, 'pitchClass' | 'gaugeUm' | 'driveLinks'>): string =>
  `${PITCH_PROFILES[spec.pitchClass].name} · ${writeMm(spec.gaugeUm, 1)} · ${spec.driveLinks} links`

