/** What is believed of a mean: a normal distribution. */
export interface NormalBelief {
  readonly mean: number
  /** Standard deviation of the belief about the mean. */
  readonly sd: number
}

/**
 * Conjugate normal update of a mean with a known spread between single observations
 * (Gelman et al., Bayesian Data Analysis, section 2.5, from memory): the posterior precision is
 * the sum of the prior's and the data's, the mean is weighted by them.
 *
 * @param sampleMean mean of `n` observations
 * @param spread standard deviation of one observation about the mean
 * @example
 * updateNormalMean({ mean: 200, sd: 60 }, 260, 4, 80).mean // 241.5, with sd 33.3
 */
export function updateNormalMean(prior: NormalBelief, sampleMean: number, n: number, spread: number): NormalBelief {
  // What is known exactly stays as it is known.
  if (n <= 0 || prior.sd === 0) return prior
  const priorPrecision = 1 / prior.sd ** 2
  const dataPrecision = n / spread ** 2
  const precision = priorPrecision + dataPrecision
  return {
    mean: (prior.mean * priorPrecision + sampleMean * dataPrecision) / precision,
    sd: Math.sqrt(1 / precision),
  }
}
