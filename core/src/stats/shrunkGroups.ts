import { updateNormalMean } from './normalMean'

/** One observation that belongs to a group. */
export interface Observation<K extends string = string> {
  readonly group: K
  readonly value: number
  /** How many single observations it is the mean of. */
  readonly weight: number
}

/** What is believed of the mean of one group. */
export interface GroupBelief<K extends string = string> {
  readonly group: K
  readonly mean: number
  readonly sd: number
  /** 95 % interval. */
  readonly low: number
  readonly high: number
  /** Single observations that its own figures are worth; need not be whole. */
  readonly own: number
  /** Part of the belief that rests on the group's own figures rather than on all of them, 0 to 1. */
  readonly weightOfOwn: number
}

const Z95 = 1.959964

/**
 * Means of groups, each drawn toward the mean of all while it has few figures of its own: a
 * conjugate normal update in two steps, the prior to all, and all to each (partial pooling;
 * Gelman et al., Bayesian Data Analysis, chapter 5, from memory).
 *
 * @param prior mean expected of all, and how far groups stray from one another
 * @param within spread of a single observation about its group's mean
 * @returns one belief for each group that was seen, the largest mean first
 * @example
 * shrunkGroups([{ group: 'tobe', value: 260, weight: 4 }], { mean: 200, sd: 60 }, 80)[0]?.mean // 241.5
 */
export function shrunkGroups<K extends string>(
  observations: readonly Observation<K>[],
  prior: { readonly mean: number; readonly sd: number },
  within: number,
): GroupBelief<K>[] {
  // Half of what is unknown beforehand is where all of them lie, half how far one strays from all.
  const between = prior.sd / Math.SQRT2
  const groups = new Map<K, { sum: number; weight: number }>()
  for (const { group, value, weight } of observations) {
    const kept = groups.get(group) ?? { sum: 0, weight: 0 }
    groups.set(group, { sum: kept.sum + value * weight, weight: kept.weight + weight })
  }
  const found: GroupBelief<K>[] = []
  for (const [group, { sum, weight }] of groups) {
    // What the others show is what is expected of this one: no figure counts twice.
    let all = { mean: prior.mean, sd: between }
    for (const [other, kept] of groups) {
      if (other === group) continue
      const spread = Math.sqrt(between ** 2 + within ** 2 / kept.weight)
      all = updateNormalMean(all, kept.sum / kept.weight, 1, spread)
    }
    const expected = { mean: all.mean, sd: Math.hypot(all.sd, between) }
    const { mean, sd } = updateNormalMean(expected, sum / weight, weight, within)
    found.push({
      group,
      mean,
      sd,
      low: mean - Z95 * sd,
      high: mean + Z95 * sd,
      own: weight,
      weightOfOwn: 1 - sd ** 2 / expected.sd ** 2,
    })
  }
  return found.sort((a, b) => b.mean - a.mean)
}
