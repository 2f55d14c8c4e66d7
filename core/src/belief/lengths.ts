import { HANDS, type Hand } from '../loop'
import type { Um } from '../units'
import { median, normalQuantile } from '../stats'
import {
  addCov,
  addLoad,
  addShared,
  copyTied,
  covOf,
  eitherLevel,
  figureOf,
  insertShared,
  levelAll,
  levelSome,
  loadOf,
  loadsOf,
  meanOf,
  mergeShared,
  noTies,
  readFigure,
  setFigure,
  splitShared,
  sumOf,
  wander,
  type Level,
  type Normal,
  type Tied,
} from './tied'

/**
 * Length one stroke of a round file takes off: two to five strokes take about half of a routine
 * 0.2 mm. Derived from common practice.
 */
export const UM_PER_STROKE: Um = 20

/**
 * Length up to which filing goes on at the usual pace. Beyond it the hand tires, the file is
 * turned and changed: a stroke takes half as much. Starting value.
 */
export const LONG_FILING_UM: Um = 400

/** How much of a usual stroke a stroke with a file of this age is. Starting values. */
const BITE_OF_AGE = { fresh: 1.1, used: 1, worn: 0.8 } as const

/** Deviations with which everything begins, and by which each day strays. Starting values, micrometres. */
export const LENGTH_SPREADS = {
  /** A new length that nobody read off a box, and one that somebody did. */
  assumed: 270,
  known: 40,
  /** One side of a new loop against the other, and one cutter against the next. */
  newSides: 15,
  newCutter: 45,
  /** A loop that turns out to have been used before it was registered: all of it, a side, a cutter. */
  used: 3000,
  usedSides: 200,
  usedCutter: 150,
  /** Bite of a stroke: of crews and hands, and how far a side follows the other in one person's hands. */
  bite: 4.2,
  sidesTogether: 0.69,
  /** How far the bite wanders from one sharpening to the next, and how far a side follows the other: the file ages. */
  wanders: 0.4,
  wanderTogether: 0.9,
  /** A habit of taking more or less than is usual where nobody counts, as a part of it. */
  habit: 0.16,
  /** The day's shift, as parts of what came off: of both sides, of one, and where nobody counted. */
  day: 0.12,
  daySide: 0.08,
  dayUncounted: 0.2,
  /** The guide, on each cutter: at least, and as a part of what came off. */
  guide: 8,
  guidePart: 0.09,
  /** What a usual grind takes off the worst cutter: of crews, and of days. */
  wheel: 60,
  wheelDay: 70,
  /** Where all come down behind damage: how far that may be off, at least, and as a part of the depth. */
  behindDamage: 60,
  damagePart: 0.25,
  /** The two sides of a grind after the clamp was turned, and one cutter against the next. */
  turned: 95,
  /** The same where somebody checked the stop after the turn. */
  turnedChecked: 40,
  groundCutter: 25,
  /** Where a stop ended the cutters, by where it was read, and by where it was meant to be. */
  stopRead: 40,
  stopMeant: 150,
  /** The same of a loop that was filed even, by eye and caliper. */
  evenedCutter: 60,
  evenedSides: 40,
} as const

/** What a usual grind takes off the cutter that needs it most. Common practice. */
const GRIND_UM = 250

/** Places of what is learned for the loop's whole life, among what its cutters share. */
const SHARED = { left: 0, right: 1, habit: 2, wheel: 3 } as const
/** So many of them there always are; behind them stands how everybody leans to a side who files it after the first. */
const LEARNED = 4
/** With how long each side is, and the shifts that filings may still add to, and one in passing. */
const ROOM = LEARNED + 5
/** People who are told apart on one loop; those who come after them lean as one. Starting value. */
const MOST_FILERS = 4
/** Sharpenings after which the bite is let wander. */
const WANDERS_AFTER = 4

/** Somebody who files the loop. */
interface Filer {
  /** Null where nobody said who. */
  readonly by: string | null
  /** Whether their counts ever differed by side, before readings told how they lean. */
  counts: 'alike' | 'apart' | 'told'
  /** Whether they filed it since both sides were read. */
  sinceRead: boolean
}

/** What is known of the lengths of a loop's cutters, and of what a sharpening takes off them. */
export interface LengthBelief {
  readonly hands: readonly Hand[]
  readonly tied: Tied
  /** The latest shift of each side. */
  readonly shift: { left: number | null; right: number | null }
  /** Who has filed it: the bite of each side is the first one's. */
  readonly filers: Filer[]
  /** Whether a cutter of a side was read since its latest shift, so that the next filing begins another. */
  readonly readSince: { left: boolean; right: boolean }
  /** Sharpenings since the bite was last let wander. */
  sinceWander: number
}

export const copyLengths = (belief: LengthBelief): LengthBelief => ({
  ...belief,
  tied: copyTied(belief.tied),
  shift: { ...belief.shift },
  filers: belief.filers.map((filer) => ({ ...filer })),
  readSince: { ...belief.readSince },
})

/** So many of the shared figures are learned for the loop's whole life. */
const learnedIn = ({ filers }: LengthBelief): number => LEARNED + Math.max(0, filers.length - 1)

/** Places of how long each side is, with every shift that readings have closed. */
function levelsOf(belief: LengthBelief): Record<Hand, number> {
  const left = learnedIn(belief)
  return { left, right: left + 1 }
}

/** Where among the figures stands what came off a side since it was last read. */
const offPlace = (hands: readonly Hand[], hand: Hand): number => hands.length + (hand === 'left' ? 0 : 1)

