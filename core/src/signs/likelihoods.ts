import type { Cause, Look, Sign } from '../log'

/** What a saw tells, with the side that it pulls to told apart. */
export type Told = Exclude<Sign, 'pulls'> | 'pullsLeft' | 'pullsRight'

/** Chance that a cause shows itself by a sign. Starting values, from what crews say; common practice. */
const SHOWS: Readonly<Record<Exclude<Told, 'pullsLeft' | 'pullsRight'>, Partial<Record<Cause, number>>>> = {
  dust: {
    dull: 0.75,
    gaugesHigh: 0.75,
    struck: 0.4,
    backSlope: 0.35,
    blued: 0.3,
    dirt: 0.25,
    leftSharper: 0.15,
    rightSharper: 0.15,
    wood: 0.85,
    grain: 0.97,
  },
  smallerShavings: { gaugesHigh: 0.85, backSlope: 0.15, dull: 0.06 },
  push: {
    dull: 0.85,
    gaugesHigh: 0.75,
    struck: 0.5,
    tooTight: 0.5,
    backSlope: 0.5,
    wood: 0.4,
    grain: 0.2,
    noOil: 0.2,
    blued: 0.3,
  },
  snatches: { gaugesLow: 0.85, hook: 0.5, greedy: 0.6, gaugesUneven: 0.2, wood: 0.15 },
  chatters: { gaugesUneven: 0.6, anglesDiffer: 0.6, slack: 0.5, groove: 0.5, gaugesLow: 0.3, wood: 0.1 },
  sharpButNoCut: { hook: 0.55, backSlope: 0.7, gaugesHigh: 0.7 },
  dullAtOnce: { blued: 0.8, dirt: 0.6, hook: 0.55, struck: 0.6 },
  hot: { noOil: 0.8, tooTight: 0.6, dull: 0.3, gaugeMismatch: 0.15 },
  sparks: { groove: 0.7, gaugeMismatch: 0.7, bar: 0.2, noOil: 0.15 },
  comesOff: { slack: 0.85, pitchMismatch: 0.6, sprocket: 0.5, tangs: 0.5, groove: 0.3, bar: 0.15 },
  cornerBright: { struck: 0.85, dirt: 0.7, dull: 0.3 },
}

/** The cut goes toward the better side: the longer one, or the sharper. */
const PULLS: Partial<Record<Cause, number>> = { anglesDiffer: 0.4, bar: 0.5, struck: 0.15, gaugesUneven: 0.15 }

/** Ripping chain jumps by one degree. */
const RIPPING_ANGLES = 0.85

/** Chance of a sign where nothing that is named here is behind it. Starting values. */
export const LEAKS: Readonly<Record<Told, number>> = {
  dust: 0.02,
  smallerShavings: 0.01,
  push: 0.03,
  pullsLeft: 0.02,
  pullsRight: 0.02,
  snatches: 0.02,
  chatters: 0.03,
  sharpButNoCut: 0.02,
  dullAtOnce: 0.02,
  hot: 0.02,
  sparks: 0.01,
  comesOff: 0.02,
  cornerBright: 0.02,
}

/** Chance that a cause shows itself by a sign, before anything was learned. */
export function startsWith(told: Told, cause: Cause, ripping: boolean): number {
  if (ripping && told === 'chatters' && cause === 'anglesDiffer') return RIPPING_ANGLES
  if (told !== 'pullsLeft' && told !== 'pullsRight') return SHOWS[told][cause] ?? 0
  const toward = told === 'pullsLeft' ? 'left' : 'right'
  if (cause === `${toward}Longer` || cause === `${toward}Sharper`) return 0.8
  return PULLS[cause] ?? 0
}

/** What a look can show, how surely it does, how seldom it is mistaken, and its minutes. */
export interface LookFacts {
  readonly shows: readonly Cause[]
  /** Chance that what is there is found. */
  readonly finds: number
  /** Chance that what is not there is not found. */
  readonly passes: number
  readonly minutes: number
}

/** What each look tells. Starting values; common practice which look tells what. */
export const LOOK_FACTS: Readonly<Record<Look, LookFacts>> = {
  edge: { shows: ['dull', 'leftSharper', 'rightSharper', 'struck'], finds: 0.92, passes: 0.93, minutes: 1 },
  plate: { shows: ['gaugesHigh', 'gaugesLow', 'gaugesUneven'], finds: 0.97, passes: 0.97, minutes: 1.5 },
  sideView: { shows: ['hook', 'backSlope'], finds: 0.85, passes: 0.9, minutes: 1 },
  colour: { shows: ['blued'], finds: 0.9, passes: 0.97, minutes: 0.5 },
  sides: { shows: ['leftLonger', 'rightLonger'], finds: 0.92, passes: 0.93, minutes: 3 },
  angles: { shows: ['anglesDiffer'], finds: 0.85, passes: 0.92, minutes: 2 },
  turnBar: { shows: ['bar'], finds: 0.9, passes: 0.95, minutes: 4 },
  groove: { shows: ['groove', 'gaugeMismatch'], finds: 0.9, passes: 0.95, minutes: 2 },
  turnByHand: { shows: ['tooTight', 'slack'], finds: 0.95, passes: 0.95, minutes: 0.5 },
  oil: { shows: ['noOil'], finds: 0.95, passes: 0.97, minutes: 0.5 },
  sprocket: { shows: ['sprocket', 'pitchMismatch'], finds: 0.85, passes: 0.95, minutes: 2 },
  tangs: { shows: ['tangs'], finds: 0.9, passes: 0.97, minutes: 2 },
  work: { shows: ['wood', 'grain', 'dirt', 'greedy'], finds: 0.9, passes: 0.92, minutes: 0.25 },
}
