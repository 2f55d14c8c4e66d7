import type { Stint } from '../state'
import type { Instant } from '../log'
import type { Origin, Sourced } from '../profile'
import type { Um } from '../units'
import type { SawEntry, SawEntryKind, SawEntryOf, SawFit, SawGone } from './sawEntry'

const sourced = <T>(origin: Origin, value: T, note: string): Sourced<T> => ({ value, origin, note })

/** Figures by which bars and sprockets are judged. */
export const SAW_FIGURES = {
  /** Hours that a tank lasts. */
  hoursPerTank: sourced('assumed', 0.75, 'about three quarters of an hour of felling'),
  /** Tanks that this starting value is worth against what is said of a saw. */
  hoursWorth: sourced('assumed', 4, 'a day’s tanks'),
  /** Loops worn out on one sprocket before it is renewed, least and most. */
  loopsPerSprocket: sourced('commonPractice', [2, 3] as const, 'rotate loops on one sprocket'),
  /** Hours after which a bar is flipped even when the loop stays on. */
  flipHours: sourced('assumed', 8, 'about a working day'),
  /** Groove wider than the drive links by this lets them lean. */
  grooveSlackUm: sourced('assumed', 200, 'worn drive links measure a few hundredths under, so this is the groove'),
} as const

/** What has to be done to a saw's bar or sprocket, and why. */
export type SawDue = 'flipAtChange' | 'flipByHours' | 'sprocketSoon' | 'sprocketNow' | 'burrs' | 'grooveWorn'

/** Where a saw is that is not here. */
export interface Gone {
  readonly how: SawGone
  /** Who has it, where it is lent. */
  readonly to: string | null
  readonly since: Instant
}

