import type { FileSchool, GaugeSchool, WoodStep } from '../geometry'

/** What is done about uneven or damaged cutters when a file is in hand. */
export type UnevenSchool =
  /** All cutters come down to the worst: straight cut now, most metal. */
  | 'matchShortest'
  /** Every cutter gets the usual strokes: a short or nicked one catches up over the next few. */
  | 'sameStrokes'
  /** The strokes that the worst needs, for every cutter. */
  | 'worstSetsCount'
  /** Each to clean steel; evenness is restored later on the grinder. */
  | 'extraOnBad'
export const UNEVEN_SCHOOLS: readonly UnevenSchool[] = ['matchShortest', 'sameStrokes', 'worstSetsCount', 'extraOnBad']

/** How the side plate is left: the hook. */
export type SidePlateSchool = 'moreHook' | 'neutral' | 'lessHook'
export const SIDE_PLATE_SCHOOLS: readonly SidePlateSchool[] = ['moreHook', 'neutral', 'lessHook']

/** What guides the file. */
export type GuideSchool = 'topPlate' | 'chassis' | 'twoInOne' | 'jig' | 'freehand'
export const GUIDE_SCHOOLS: readonly GuideSchool[] = ['topPlate', 'chassis', 'twoInOne', 'jig', 'freehand']

/** When a loop is sharpened: after so many tanks, or when it shows that it is dull. */
export type WhenSchool = 'byTanks' | 'onSigns'
export const WHEN_SCHOOLS: readonly WhenSchool[] = ['byTanks', 'onSigns']

/** Where the small sharpenings are done: on the saw in the field, or spares are carried and filed at the bench. */
export type WhereSchool = 'field' | 'bench'
export const WHERE_SCHOOLS: readonly WhereSchool[] = ['field', 'bench']

/** Which tool does the routine. */
export type BenchSchool =
  /** A file for the routine; the wheel for stones, nails, uneven loops and milling chain. */
  | 'fileForRoutine'
  /** The wheel for everything at the bench. */
  | 'wheelAtBench'
  /** Whatever costs least for an hour of sharp running. */
  | 'cheapest'
export const BENCH_SCHOOLS: readonly BenchSchool[] = ['fileForRoutine', 'wheelAtBench', 'cheapest']

/** The choices on which crews disagree, each a house rule. */
export interface Schools {
  readonly unevenSchool: UnevenSchool
  readonly gaugeSchool: GaugeSchool
  /** Step of a progressive plate. */
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
