import { CAUSES, SIGNS, type Cause, type Sign } from '../log'
import type { TracedSign } from '../state'
import { startsWith, type Told } from './likelihoods'

/** Signs that a starting value is worth. Starting value. */
const WORTH = 6
/** No sign shows always. */
const MOST = 0.98

/** How often each cause was found behind each sign, and at all: `cause` and `cause sign`. */
export type SignCounts = Readonly<Record<string, number>>

/** A sign with its side told apart. */
export const toldBy = (sign: Sign, toward: 'left' | 'right' | null): Told | null =>
  sign !== 'pulls' ? sign : toward === null ? null : toward === 'left' ? 'pullsLeft' : 'pullsRight'

/** Every sign that can be told. */
const ALL_TOLD: readonly Told[] = SIGNS.flatMap((sign): readonly Told[] =>
  sign === 'pulls' ? ['pullsLeft', 'pullsRight'] : [sign],
)

/**
 * Counts what was found behind signs.
 *
 * @example
 * countSigns([{ signs: ['dust'], toward: null, cause: 'dull' }]) // { dull: 1, 'dull dust': 1 }
 */
export function countSigns(traced: readonly TracedSign[]): SignCounts {
  const counts: Record<string, number> = {}
  const count = (key: string): void => {
    counts[key] = (counts[key] ?? 0) + 1
  }
  for (const { signs, toward, cause } of traced) {
    for (const sign of signs) {
      const told = toldBy(sign, toward)
      if (told === null) continue
      count(cause)
      count(`${cause} ${told}`)
    }
  }
  return counts
}

/** What all signs of a cause come to at first, so that counts are set against shares. */
const total = (cause: Cause, ripping: boolean): number =>
  ALL_TOLD.reduce((sum, told) => sum + startsWith(told, cause, ripping), 0)

/**
 * Chance that a cause shows itself by a sign, as the crew's own findings have moved it: how often the sign was told
 * where that cause was found, against how often the starting values say it would be, drawn toward them while there
 * are few (a gamma prior on the rate).
 *
 * @example
 * showsBy('dust', 'dull', {}, false) // 0.75
 */
export function showsBy(told: Told, cause: Cause, counts: SignCounts, ripping: boolean): number {
  const starts = startsWith(told, cause, ripping)
  const found = counts[cause] ?? 0
  if (found === 0) return starts
  const seen = counts[`${cause} ${told}`] ?? 0
  const all = total(cause, ripping)
  // Where nobody ever expected it, the first findings open the way.
  if (starts === 0) return Math.min(MOST, (seen / (found + WORTH)) * Math.min(1, all))
  const expected = all === 0 ? 0 : (found * starts) / all
  return Math.min(MOST, (starts * (seen + WORTH)) / (expected + WORTH))
}

/** What a crew has found behind one cause's sign. */
interface LearnedShow {
  readonly cause: Cause
  /** Times that the cause was behind this sign. */
  readonly seen: number
  /** Chance that the cause shows so: the starting value, and as the findings have moved it. */
  readonly starts: number
  readonly now: number
}

/** One sign with everything that was found behind it, the most often first. */
export interface LearnedSign {
  readonly told: Told
  readonly found: number
  readonly shows: readonly LearnedShow[]
}

/**
 * What a crew has found behind each sign so far, the sign that was traced most often first; empty where nothing was.
 *
 * @example
 * learnedSigns(countSigns([{ signs: ['dust'], toward: null, cause: 'dull' }]))[0]?.shows[0]?.seen // 1
 */
export function learnedSigns(counts: SignCounts): LearnedSign[] {
  return ALL_TOLD.map((told): LearnedSign => {
    const shows = CAUSES.map((cause) => ({
      cause,
      seen: counts[`${cause} ${told}`] ?? 0,
      starts: startsWith(told, cause, false),
      now: showsBy(told, cause, counts, false),
    })).filter(({ seen }) => seen > 0)
    shows.sort((a, b) => b.seen - a.seen)
    return { told, found: shows.reduce((sum, { seen }) => sum + seen, 0), shows }
  })
    .filter(({ found }) => found > 0)
    .sort((a, b) => b.found - a.found)
}