/** What is known of what comes off before a loop was ever filed. */
export interface Bite {
  /** What a stroke takes off, as the mean of both sides. */
  readonly stroke: Normal
  /** What more comes off where nobody counts, as a part of what is usual. */
  readonly uncounted: Normal
}

/** What a stroke of anybody's takes on the left beyond what it takes on both sides. */
export const ANY_LEAN: Normal = {
  mean: 0,
  variance: (LENGTH_SPREADS.bite ** 2 * (1 - LENGTH_SPREADS.sidesTogether)) / 2,
}

/** What common practice knows. */
export const USUAL_BITES: Bite = {
  stroke: { mean: UM_PER_STROKE, variance: (LENGTH_SPREADS.bite ** 2 * (1 + LENGTH_SPREADS.sidesTogether)) / 2 },
  uncounted: { mean: 0, variance: LENGTH_SPREADS.habit ** 2 },
}

/** The lengths of a new loop. */
export function newLengths(
  hands: readonly Hand[],
  newLengthUm: Um,
  assumed: boolean,
  { stroke, uncounted }: Bite = USUAL_BITES,
): LengthBelief {
  // Behind the cutters, what came off each side since it was last read.
  const tied = noTies(hands.length + 2, ROOM)
  const { wheel, newSides, newCutter } = LENGTH_SPREADS
  const nothing = (): number => 0
  for (const _hand of HANDS)
    addShared(tied, { mean: stroke.mean, variance: stroke.variance + ANY_LEAN.variance }, nothing)
  addCov(tied, SHARED.left, SHARED.right, stroke.variance - ANY_LEAN.variance)
  addShared(tied, uncounted, nothing)
  addShared(tied, { mean: GRIND_UM, variance: wheel ** 2 }, nothing)
  for (const hand of HANDS) addShared(tied, { mean: 0, variance: 0 }, (i) => (hands[i] === hand ? 1 : 0))
  const belief: LengthBelief = {
    hands,
    tied,
    shift: { left: null, right: null },
    filers: [],
    readSince: { left: false, right: false },
    sinceWander: 0,
  }
  spreadSides(tied, levelsOf(belief), (assumed ? LENGTH_SPREADS.assumed : LENGTH_SPREADS.known) ** 2, newSides)
  for (let i = 0; i < hands.length; i += 1) {
    tied.own[i] = newLengthUm
    tied.ownVar[i] = newCutter ** 2
  }
  return belief
}

/** Makes it vaguer how long all cutters are, and how the sides differ, by what each side has at a place. */
function spreadSides(
  tied: Tied,
  { left, right }: Readonly<Record<Hand, number>>,
  variance: number,
  sidesUm: number,
): void {
  const sides = sidesUm ** 2 / 4
  addCov(tied, left, left, variance + sides)
  addCov(tied, right, right, variance + sides)
  addCov(tied, left, right, variance - sides)
}

/**
 * The loop comes used, and nobody has read a cutter yet: all of it, its sides and its cutters may be anywhere near.
 *
 * @param um what its cutters have on average, as far as anybody can say
 */
export function lengthsOfUsed(belief: LengthBelief, um: Normal): void {
  const { hands, tied } = belief
  spreadSides(tied, levelsOf(belief), um.variance, LENGTH_SPREADS.usedSides)
  for (let i = 0; i < hands.length; i += 1) {
    tied.own[i] = um.mean
    tied.ownVar[i] = LENGTH_SPREADS.usedCutter ** 2
  }
}

/** Readings that common practice counts for when the first ones of a used loop tell how far its cutters stray. */
const COUNTS_FOR = 4
/**
 * Usual strays from which a cutter begins to be one of its own, hit or filed alone, and at which it is altogether; and
 * what is rather a slip. Starting.
 */
const ODD = { from: 2.5, altogether: 3.5 }
const SLIP_UM = 1500

/** How widely a cutter strays that was seen so far from the middle of its side; a micrometre more changes little. */
function ownStray(seenUm: number, usualUm: number): number {
  const odd = (seenUm / usualUm - ODD.from) / (ODD.altogether - ODD.from)
  return seenUm > SLIP_UM || odd <= 0 ? usualUm : usualUm + Math.min(1, odd) * (seenUm - usualUm)
}

/**
 * The loop was used while nobody wrote it down, before it was registered or since: what its cutters have
 * left may be anything.
 *
 * @param strays how far each cutter that was read lies from the middle of its side, by its place from 0
 */
export function wasUsed(belief: LengthBelief, strays: ReadonlyMap<number, number>): void {
  const { hands, tied, shift, readSince } = belief
  const { used, usedSides, usedCutter } = LENGTH_SPREADS
  // The median takes no notice of one that was hit; of what strays normally it is two thirds.
  const seen = strays.size === 0 ? 0 : median([...strays.values()].map(Math.abs)) / 0.6745
  const usual = Math.sqrt((COUNTS_FOR * usedCutter ** 2 + strays.size * seen ** 2) / (COUNTS_FOR + strays.size))
  for (const hand of HANDS) {
    closeShift(belief, hand)
    readSince[hand] = false
  }
  const openShift = (hand: Hand): number =>
    addShared(tied, { mean: 0, variance: 0 }, (i) => (hands[i] === hand ? 1 : 0))
  const opened = { left: openShift('left'), right: openShift('right') }
  Object.assign(shift, opened)
  spreadSides(tied, opened, used ** 2, usedSides)
  for (let i = 0; i < hands.length; i += 1) {
    tied.ownVar[i] = ownStray(Math.abs(strays.get(i) ?? 0), usual) ** 2
  }
}

