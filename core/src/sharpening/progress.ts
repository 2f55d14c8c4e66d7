import type { Um } from '../units'
import { LENGTH_SPREADS } from '../belief'
import { READING_SD_UM } from '../measure'
import { strokesNear, type CutterJob } from '../jobs/cutterJobs'

/** One cutter that was read after it had its strokes. */
export interface Stroked {
  readonly beforeUm: Um
  /** How far the length before may be off: little where it was read, more where it is an estimate. */
  readonly beforeSdUm: number
  readonly afterUm: Um
  readonly strokes: number
}

/** What a stroke takes off today. */
export interface StrokeWorth {
  readonly meanUm: number
  readonly sdUm: number
}

/** What is known of it before anything was read: by the hand and the file, and how a day strays. */
export const worthBefore = (biteUm: number): StrokeWorth => ({
  meanUm: biteUm,
  sdUm: biteUm * Math.hypot(LENGTH_SPREADS.day, LENGTH_SPREADS.daySide, LENGTH_SPREADS.bite / 20),
})

/** Less than this no file takes in a stroke. Starting value. */
const LEAST_UM = 3

/**
 * What a stroke takes off today, as each cutter that is read tells: the day and the file are one for all of them, the
 * guide strays on each.
 *
 * @example
 * strokeWorth({ meanUm: 20, sdUm: 5 }, []).meanUm // 20
 */
export function strokeWorth(before: StrokeWorth, read: readonly Stroked[]): StrokeWorth {
  let [precision, weighted] = [1 / before.sdUm ** 2, before.meanUm / before.sdUm ** 2]
  for (const { beforeUm, beforeSdUm, afterUm, strokes } of read) {
    if (strokes <= 0) continue
    const offUm = beforeUm - afterUm
    const { guide, guidePart } = LENGTH_SPREADS
    const sd = Math.hypot(beforeSdUm, READING_SD_UM, guide, guidePart * Math.max(0, offUm)) / strokes
    precision += 1 / sd ** 2
    weighted += offUm / strokes / sd ** 2
  }
  return { meanUm: Math.max(LEAST_UM, weighted / precision), sdUm: Math.sqrt(1 / precision) }
}

/** What is not known of how long a side was is not known of its cutters alike: together they are one reading. */
function asOne(read: readonly Stroked[]): readonly Stroked[] {
  const estimated = read.filter(({ beforeSdUm, strokes }) => beforeSdUm > 0 && strokes > 0)
  const mean = (of: (one: Stroked) => number): number =>
    estimated.reduce((sum, one) => sum + of(one), 0) / estimated.length
  const sure = read.filter(({ beforeSdUm }) => beforeSdUm === 0)
  if (estimated.length === 0) return sure
  const one = {
    beforeUm: mean(({ beforeUm }) => beforeUm),
    beforeSdUm: mean(({ beforeSdUm }) => beforeSdUm),
    afterUm: mean(({ afterUm }) => afterUm),
    strokes: mean(({ strokes }) => strokes),
  }
  return [...sure, one]
}

/**
 * What is known of a stroke on one side once cutters of the other were read: the day and the file are one for both,
 * the hand is not.
 *
 * @param otherUm what a stroke was thought to take on the other side
 * @example
 * worthBeside(20, 20, []).meanUm // 20
 */
export function worthBeside(biteUm: number, otherUm: number, read: readonly Stroked[]): StrokeWorth {
  const { day, daySide, bite, sidesTogether } = LENGTH_SPREADS
  const ofBite = (bite / 20) ** 2
  const whole = day ** 2 + daySide ** 2 + ofBite
  const share = (day ** 2 + sidesTogether * ofBite) / whole
  const other = strokeWorth(worthBefore(otherUm), asOne(read))
  const byPart = share * (other.meanUm / otherUm - 1)
  const variance = whole - share ** 2 * (whole - (other.sdUm / otherUm) ** 2)
  return { meanUm: Math.max(LEAST_UM, biteUm * (1 + byPart)), sdUm: biteUm * Math.sqrt(variance) }
}

