import type { Um } from '../units'

/** What a length was taken with; it says how far to trust it. */
export type Instrument = 'caliper' | 'ruler'

/** A length as somebody read it. */
export interface Reading {
  readonly um: Um
  readonly instrument: Instrument
}

/** How far readings stray from the truth, one standard deviation. Starting values. */
export const INSTRUMENT_SD_UM: Readonly<Record<Instrument, number>> = { caliper: 100, ruler: 500 }

/** How far off a thickness is: a caliper on a clean link; a ruler tells next to nothing. Starting value. */
export const THICKNESS_SD_UM: Readonly<Record<Instrument, number>> = { caliper: 25, ruler: 300 }

/** Density of a normal at `x`, up to a constant that is the same for all candidates. */
export const likelihood = (x: number, centre: number, sd: number): number => Math.exp(-0.5 * ((x - centre) / sd) ** 2)
