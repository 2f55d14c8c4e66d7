import type { ReadWith } from '../log'
import type { Um } from '../units'

/** Repeat readings of one cutter with a caliper stray by about this. Starting value. */
export const READING_SD_UM: Um = 50
/** How far a length strays that was read so. Starting values. */
export const LENGTH_SD_UM: Readonly<Record<ReadWith, Um>> = { caliper: READING_SD_UM, ruler: 300, eye: 700 }
/** A gauge plate places the setting to about this. Starting value. */
export const PLATE_SD_UM: Um = 30
/** A new loop's cutters and gauges stray from the profile by about this. Starting value. */
export const NEW_SD_UM: Um = 100
