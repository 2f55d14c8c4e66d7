import {
  beginSpan,
  evenLengths,
  fileFactor,
  fileLengths,
  grindLengths,
  stopLengths,
  lengthOf,
  meanOf,
  readLengthOf,
  replaceLength,
  settleReadings,
  sideLevel,
  sinkSettings,
  slowedUm,
  strokeBite,
  takenOff,
  UM_PER_STROKE,
  wasUsed,
  type Normal,
} from '../../belief'
import { damageDepth, shapeUm } from '../../damage'
import { edgeDrop } from '../../geometry'
import type { CutterReading, EntryBase, EntryOf, Instant, ReadWith } from '../../log'
import { HANDS, type Hand } from '../../loop'
import { LENGTH_SD_UM, READING_SD_UM } from '../../measure/accuracy'
import { BEHIND_DAMAGE_UM } from '../../sharpen/removals'
import { SUDDEN_LOSS_UM } from '../../measure/checkLength'
import { isEntered } from '../../profile'
import {
  cameUsed,
  type DoubtKind,
  type HeldReading,
  type Population,
  type PutDownTo,
  type SideRemoval,
} from '../../state'
import { mean, median } from '../../stats'
import { slippedDecimals, type Um } from '../../units'
import { beyondAnyEdge } from '../../wear/sharpness'
import { personBite } from '../../wear/personBite'
import { REMOVAL_PRIORS } from '../../wear/removal'
import { neverRead, newSpan, slopeDegOf, type Draft, type DraftCutter, type SharpeningsDone } from '../draft'
import { doubt, settleDoubts } from './doubts'

/** Deviations beyond which a reading and what is known cannot both be right. Starting value. */
const IMPROBABLE = 4
/** Deviations below what a new loop can be at which it came used. Starting value. */
const USED_BEFORE = 3
/** Readings of one round that together say that a sharpening was forgotten. Starting value. */
const ENOUGH_TO_NOTICE = 4
/** A span that tells what a sharpening took off no better than this says nothing. Starting value. */
const VAGUE_UM = 100

const SETTLED_BY_LENGTH = ['grew', 'shrank', 'disagree', 'pairGrew'] as const

/** What kind of contradiction a reading is that nobody would have expected. */
function kindOf(draft: Draft, entry: EntryBase, cutter: DraftCutter, offUm: number): DoubtKind {
  const before = draft.readBy.get(cutter.number)
  const people = [before, entry.personId]
  const others = people.every((one) => one !== undefined && one !== null) && before !== entry.personId
  if (cutter.lengthKnown === 'measured' && others) return 'disagree'
  return offUm > 0 ? 'grew' : 'shrank'
}

/** A length that was read of a cutter, before anybody asks whether the loop has such a cutter. */
type Read = Pick<CutterReading, 'cutter' | 'lengthUm'>

/** Measurements that stand held out, of cutters not read now nor sharpened since: with others they may say more. */
const heldBeside = ({ held }: Draft, now: readonly Read[]): Read[] =>
  [...held.values()]
    .filter(({ cutter, known }) => known === 'measured' && now.every((one) => one.cutter !== cutter))
    .map(({ cutter, um }) => ({ cutter, lengthUm: um }))

/** Whether so many of the lengths lie below what is known that a closer look is worth its time. */
function manyBelow({ lengths, cutters }: Draft, read: readonly Read[], byUm: number): boolean {
  let all = 0
  let below = 0
  for (const { cutter, lengthUm } of read) {
    if (lengthUm === undefined || cutter > cutters.length) continue
    all += 1
    if (meanOf(lengths.tied, cutter - 1) - lengthUm > byUm) below += 1
  }
  return all > 0 && 2 * below >= all
}

/**
 * Notices that a loop was used while nobody wrote it down: before it was registered, or that a
 * sharpening was forgotten. Most lengths that were read lie below what they can be, and a single one
 * is not enough once others were read before.
 *
 * @param sdUm how far the lengths that were read may stray
 */
