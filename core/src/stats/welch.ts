// eslint-disable-next-line @typescript-eslint/triple-slash-reference -- a declaration cannot be imported
/// <reference path="./jstat.d.ts" />
import jstat from 'jstat'
import { mean, sampleVariance } from './mean'

/** The difference of two means without assuming equal variances. */
export interface WelchDifference {
  /** Mean of the first sample less mean of the second, in the samples' unit. */
  readonly difference: number
  readonly standardError: number
  readonly t: number
  /** Degrees of freedom by the Welch–Satterthwaite equation. */
  readonly df: number
  /** Two-sided p of no difference. */
  readonly p: number
  /** Confidence interval of the difference. */
  readonly low: number
  readonly high: number
}

/**
 * Welch's unequal-variances t interval for the difference of two means
 * (B. L. Welch, Biometrika 34, 1947, from memory).
 *
 * @param confidence of the interval, 0.95 unless told otherwise
 * @returns null when a sample has fewer than two values or neither varies at all
 * @example
 * welch(drugOne, drugTwo)?.t // -1.8608 on Student's sleep data
 */
export function welch(first: readonly number[], second: readonly number[], confidence = 0.95): WelchDifference | null {
  const a = sampleVariance(first) / first.length
  const b = sampleVariance(second) / second.length
  // Fewer than two readings have no variance, which is no number.
  if (!(a + b > 0)) return null
  const difference = mean(first) - mean(second)
  const standardError = Math.sqrt(a + b)
  const df = (a + b) ** 2 / (a ** 2 / (first.length - 1) + b ** 2 / (second.length - 1))
  const t = difference / standardError
  const { studentt } = jstat.jStat
  const half = studentt.inv(1 - (1 - confidence) / 2, df) * standardError
  return {
    difference,
    standardError,
    t,
    df,
    p: 2 * studentt.cdf(-Math.abs(t), df),
    low: difference - half,
    high: difference + half,
  }
}
