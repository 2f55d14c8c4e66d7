/** A cause that may be there, and what it shows when it is. */
export interface Fault {
  /** Weight of its being there, and of its not being there; a prior times the likelihood of every look at it. */
  readonly there: number
  readonly absent: number
  /** Chance that it brings about each sign that was noticed, in their order; below 1. */
  readonly shows: readonly number[]
}

/** How likely the signs are, and each cause with them. */
export interface Posterior {
  /** Likelihood of everything that was noticed and looked at. */
  readonly evidence: number
  /** Chance of each cause, in their order. */
  readonly chances: readonly number[]
}

/**
 * Exact chances of independent causes behind signs that any of them may bring about (a noisy-or network of two
 * layers), by summing over the subsets of the signs: Heckerman, *A tractable inference algorithm for diagnosing
 * multiple diseases* (1989), from memory. Its cost doubles with every sign and is a line in the number of causes.
 *
 * @param leaks chance of each sign without any of the causes
 * @example
 * noisyOr([{ there: 0.5, absent: 0.5, shows: [0.8] }], [0.2]).chances[0] // 0.808: 0.42 of 0.52
 */
export function noisyOr(faults: readonly Fault[], leaks: readonly number[]): Posterior {
  let evidence = 0
  const sums = new Float64Array(faults.length)
  const stays = new Float64Array(faults.length)
  for (let subset = 0; subset < 2 ** leaks.length; subset += 1) {
    let term = 1
    for (let sign = 0; sign < leaks.length; sign += 1) if (subset & (1 << sign)) term *= (leaks[sign] ?? 0) - 1
    for (let i = 0; i < faults.length; i += 1) {
      const { there, absent, shows } = faults[i] as Fault
      let hidden = there
      for (let sign = 0; sign < leaks.length; sign += 1) if (subset & (1 << sign)) hidden *= 1 - (shows[sign] ?? 0)
      stays[i] = hidden === 0 ? 0 : hidden / (hidden + absent)
      term *= hidden + absent
    }
    evidence += term
    for (let i = 0; i < faults.length; i += 1) sums[i] = (sums[i] ?? 0) + term * (stays[i] ?? 0)
  }
  const chances = [...sums].map((sum) => Math.min(1, Math.max(0, sum / evidence)))
  return { evidence: Math.max(0, evidence), chances }
}