export function noticeUse(draft: Draft, read: readonly Read[], sdUm: number = READING_SD_UM): void {
  const first = neverRead(draft)
  if (first && (cameUsed(draft) || newIsLonger(draft, read, sdUm))) {
    seeUsed(draft, read)
    return
  }
  const { lengths, cutters } = draft
  const limit = first ? USED_BEFORE : IMPROBABLE
  const round = [...read, ...heldBeside(draft, read)]
  if (round.length < (first ? 1 : ENOUGH_TO_NOTICE) || !manyBelow(draft, round, limit * sdUm)) return
  const below = deviationsBelow(draft, round, sdUm)
  if (below.length < (first ? 1 : ENOUGH_TO_NOTICE) || median(below) <= limit) return
  wasUsed(lengths, straysOf(draft, round))
  // What was measured before the work that nobody wrote down is an estimate now.
  for (const cutter of cutters) cutter.lengthKnown = 'estimated'
  draft.span.repaired = true
}

/**
 * Whether a loop that nobody has sharpened yet is longer than such loops usually are, where nobody read its new length
 * off a box: what is assumed gives way to what a new one measures.
 */
function newIsLonger(draft: Draft, read: readonly Read[], sdUm: number): boolean {
  if (draft.sharpenings > 0 || isEntered(draft.spec, 'newLengthUm')) return false
  const below = deviationsBelow(draft, read, sdUm)
  return below.length > 0 && median(below) < -USED_BEFORE
}

/** By how many deviations each length that was read lies below what is known. */
const deviationsBelow = ({ lengths, cutters }: Draft, read: readonly Read[], sdUm: number): number[] =>
  read.flatMap(({ cutter, lengthUm }) => {
    if (lengthUm === undefined || cutter > cutters.length) return []
    const { mean: thought, variance } = lengthOf(lengths, cutter - 1)
    return [(thought - lengthUm) / Math.sqrt(variance + sdUm ** 2)]
  })

/** Of a loop of which nobody knows how long it is, the first readings tell that, and how far its cutters stray. */
function seeUsed(draft: Draft, read: readonly Read[]): void {
  if (read.some(({ lengthUm }) => lengthUm !== undefined)) wasUsed(draft.lengths, straysOf(draft, read))
}

/** How far each cutter that was read lies from the middle of its side, by its place from 0. */
function straysOf({ lengths, cutters }: Draft, read: readonly Read[]): Map<number, number> {
  const strays = new Map<number, number>()
  for (const hand of HANDS) {
    const side = new Map<number, number>()
    for (const { cutter, lengthUm } of read)
      if (lengthUm !== undefined && cutters[cutter - 1]?.hand === hand)
        side.set(cutter - 1, lengthUm - meanOf(lengths.tied, cutter - 1))
    if (side.size < 2) continue
    const middle = median([...side.values()])
    for (const [place, by] of side) strays.set(place, by - middle)
  }
  return strays
}

/** Most that a stone, a nail or a shop takes off one cutter before a reading is rather a slip. Starting value. */
const MOST_SHORTER_UM = 3500
/** So many readings that were explained are kept to be told of. */
const MOST_EXPLAINED = 12

/** What explains that a cutter is so much shorter than was thought; null where nothing does. */
function whyShorter(draft: Draft, number: number, shorterUm: number): PutDownTo | null {
  if (shorterUm <= 0 || shorterUm > MOST_SHORTER_UM) return null
  return draft.mayBeShorter.get(number) ?? (beyondAnyEdge(draft) ? 'unlogged' : null)
}

/** What happened to a cutter alone says nothing of the others: it has the length that was read. */
function takeAsItsOwn(
  draft: Draft,
  entryId: string,
  number: number,
  { um, sdUm, offUm }: { readonly um: Um; readonly sdUm: number; readonly offUm: number },
  to: PutDownTo,
): void {
  replaceLength(draft.lengths, number - 1, { mean: um, variance: sdUm ** 2 })
  const one = { cutter: number, entryId, byUm: Math.round(-offUm), to }
  draft.explained = [...draft.explained.filter(({ cutter }) => cutter !== number), one].slice(-MOST_EXPLAINED)
}