/** What is known of the length of one cutter, by its place from 0. */
export const lengthOf = ({ tied }: LengthBelief, cutter: number): Normal => figureOf(tied, cutter)

/**
 * Takes a reading of a cutter.
 *
 * @param within deviations up to which it is taken; one further off changes nothing
 * @returns by how much it is off what was known, and whether it was taken
 */
export function readLengthOf(belief: LengthBelief, cutter: number, um: Um, sdUm: number, within = Infinity) {
  const hand = belief.hands[cutter]
  if (hand === undefined) throw new RangeError(`there is no cutter ${cutter + 1}`)
  const read = readFigure(belief.tied, cutter, um, sdUm ** 2, within)
  if (read.taken) belief.readSince[hand] = true
  return read
}

/**
 * Tells the belief that a cutter was read because it looked the shortest: before it is read, it is
 * taken as the least of all that are known no better.
 */
export function looksShortest(belief: LengthBelief, cutter: number): void {
  const { hands, tied } = belief
  const variance = tied.ownVar[cutter] ?? 0
  // Those that may well have been the shortest too: their own strays are as wide.
  const others = hands.filter((_, i) => (tied.ownVar[i] ?? 0) >= variance / 2).length
  if (others < 2) return
  const { mean, variance: left } = leastOf(others)
  tied.own[cutter] = (tied.own[cutter] ?? 0) + mean * Math.sqrt(variance)
  tied.ownVar[cutter] = variance * left
}

/** Mean and variance of the least of `n` standard normal figures (G. Blom, 1958, from memory). */
export function leastOf(n: number): Normal {
  const score = (rank: number): number => normalQuantile((rank - 0.375) / (n + 0.25))
  const mean = n <= 1 ? 0 : score(1)
  // By simulation 0.68 of two, 0.34 of ten, 0.22 of forty.
  return { mean, variance: 1 / (1 + 0.85 * Math.log(Math.max(1, n))) }
}

/** What is known of the file that did it. */
export interface FileInHand {
  readonly fileAge?: keyof typeof BITE_OF_AGE | undefined
  /** What a stroke of it takes against a usual one, where readings have told; its age says nothing beside that. */
  readonly fileBite?: number | undefined
}

/** A filing, as far as somebody said how it went. */
export interface Filing {
  /** Strokes for each cutter of a side; null where nobody counted. */
  readonly strokes: Readonly<Record<Hand, number>> | null
  /** Whether readings on the way set the counts; they follow, and counts say nothing of the hand beside them. */
  readonly asRead?: boolean
  /** What it usually takes off a cutter where nobody counted. */
  readonly usualUm: Um
  readonly fileAge?: FileInHand['fileAge']
  readonly fileBite?: FileInHand['fileBite']
  /** Who files it; null where nobody said. Left out where it is anybody. */
  readonly by?: string | null
  /** How they lean to a side, as far as that is known of them; as anybody may where it is left out. */
  readonly lean?: Normal | undefined
  /** How many times as much who files it takes off as the others do, and how far that may be off. */
  readonly person?: { readonly factor: number; readonly sd: number }
  /** What has to come off a cutter at least, by its place from 0. */
  readonly atLeastUm: readonly Um[]
  /** The side that is filed, where the other one is not. */
  readonly only?: Hand | undefined
}

/** Who takes off what everybody does. */
const EVERYBODY = { factor: 1, sd: 0 } as const

/** How much of a usual stroke a stroke with a file is: as it was seen to bite, else by its age. */
export const fileFactor = ({ fileAge, fileBite }: FileInHand): number => fileBite ?? BITE_OF_AGE[fileAge ?? 'used']

/** What comes off where all strokes together would take so much, were the hand never tired. */
export const slowedUm = (restedUm: number): number => restedUm - Math.max(0, restedUm - LONG_FILING_UM) / 2

/** What the strokes that took so much off would take, were the hand never tired: the other way round. */
export const restedUm = (um: number): number => um + Math.max(0, um - LONG_FILING_UM)

/**
 * So many usual strokes a cutter of a side gets.
 *
 * @param strokeUm what a usual stroke takes off it
 */
function bitesOf(filing: Filing, hand: Hand, strokeUm: number): number {
  const { strokes, usualUm, person = EVERYBODY, only } = filing
  if (only !== undefined && only !== hand) return 0
  // Who does not count goes on until it cuts, however little the file bites.
  if (strokes === null) return (person.factor * fileFactor({ fileAge: filing.fileAge }) * usualUm) / UM_PER_STROKE
  return slowedUm(strokes[hand] * person.factor * fileFactor(filing) * strokeUm) / strokeUm
}

/** Less than this no stroke is believed to take off, whatever readings have said. Starting value. */
const LEAST_STROKE_UM = 4

/** What a usual stroke takes off a side in somebody's hands, by the place of how they lean. */
function strokeOn({ tied: { shared } }: LengthBelief, hand: Hand, lean: number | null): number {
  const [left, right] = [shared[SHARED.left] ?? 0, shared[SHARED.right] ?? 0]
  const leans = lean === null ? 0 : (shared[lean] ?? 0)
  const um = lean === null ? (hand === 'left' ? left : right) : (left + right) / 2 + (hand === 'left' ? leans : -leans)
  return Math.max(LEAST_STROKE_UM, um)
}

