import type { FileAge, Instant, SharpenMethod } from '../log'
import type { Hand } from '../loop'
import type { Um } from '../units'

/** Sharpenings that take off alike. A touch-up, a routine filing and a grind are not averaged. */
export const POPULATIONS = ['touchUp', 'routine', 'grind'] as const
export type Population = (typeof POPULATIONS)[number]

/** What came off the cutters of one side in one sharpening. */
export interface SideRemoval {
  readonly um: Um
  /** How far that may be off. */
  readonly sdUm: number
  /** Cutters that were read for it. */
  readonly cutters: number
  /** Strokes that each cutter was given, where somebody counted. */
  readonly strokes?: number
}

/** What was seen to come off in `sharpenings` sharpenings of one kind. */
export interface RemovalSample {
  readonly population: Population
  /** Mean taken off a cutter in one sharpening. */
  readonly perSharpeningUm: Um
  /** How many sharpenings the figure is a mean of. */
  readonly sharpenings: number
  /** How far the mean may be off. */
  readonly sdUm: number
  /** When it was measured. */
  readonly at?: Instant
  /** Who did it; null when several did, or nobody was named. */
  readonly personId?: string | null
  readonly method?: SharpenMethod
  readonly fileAge?: FileAge
  /** What a stroke of the file was taken to bite against a usual one. */
  readonly fileBite?: number
  /** The same by side: mean taken off in one sharpening, and the strokes each cutter was given. */
  readonly sides?: Readonly<Partial<Record<Hand, SideRemoval>>>
}