/** Hours within which readings belong to one round, in however many entries they are written down. Starting value. */
const ROUND_HOURS = 24

/** Readings join the round that is under way, or begin another: a cutter is read once in a round. */
export function joinRound(draft: Draft, { happenedAt }: EntryBase, read: readonly Read[], readWith: ReadWith): void {
  const cutters = read.filter(({ lengthUm }) => lengthUm !== undefined).map(({ cutter }) => cutter)
  if (readWith === 'eye' || cutters.length === 0) return
  const { round } = draft
  const apart = round === null ? Infinity : (Date.parse(happenedAt) - Date.parse(round.at)) / 3_600_000
  if (round === null || apart > ROUND_HOURS || cutters.some((cutter) => round.cutters.has(cutter)))
    draft.round = { cutters: new Set(cutters), at: happenedAt }
  else for (const cutter of cutters) round.cutters.add(cutter)
}

/** Whether a figure is what was thought with its decimal mark one place off. */
const slippedMark = (um: Um, thoughtUm: number): boolean =>
  slippedDecimals(um).some((meant) => Math.abs(meant - thoughtUm) < Math.max(300, 0.15 * thoughtUm))

/**
 * Once every cutter was read in one round, one that is shorter than all else would have it stands: among so many it is
 * at least as likely as a slip of the reader's.
 */
export function takeRound(draft: Draft): void {
  const { round, cutters, held } = draft
  if (round === null || held.size === 0 || round.cutters.size < cutters.length) return
  for (const one of [...held.values()]) {
    const thoughtUm = meanOf(draft.lengths.tied, one.cutter - 1)
    const shorterUm = thoughtUm - one.um
    if (one.known !== 'measured' || !round.cutters.has(one.cutter)) continue
    if (shorterUm <= 0 || shorterUm > SUDDEN_LOSS_UM || slippedMark(one.um, thoughtUm)) continue
    takeAlone(draft, one, 'round')
  }
}

/**
 * Takes a length into what is known. One that contradicts it is held out and asked about; the next
 * reading of that cutter says which it was, and the two are never averaged.
 */
export function takeLength(
  draft: Draft,
  entry: EntryBase,
  cutter: DraftCutter,
  um: Um,
  readWith: ReadWith = 'caliper',
): void {
  const sdUm = LENGTH_SD_UM[readWith]
  const place = cutter.number - 1
  const held = draft.held.get(cutter.number)
  if (held === undefined) settleDoubts(draft, SETTLED_BY_LENGTH, cutter.number)
  const { off, taken } = readLengthOf(draft.lengths, place, um, sdUm, IMPROBABLE)
  if (!taken) {
    if (held === undefined || Math.abs(um - held.um) > IMPROBABLE * Math.hypot(held.sdUm, sdUm)) {
      settleDoubts(draft, SETTLED_BY_LENGTH, cutter.number)
      doubt(draft, kindOf(draft, entry, cutter, off), entry.id, cutter.number, Math.round(Math.abs(off)))
      const known = readWith === 'eye' ? 'estimated' : 'measured'
      draft.held.set(cutter.number, { cutter: cutter.number, entryId: entry.id, um, sdUm, known })
      return
    }
    replaceLength(draft.lengths, place, { mean: held.um, variance: held.sdUm ** 2 })
    readLengthOf(draft.lengths, place, um, sdUm)
  }
  if (held !== undefined) settleDoubts(draft, SETTLED_BY_LENGTH, cutter.number)
  draft.held.delete(cutter.number)
  draft.mayBeShorter.delete(cutter.number)
  draft.onOneReading.delete(cutter.number)
  // What an eye says is no measurement, and takes none back.
  if (readWith !== 'eye') cutter.lengthKnown = 'measured'
  draft.readBy.set(cutter.number, entry.personId)
}

