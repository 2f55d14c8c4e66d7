import { fileFactor, restedUm, UM_PER_STROKE } from '../belief'
import type { RemovalSample, SideRemoval } from '../state'
import { updateNormalMean } from '../stats'
import { REMOVAL_PRIORS } from './removal'

/** How far people's strokes differ, and one sharpening's from its person's, as parts of the usual. Starting values. */
const PEOPLE = { between: 0.15, within: 0.2 } as const

/** What a person's file takes off a loop, against what the files of all who sharpen it do. */
export interface PersonBite {
  /** So many times as much. */
  readonly factor: number
  /** How far that may be off. */
  readonly sd: number
}

/** What everybody's takes: nothing is known of who it was, or nobody else ever sharpened it. */
export const USUAL_BITE: PersonBite = { factor: 1, sd: 0 }

/** What came off, as a part of what is usual for so many strokes, or where nobody counted; and how much that tells. */
function seenOf(sample: RemovalSample, { um, sdUm, strokes }: SideRemoval) {
  const [usualUm, offUm] =
    strokes === undefined
      ? [REMOVAL_PRIORS[sample.population].meanUm, um]
      : [strokes * fileFactor(sample) * UM_PER_STROKE, restedUm(um)]
  const { within } = PEOPLE
  return { part: offUm / usualUm, weight: within ** 2 / (within ** 2 / sample.sharpenings + (sdUm / usualUm) ** 2) }
}

/**
 * Whether somebody's file takes more off a loop than the others' do, or less, as far as readings have shown:
 * shrunk toward the others while little is known. What all of them take is learned of the loop itself, so
 * that who sharpens it alone differs from nobody.
 *
 * @param samples what sharpenings of the loop took off
 * @param known what is known of them by other loops; they are as anybody where nothing is
 * @example
 * personBite([], 'anna') // { factor: 1, sd: 0 }
 */
export function personBite(samples: readonly RemovalSample[], personId: string | null, known?: PersonBite): PersonBite {
  let [mine, myWeight, all, weights] = [0, 0, 0, 0]
  for (const sample of samples) {
    if (sample.personId == null || sample.population === 'grind') continue
    for (const side of Object.values(sample.sides ?? {})) {
      // A side without strokes tells nothing.
      if (side.strokes === 0) continue
      const { part, weight } = seenOf(sample, side)
      // The same hand did both sides.
      all += (weight * part) / 2
      weights += weight / 2
      if (sample.personId !== personId) continue
      mine += (weight * part) / 2
      myWeight += weight / 2
    }
  }
  if (personId === null || weights === myWeight) return known ?? USUAL_BITE
  const { between, within } = PEOPLE
  const before = known === undefined ? { mean: 1, sd: between } : { mean: known.factor, sd: known.sd }
  const against = myWeight === 0 ? 1 : mine / myWeight / (all / weights)
  const { mean, sd } = updateNormalMean(before, against, myWeight, within)
  // The more of it was theirs, the more is what the loop has shown what they do.
  return { factor: mean, sd: sd * (1 - myWeight / weights) }
}
