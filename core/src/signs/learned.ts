import { SIGNS, type Cause, type Sign } from '../log'
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