/** What was held out stands after all, for that cutter alone. */
function takeAlone(draft: Draft, { cutter: number, um, sdUm, known, entryId }: HeldReading, to: PutDownTo): void {
  const cutter = draft.cutters[number - 1]
  if (cutter === undefined) return
  takeAsItsOwn(draft, entryId, number, { um, sdUm, offUm: um - meanOf(draft.lengths.tied, number - 1) }, to)
  settleDoubts(draft, SETTLED_BY_LENGTH, number)
  draft.held.delete(number)
  draft.mayBeShorter.delete(number)
  if (to !== 'confirmed') draft.onOneReading.add(number)
  if (known === 'measured') cutter.lengthKnown = known
}

/**
 * Takes what an entry read that nobody would have expected, where something explains it or it was read again on the
 * spot. First all that was read beside it tells of the sides what it does: only what is left over is a cutter's own.
 */
export function takeExplained(
  draft: Draft,
  { id, personId }: EntryBase,
  readings: readonly Pick<CutterReading, 'cutter' | 'confirmed'>[],
): void {
  for (const held of [...draft.held.values()]) {
    if (held.entryId !== id) continue
    const confirmed = readings.some((one) => one.cutter === held.cutter && one.confirmed === true)
    const shorterUm = meanOf(draft.lengths.tied, held.cutter - 1) - held.um
    const to = confirmed ? 'confirmed' : whyShorter(draft, held.cutter, shorterUm)
    if (to === null) continue
    takeAlone(draft, held, to)
    draft.readBy.set(held.cutter, personId)
  }
}

/**
 * Takes measurements that were held out, as far as what was read of other cutters since has made them
 * probable: in whatever order and in however many entries readings are written down, they come to the same.
 * Once it was sharpened, only another reading of that cutter settles what it was.
 */
export function takeHeld(draft: Draft): void {
  for (let more = true; more;) {
    more = false
    for (const { cutter: number, um, sdUm, known } of [...draft.held.values()]) {
      const cutter = draft.cutters[number - 1]
      if (
        cutter === undefined ||
        known !== 'measured' ||
        !readLengthOf(draft.lengths, number - 1, um, sdUm, IMPROBABLE).taken
      )
        continue
      settleDoubts(draft, SETTLED_BY_LENGTH, number)
      draft.held.delete(number)
      cutter.lengthKnown = known
      more = true
    }
  }
}

/** What has to come off a cutter that is made sound: behind its damage, and for its shape. */
const toBeSoundUm = ({ damage }: DraftCutter): Um => {
  const { knownUm } = damageDepth(damage)
  return Math.max(knownUm === 0 ? 0 : knownUm + BEHIND_DAMAGE_UM, shapeUm(damage))
}

/** Cutters that got other strokes than their side did, by their number. */
const ownStrokes = ({ strokes, apart = [] }: EntryOf<'sharpened'>): ReadonlyMap<number, number> =>
  new Map(apart.filter((one) => strokes !== undefined || one.strokes === 0).map((one) => [one.cutter, one.strokes]))

/** What has to come off each cutter at least: what more strokes than its side's took, or what makes it sound. */
function atLeastOff({ cutters, lengths }: Draft, entry: EntryOf<'sharpened'>, own: ReadonlyMap<number, number>): Um[] {
  const biteUm = strokeBite(lengths).mean
  return cutters.map((cutter, i) => {
    const given = own.get(cutter.number) ?? 0
    const countedUm = given > (entry.strokes?.[cutter.hand] ?? 0) ? slowedUm(given * fileFactor(entry) * biteUm) : 0
    const soundUm = entry.damageCleared === true && cutter.damage.length > 0 ? toBeSoundUm(cutter) : 0
    // Never more than the cutter has.
    return Math.min(Math.max(countedUm, soundUm), Math.max(0, meanOf(lengths.tied, i)))
  })
}

