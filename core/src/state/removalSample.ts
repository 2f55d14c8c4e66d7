import type { FileAge, Instant, SharpenMethod } from '../log'
import type { Hand } from '../loop'
import type { Um } from '../units'

/** Sharpenings that take off alike. A touch-up, a routine filing and a grind are not averaged. */
export const POPULATIONS = ['touchUp', 'routine', 'grind'] as const
export type Population = (typeof POPULATIONS)[number]

/** What was seen to come off in `sharpenings` sharpenings of one kind. */
export interface RemovalSample {
  readonly population: Population
  /** Mean taken off a cutter in one sharpening. */
  readonly perSharpeningUm: Um
  /** How many sharpenings the figure is a mean of. */
  readonly sharpenings: number
  /** When it was measured. */
  readonly at?: Instant
  /** Who did it; null when several did, or nobody was named. */
  readonly personId?: string | null
  readonly method?: SharpenMethod
  readonly fileAge?: FileAge
  /** The same by side: mean taken off in one sharpening, and the strokes each cutter was given. */
  readonly sides?: Readonly<
    Partial<Record<Hand, { readonly um: Um; readonly cutters: number; readonly strokes?: number }>>
  >
}
