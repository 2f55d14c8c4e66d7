import { sideDifference } from '../belief'
import { CUTTER_DAMAGE, damageDepth, type CutterDamage } from '../damage'
import { HANDS, type Hand } from '../loop'
import type { HouseRules, UnevenSchool } from '../house'
import {
  BEHIND_DAMAGE_UM,
  EXTRA_STROKES,
  filingRemovals,
  removals,
  soundUm,
  strokesFor,
  UM_PER_GRIND_TOUCH,
  withShape,
} from '../sharpen'
import type { Known, LoopState } from '../state'
import type { Um } from '../units'
import type { SideBites } from './bites'

/**
 * Strokes that come nearest to what is to come off: always one more would take more metal each time. Damage is
 * worked through to its end.
 *
 * @example
 * strokesNear(105, 20, false) // 5
 */
export const strokesNear = (removeUm: Um, strokeUm: number, throughDamage: boolean): number =>
  strokesFor(throughDamage ? removeUm : Math.max(1, removeUm - strokeUm / 2), strokeUm)

/** What one cutter gets. */
export interface CutterJob {
  /** Counted from the start mark, from 1. */
  readonly number: number
  readonly hand: Hand
  readonly lengthUm: Um
  readonly lengthSdUm: number
  readonly known: Known
  /** What is to come off it, what its damage adds to that, and the length that it ends at. */
  readonly removeUm: Um
  readonly damageUm: Um
  /** What is known to be wrong with it. */
  readonly damage: readonly CutterDamage[]
  readonly targetUm: Um
  /** Strokes or touches that this is expected to take. */
  readonly count: number
  /** It is worked until it is clean: the count is an expectation, and no more. */
  readonly untilClean: boolean
  /** Nobody has measured how deep its damage reaches: what is to come off is the least that it may be. */
  readonly depthUnknown: boolean
}

/** What one side gets. */
export interface SideJob {
  readonly hand: Hand
  /** Strokes or touches for a sound cutter of it. */
  readonly count: number
  readonly cutters: readonly CutterJob[]
}

const countOf = (hand: Hand, hands: readonly { readonly hand: Hand }[]): number =>
  hands.filter((one) => one.hand === hand).length

/**
 * What more, or less, comes off each side so that both come out alike, where all cutters get the same: a stroke or
 * two a time. Cutters that are matched end at one length already, and by the other schools evenness is left to the
 * grinder.
 */
function eveningUm(state: LoopState, school: UnevenSchool, bites: SideBites): Record<Hand, Um> {
  const more = { left: 0, right: 0 }
  const known = school === 'sameStrokes' ? sideDifference(state.lengths) : null
  // What is not known to be so is not filed after: it would be a stroke for nothing.
  if (known === null || Math.abs(known.mean) < 2 * Math.sqrt(known.variance)) return more
  const [longer, shorter]: readonly [Hand, Hand] = known.mean > 0 ? ['left', 'right'] : ['right', 'left']
  // Half of it more on the one and half of it less on the other: evening out takes no more metal than it has to.
  const half = Math.min(Math.abs(known.mean), EXTRA_STROKES * bites[longer]) / 2
  more[longer] = half
  more[shorter] = -half
  return more
}

/** What a file takes off each cutter: by the school, and so that both sides come out alike, and cut alike. */
function filed(state: LoopState, { usualUm, school, bites, behind }: Cutting): Um[] {
  const { cutters } = state
  const off = filingRemovals(cutters, usualUm, school)
  const more = eveningUm(state, school, bites)
  if (behind !== null) more[behind] = Math.max(more[behind], EXTRA_STROKES * bites[behind])
  return off.map((um, i) => {
    const { hand = 'left', length: { um: lengthUm } = { um: 0 } } = cutters[i] ?? {}
    // Every cutter is touched, or it stays dull.
    return Math.min(lengthUm, Math.max(Math.round(um / 2), Math.round(um + more[hand])))
  })
}

/**
 * What comes off the side that waits, so that it follows the one that was done before: to where that one stands, or
 * by its own strokes and a few more.
 */
function following(state: LoopState, waiting: Hand, { toStop, usualUm, school, bites }: Cutting): Um[] {
  const { cutters } = state
  const done = cutters.filter(({ hand }) => hand !== waiting).map(({ length }) => length.um)
  const doneUm = Math.round(done.reduce((sum, um) => sum + um, 0) / Math.max(1, done.length))
  const ours = cutters.filter(({ hand }) => hand === waiting)
  // Each is touched, or it stays dull.
  const levelUm = Math.min(doneUm, ...ours.map((cutter) => cutter.length.um - soundUm(cutter, usualUm / 2)))
  const levels = toStop || school === 'matchShortest'
  return cutters.map((cutter) => {
    if (cutter.hand !== waiting) return 0
    const { um } = cutter.length
    const beyondUm = Math.min(um - doneUm, usualUm + EXTRA_STROKES * bites[waiting])
    return Math.round(levels ? um - levelUm : Math.min(um, Math.max(soundUm(cutter, usualUm), beyondUm)))
  })
}

