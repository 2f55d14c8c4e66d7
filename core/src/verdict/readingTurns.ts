import { lengthOf, sideDifference } from '../belief'
import type { HouseRules } from '../house'
import type { Action } from '../log'
import { HANDS, type Hand } from '../loop'
import { READING_SD_UM } from '../measure'
import type { LoopState } from '../state'
import type { Um } from '../units'
import { advise, type Advice } from './decide'
import { learnedOf } from '../jobs/learned'
import { sideBalance } from './sides'
import { readAt } from './supposed'
import type { Verdict } from './verdict'

/** A reading that nobody has taken yet, and what it may turn a verdict to. */
export type ReadingTurn =
  /** If so many estimated cutters were measured. */
  | { readonly by: 'measuring'; readonly cutters: number; readonly turnsTo: readonly Action[] }
  /** If so many more cutters of each side were measured. */
  | {
      readonly by: 'sides'
      readonly readings: Readonly<Record<Hand, number>>
      readonly turnsTo: readonly Action[]
    }
  /** If this one cutter were measured: the reading that is worth most. */
  | {
      readonly by: 'reading'
      readonly cutter: number
      readonly hand: Hand
      /** Chance that it changes what is advised, 0 to 1. */
      readonly chance: number
      readonly turnsTo: readonly Action[]
      /** What it saves in expectation for an hour of sharp running, in minor units. */
      readonly savesMinor: number
    }

/** Deviations that are tried either way: about seven in eight true values lie within them. Starting value. */
const TRIED = 1.5

/** What else may be advised, tried at either end. */
function turnedTo(advised: Action, tried: readonly Action[]): Action[] {
  const found = new Set(tried)
  found.delete(advised)
  return [...found]
}

const estimated = ({ cutters }: LoopState): number[] =>
  cutters.flatMap(({ length }, i) => (length.known === 'measured' ? [] : [i]))

/** What would be read of a cutter that lies so many deviations off what is known of it. */
function readingAt({ lengths }: LoopState, place: number, deviations: number): Um {
  const { mean, variance } = lengthOf(lengths, place)
  return Math.max(0, Math.round(mean + deviations * Math.sqrt(variance)))
}

function ofMeasuring(state: LoopState, rules: HouseRules, { advised }: Verdict): ReadingTurn[] {
  const cutters = estimated(state)
  if (cutters.length === 0) return []
  const tried = [-TRIED, TRIED].map((deviations) => {
    const read = new Map(cutters.map((place) => [place, readingAt(state, place, deviations)]))
    return advise(readAt(state, read), rules).advised
  })
  const turnsTo = turnedTo(advised, tried)
  return turnsTo.length === 0 ? [] : [{ by: 'measuring', cutters: cutters.length, turnsTo }]
}

/** The loop as it would be if so many more cutters of each side were read, and the sides differed by so much more. */
function sidesReadAt(state: LoopState, readings: Readonly<Record<Hand, number>>, shiftUm: number): LoopState {
  const read = new Map<number, Um>()
  for (const hand of HANDS) {
    const known = (i: number): number => lengthOf(state.lengths, i).variance
    const vaguest = state.cutters
      .flatMap((cutter, i) => (cutter.hand === hand ? [i] : []))
      .sort((a, b) => known(b) - known(a))
    const by = (hand === 'left' ? 0.5 : -0.5) * shiftUm
    for (const i of vaguest.slice(0, readings[hand])) read.set(i, Math.round(lengthOf(state.lengths, i).mean + by))
  }
  return readAt(state, read)
}

/** Readings a side that are tried where those that would most likely settle it cannot turn anything. */
const MORE_A_SIDE = [4, 8] as const

function ofSides(state: LoopState, rules: HouseRules, { advised }: Verdict): ReadingTurn[] {
  const { readingsNeeded, beyond, within } = sideBalance(state, rules, learnedOf(state))
  const known = sideDifference(state.lengths)
  if (readingsNeeded === null || known === null || beyond || within) return []
  const reach = TRIED * Math.sqrt(known.variance)
  for (const readings of [readingsNeeded, ...MORE_A_SIDE.map((n) => ({ left: n, right: n }))]) {
    const tried = [-reach, reach].map((shift) => advise(sidesReadAt(state, readings, shift), rules).advised)
    const turnsTo = turnedTo(advised, tried)
    if (turnsTo.length > 0) return [{ by: 'sides', readings, turnsTo }]
  }
  return []
}

/** Three readings that stand for all that may be read, in deviations, and the chance of each (Gauss and Hermite). */
const MAY_BE_READ = [
  [-Math.sqrt(3), 1 / 6],
  [0, 2 / 3],
  [Math.sqrt(3), 1 / 6],
] as const

const rateOf = ({ options }: Advice, action: Action): number | null =>
  options.find((option) => option.action === action)?.perHourMinor?.likely ?? null

/** What a reading of one cutter is worth. */
function worthOf(state: LoopState, rules: HouseRules, { advised }: Verdict, place: number) {
  const { mean, variance } = lengthOf(state.lengths, place)
  const spread = Math.sqrt(variance + READING_SD_UM ** 2)
  let [chance, savesMinor] = [0, 0]
  const turnsTo = new Set<Action>()
  for (const [deviations, weight] of MAY_BE_READ) {
    const um = Math.max(0, Math.round(mean + deviations * spread))
    const then = advise(readAt(state, new Map([[place, um]])), rules)
    if (then.advised === advised) continue
    chance += weight
    turnsTo.add(then.advised)
    const [stays, turns] = [rateOf(then, advised), rateOf(then, then.advised)]
    if (stays !== null && turns !== null) savesMinor += weight * Math.max(0, stays - turns)
  }
  return { chance, savesMinor: Math.round(savesMinor), turnsTo: [...turnsTo] }
}

/** Cutters whose reading may tell most: the one that decides, and of each side the one that is known least. */
function worthReading(state: LoopState): number[] {
  const places = new Set([learnedOf(state).summary.worst.number - 1])
  for (const hand of HANDS) {
    let [vaguest, most] = [-1, -1]
    for (const [i, { hand: its, length }] of state.cutters.entries())
      if (its === hand && length.sdUm > most) [vaguest, most] = [i, length.sdUm]
    if (vaguest >= 0) places.add(vaguest)
  }
  return [...places].filter((place) => state.cutters[place]?.length.known !== 'measured')
}

/** The one further reading that is likeliest to change what is advised, and of those the one that saves most. */
function ofOneReading(state: LoopState, rules: HouseRules, verdict: Verdict): ReadingTurn[] {
  let best: (ReadingTurn & { by: 'reading' }) | null = null
  for (const place of worthReading(state)) {
    const cutter = state.cutters[place]
    if (cutter === undefined) continue
    const worth = worthOf(state, rules, verdict, place)
    if (worth.chance <= (best?.chance ?? 0)) continue
    best = { by: 'reading', cutter: cutter.number, hand: cutter.hand, ...worth }
  }
  return best === null ? [] : [best]
}

/** Readings that nobody has taken yet, and what they may turn a verdict to: each tried out on the loop. */
export const readingTurns = (state: LoopState, rules: HouseRules, verdict: Verdict): ReadingTurn[] => [
  ...ofMeasuring(state, rules, verdict),
  ...ofSides(state, rules, verdict),
  ...ofOneReading(state, rules, verdict),
]
