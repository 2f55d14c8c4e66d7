// eslint-disable-next-line @typescript-eslint/triple-slash-reference -- a declaration cannot be imported
/// <reference path="./jstat.d.ts" />
import jstat from 'jstat'

/** How long something lasted; when it was still going when last seen, it is censored. */
export interface Spell {
  readonly time: number
  /** Whether it ended then; otherwise it was still going. */
  readonly ended: boolean
}

/** One step of a survival curve. */
export interface SurvivalStep {
  readonly time: number
  readonly atRisk: number
  readonly ended: number
  /** Part that lasts beyond this time, 0 to 1. */
  readonly survival: number
  /** 95 % interval, by the log-log transform. */
  readonly low: number
  readonly high: number
}

const Z95 = 1.959964

/** Greenwood's interval on the scale of log(−log S), which keeps it within 0 and 1. */
function interval(survival: number, greenwood: number): readonly [number, number] {
  if (survival >= 1) return [1, 1]
  const half = (Z95 * Math.sqrt(greenwood)) / Math.abs(Math.log(survival))
  return [survival ** Math.exp(half), survival ** Math.exp(-half)]
}

/**
 * The product-limit estimate of survival from right-censored spells (Kaplan & Meier, JASA 53, 1958;
 * interval by Greenwood's variance and the log-log transform; both from memory).
 *
 * @returns a step at each time at which something ended, in order; none when nothing ended
 * @throws RangeError for a time below nothing
 * @example
 * kaplanMeier([{ time: 6, ended: true }, { time: 9, ended: false }])[0]?.survival // 0.5
 */
export function kaplanMeier(spells: readonly Spell[]): SurvivalStep[] {
  const sorted = [...spells].sort((a, b) => a.time - b.time)
  const [first] = sorted
  if (first !== undefined && first.time < 0) throw new RangeError('nothing lasts less than no time')
  const steps: SurvivalStep[] = []
  let survival = 1
  let greenwood = 0
  for (let i = 0; i < sorted.length;) {
    const time = sorted[i]?.time ?? 0
    const atRisk = sorted.length - i
    let ended = 0
    while (sorted[i]?.time === time) {
      if (sorted[i]?.ended === true) ended += 1
      i += 1
    }
    if (ended === 0) continue
    survival *= 1 - ended / atRisk
    greenwood += atRisk === ended ? 0 : ended / (atRisk * (atRisk - ended))
    const [low, high] = interval(survival, greenwood)
    steps.push({ time, atRisk, ended, survival, low, high })
  }
  return steps
}

/** Part that lasts beyond a time. `survivalAt([{ time: 6, survival: 0.5 }], 10) // 0.5` */
export function survivalAt(steps: readonly SurvivalStep[], time: number): number {
  let survival = 1
  for (const step of steps) if (step.time <= time) survival = step.survival
  return survival
}

/** Time at which half are over; null while more than half last beyond everything that was seen. */
export const medianSurvival = (steps: readonly SurvivalStep[]): number | null =>
  steps.find(({ survival }) => survival <= 0.5)?.time ?? null

/** What is believed of a mean lifetime. */
export interface LifetimeBelief {
  readonly mean: number
  /** 95 % interval. */
  readonly low: number
  readonly high: number
  /** Ends seen. */
  readonly ended: number
}

/**
 * Mean lifetime from right-censored spells with a constant hazard: the hazard is Gamma-distributed,
 * conjugate to exponential lifetimes (Gelman et al., Bayesian Data Analysis, section 2.6, from
 * memory). Censored time counts as time without an end, so that sharpening early is not taken for
 * dulling early.
 *
 * @param prior mean lifetime expected, and how many ends that expectation is worth
 * @example
 * learnLifetime([], { mean: 4, worth: 3 }).mean // 4
 */
export function learnLifetime(
  spells: readonly Spell[],
  prior: { readonly mean: number; readonly worth: number },
): LifetimeBelief {
  let ended = 0
  let total = 0
  for (const spell of spells) {
    total += spell.time
    if (spell.ended) ended += 1
  }
  const shape = prior.worth + ended
  const exposure = prior.mean * prior.worth + total
  const { gamma } = jstat.jStat
  return {
    mean: exposure / shape,
    low: exposure / gamma.inv(0.975, shape, 1),
    high: exposure / gamma.inv(0.025, shape, 1),
    ended,
  }
}