/** Whether every cutter was worked down to a stop: under a wheel, and in a jig. */
const endsAtStop = ({ tool }: EntryOf<'sharpened'>, population: Population): boolean =>
  population === 'grind' ? tool !== 'handGrinder' : tool === 'jig'

/** Cutters that one reading has far shorter than the others, by their place: nobody saw what happened to them. */
const onOneReadingAlone = ({ onOneReading, cutters }: Draft): ReadonlySet<number> =>
  new Set(cutters.flatMap(({ number, damage }, i) => (damage.length === 0 && onOneReading.has(number) ? [i] : [])))

/** What comes off each cutter, by how it was done. */
function offBy(draft: Draft, entry: EntryOf<'sharpened'>, population: Population, atLeastUm: readonly Um[]): number[] {
  const { lengths } = draft
  const { onlySide } = entry
  const usualUm = REMOVAL_PRIORS[population].meanUm
  const oneSide = onlySide === undefined ? null : { hand: onlySide, follows: draft.waitingSide === onlySide }
  if (entry.stopUm !== undefined && endsAtStop(entry, population)) {
    const { stopUm, stopRead = false, stopChecked } = entry
    return stopLengths(lengths, { stopUm, read: stopRead, checked: stopChecked === true, oneSide })
  }
  if (population === 'grind' || entry.evened === true) {
    const toLevel = { atLeastUm, oneSide, doubtful: onOneReadingAlone(draft) }
    // What that reading was, the level has in it from here on.
    for (const { number, hand } of draft.cutters) if ((onlySide ?? hand) === hand) draft.onOneReading.delete(number)
    return population === 'grind'
      ? grindLengths(lengths, toLevel, entry.stopChecked)
      : evenLengths(lengths, usualUm, toLevel)
  }
  return fileLengths(lengths, {
    strokes: entry.strokes ?? null,
    asRead: entry.countsRead === true,
    usualUm,
    fileAge: entry.fileAge,
    fileBite: entry.fileBite,
    by: entry.personId,
    ...knownOf(draft, entry.personId),
    atLeastUm,
    only: onlySide,
  })
}

/**
 * Takes off what a sharpening takes off, and lets the edges sink toward their gauges.
 *
 * @returns what came off each cutter, as far as that is known, and whether it was a repair
 */
export function takeOff(
  draft: Draft,
  entry: EntryOf<'sharpened'>,
  population: Population,
): { offUm: readonly number[]; repaired: boolean } {
  const { lengths, cutters } = draft
  const own = ownStrokes(entry)
  /** Cutters that were passed over stay as they were. */
  const passedOver = [...own].flatMap(([number, given]) =>
    given > 0 || cutters[number - 1] === undefined ? [] : [[number - 1, lengthOf(lengths, number - 1)] as const],
  )
  const needed = atLeastOff(draft, entry, own)
  const offUm = offBy(draft, entry, population, needed)
  for (const [place, figure] of passedOver) {
    replaceLength(lengths, place, figure)
    offUm[place] = 0
  }
  const slope = edgeDrop(1_000_000, slopeDegOf(draft)) / 1_000_000
  sinkSettings(draft.settings, offUm, slope)
  for (let i = 0; i < cutters.length; i += 1) {
    const cutter = cutters[i]
    if (cutter === undefined || (offUm[i] ?? 0) <= 0) continue
    cutter.lengthKnown = 'estimated'
    cutter.settingKnown = 'estimated'
  }
  for (const [number, held] of draft.held) {
    const off = offUm[number - 1] ?? 0
    const known = off > 0 ? 'estimated' : held.known
    draft.held.set(number, { ...held, um: held.um - off, sdUm: Math.hypot(held.sdUm, off / 2), known })
  }
  const usualUm = REMOVAL_PRIORS[population].meanUm
  return { offUm, repaired: entry.evened === true || needed.some((one) => one > usualUm) }
}