/**
 * Cutters are filed: what each stroke takes, the day's shift, the stray of the guide.
 *
 * @returns what came off each cutter, by its place from 0
 */
export function fileLengths(belief: LengthBelief, filing: Filing): number[] {
  const { hands, tied } = belief
  const { strokes, atLeastUm, person = EVERYBODY } = filing
  const lean = handOf(belief, filing)
  const took = { left: 0, right: 0 }
  const loads = { left: NOTHING, right: NOTHING }
  for (const hand of HANDS) {
    const bites = bitesOf(filing, hand, strokeOn(belief, hand, lean))
    loads[hand] = biteLoads(bites, hand, lean, strokes === null ? UM_PER_STROKE : 0)
    for (const { place, load } of loads[hand]) took[hand] += load * (tied.shared[place] ?? 0)
    bite(tied, offPlace(hands, hand), loads[hand])
  }
  const off: number[] = []
  for (let i = 0; i < hands.length; i += 1) {
    const hand = hands[i] ?? 'left'
    const usual = took[hand]
    const filed = loads[hand].length > 0
    const more = filed ? Math.max(0, (atLeastUm[i] ?? 0) - usual) : 0
    off.push(usual + more)
    if (!filed) continue
    bite(tied, i, loads[hand])
    tied.own[i] = (tied.own[i] ?? 0) - more
    tied.ownVar[i] = (tied.ownVar[i] ?? 0) + strayOf(usual, more)
  }
  shiftSides(belief, took, (strokes === null ? LENGTH_SPREADS.dayUncounted : LENGTH_SPREADS.day) ** 2 + person.sd ** 2)
  belief.sinceWander += 1
  return off
}

/**
 * How somebody leans to a side, as half of what a stroke of theirs takes on the left beyond the right: a figure of its
 * own for everybody who files the loop after the first.
 *
 * @returns its place among what is shared; null where the bite of each side tells it
 */
function leanOf(belief: LengthBelief, by: string | null, lean: Normal = ANY_LEAN): number | null {
  const { filers } = belief
  if (filers.every((one) => one.by !== by) && filers.length < MOST_FILERS) tellApart(belief, by, lean)
  const who = placeOf(belief, by)
  return who === 0 ? null : LEARNED - 1 + who
}

/** Which of those who are told apart somebody is. */
function placeOf({ filers }: LengthBelief, by: string | null): number {
  const who = filers.findIndex((one) => one.by === by)
  return who < 0 ? MOST_FILERS - 1 : who
}

const filerOf = (belief: LengthBelief, by: string | null): Filer | undefined => belief.filers[placeOf(belief, by)]

/** Where both sides were read, they told how those lean who filed it before. */
function readingsTell({ filers, readSince }: LengthBelief): void {
  if (!readSince.left || !readSince.right) return
  for (const filer of filers) {
    if (filer.sinceRead) filer.counts = 'told'
    filer.sinceRead = false
  }
}

/** Somebody files the loop who never did. */
function tellApart(belief: LengthBelief, by: string | null, lean: Normal): void {
  const { filers, tied, shift } = belief
  if (filers.length === 0) {
    // The bite of each side is theirs from here on.
    const known = lean.variance - ANY_LEAN.variance
    addCov(tied, SHARED.left, SHARED.left, known)
    addCov(tied, SHARED.right, SHARED.right, known)
    addCov(tied, SHARED.left, SHARED.right, -known)
    tied.shared[SHARED.left] = (tied.shared[SHARED.left] ?? 0) + lean.mean
    tied.shared[SHARED.right] = (tied.shared[SHARED.right] ?? 0) - lean.mean
  } else {
    insertShared(tied, learnedIn(belief), lean)
    for (const hand of HANDS) if (shift[hand] !== null) shift[hand] += 1
  }
  filers.push({ by, counts: lean.variance < LEAN_TOLD * ANY_LEAN.variance ? 'told' : 'alike', sinceRead: false })
}

/** Usual strokes that a cutter of each side gets, whatever the sides differ by. */
function countedBites(belief: LengthBelief, filing: Filing): Record<Hand, number> {
  const strokeUm = Math.max(LEAST_STROKE_UM, strokeBite(belief).mean)
  return { left: bitesOf(filing, 'left', strokeUm), right: bitesOf(filing, 'right', strokeUm) }
}

/**
 * Notes who files it, and what their counts say of their hand.
 *
 * @returns the place of how they lean; null where the bite of each side tells it
 */
function handOf(belief: LengthBelief, filing: Filing): number | null {
  const { by, strokes, asRead = false, only } = filing
  readingsTell(belief)
  if (by === undefined) return null
  const lean = leanOf(belief, by, filing.lean)
  const filer = filerOf(belief, by)
  if (filer === undefined) return lean
  const bothCounted = strokes !== null && strokes.left > 0 && strokes.right > 0
  if (bothCounted && !asRead && only === undefined) takeAsLean(belief, filer, countedBites(belief, filing), lean)
  filer.sinceRead = true
  return lean
}

/** Other loops told how somebody leans where its variance is less than this part of anybody's. Starting value. */
const LEAN_TOLD = 0.75
/** Deviation of how somebody leans by their counts alone, as a part of the lean that those say. Starting value. */
const LEAN_OPEN = 0.5
/** No hand is taken to lean by more than this part of what a stroke takes off. Starting value. */
const LEAN_MOST = 0.5

