/** Arithmetic mean; NaN for none. `mean([1, 2, 3]) // 2` */
export function mean(values: readonly number[]): number {
  let sum = 0
  for (const value of values) sum += value
  return sum / values.length
}

/** Sample variance (divided by n − 1); NaN for fewer than two. `sampleVariance([1, 2, 3]) // 1` */
export function sampleVariance(values: readonly number[]): number {
  if (values.length < 2) return NaN
  const centre = mean(values)
  let sum = 0
  for (const value of values) sum += (value - centre) ** 2
  return sum / (values.length - 1)
}

/** Middle value, or the mean of the two middle ones; NaN for none. `median([3, 1, 2]) // 2` */
export function median(values: readonly number[]): number {
  const sorted = Float64Array.from(values).sort()
  const half = sorted.length >> 1
  const upper = sorted[half] ?? NaN
  return sorted.length % 2 === 1 ? upper : ((sorted[half - 1] ?? NaN) + upper) / 2
}