/** The least that has to come off where nobody measured how deep it is hurt, with sound steel behind it; 0 for none. */
const leastUnknown = (damage: readonly CutterDamage[]): Um =>
  damage.reduce((most, { kind, depthUm }) => {
    const least = depthUm === null ? CUTTER_DAMAGE[kind].boundsUm?.[0] : undefined
    return least === undefined ? most : Math.max(most, least + BEHIND_DAMAGE_UM)
  }, 0)

/** What comes off each cutter. */
function offEach(state: LoopState, cutting: Cutting): Um[] {
  const { toStop, usualUm } = cutting
  if (state.waitingSide !== null) return following(state, state.waitingSide, cutting)
  return toStop ? removals(state.cutters.map(withShape), 'wheel', usualUm, true) : filed(state, cutting)
}

/** How the metal comes off. */
export interface Cutting {
  readonly gives: 'strokes' | 'touches'
  /** Whether a stop ends every cutter at one length. */
  readonly toStop: boolean
  /** What a sharpening of this kind takes off a sound cutter. */
  readonly usualUm: Um
  readonly school: UnevenSchool
  readonly bites: SideBites
  /** The side that is behind by what the saw tells, and gets a couple of strokes more; null for none. */
  readonly behind: Hand | null
}

/** What every cutter of a loop gets, side by side, the left first. */
export function sideJobs(state: LoopState, cutting: Cutting): SideJob[] {
  const { gives, toStop, usualUm, school, bites } = cutting
  const { cutters } = state
  const offUm = offEach(state, cutting)
  const countFor = (um: Um, hand: Hand, hurt: boolean): number =>
    gives === 'touches' ? Math.max(1, Math.ceil(um / UM_PER_GRIND_TOUCH)) : strokesNear(um, bites[hand], hurt)
  const jobs = cutters.map((cutter, i): CutterJob => {
    const { number, hand, length } = cutter
    // Of the side that was done already nothing comes off, and its damage waits for another day.
    const damage = state.waitingSide === null || state.waitingSide === hand ? cutter.damage : []
    const leastUm = leastUnknown(damage)
    const removeUm = toStop || leastUm === 0 ? (offUm[i] ?? 0) : Math.min(length.um, Math.max(offUm[i] ?? 0, leastUm))
    const damageUm = damage.length === 0 ? 0 : Math.max(0, Math.max(soundUm(cutter, usualUm), leastUm) - usualUm)
    const { knownUm, unknown } = damageDepth(damage)
    // Depth that nobody measured is no depth: by whatever school, it is filed until it is clean.
    const deep = (knownUm > usualUm && school !== 'sameStrokes') || unknown
    return {
      number,
      hand,
      lengthUm: length.um,
      lengthSdUm: length.sdUm,
      known: length.known,
      removeUm,
      damageUm,
      damage: cutter.damage,
      targetUm: length.um - removeUm,
      count: countFor(removeUm, hand, damageUm > 0),
      untilClean: deep && !toStop,
      depthUnknown: unknown,
    }
  })
  return HANDS.filter((hand) => countOf(hand, cutters) > 0).map((hand) => {
    const ours = jobs.filter((job) => job.hand === hand)
    const sound = ours.filter(({ damageUm }) => damageUm === 0)
    const counts = (sound.length > 0 ? sound : ours).map(({ count }) => count).sort((a, b) => a - b)
    return { hand, count: counts[Math.floor(counts.length / 2)] ?? 0, cutters: ours }
  })
}

/** Bites of the sides nearer together than this part of them make no side the weaker one. Starting value. */
const AS_GOOD = 0.04

/**
 * The side to begin with: the weaker one while the hand is fresh, else the one with the longer cutters, else the left.
 */
export function firstSide(state: Pick<LoopState, 'lengths'>, bites: SideBites): Hand {
  const { left, right } = bites
  if (Math.abs(left - right) > AS_GOOD * (left + right)) return left < right ? 'left' : 'right'
  const known = sideDifference(state.lengths)
  return known !== null && known.mean < -2 * Math.sqrt(known.variance) ? 'right' : 'left'
}

/** The cutter that needs most: a wheel's stop is set on it. Undefined for none. */
export const worstJob = (jobs: readonly CutterJob[]): CutterJob | undefined =>
  jobs.reduce<CutterJob | undefined>(
    (worst, job) =>
      worst === undefined || job.lengthUm - job.damageUm < worst.lengthUm - worst.damageUm ? job : worst,
    undefined,
  )

/** Whether what a job leaves is above the mark by what the house keeps. */
export const staysAbove = (
  { targetUm }: Pick<CutterJob, 'targetUm'>,
  markLengthUm: Um,
  { reserveUm }: Pick<HouseRules, 'reserveUm'>,
): boolean => targetUm >= markLengthUm + reserveUm
