// eslint-disable-next-line @typescript-eslint/triple-slash-reference -- a declaration cannot be imported
/// <reference path="./jstat.d.ts" />
import jstat from 'jstat'

/**
 * Chance that a normal figure is at most so many deviations above its mean.
 *
 * @example
 * normalBelow(0) // 0.5
 * normalBelow(-1.959964) // 0.025
 */
export const normalBelow = (deviations: number): number =>
  deviations > 8 ? 1 : deviations < -8 ? 0 : jstat.jStat.normal.cdf(deviations, 0, 1)

/**
 * Deviations from the mean below which a normal figure lies with a chance.
 *
 * @param chance above 0 and below 1
 * @example
 * normalQuantile(0.975) // 1.96
 */
export const normalQuantile = (chance: number): number => jstat.jStat.normal.inv(chance, 0, 1)
