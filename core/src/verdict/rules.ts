import type { FileSchool, GaugeSchool } from '../geometry'
import type { Um } from '../units'

/** What a crew works by. A verdict says under which version it was made. */
export interface HouseRules {
  readonly version: number
  readonly gaugeSchool: GaugeSchool
  /** One file for life, or the larger one while it clears the tie strap. */
  readonly fileSchool: FileSchool
  /** Top plate angle for full chisel where its own spec names none. */
  readonly chiselAngleDeg: number
  /** How far below target a depth-gauge setting may be before the gauges are lowered. */
  readonly gaugeHighUm: Um
  /** How far above target it may be before the loop is not fit for use. */
  readonly gaugeLowUm: Um
  /** Kept above the mark: nobody files to the last hundredth. */
  readonly reserveUm: Um
  /** Most that is filed off by hand; deeper work goes to the wheel. */
  readonly largestFilingUm: Um
  /** Shortest to longest cutter that still counts as even. */
  readonly evennessUm: Um
  /** Mean left to mean right that still cuts straight. */
  readonly sideDifferenceUm: Um
  /** Tanks, weighted by dirt, after which a loop is touched up. */
  readonly touchUpTanks: number
  /** Tanks, weighted by dirt, after which it is filed at the bench. */
  readonly benchTanks: number
}

/** Where a crew starts: common practice where there is any, a cautious guess where there is none. */
export const DEFAULT_RULES: HouseRules = {
  version: 1,
  gaugeSchool: 'constant',
  fileSchool: 'oneSize',
  chiselAngleDeg: 30,
  gaugeHighUm: 100,
  gaugeLowUm: 150,
  reserveUm: 200,
  largestFilingUm: 800,
  evennessUm: 500,
  sideDifferenceUm: 250,
  touchUpTanks: 2,
  benchTanks: 6,
}

/** Rules as they were kept, with what a later version added to them. */
export const withDefaults = (rules: Partial<HouseRules>): HouseRules => ({ ...DEFAULT_RULES, ...rules })