/** What is known of whoever files the loop, by this loop and by those that came before it. */
function knownOf({ removals, hands }: Draft, personId: string | null) {
  const hand = personId === null ? undefined : hands.get(personId)
  if (hand === undefined) return { person: personBite(removals, personId) }
  return {
    person: personBite(removals, personId, { factor: hand.factor, sd: hand.factorSd }),
    lean: { mean: hand.leanUm, variance: hand.leanSdUm ** 2 },
  }
}

const NOTHING_DONE: SharpeningsDone = { sharpenings: 0, strokes: { left: 0, right: 0 } }

/**
 * Notes a sharpening in the span that is under way.
 *
 * @param sharpeningsMore 0 for the second half of one that was noted when its first side was done
 */
export function noteSharpening(
  { span, spent }: Draft,
  entry: EntryOf<'sharpened'>,
  population: Population,
  repaired: boolean,
  sharpeningsMore: 0 | 1,
): void {
  const same = <T>(was: T | null | undefined, is: T | null): T | null => (was === undefined || was === is ? is : null)
  // Of several in a span nobody can tell which file took what.
  span.spent = span.done.size === 0 && (entry.used ?? []).length > 0 ? spent.length - 1 : null
  const { sharpenings, strokes } = span.done.get(population) ?? NOTHING_DONE
  span.done.set(population, {
    // Read in between, the second half stands in its span alone.
    sharpenings: Math.max(1, sharpenings + sharpeningsMore),
    strokes:
      strokes === null || entry.strokes === undefined
        ? null
        : { left: strokes.left + entry.strokes.left, right: strokes.right + entry.strokes.right },
  })
  span.repaired ||= repaired
  span.by = same(span.by, entry.personId)
  span.method = same(span.method, entry.method)
  span.fileAge = same(span.fileAge, entry.fileAge ?? null)
  span.fileBite = same(span.fileBite, entry.fileBite ?? null)
}

/** What came off a side since it was last read. A grind shows in how far the side has sunk. */
function offIn({ lengths, span }: Draft, hand: Hand, expected: Normal): Normal | null {
  if (!span.done.has('grind')) return saidByReadings(expected, takenOff(lengths, hand))
  const [from, to] = [span.from[hand], sideLevel(lengths, hand)]
  return from === null || to === null ? null : { mean: from.mean - to.mean, variance: from.variance + to.variance }
}

/** What is thought to have come off each side before anybody reads what really did. */
export const expectedOff = ({ lengths }: Draft): Expected => ({
  left: takenOff(lengths, 'left'),
  right: takenOff(lengths, 'right'),
  strokeUm: strokeBite(lengths).mean,
})

/** What came off each side since it was read, and what a usual stroke takes, as far as was known. */
type Expected = Readonly<Record<Hand, Normal>> & { readonly strokeUm: number }

/**
 * What readings alone say, once what was expected before them is taken out again: many spans are put
 * together later, and what was expected must not count in each of them.
 */
function saidByReadings(before: Normal, after: Normal): Normal | null {
  const precision = 1 / after.variance - 1 / before.variance
  if (!(precision > 1e-9)) return null
  return { mean: (after.mean / after.variance - before.mean / before.variance) / precision, variance: 1 / precision }
}

/** What sharpenings usually take off a side, all of them together. */
const usuallyOff = ([population, { sharpenings, strokes }]: readonly [Population, SharpeningsDone], hand: Hand): Um =>
  strokes === null ? REMOVAL_PRIORS[population].meanUm * sharpenings : strokes[hand] * UM_PER_STROKE

/**
 * What one sharpening of each kind in a span took off a side, as far as that can be told: where several were
 * done, each as much more or less than usual as all of them together.
 */
