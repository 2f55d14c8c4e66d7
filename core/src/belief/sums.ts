import { addLoad, addShared, covOf, noTies, readFigure, setFigure, type Normal } from './tied'

/** A sum of figures that was seen: its value, how far that may be off, and how much of each figure is in it. */
export interface Sum extends Normal {
  /** Place of a figure, and how much of it. */
  readonly of: readonly (readonly [place: number, part: number])[]
}

/**
 * What is known of figures that hang together with nothing, once sums of them were seen.
 *
 * @param figures what was known of each before
 * @example
 * afterSums([{ mean: 0, variance: 1 }], [{ mean: 2, variance: 1, of: [[0, 1]] }]) // [{ mean: 1, variance: 0.5 }]
 */
export function afterSums(figures: readonly Normal[], sums: readonly Sum[]): Normal[] {
  const tied = noTies(1, figures.length)
  for (const figure of figures) addShared(tied, figure, () => 0)
  for (const { mean, variance, of } of sums) {
    setFigure(tied, 0, { mean: 0, variance: 0 })
    for (const [place, part] of of) addLoad(tied, 0, place, part)
    readFigure(tied, 0, mean, variance)
  }
  return figures.map((_, place) => ({ mean: tied.shared[place] ?? 0, variance: covOf(tied, place, place) }))
}
