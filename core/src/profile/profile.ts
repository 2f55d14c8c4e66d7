import type { Um } from '../units'

/** Where a figure comes from. A crew's own measurement or the maker's sheet beats every other. */
export type Origin =
  /** True by definition. */
  | 'exact'
  /** What the trade does; no published source. */
  | 'commonPractice'
  /** This project's starting value where common practice names none; replace it by measuring. */
  | 'assumed'
  /** Worked out from other figures of the same profile. */
  | 'derived'
  /** From the box or the maker's sheet of this very chain. */
  | 'box'
  /** Measured by the crew. */
  | 'measured'
  /** From a profile of the crew's own, or chosen by the crew. */
  | 'crew'

/** Where a value that a person enters may come from. */
export const ENTERED_ORIGINS = ['box', 'measured', 'crew'] as const satisfies readonly Origin[]

/** A figure with where it comes from. */
export interface Sourced<T> {
  readonly value: T
  readonly origin: Origin
  /** What to know about it, in a few words. */
  readonly note?: string
}

export const PITCH_CLASSES = ['quarter', 'lowProfile', 'p325', 'threeEighths', 'p404'] as const
export type PitchClass = (typeof PITCH_CLASSES)[number]

export const CUTTER_TYPES = ['fullChisel', 'semiChisel', 'chipper', 'ripping', 'squareGround'] as const
export type CutterType = (typeof CUTTER_TYPES)[number]

/** What a pitch class brings with it until a loop's own figures replace it. */
export interface PitchProfile {
  readonly pitchClass: PitchClass
  /** What the crew calls it; always tells the two 3/8" kinds apart. */
  readonly name: string
  /** Half the span of three rivets. */
  readonly pitchUm: Sourced<Um>
  /** Usual drive-link thicknesses. */
  readonly gaugesUm: Sourced<readonly Um[]>
  /** Round file diameters that schools use, the usual one first. */
  readonly filesUm: Sourced<readonly Um[]>
  /** Grinding wheel thicknesses, thinnest and thickest. */
  readonly wheelUm: Sourced<readonly [Um, Um]>
  /** Depth-gauge setting of a new chain: working corner above gauge tip. */
  readonly settingUm: Sourced<Um>
  /** Cutter length, edge back to the witness mark, when new. */
  readonly newLengthUm: Sourced<Um>
  /** What a reading shows at the witness mark; 0 when lengths are read to the mark itself. */
  readonly markLengthUm: Sourced<Um>
  /** Depth-gauge tip to working corner, new and at the mark. */
  readonly reachUm: Sourced<readonly [Um, Um]>
  /** Fall of the top plate toward the heel. */
  readonly topPlateSlopeDeg: Sourced<number>
  /** Top plate above the tie strap when new, at the cutting edge. */
  readonly topPlateHeightUm: Sourced<Um>
  /** Width of the top plate, across the chain. */
  readonly plateWidthUm: Sourced<Um>
}

/** What a cutter type brings with it. */
export interface CutterTypeProfile {
  readonly cutterType: CutterType
  /** Top plate angle to file to. */
  readonly topPlateAngleDeg: Sourced<number>
  /** How many times sooner it dulls in dirty wood than in clean wood. */
  readonly dirtFactor: Sourced<number>
}
