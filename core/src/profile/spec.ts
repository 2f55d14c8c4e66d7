import { SEQUENCES, type Hand, type Sequence } from '../loop'
import { writeMm, type Um } from '../units'
import { ENTERED_ORIGINS, type CutterType, type Origin, type PitchClass } from './profile'
import { CUTTER_TYPE_PROFILES, PITCH_PROFILES } from './profiles'

/** Colour of the paint on the joining link or first cutter; none when the odd link is the mark. */
export const START_MARKS = ['none', 'white', 'yellow', 'orange', 'red', 'green', 'blue'] as const
export type StartMark = (typeof START_MARKS)[number]

/** What its links are like: low-kickback chain has a hump, the bumper, before each depth gauge or beside it. */
export const LINK_KINDS = ['plain', 'bumper'] as const
export type LinkKind = (typeof LINK_KINDS)[number]

/** The values of a loop that do not wear. Lengths in micrometres. */
export interface SpecValues {
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
  /** Down angle of this loop; the house's for its type where it is left out. */
  readonly downAngleDeg?: number
  /** Head tilt on a grinder by its own sheet; those in use where it is left out. */
  readonly headTiltDeg?: number
  readonly startMark?: StartMark
  /** Plain where nobody says. */
  readonly links?: LinkKind
  /** What is stamped on its links, or printed on its box, as the crew reads it. */
  readonly stamp?: string
}

export type SpecField = keyof SpecValues

/** Everything about a loop that does not wear, with where each value that is its own comes from. */
export interface LoopSpec extends SpecValues {
  /** Values that did not come from the pitch and cutter profiles. */
  readonly origins?: Partial<Record<SpecField, Origin>>
}

/** A profile of the crew's own: what a kind of chain brings when a loop of it is added. */
export interface CrewProfile {
  readonly id: string
  readonly name: string
  readonly values: Omit<SpecValues, 'driveLinks' | 'firstHand' | 'startMark'>
}

/**
 * A spec with some values replaced, each with where it now comes from.
 *
 * @example
 * changedSpec(spec, { settingUm: 600 }, 'box').origins // { settingUm: 'box' }
 */
export function changedSpec(spec: LoopSpec, changes: Partial<SpecValues>, origin: Origin): LoopSpec {
  const origins = { ...spec.origins }
  for (const field of Object.keys(changes) as SpecField[]) origins[field] = origin
  return { ...spec, ...changes, origins }
}

/** What the crew said when it added the loop: no profile brings it. */
const crew = (): Origin => 'crew'
const pitchOf = ({ pitchClass }: LoopSpec) => PITCH_PROFILES[pitchClass]

/** Where each value comes from that is not the loop's own. */
const ORIGINS: Readonly<Record<SpecField, (spec: LoopSpec) => Origin>> = {
  newLengthUm: (spec) => pitchOf(spec).newLengthUm.origin,
  markLengthUm: (spec) => pitchOf(spec).markLengthUm.origin,
  settingUm: (spec) => pitchOf(spec).settingUm.origin,
  fileUm: (spec) => pitchOf(spec).filesUm.origin,
  topPlateAngleDeg: ({ cutterType }) => CUTTER_TYPE_PROFILES[cutterType].topPlateAngleDeg.origin,
  gaugeUm: crew,
  pitchClass: crew,
  driveLinks: crew,
  sequence: crew,
  cutterType: crew,
  firstHand: crew,
  downAngleDeg: crew,
  headTiltDeg: crew,
  startMark: crew,
  links: crew,
  stamp: crew,
}

/**
 * Where a value of a loop comes from: its own origin, else its profile's.
 *
 * @example
 * originOf(spec38, 'newLengthUm') // 'commonPractice' for 3/8"
 */
export const originOf = (spec: LoopSpec, field: SpecField): Origin => spec.origins?.[field] ?? ORIGINS[field](spec)

/** Whether somebody read or chose a value for this very loop; else it is only what such loops usually have. */
export const isEntered = ({ origins }: Pick<LoopSpec, 'origins'>, field: SpecField): boolean =>
  (ENTERED_ORIGINS as readonly (Origin | undefined)[]).includes(origins?.[field])

/**
 * Whether a value is simply as the crew gave it when it added the loop, so that nothing need be said
 * of where it comes from.
 */
export const isGiven = (spec: LoopSpec, field: SpecField): boolean =>
  spec.origins?.[field] === undefined && ORIGINS[field] === crew

/** What has to be said of a loop; the rest comes from its profile. */
export type SpecChoice = Pick<LoopSpec, 'pitchClass' | 'gaugeUm' | 'driveLinks' | 'cutterType'> & Partial<LoopSpec>

/**
 * A full spec from the few facts that tell a loop apart, the rest filled in from the profile.
 *
 * @example
 * const choice = { pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72, cutterType: 'semiChisel' } as const
 * specFromProfile(choice).fileUm // 5200
 */
export function specFromProfile(choice: SpecChoice): LoopSpec {
  const profile = PITCH_PROFILES[choice.pitchClass]
  return {
    sequence: SEQUENCES[0],
    firstHand: 'left',
    newLengthUm: profile.newLengthUm.value,
    markLengthUm: profile.markLengthUm.value,
    settingUm: profile.settingUm.value,
    fileUm: profile.filesUm.value[0] ?? 0,
    topPlateAngleDeg: CUTTER_TYPE_PROFILES[choice.cutterType].topPlateAngleDeg.value,
    ...choice,
  }
}

/** Whether it is low-kickback chain, whose bumpers are never filed off. */
export const hasBumpers = ({ links }: Pick<SpecValues, 'links'>): boolean => links === 'bumper'

/** Pitch of a loop, half the span of three rivets. */
export const pitchUmOf = (spec: Pick<LoopSpec, 'pitchClass'>): Um => PITCH_PROFILES[spec.pitchClass].pitchUm.value

/** Cutter length between new and the witness mark, at least a micrometre: parts of it are taken. */
export const usableLengthUm = (spec: Pick<LoopSpec, 'newLengthUm' | 'markLengthUm'>): Um =>
  Math.max(1, spec.newLengthUm - spec.markLengthUm)

/**
 * Pitch, gauge and drive links on one line, enough to tell what bar it goes on.
 *
 * @example
 * specLine(spec) // '3/8" · 1.5 mm · 72 links'
 */
export const specLine = (spec: Pick<LoopSpec, 'pitchClass' | 'gaugeUm' | 'driveLinks'>): string =>
  `${PITCH_PROFILES[spec.pitchClass].name} · ${writeMm(spec.gaugeUm, 1)} · ${spec.driveLinks} links`
