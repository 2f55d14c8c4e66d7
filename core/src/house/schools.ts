import type { FileSchool, GaugeSchool, WoodStep } from '../geometry'

/** What is done about uneven or damaged cutters when a file is in hand. */
export const UNEVEN_SCHOOLS = [
  /** All cutters come down to the worst: straight cut now, most metal. */
  'matchShortest',
  /** Every cutter gets the usual strokes: a short or nicked one catches up over the next few. */
  'sameStrokes',
  /** The strokes that the worst needs, for every cutter. */
  'worstSetsCount',
  /** Each to clean steel; evenness is restored later on the grinder. */
  'extraOnBad',
  /** Each to clean steel, each gauge set to its own cutter: lengths may differ. */
  'ownGauges',
] as const
export type UnevenSchool = (typeof UNEVEN_SCHOOLS)[number]

/** How the side plate is left: the hook. */
export const SIDE_PLATE_SCHOOLS = ['moreHook', 'neutral', 'lessHook', 'third'] as const
export type SidePlateSchool = (typeof SIDE_PLATE_SCHOOLS)[number]

/** What guides the file. */
export const GUIDE_SCHOOLS = ['topPlate', 'chassis', 'twoInOne', 'jig', 'freehand'] as const
export type GuideSchool = (typeof GUIDE_SCHOOLS)[number]

/** When a loop is sharpened: after so many tanks, or when it shows that it is dull. */
export const WHEN_SCHOOLS = ['byTanks', 'onSigns'] as const
export type WhenSchool = (typeof WHEN_SCHOOLS)[number]

/** Where the small sharpenings are done: on the saw in the field, or spares are carried and filed at the bench. */
export const WHERE_SCHOOLS = ['field', 'bench'] as const
export type WhereSchool = (typeof WHERE_SCHOOLS)[number]

/** Which tool does the routine. */
export const BENCH_SCHOOLS = [
  /** A file for the routine; the wheel for stones, nails, uneven loops and milling chain. */
  'fileForRoutine',
  /** The wheel for everything at the bench. */
  'wheelAtBench',
  /** Whatever costs least for an hour of sharp running. */
  'cheapest',
] as const
export type BenchSchool = (typeof BENCH_SCHOOLS)[number]

/** The choices on which crews disagree, each a house rule. */
export interface Schools {
  readonly unevenSchool: UnevenSchool
  readonly gaugeSchool: GaugeSchool
  /** Step of a progressive plate where nobody said one for the saw and the day. */
  readonly woodStep: WoodStep
  /** One file for life, or the larger one while it clears the tie strap. */
  readonly fileSchool: FileSchool
  /** Top plate angle for full chisel where its own spec names none. */
  readonly chiselAngleDeg: number
  /** Table tilt for full chisel on a grinder: 0 or 10. */
  readonly chiselDownAngleDeg: number
  readonly sidePlate: SidePlateSchool
  readonly guide: GuideSchool
  readonly when: WhenSchool
  readonly where: WhereSchool
  readonly bench: BenchSchool
}