/**
 * More strokes on one side than on the other are given for a reason. So far as they even out sides that are known to
 * differ, they do. So far as they do not, they say first that a stroke bites less on that side: the sides stay where
 * they are believed to be, and that they may have come apart instead makes the belief wider, with every such filing
 * more, until something is read. Once readings have told how somebody leans, that is believed and not the counts.
 *
 * @param bites usual strokes that a cutter of each side gets
 * @param lean place of how who files it leans; null where the bite of each side tells it
 */
function takeAsLean(
  belief: LengthBelief,
  filer: Filer,
  bites: Readonly<Record<Hand, number>>,
  lean: number | null,
): void {
  if (filer.counts === 'told') return
  // Equal counts are what everybody gives who thinks of nothing.
  if (bites.left !== bites.right) filer.counts = 'apart'
  else if (filer.counts === 'alike') return
  const by = leanSaid(belief, bites, lean)
  if (by === 0) return
  const { tied } = belief
  const places = lean === null ? [SHARED.left, SHARED.right] : [lean]
  places.forEach((place, i) => {
    const change = i === 0 ? by : -by
    tied.shared[place] = (tied.shared[place] ?? 0) + change
    // What earlier filings took stays as it is believed.
    for (let cutter = 0; cutter < tied.own.length; cutter += 1)
      tied.own[cutter] = (tied.own[cutter] ?? 0) - loadOf(tied, cutter, place) * change
  })
  const open = (by * LEAN_OPEN) ** 2
  const wider = Math.min(open, Math.max(0, ANY_LEAN.variance + open - leanVariance(tied, lean)))
  for (const place of places) addCov(tied, place, place, wider)
  if (lean === null) addCov(tied, SHARED.left, SHARED.right, -wider)
}

/** How much more somebody leans by such counts than was thought, where no known difference of sides explains them. */
function leanSaid(belief: LengthBelief, bites: Readonly<Record<Hand, number>>, lean: number | null): number {
  const { shared } = belief.tied
  const [left, right] = [shared[SHARED.left] ?? 0, shared[SHARED.right] ?? 0]
  const mean = (left + right) / 2
  const leansBy = lean === null ? (left - right) / 2 : (shared[lean] ?? 0)
  const apart = bites.left * (mean + leansBy) - bites.right * (mean - leansBy)
  const before = sideDifference(belief)?.mean ?? 0
  const evensOut = before * apart > 0 ? Math.abs(before) + Math.min(Math.abs(before), mean) : 0
  const unexplained = Math.sign(apart) * Math.max(0, Math.abs(apart) - evensOut)
  const wanted = leansBy - unexplained / (bites.left + bites.right)
  const most = Math.max(LEAN_MOST * mean, Math.abs(leansBy))
  return Math.min(most, Math.max(-most, wanted)) - leansBy
}

/** How vague it is how somebody leans. */
const leanVariance = (tied: Tied, lean: number | null): number =>
  lean === null
    ? (covOf(tied, SHARED.left, SHARED.left) +
        covOf(tied, SHARED.right, SHARED.right) -
        2 * covOf(tied, SHARED.left, SHARED.right)) /
      4
    : covOf(tied, lean, lean)

/** How much of something shared comes off a cutter. */
interface Load {
  readonly place: number
  readonly load: number
}

const NOTHING: readonly Load[] = []

/** What so many bites take off a side, by what is shared: in a further hand what both sides take, and how it leans. */
function biteLoads(bites: number, hand: Hand, lean: number | null, habit: number): readonly Load[] {
  if (bites <= 0) return NOTHING
  const uncounted = { place: SHARED.habit, load: bites * habit }
  if (lean === null) return [{ place: SHARED[hand], load: bites }, uncounted]
  return [
    { place: SHARED.left, load: bites / 2 },
    { place: SHARED.right, load: bites / 2 },
    { place: lean, load: hand === 'left' ? bites : -bites },
    uncounted,
  ]
}

/** So much comes off a cutter. */
function bite(tied: Tied, cutter: number, loads: readonly Load[]): void {
  for (const { place, load } of loads) addLoad(tied, cutter, place, -load)
}

/** Variance that the guide adds to a cutter, and what was filed off it beyond the others. */
function strayOf(usual: number, more: number): number {
  const { guide, guidePart } = LENGTH_SPREADS
  return guide ** 2 + (guidePart * usual) ** 2 + (0.2 * more) ** 2
}

/**
 * The day's shift: of both sides together, and of each.
 *
 * @param both variance of what both sides share, as a part of what came off
 */
function shiftSides(belief: LengthBelief, took: Record<Hand, number>, both: number): void {
  const { tied, shift, hands, readSince } = belief
  const { daySide } = LENGTH_SPREADS
  for (const hand of HANDS) {
    if (took[hand] <= 0) continue
    if (readSince[hand]) closeShift(belief, hand)
    readSince[hand] = false
    shift[hand] ??= addShared(tied, { mean: 0, variance: 0 }, (i) =>
      hands[i] === hand || i === offPlace(hands, hand) ? 1 : 0,
    )
    addCov(tied, shift[hand], shift[hand], (both + daySide ** 2) * took[hand] ** 2)
  }
  // Nothing where one of them was not filed.
  addCov(tied, shift.left ?? 0, shift.right ?? 0, both * Math.max(0, took.left) * Math.max(0, took.right))
}

/** Makes the latest shift of a side a part of how long the side is, since readings have told of it. */
function closeShift(belief: LengthBelief, hand: Hand): void {
  const place = belief.shift[hand]
  if (place === null) return
  belief.shift[hand] = null
  joinLevel(belief, hand, place)
}