function sideOf(draft: Draft, hand: Hand, cutters: number, expected: Normal): Map<Population, SideRemoval> {
  const { span } = draft
  const told = new Map<Population, SideRemoval>()
  // A wheel goes by its stop: what it took and what a file did cannot be told apart.
  if (span.repaired || span.from[hand] === null || (span.done.has('grind') && span.done.size > 1)) return told
  const off = span.done.size === 0 ? null : offIn(draft, hand, expected)
  if (off === null || off.mean <= 0) return told
  let allUm = 0
  for (const done of span.done) allUm += usuallyOff(done, hand)
  for (const done of span.done) {
    const [population, { sharpenings, strokes }] = done
    const part = usuallyOff(done, hand) / allUm / sharpenings
    const sdUm = Math.sqrt(off.variance) * part
    // Nothing where that side got no strokes.
    if (!(part > 0) || sdUm > VAGUE_UM) continue
    told.set(population, {
      um: Math.round(off.mean * part),
      sdUm: Math.round(sdUm),
      cutters,
      ...(strokes === null ? {} : { strokes: Math.round(strokes[hand] / sharpenings) }),
    })
  }
  return told
}

/** What each kind of sharpening took off between the last reading of a side and this one. */
export function learnSpan(draft: Draft, at: Instant, read: Readonly<Record<Hand, number>>, expected: Expected): void {
  const { span, lengths } = draft
  const now: Record<Hand, Normal | null> = { ...span.from }
  const told: Partial<Record<Hand, Map<Population, SideRemoval>>> = {}
  for (const hand of HANDS) {
    if (read[hand] === 0) continue
    told[hand] = sideOf(draft, hand, read[hand], expected[hand])
    now[hand] = sideLevel(lengths, hand)
    beginSpan(lengths, hand)
  }
  for (const [population, { sharpenings }] of span.done) {
    const [left, right] = [told.left?.get(population), told.right?.get(population)]
    noteRemoval(draft, at, population, sharpenings, {
      ...(left === undefined ? {} : { left }),
      ...(right === undefined ? {} : { right }),
    })
  }
  noteBite(draft, told, expected)
  settleReadings(lengths)
  draft.span = newSpan(now)
}

/** What a stroke of the file took that did the only sharpening of a span, against what is usual. */
function noteBite(
  draft: Draft,
  told: Readonly<Partial<Record<Hand, ReadonlyMap<Population, SideRemoval>>>>,
  expected: Expected,
): void {
  const { span, spent } = draft
  const one = span.spent === null ? undefined : spent[span.spent]
  if (span.spent === null || one === undefined || span.done.has('grind')) return
  const ratios = HANDS.flatMap((hand) => {
    const [side] = [...(told[hand]?.values() ?? [])]
    return side?.strokes === undefined || expected[hand].mean <= 0 ? [] : [side.um / expected[hand].mean]
  })
  if (ratios.length === 0) return
  const known = fileFactor({ fileAge: span.fileAge ?? undefined, fileBite: span.fileBite ?? undefined })
  // What readings say of every stroke on this loop is not the file's own once more.
  const usual = (known * expected.strokeUm) / Math.max(1, strokeBite(draft.lengths).mean)
  spent[span.spent] = { ...one, bite: Math.round(Math.min(3, mean(ratios) * usual) * 1000) / 1000 }
}

function noteRemoval(
  draft: Draft,
  at: Instant,
  population: Population,
  sharpenings: number,
  sides: Readonly<Partial<Record<Hand, SideRemoval>>>,
): void {
  const { span } = draft
  const known = Object.values(sides)
  if (known.length === 0) return
  draft.removals.push({
    population,
    perSharpeningUm: Math.round(mean(known.map(({ um }) => um))),
    sdUm: Math.round(Math.hypot(...known.map(({ sdUm }) => sdUm)) / known.length),
    sharpenings,
    at,
    personId: span.by ?? null,
    ...(span.method == null ? {} : { method: span.method }),
    ...(span.fileAge == null ? {} : { fileAge: span.fileAge }),
    ...(span.fileBite == null ? {} : { fileBite: span.fileBite }),
    sides,
  })
}
