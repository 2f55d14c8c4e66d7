import type { GuideSchool } from '../house/schools'
import type { Um } from '../units'

/** What a guide does to the work. */
export interface GuideFacts {
  /** Seconds to move on to the next cutter. */
  readonly secondsToNext: number
  /** How far a cutter strays from what was meant, in one sharpening. */
  readonly strayUm: Um
  /** What the file's height rests on: the top plate, the chassis, or the hand. */
  readonly restsOn: 'topPlate' | 'chassis' | 'hand'
  /** It files the depth gauge in the same stroke. */
  readonly gaugesToo: boolean
}

/**
 * What each guide trades. 2.5 s to move on is common practice; what a jig costs and freehand saves,
 * and how far each strays, are starting values.
 */
export const GUIDES: Readonly<Record<GuideSchool, GuideFacts>> = {
  topPlate: { secondsToNext: 2.5, strayUm: 40, restsOn: 'topPlate', gaugesToo: false },
  chassis: { secondsToNext: 2.5, strayUm: 40, restsOn: 'chassis', gaugesToo: false },
  twoInOne: { secondsToNext: 2.5, strayUm: 40, restsOn: 'topPlate', gaugesToo: true },
  jig: { secondsToNext: 9, strayUm: 20, restsOn: 'chassis', gaugesToo: false },
  freehand: { secondsToNext: 1.8, strayUm: 80, restsOn: 'hand', gaugesToo: false },
}