function joinLevel(belief: LengthBelief, hand: Hand, place: number): void {
  const { tied, shift } = belief
  mergeShared(tied, levelsOf(belief)[hand], place)
  for (const one of HANDS) {
    const behind = shift[one]
    if (behind !== null && behind > place) shift[one] = behind - 1
  }
}

/** Lets the bite wander, once in a few sharpenings and where readings have just told what it was. */
export function settleReadings(belief: LengthBelief): void {
  if (belief.sinceWander < WANDERS_AFTER) return
  const step = belief.sinceWander * LENGTH_SPREADS.wanders ** 2
  for (const hand of HANDS) joinLevel(belief, hand, wander(belief.tied, SHARED[hand], step))
  // It is the file that ages, and it does both sides.
  addCov(belief.tied, SHARED.left, SHARED.right, LENGTH_SPREADS.wanderTogether * step)
  belief.sinceWander = 0
}

/**
 * The cutter that decides how far all have to come down, and how far that is. Where a side follows the other, which
 * was done before, it is one of its own.
 */
function worstOf(
  { tied, hands }: LengthBelief,
  atLeastUm: readonly Um[],
  usual: number,
  oneSide: OneSide | null,
  without: ReadonlySet<number>,
) {
  const isOut = (hand: Hand, i: number): boolean =>
    without.has(i) || (oneSide?.follows === true && hand !== oneSide.hand)
  const after = hands.map((hand, i) =>
    isOut(hand, i) ? Infinity : meanOf(tied, i) - Math.max(usual, atLeastUm[i] ?? 0),
  )
  const lowest = Math.min(...after)
  const worst = after.indexOf(lowest)
  const needs = atLeastUm[worst] ?? 0
  const ownVar = tied.ownVar[worst] ?? 0
  const ownSd = Math.sqrt(ownVar)
  // All come down to the cutter that turns out the shortest, not to the one that seems to be.
  const rivals = after.reduce((sum, one) => sum + Math.exp(-Math.max(0, one - lowest) / Math.max(1, ownSd)), 0)
  const lower = leastOf(rivals)
  return {
    worst,
    through: needs > usual,
    needs,
    own: (tied.own[worst] ?? 0) + lower.mean * ownSd,
    variance: ownVar * lower.variance,
  }
}

/** How probable it is that a cutter is as short as the one reading has it that nothing bears out. Starting value. */
const SHORT_AS_READ = 0.5

/**
 * The level that the worst cutter sets. One that a single reading has far shorter than all others would have it may be
 * so short, or the reading was a slip, and the next one sets the level: it is as wide as both together.
 *
 * @param doubtful places of cutters of which such a reading is all that is known
 * @param setBy the worst cutter but for some, and the level that it sets
 */
function levelOfWorst(
  { tied, hands }: LengthBelief,
  doubtful: ReadonlySet<number>,
  setBy: (without: ReadonlySet<number>) => { readonly worst: number; readonly level: Level },
): Level {
  const besides = (without: ReadonlySet<number>): Level => {
    const { worst, level } = setBy(without)
    if (!doubtful.has(worst) || without.size + 1 >= hands.length) return level
    return eitherLevel(tied, level, besides(new Set([...without, worst])), SHORT_AS_READ)
  }
  return besides(new Set())
}

/** How far off it may be how deep damage reached: it was measured by eye, and some of it is found on the way. */
const depthSd = (needsUm: Um): number => Math.hypot(LENGTH_SPREADS.behindDamage, LENGTH_SPREADS.damagePart * needsUm)

/** How one side alone is brought to a level. */
interface OneSide {
  readonly hand: Hand
  /** The other side was brought to the level before, and this one follows it. */
  readonly follows: boolean
}

/** How cutters come down to the one that needs it most. */
export interface ToLevel {
  /** What has to come off a cutter, by its place from 0: its damage and a little behind it. */
  readonly atLeastUm?: readonly Um[]
  /** The side that is brought down, where it is one alone. */
  readonly oneSide?: OneSide | null
  /** Places of cutters that one reading has far shorter than all others would have them, and nothing else. */
  readonly doubtful?: ReadonlySet<number>
}

const NO_CUTTER: ReadonlySet<number> = new Set()

/** The level that one side comes to: that of the other where it follows, unless a cutter of its own ends below. */
function levelOfSide(
  belief: LengthBelief,
  { hand, follows }: OneSide,
  atLeastUm: readonly Um[],
  besideUm: number,
  byWorst: () => Level,
): Level {
  const { tied, hands } = belief
  const other = hands.findIndex((one) => one !== hand)
  if (!follows || other < 0) return byWorst()
  const lowest = Math.min(...hands.map((one, i) => (one === hand ? meanOf(tied, i) - (atLeastUm[i] ?? 0) : Infinity)))
  if (lowest < meanOf(tied, other)) return byWorst()
  return { loads: loadsOf(tied, other), own: tied.own[other] ?? 0, variance: besideUm ** 2 }
}

/** One side stands at one level, and the other stays as it is. */
function levelSide(belief: LengthBelief, hand: Hand, level: Level, strayUm: number): void {
  const { tied, hands, readSince } = belief
  const levels = levelsOf(belief)
  levelSome(tied, levels.left, levels[hand], level, strayUm ** 2, (i) => hands[i] === hand)
  readSince[hand] = false
  belief.sinceWander += 1
}

