/** How the cutters are spaced round a loop. */
export const SEQUENCES = ['full', 'semiSkip', 'fullSkip'] as const
export type Sequence = (typeof SEQUENCES)[number]

/**
 * Drive links from one cutter to the next, repeated round the loop: full complement 2,
 * semi-skip 2 and 3 in turn (2.5 on average), full skip 3. Common practice.
 */
export const SEQUENCE_GAPS: Record<Sequence, readonly number[]> = {
  full: [2],
  semiSkip: [2, 3],
  fullSkip: [3],
}
