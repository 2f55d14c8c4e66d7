import type { Stint } from '../fold'
import type { Instant } from '../log'
import type { Origin, Sourced } from '../profile'
import type { Um } from '../units'
import type { SawEntry, SawFit } from './sawEntry'

const sourced = <T>(origin: Origin, value: T, note: string): Sourced<T> => ({ value, origin, note })

/** Figures by which bars and sprockets are judged. */
export const SAW_FIGURES = {
  /** Hours that a tank lasts. */
  hoursPerTank: sourced('assumed', 0.75, 'about three quarters of an hour of felling'),
  /** Loops worn out on one sprocket before it is renewed, least and most. */
  loopsPerSprocket: sourced('commonPractice', [2, 3] as const, 'rotate loops on one sprocket'),
  /** Hours after which a bar is flipped even when the loop stays on. */
  flipHours: sourced('assumed', 8, 'about a working day'),
  /** Groove wider than the drive links by this lets them lean. */
  grooveSlackUm: sourced('assumed', 200, 'worn drive links measure a few hundredths under, so this is the groove'),
} as const

/** What has to be done to a saw's bar or sprocket, and why. */
export type SawDue = 'flipAtChange' | 'flipByHours' | 'sprocketSoon' | 'sprocketNow' | 'burrs' | 'grooveWorn'

/** A bar, its nose and a sprocket as they stand. Hours are estimates from tanks. */
export interface SawState {
  readonly fit: SawFit
  readonly bar: {
    readonly since: Instant | null
    readonly flippedAt: Instant | null
    readonly hoursSinceFlip: number
    readonly hours: number
    readonly grooveWidthUm: Um | null
    readonly grooveDepthUm: Um | null
    readonly burrs: boolean
  }
  readonly sprocket: {
    readonly since: Instant | null
    readonly hours: number
    /** Different loops that ran on it. */
    readonly loops: number
    /** How many loops' worth of cutter went while it drove them. */
    readonly loopsWorn: number
  }
  readonly due: readonly SawDue[]
}

/** A stint with the loop whose it is. */
export interface LoopStint extends Stint {
  readonly loopId: string
}

const tenths = (value: number): number => Math.round(value * 10) / 10
const byTime = <T extends { readonly happenedAt: Instant; readonly id: string }>(a: T, b: T): number =>
  a.happenedAt < b.happenedAt ? -1 : a.happenedAt > b.happenedAt ? 1 : a.id < b.id ? -1 : 1

/** Entries of a saw that count, in the order in which they count. */
export function sawEntriesThatCount(entries: readonly SawEntry[]): SawEntry[] {
  const struck = new Set(entries.flatMap((entry) => (entry.kind === 'sawCorrected' ? [entry.strikes] : [])))
  return entries.filter(({ id, kind }) => kind !== 'sawCorrected' && !struck.has(id)).sort(byTime)
}

/**
 * A saw's bar and sprocket: a pure fold of its own log and of the times that loops spent on it.
 *
 * @param first what it took when it was added
 * @param entries its log, in any order
 * @param stints times of any loops on this saw
 * @example
 * sawState(saw, [], []).due // []
 */
export function sawState(first: SawFit, entries: readonly SawEntry[], stints: readonly LoopStint[]): SawState {
  let fit: SawFit = first
  let barSince: Instant | null = null
  let sprocketSince: Instant | null = null
  let flippedAt: Instant | null = null
  let grooveWidthUm: Um | null = null
  let grooveDepthUm: Um | null = null
  let burrs = false
  for (const entry of sawEntriesThatCount(entries)) {
    switch (entry.kind) {
      case 'barFitted':
        fit = { ...fit, gaugeUm: entry.gaugeUm, driveLinks: entry.driveLinks, nosePitchClass: entry.nosePitchClass }
        barSince = flippedAt = entry.happenedAt
        grooveWidthUm = grooveDepthUm = null
        burrs = false
        break
      case 'barFlipped':
        flippedAt = entry.happenedAt
        break
      case 'barChecked':
        grooveWidthUm = entry.grooveWidthUm ?? grooveWidthUm
        grooveDepthUm = entry.grooveDepthUm ?? grooveDepthUm
        burrs = entry.burrs ?? burrs
        break
      case 'railsDressed':
        burrs = false
        break
      case 'sprocketRenewed':
        fit = { ...fit, pitchClass: entry.pitchClass }
        sprocketSince = entry.happenedAt
        break
      case 'sawCorrected':
        break
    }
  }
  const ordered = [...stints].sort((a, b) => (a.from < b.from ? -1 : 1))
  for (const { flipped, from } of ordered) if (flipped && (flippedAt === null || from > flippedAt)) flippedAt = from
  // A stint that spans the moment counts whole: wear is rather told too high than too low.
  const since = (moment: Instant | null): LoopStint[] =>
    moment === null ? ordered : ordered.filter(({ to }) => to === null || to > moment)
  const hoursOf = (some: readonly LoopStint[]): number =>
    tenths(some.reduce((sum, { tanks }) => sum + tanks, 0) * SAW_FIGURES.hoursPerTank.value)
  const onSprocket = since(sprocketSince)
  const hoursSinceFlip = hoursOf(since(flippedAt))
  const loopsWorn = tenths(onSprocket.reduce((sum, { worn }) => sum + worn, 0))
  const last = ordered.at(-1)
  const due: SawDue[] = []
  const [soon, now] = SAW_FIGURES.loopsPerSprocket.value
  if (loopsWorn >= now) due.push('sprocketNow')
  else if (loopsWorn >= soon) due.push('sprocketSoon')
  if (burrs) due.push('burrs')
  if (grooveWidthUm !== null && grooveWidthUm - fit.gaugeUm > SAW_FIGURES.grooveSlackUm.value) due.push('grooveWorn')
  if (last !== undefined && ordered.length > 1 && (flippedAt === null || flippedAt < last.from))
    due.push('flipAtChange')
  else if (hoursSinceFlip >= SAW_FIGURES.flipHours.value) due.push('flipByHours')
  return {
    fit,
    bar: {
      since: barSince,
      flippedAt,
      hoursSinceFlip,
      hours: hoursOf(since(barSince)),
      grooveWidthUm,
      grooveDepthUm,
      burrs,
    },
    sprocket: {
      since: sprocketSince,
      hours: hoursOf(onSprocket),
      loops: new Set(onSprocket.map(({ loopId }) => loopId)).size,
      loopsWorn,
    },
    due,
  }
}

/** What is due on a saw, in words. */
export const SAW_DUE_WORDS: Record<SawDue, string> = {
  flipAtChange: 'Flip the bar: a loop went on since it was last flipped',
  flipByHours: 'Flip the bar: it has run a working day this way up',
  sprocketSoon: 'The sprocket has seen two loops worn out: get another in',
  sprocketNow: 'Renew the sprocket: it has seen three loops worn out',
  burrs: 'Dress the rails: they have burrs',
  grooveWorn: 'The groove is worn wide: drive links lean in it',
}
