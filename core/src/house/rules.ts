import type { PitchClass } from '../profile'
import type { Population } from '../state'
import type { Um } from '../units'
import type { Schools } from './schools'

/** The prices that decide most: a loop, an hour of work, a visit to a shop. */
export const PRICE_NAMES = ['loop', 'hour', 'shop'] as const
export type PriceName = (typeof PRICE_NAMES)[number]

/** What work and goods cost a crew, in whole minor units of its money. */
export interface Prices {
  /** ISO 4217 code of the crew's money. */
  readonly currency: string
  readonly labourPerHourMinor: number
  /** A new loop, for each of its drive links. */
  readonly linkPriceMinor: Readonly<Record<PitchClass, number>>
  readonly filePriceMinor: number
  /** Wheel and power for one loop ground. */
  readonly wheelPerLoopMinor: number
  readonly shopFeeMinor: number
  /** Of the three that decide most, those that the crew has said; the others are starting prices. */
  readonly saidPrices: readonly PriceName[]
}

/** What a crew's logs teach of it: never typed, and nobody's decision. */
export interface Learned {
  /** Grows with what is learned, and with nothing else. */
  readonly learnedVersion: number
  /** So many times the starting times a sharpening takes on this crew. */
  readonly pace: Pace
  /** How often each cause was found behind each sign. */
  readonly signCounts: Readonly<Record<string, number>>
}

/** What a crew works by, with what was learned beside it. A verdict says under which version it was made. */
export interface HouseRules extends Schools, Prices, Learned {
  readonly version: number
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
  readonly grinderOwned: boolean
  readonly shopUsed: boolean
  /** Days that a loop is away at a shop. */
  readonly shopDays: number
  /** Whether worn or struck loops are kept for stumps and soil-covered wood. */
  readonly dirtyDuty: boolean
}

/** So many times the starting times, by kind of sharpening. */
export type Pace = Readonly<Record<Population, number>>

/**
 * Where a crew starts: common practice where there is any, a cautious guess where there is none.
 * Every price is a starting value that a crew replaces by its own; only their proportions follow
 * common practice (a visit to a shop costs about as much as a new loop for a small saw).
 */
export const DEFAULT_RULES: HouseRules = {
  version: 1,
  unevenSchool: 'matchShortest',
  gaugeSchool: 'constant',
  woodStep: 'standard',
  fileSchool: 'oneSize',
  chiselAngleDeg: 30,
  chiselDownAngleDeg: 0,
  sidePlate: 'neutral',
  guide: 'topPlate',
  when: 'byTanks',
  where: 'field',
  bench: 'fileForRoutine',
  gaugeHighUm: 100,
  gaugeLowUm: 150,
  reserveUm: 200,
  largestFilingUm: 3000,
  evennessUm: 500,
  sideDifferenceUm: 250,
  touchUpTanks: 2,
  benchTanks: 6,
  grinderOwned: true,
  shopUsed: true,
  shopDays: 4,
  dirtyDuty: true,
  currency: 'EUR',
  labourPerHourMinor: 3000,
  linkPriceMinor: { quarter: 30, lowProfile: 32, p325: 36, threeEighths: 42, p404: 50 },
  filePriceMinor: 250,
  wheelPerLoopMinor: 60,
  shopFeeMinor: 1600,
  saidPrices: [],
  learnedVersion: 0,
  pace: { touchUp: 1, routine: 1, grind: 1 },
  signCounts: {},
}

/** Rules as they were kept, with what a later version added to them. */
export const withDefaults = (rules: Partial<HouseRules>): HouseRules => ({ ...DEFAULT_RULES, ...rules })

/** What a lead decides, and what the logs taught, each to be kept by itself. */
export function partedRules(rules: HouseRules): {
  readonly decided: Omit<HouseRules, keyof Learned>
  readonly learned: Learned
} {
  const { learnedVersion, pace, signCounts, ...decided } = rules
  return { decided, learned: { learnedVersion, pace, signCounts } }
}

/**
 * Prices that nobody on the crew has said yet, of those that decide for this house.
 *
 * @example
 * startingPrices({ saidPrices: ['hour'], shopUsed: false }) // ['loop']
 */
export const startingPrices = ({ saidPrices, shopUsed }: Pick<HouseRules, 'saidPrices' | 'shopUsed'>): PriceName[] =>
  PRICE_NAMES.filter((name) => !saidPrices.includes(name) && (name !== 'shop' || shopUsed))

/**
 * The prices of drive links when a new loop like this one costs so much: those of other pitches follow in proportion.
 *
 * @param loopMinor what it costs, in minor units
 */
export function linkPricesFor(
  spec: { readonly pitchClass: PitchClass; readonly driveLinks: number },
  loopMinor: number,
  { linkPriceMinor }: Pick<Prices, 'linkPriceMinor'>,
): Prices['linkPriceMinor'] {
  const own = loopMinor / spec.driveLinks
  const factor = own / Math.max(1, linkPriceMinor[spec.pitchClass])
  return Object.fromEntries(
    Object.entries(linkPriceMinor).map(([pitch, minor]) => [
      pitch,
      Math.max(1, Math.round(pitch === spec.pitchClass ? own : minor * factor)),
    ]),
  ) as Record<PitchClass, number>
}

/**
 * Price of a new loop like this one, in minor units.
 *
 * @example
 * loopPriceMinor({ pitchClass: 'threeEighths', driveLinks: 72 }, DEFAULT_RULES) // 3024
 */
export const loopPriceMinor = (
  spec: { readonly pitchClass: PitchClass; readonly driveLinks: number },
  prices: Pick<Prices, 'linkPriceMinor'>,
): number => prices.linkPriceMinor[spec.pitchClass] * spec.driveLinks