/** Makes a side ready to be brought to a level: what came off it is counted anew, and its shift is a part of it. */
function openSide(belief: LengthBelief, hand: Hand): void {
  beginSpan(belief, hand)
  closeShift(belief, hand)
}

/** All cutters stand at one level; how the sides differ is open by so much. */
function levelLengths(belief: LengthBelief, level: Level, strayUm: number, sidesUm: number) {
  const { tied, hands, shift, readSince } = belief
  const levels = levelsOf(belief)
  levelAll(tied, levels.left, level, strayUm ** 2)
  // What all stand at is one figure now; each side has its own from here on.
  splitShared(tied, levels.left, (i) => hands[i] === 'right')
  spreadSides(tied, levels, 0, sidesUm)
  for (const hand of HANDS) {
    beginSpan(belief, hand)
    shift[hand] = null
    readSince[hand] = false
  }
  belief.sinceWander += 1
}

/**
 * All cutters are ground to one stop, set on the one that needs it most. What differed within a side
 * is gone; how the sides differ is the turn of the clamp.
 *
 * @param stopChecked whether the stop was checked after the clamp was turned
 * @returns what came off each cutter
 */
export function grindLengths(
  belief: LengthBelief,
  { atLeastUm = [], oneSide = null, doubtful = NO_CUTTER }: ToLevel = {},
  stopChecked = false,
): number[] {
  const { tied } = belief
  const { wheelDay, groundCutter, turned, turnedChecked } = LENGTH_SPREADS
  const besideUm = stopChecked ? turnedChecked : turned
  const setBy = (without: ReadonlySet<number>): { worst: number; level: Level } => {
    const usual = tied.shared[SHARED.wheel] ?? GRIND_UM
    const { worst, through, needs, own, variance } = worstOf(belief, atLeastUm, usual, oneSide, without)
    const loads = loadsOf(tied, worst)
    if (!through) loads[SHARED.wheel] = (loads[SHARED.wheel] ?? 0) - 1
    return {
      worst,
      level: {
        loads,
        own: own - (through ? needs : 0),
        variance: variance + (through ? depthSd(needs) : wheelDay) ** 2,
      },
    }
  }
  return bringDown(belief, atLeastUm, { strayUm: groundCutter, besideUm, oneSide }, () =>
    levelOfWorst(belief, doubtful, setBy),
  )
}

/** Where a stop ended every cutter. */
export interface AtStop {
  readonly stopUm: Um
  /** Whether that was read on a cutter. */
  readonly read: boolean
  /** Whether the stop was checked after the work was turned. */
  readonly checked: boolean
  readonly oneSide: OneSide | null
}

/**
 * All cutters come down to a stop that is known. One that was shorter already is not touched.
 *
 * @returns what came off each cutter
 */
export function stopLengths(belief: LengthBelief, { stopUm, read, checked, oneSide }: AtStop): number[] {
  const { tied, hands } = belief
  const { groundCutter, turned, turnedChecked, stopRead, stopMeant } = LENGTH_SPREADS
  const sdUm = read ? stopRead : stopMeant
  const before = hands.map((_, i) => figureOf(tied, i))
  const besideUm = checked ? turnedChecked : turned
  const level = { loads: loadsOf(tied, 0).map(() => 0), own: stopUm, variance: sdUm ** 2 }
  if (oneSide === null) levelLengths(belief, level, groundCutter, besideUm)
  else {
    openSide(belief, oneSide.hand)
    const variance = sdUm ** 2 + (oneSide.follows ? besideUm ** 2 : 0)
    levelSide(belief, oneSide.hand, { ...level, variance }, groundCutter)
  }
  return before.map(({ mean, variance }, i) => {
    if (oneSide !== null && hands[i] !== oneSide.hand) return 0
    const off = mean - stopUm
    if (off >= -3 * Math.hypot(Math.sqrt(variance), sdUm, besideUm)) return Math.max(0, off)
    setFigure(tied, i, { mean, variance })
    return 0
  })
}

/** Brings both sides, or one, to a level. */
function bringDown(
  belief: LengthBelief,
  atLeastUm: readonly Um[],
  how: { readonly strayUm: number; readonly besideUm: number; readonly oneSide: OneSide | null },
  byWorst: () => Level,
): number[] {
  const { tied, hands } = belief
  const { strayUm, besideUm, oneSide } = how
  const before = hands.map((_, i) => meanOf(tied, i))
  if (oneSide === null) levelLengths(belief, byWorst(), strayUm, besideUm)
  else {
    openSide(belief, oneSide.hand)
    levelSide(belief, oneSide.hand, levelOfSide(belief, oneSide, atLeastUm, besideUm, byWorst), strayUm)
  }
  return before.map((um, i) => Math.max(0, um - meanOf(tied, i)))
}

/**
 * All cutters are filed down to the shortest: each gets what it takes, so that none differs afterwards
 * by more than an eye and a caliper tell.
 *
 * @param usualUm what comes off the shortest at least
 * @returns what came off each cutter
 */
export function evenLengths(
  belief: LengthBelief,
  usualUm: Um,
  { atLeastUm = [], oneSide = null, doubtful = NO_CUTTER }: ToLevel = {},
): number[] {
  const { tied } = belief
  const { evenedCutter, evenedSides, dayUncounted } = LENGTH_SPREADS
  const setBy = (without: ReadonlySet<number>): { worst: number; level: Level } => {
    const { worst, through, needs, own, variance } = worstOf(belief, atLeastUm, usualUm, oneSide, without)
    return {
      worst,
      level: {
        loads: loadsOf(tied, worst),
        own: own - (through ? needs : usualUm),
        variance: variance + (through ? depthSd(needs) : dayUncounted * usualUm) ** 2,
      },
    }
  }
  return bringDown(belief, atLeastUm, { strayUm: evenedCutter, besideUm: evenedSides, oneSide }, () =>
    levelOfWorst(belief, doubtful, setBy),
  )
}

