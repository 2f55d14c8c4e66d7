import type { Um } from '../units'
import { SEQUENCE_GAPS, type Sequence } from './sequence'

/** The side a cutter cuts on, named as seen from behind it, looking the way it travels. */
export const HANDS = ['left', 'right'] as const
export type Hand = (typeof HANDS)[number]

export const otherHand = (hand: Hand): Hand => (hand === 'left' ? 'right' : 'left')

/** Where one cutter sits on the loop. */
export interface CutterPlace {
  /** 1 at the start mark, counted the way a person walks round the loop. */
  readonly number: number
  readonly hand: Hand
  /** Drive links from the start mark. */
  readonly driveLink: number
  /** Distance from the start mark along the loop. */
  readonly positionUm: Um
}

/** What happens where the pattern closes on itself. */
export interface Joint {
  /** True when hands and spacing run on unbroken across the joint. */
  readonly regular: boolean
  /** Drive links from the last cutter on to cutter 1. */
  readonly gapDriveLinks: number
  /** True when the last cutter and cutter 1 are of the same hand. */
  readonly sameHand: boolean
}

export interface LoopLayout {
  readonly lengthUm: Um
  readonly cutters: readonly CutterPlace[]
  readonly joint: Joint
}

/** What fixes a loop's layout. `pitchUm` is half the span of three rivets. */
export interface LayoutSpec {
  readonly pitchUm: Um
  readonly driveLinks: number
  readonly sequence: Sequence
  /** Hand of cutter 1; left unless told otherwise. */
  readonly firstHand?: Hand
}

/** Fewest and most drive links that a loop can have: a carving bar and a milling bar, with room. Starting value. */
export const DRIVE_LINKS = { least: 20, most: 250 } as const

/** The shortest gap between two cutters on any loop, in drive links. */
const SHORTEST_GAP = 2

/**
 * Length of a closed loop: every drive link brings two pitches (its own and that of the links
 * beside it), since pitch is half the span of three rivets.
 *
 * @example
 * loopLength(9525, 72) // 1_371_600, i.e. 1.37 m
 */
export const loopLength = (pitchUm: Um, driveLinks: number): Um => driveLinks * 2 * pitchUm

/**
 * Pitch from the span between three consecutive rivet centres. Rivets are not evenly spaced,
 * so one gap is not the pitch (USDA Forest Service saw course, from memory).
 *
 * @example
 * pitchFromSpan(19_050) // 9525, a 3/8" chain
 */
export const pitchFromSpan = (threeRivetSpanUm: Um): Um => Math.round(threeRivetSpanUm / 2)

/**
 * Every cutter of a loop in order from the start mark, and how the pattern closes.
 *
 * The pattern is laid from the start mark until the next cutter would come closer than two
 * drive links to cutter 1; what is left over makes the joint irregular, and so does an odd
 * number of cutters (two of one hand meet).
 *
 * @throws RangeError when the drive-link count is not a whole number within {@link DRIVE_LINKS},
 *   or the pitch is not above nothing
 * @example
 * layoutLoop({ pitchUm: 9525, driveLinks: 72, sequence: 'full' }).cutters.length // 36
 */
export function layoutLoop(spec: LayoutSpec): LoopLayout {
  const { pitchUm, driveLinks, sequence, firstHand = 'left' } = spec
  if (!Number.isInteger(driveLinks) || driveLinks < DRIVE_LINKS.least || driveLinks > DRIVE_LINKS.most) {
    throw new RangeError(`drive links must be a whole number from ${DRIVE_LINKS.least} to ${DRIVE_LINKS.most}`)
  }
  if (!(pitchUm > 0)) throw new RangeError('pitch must be above nothing')

  const gaps = SEQUENCE_GAPS[sequence]
  const cutters: CutterPlace[] = []
  let driveLink = 0
  let hand = firstHand
  while (driveLink <= driveLinks - SHORTEST_GAP) {
    cutters.push({ number: cutters.length + 1, hand, driveLink, positionUm: driveLink * 2 * pitchUm })
    driveLink += gaps[(cutters.length - 1) % gaps.length] ?? SHORTEST_GAP
    hand = otherHand(hand)
  }

  const last = cutters[cutters.length - 1]
  const gapDriveLinks = driveLinks - (last?.driveLink ?? 0)
  const sameHand = last?.hand === firstHand
  const expectedGap = gaps[(cutters.length - 1) % gaps.length]
  const closes = cutters.length % gaps.length === 0 && gapDriveLinks === expectedGap
  return {
    lengthUm: loopLength(pitchUm, driveLinks),
    cutters,
    joint: { regular: closes && !sameHand, gapDriveLinks, sameHand },
  }
}