/** A bar, its nose and a sprocket as they stand. Hours are estimates from tanks. */
export interface SawState {
  readonly fit: SawFit
  /** Not here to be worked with, and since when; null while it is. */
  readonly gone: Gone | null
  readonly bar: {
    readonly since: Instant | null
    readonly flippedAt: Instant | null
    /** Loops that went on since it was last turned. */
    readonly changesUnturned: number
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
  /** Null where nobody has looked since it is in use. */
  readonly tension: Tension | null
  /** When oil was last filled. */
  readonly oilAt: Instant | null
  /** What a tank comes to in hours, by what was said of this saw. */
  readonly tankHours: TankHours
  readonly due: readonly SawDue[]
}

/** Hours that a tank lasts on one saw. */
export interface TankHours {
  readonly hours: number
  /** Tanks that were said of it; 0 where it is common practice. */
  readonly own: number
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
 * What the crew calls a saw: as it was last renamed, or as it was added.
 *
 * @param stands the name that is kept with it; of use only where it was never renamed
 */
export function sawName(stands: string, entries: readonly SawEntry[]): string {
  const renamed = entries.filter((entry) => entry.kind === 'sawRenamed').sort(byTime)
  const counts = sawEntriesThatCount(entries).findLast((entry) => entry.kind === 'sawRenamed')
  return counts?.to ?? renamed[0]?.from ?? stands
}

/** What a saw's own log comes to, before the times that loops spent on it. */
interface Fittings {
  fit: SawFit
  barSince: Instant | null
  sprocketSince: Instant | null
  flippedAt: Instant | null
  grooveWidthUm: Um | null
  grooveDepthUm: Um | null
  burrs: boolean
  tension: Tension | null
  oilAt: Instant | null
  /** Tanks and hours that were said of it. */
  said: { readonly tanks: number; readonly hours: number }
  gone: Gone | null
}

/** When the tension was last looked at, and whether the chain stayed as it was. */
export interface Tension {
  readonly lookedAt: Instant
  readonly stayed: boolean
}

/** What a put-back changes of the bar and the tension; a chain that was just tightened has still to stay. */
const putBack = (
  { flippedAt, tension, oilAt }: Fittings,
  { done, happenedAt }: SawEntryOf<'putBack'>,
): Pick<Fittings, 'flippedAt' | 'tension' | 'oilAt'> => ({
  flippedAt: done.includes('barTurned') ? happenedAt : flippedAt,
  oilAt: done.includes('oil') ? happenedAt : oilAt,
  tension: done.includes('tension') ? { lookedAt: happenedAt, stayed: false } : tension,
})

/** What a check says; what it leaves out stays as it was. */
const barChecked = (
  before: Fittings,
  { grooveWidthUm, grooveDepthUm, burrs }: SawEntryOf<'barChecked'>,
): Pick<Fittings, 'grooveWidthUm' | 'grooveDepthUm' | 'burrs'> => ({
  grooveWidthUm: grooveWidthUm ?? before.grooveWidthUm,
  grooveDepthUm: grooveDepthUm ?? before.grooveDepthUm,
  burrs: burrs ?? before.burrs,
})

/** Another bar: what was known of the one before, its stamp with it, went with it. */
const barFitted = (
  { fit: { pitchClass } }: Fittings,
  { gaugeUm, driveLinks, nosePitchClass, barStamp, happenedAt }: SawEntryOf<'barFitted'>,
): Partial<Fittings> => ({
  fit: { pitchClass, gaugeUm, driveLinks, nosePitchClass, ...(barStamp === undefined ? {} : { barStamp }) },
  barSince: happenedAt,
  flippedAt: happenedAt,
  grooveWidthUm: null,
  grooveDepthUm: null,
  burrs: false,
  tension: null,
})

/** The same bar and sprocket, of which more is known: their wear stays. */
const fitRead = ({ fit }: Fittings, entry: SawEntryOf<'fitRead'>): Pick<Fittings, 'fit'> => {
  const { pitchClass = fit.pitchClass, gaugeUm = fit.gaugeUm, driveLinks = fit.driveLinks } = entry
  const { nosePitchClass = fit.nosePitchClass, barStamp = fit.barStamp } = entry
  const said = { pitchClass, gaugeUm, driveLinks }
  return {
    fit: {
      ...said,
      ...(nosePitchClass === undefined ? {} : { nosePitchClass }),
      ...(barStamp === undefined ? {} : { barStamp }),
    },
  }
}

/** What each kind of entry changes of a saw; a new kind does not compile without. */
const CHANGES: { readonly [K in SawEntryKind]: (before: Fittings, entry: SawEntryOf<K>) => Partial<Fittings> } = {
  barFitted,
  fitRead,
  barFlipped: (_before, { happenedAt }) => ({ flippedAt: happenedAt }),
  barChecked,
  railsDressed: () => ({ burrs: false }),
  putBack,
  tensionLooked: (_before, { happenedAt, stayed }) => ({ tension: { lookedAt: happenedAt, stayed } }),
  oilFilled: (_before, { happenedAt }) => ({ oilAt: happenedAt }),
  hoursSaid: ({ said }, { tanks, hours }) => ({ said: { tanks: said.tanks + tanks, hours: said.hours + hours } }),
  sprocketRenewed: ({ fit }, { pitchClass, happenedAt }) => ({
    fit: { ...fit, pitchClass },
    sprocketSince: happenedAt,
  }),
  sawGone: (_before, { how, to, happenedAt }) => ({ gone: { how, to: to ?? null, since: happenedAt } }),
  sawBack: () => ({ gone: null }),
  sawRenamed: () => ({}),
  sawCorrected: () => ({}),
}

const apply = (fittings: Fittings, entry: SawEntry): Fittings => ({
  ...fittings,
  ...(CHANGES[entry.kind] as (before: Fittings, entry: SawEntry) => Partial<Fittings>)(fittings, entry),
})

/** What was said of a saw's tanks, drawn toward common practice while it is little. */
function tankHoursOf({ tanks, hours }: Fittings['said']): TankHours {
  const { hoursPerTank, hoursWorth } = SAW_FIGURES
  const mean = (hours + hoursPerTank.value * hoursWorth.value) / (tanks + hoursWorth.value)
  return { hours: Math.round(mean * 1000) / 1000, own: tanks }
}

/** What is due on a saw, the sprocket first. */
function dueOn(
  { fit, grooveWidthUm, burrs, flippedAt }: Fittings,
  stints: readonly LoopStint[],
  hoursSinceFlip: number,
  loopsWorn: number,
): SawDue[] {
  const due: SawDue[] = []
  const [soon, now] = SAW_FIGURES.loopsPerSprocket.value
  if (loopsWorn >= now) due.push('sprocketNow')
  else if (loopsWorn >= soon) due.push('sprocketSoon')
  if (burrs) due.push('burrs')
  const wornUm = grooveWidthUm === null || fit.gaugeUm === null ? 0 : grooveWidthUm - fit.gaugeUm
  if (wornUm > SAW_FIGURES.grooveSlackUm.value) due.push('grooveWorn')
  const last = stints.at(-1)
  const changed = last !== undefined && stints.length > 1 && (flippedAt === null || flippedAt < last.from)
  if (changed) due.push('flipAtChange')
  else if (hoursSinceFlip >= SAW_FIGURES.flipHours.value) due.push('flipByHours')
  return due
}

/** Loops that went on since the bar was last turned: each wears the same rail. The first one is no change. */
const changesUnturned = (ordered: readonly LoopStint[], flippedAt: Instant | null): number =>
  ordered.slice(1).filter(({ from }) => flippedAt === null || from > flippedAt).length

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
  const fittings = sawEntriesThatCount(entries).reduce(apply, {
    fit: first,
    barSince: null,
    sprocketSince: null,
    flippedAt: null,
    grooveWidthUm: null,
    grooveDepthUm: null,
    burrs: false,
    tension: null,
    oilAt: null,
    said: { tanks: 0, hours: 0 },
    gone: null,
  })
  const tankHours = tankHoursOf(fittings.said)
  const ordered = [...stints].sort((a, b) => (a.from < b.from ? -1 : 1))
  for (const { flipped, from } of ordered)
    if (flipped && (fittings.flippedAt === null || from > fittings.flippedAt)) fittings.flippedAt = from
  // A stint that spans the moment counts whole: wear is rather told too high than too low.
  const since = (moment: Instant | null): LoopStint[] =>
    moment === null ? ordered : ordered.filter(({ to }) => to === null || to > moment)
  const hoursOf = (some: readonly LoopStint[]): number =>
    tenths(some.reduce((sum, { tanks }) => sum + tanks, 0) * tankHours.hours)
  const { fit, gone, barSince, sprocketSince, flippedAt, grooveWidthUm, grooveDepthUm, burrs } = fittings
  const onSprocket = since(sprocketSince)
  const hoursSinceFlip = hoursOf(since(flippedAt))
  const loopsWorn = tenths(onSprocket.reduce((sum, { worn }) => sum + worn, 0))
  return {
    fit,
    gone,
    bar: {
      since: barSince,
      flippedAt,
      changesUnturned: changesUnturned(ordered, flippedAt),
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
    tension: fittings.tension,
    oilAt: fittings.oilAt,
    tankHours,
    due: dueOn(fittings, ordered, hoursSinceFlip, loopsWorn),
  }
}