/** Strokes that a cutter gets now that it is known what one takes off. */
export const countNow = (
  { lengthUm, targetUm, damageUm }: Pick<CutterJob, 'lengthUm' | 'targetUm' | 'damageUm'>,
  worth: StrokeWorth,
): number => (lengthUm <= targetUm ? 0 : strokesNear(lengthUm - targetUm, worth.meanUm, damageUm > 0))

/** What to do once one cutter of the second side was measured. */
export interface Recheck {
  /** How much longer than the first side it came out; below nothing it is shorter. */
  readonly offUm: Um
  /** Within what a caliper tells: nothing is to be moved. */
  readonly alike: boolean
  /** What a stop is moved by so that the rest comes out alike: in takes more off. Null where nothing is moved. */
  readonly stop: { readonly way: 'in' | 'out'; readonly byUm: Um } | null
  /** Strokes more, or fewer where it is below nothing, for the rest of this side. */
  readonly strokes: number
}

/** Nearer together than this two sides are alike: a caliper tells no less, and no saw shows it. Starting value. */
export const ALIKE_UM: Um = 50

/**
 * Whether the second side comes out as the first did, and what to change before the rest of it.
 *
 * @param firstUm what the first side was left at
 * @param secondUm the cutter of the second side that was measured, once it was done
 * @example
 * recheck(6000, 6150, 20).stop // { way: 'in', byUm: 150 }
 */
export function recheck(firstUm: Um, secondUm: Um, strokeUm: number): Recheck {
  const offUm = secondUm - firstUm
  const alike = Math.abs(offUm) < ALIKE_UM
  const stop = alike ? null : ({ way: offUm > 0 ? 'in' : 'out', byUm: Math.abs(offUm) } as const)
  return { offUm, alike, stop, strokes: alike ? 0 : Math.round(offUm / strokeUm) }
}

/** How far a stop moves in one turn of its screw: M6, a common one, has 1 mm (ISO 261, from memory). */
export const STOP_THREAD_UM: Um = 1000

/** Turns of a stop's screw, to the nearest eighth. `turnsFor(150) // 0.125` */
export const turnsFor = (byUm: Um, threadUm: Um = STOP_THREAD_UM): number =>
  Math.max(1, Math.round((byUm / threadUm) * 8)) / 8

/**
 * Whether another stroke costs length and brings nothing: the cutter is clean, and has come down to where it was to go.
 *
 * @param clean whether somebody found its edge clean
 */
export const costsForNothing = ({ targetUm }: Pick<CutterJob, 'targetUm'>, lengthUm: Um, clean: boolean): boolean =>
  clean && lengthUm <= targetUm

/** What is odd about a reading of a cutter that is being worked. */
export type ReadingDoubt =
  /** Longer than the cutter was before its strokes. */
  | 'grew'
  /** Far shorter than its strokes can have left it. */
  | 'tooShort'

/** Readings nearer than this to what is possible are let pass. Starting value. */
const LET_PASS_UM: Um = 120

/**
 * What is odd about a reading: nothing grows by filing, and no few strokes take a millimetre. Often it is the cutter
 * beside it that was read.
 *
 * @param worked whether it has had its strokes
 */
export function oddReading(
  { lengthUm, lengthSdUm, targetUm }: Pick<CutterJob, 'lengthUm' | 'lengthSdUm' | 'targetUm'>,
  um: Um,
  worked: boolean,
): ReadingDoubt | null {
  const slack = Math.max(LET_PASS_UM, 3 * lengthSdUm)
  if (um > lengthUm + slack) return 'grew'
  const least = worked ? targetUm : lengthUm
  return um < least - slack - (worked ? (lengthUm - targetUm) / 2 : 0) ? 'tooShort' : null
}