/** Two readings agree against all that was believed of a cutter: what they say is what it is. */
export function replaceLength(belief: LengthBelief, cutter: number, figure: Normal): void {
  setFigure(belief.tied, cutter, figure)
}

/** Mean of the left less mean of the right, as it is known. Null where a side has no cutters. */
export function sideDifference({ hands, tied }: LengthBelief): Normal | null {
  const left = hands.filter((hand) => hand === 'left').length
  const right = hands.length - left
  if (left === 0 || right === 0) return null
  return sumOf(tied, (i) => (hands[i] === 'left' ? 1 / left : hands[i] === 'right' ? -1 / right : 0))
}

/**
 * How long the cutters of a side are: their mean, and how far one of them may be off it. Null where
 * it has none.
 */
export function sideLevel({ hands, tied }: LengthBelief, hand: Hand): Normal | null {
  let sum = 0
  let cutters = 0
  for (let i = 0; i < hands.length; i += 1) {
    if (hands[i] !== hand) continue
    sum += meanOf(tied, i)
    cutters += 1
  }
  const first = hands.indexOf(hand)
  return cutters === 0 ? null : { mean: sum / cutters, variance: figureOf(tied, first).variance }
}

/**
 * What filings took off a side since {@link beginSpan}, as far as readings have told. A grind is not
 * in it: it takes off what brings cutters to its stop.
 */
export function takenOff({ hands, tied }: LengthBelief, hand: Hand): Normal {
  const { mean, variance } = figureOf(tied, offPlace(hands, hand))
  return { mean: -mean, variance }
}

/** From now on it is counted anew what comes off a side. */
export function beginSpan({ hands, tied }: LengthBelief, hand: Hand): void {
  setFigure(tied, offPlace(hands, hand), { mean: 0, variance: 0 })
}

/** What a usual sharpening takes off, by what is shared: so much with a file, and such a part of a grind. */
function removalWeights(fileUm: Um, grinds: number): readonly (readonly [place: number, weight: number])[] {
  const strokes = fileUm / UM_PER_STROKE
  return [
    [SHARED.left, strokes / 2],
    [SHARED.right, strokes / 2],
    [SHARED.habit, fileUm],
    [SHARED.wheel, grinds],
  ]
}

/** What a usual sharpening of a kind takes off a cutter of this loop, as learned so far. */
export const usualRemoval = ({ tied }: LengthBelief, kind: 'file' | 'grind', usualUm: Um): Normal =>
  sharedFigure(tied, kind === 'grind' ? removalWeights(0, 1) : removalWeights(usualUm, 0))

/**
 * Covariance of a cutter's length with what a usual sharpening takes off, square micrometres: below
 * nothing where strokes that take more than is thought have left the cutter shorter than is thought.
 *
 * @param cutter by its place from 0
 * @param fileUm what a usual sharpening takes off with a file
 * @param grinds part of a usual grind that it is
 */
export function withRemoval({ tied }: LengthBelief, cutter: number, fileUm: Um, grinds: number): number {
  const loads = loadsOf(tied, cutter)
  let sum = 0
  for (const [place, weight] of removalWeights(fileUm, grinds))
    for (const [k, load] of loads.entries()) sum += weight * load * covOf(tied, place, k)
  return sum
}

/**
 * How much lower the shortest cutter lies than the one that seems to be, when cutters have strayed by
 * so much more: what is known of their own strays, and what filings add.
 *
 * @param cutter the one that seems to be the shortest, by its place from 0
 * @param soon stray, micrometres, at which cutters are counted that may be the shortest
 */
export function shortestLowerBy(
  { tied, hands }: LengthBelief,
  cutter: number,
  soon: number,
): (addedUm: number) => number {
  const own = tied.ownVar[cutter] ?? 0
  const lowest = meanOf(tied, cutter)
  const spread = Math.max(1, Math.hypot(Math.sqrt(own), soon))
  let rivals = 0
  for (let i = 0; i < hands.length; i += 1) rivals += Math.exp(-Math.max(0, meanOf(tied, i) - lowest) / spread)
  const { mean } = leastOf(rivals)
  return (addedUm) => -mean * Math.sqrt(own + addedUm ** 2)
}

/** What the guide adds to the stray of a cutter when it is filed so far back, micrometres. */
export const filingStray = (usualUm: Um): number => Math.sqrt(strayOf(usualUm, 0))

/** What a stroke takes off, as the mean of both sides. */
export const strokeBite = ({ tied }: LengthBelief): Normal =>
  sharedFigure(tied, [
    [SHARED.left, 0.5],
    [SHARED.right, 0.5],
  ])

/** A sum of shared figures, each with its weight. */
function sharedFigure(tied: Tied, weights: readonly (readonly [place: number, weight: number])[]): Normal {
  let mean = 0
  let variance = 0
  for (const [i, w] of weights) {
    mean += w * (tied.shared[i] ?? 0)
    for (const [j, v] of weights) variance += w * v * covOf(tied, i, j)
  }
  return { mean, variance }
}
