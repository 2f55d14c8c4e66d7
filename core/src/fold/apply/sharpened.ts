import { lowerSettings, meanOf } from '../../belief'
import type { Known, Population } from '../../state'
import { plateLeaves } from '../../geometry'
import { CUTTER_DAMAGE, PART_DAMAGE, damageAfterRemoval, type CutterDamage, type DamageEffect } from '../../damage'
import type { BeforeAfter, EntryBodies, EntryOf } from '../../log'
import { startingMinutes } from '../../sharpen/toolTimes'
import { otherHand, type Hand } from '../../loop'
import type { Um } from '../../units'
import { TOUCH_UP_STROKES } from '../../wear/removal'
import { noteLifePoint, type Draft } from '../draft'
import type { Applier } from './applier'
import { doubt } from './doubts'
import { expectedOff, learnSpan, noteSharpening, noticeUse, takeExplained, takeLength, takeOff } from './lengths'
import { answer, ask, askIfTwice } from './questions'
import { edgesDone, gaugesDone } from './signs'
import { beginSpell, endSpell } from './spells'

/**
 * Which kind of sharpening it was: a wheel is a grind; a file in the field, or a few strokes, a
 * touch-up; any other filing is routine.
 */
export function populationOf(entry: Pick<EntryBodies['sharpened'], 'method' | 'strokes'>): Population {
  if (entry.method === 'grinder' || entry.method === 'shop') return 'grind'
  const strokes = entry.strokes === undefined ? undefined : Math.max(entry.strokes.left, entry.strokes.right)
  if (strokes === undefined) return entry.method === 'fileField' ? 'touchUp' : 'routine'
  return strokes <= TOUCH_UP_STROKES ? 'touchUp' : 'routine'
}

/** What no sharpening puts right, whatever was ticked: a look, a plate or a repair does. */
const BEYOND_SHARPENING: ReadonlySet<DamageEffect> = new Set(['ends', 'unfit', 'attention', 'gauge'])

/** What is left of a cutter's damage. A wheel gives it a new shape; a file does where somebody saw to it. */
function afterSharpening(
  damage: readonly CutterDamage[],
  offUm: Um,
  cleared: boolean,
  ground: boolean,
): readonly CutterDamage[] {
  if (cleared) return damage.filter(({ kind }) => BEYOND_SHARPENING.has(CUTTER_DAMAGE[kind].effect))
  const left = damageAfterRemoval(damage, offUm)
  return ground ? left.filter(({ kind }) => CUTTER_DAMAGE[kind].effect !== 'shape') : left
}

/** Pairs that can be true: nothing grows by sharpening. */
const soundPairs = ({ pairs = [] }: EntryOf<'sharpened'>): readonly BeforeAfter[] =>
  pairs.length === 0 ? pairs : pairs.filter(({ beforeUm, afterUm }) => afterUm <= beforeUm)

/** Cutters read just before, or just after: pairs that cannot be true are asked about and teach nothing. */
function takePairs(draft: Draft, entry: EntryOf<'sharpened'>, which: 'beforeUm' | 'afterUm'): void {
  const pairs = soundPairs(entry)
  if (pairs.length === 0) return
  const expected = expectedOff(draft)
  const read = { left: 0, right: 0 }
  for (const pair of pairs) {
    const cutter = draft.cutters[pair.cutter - 1]
    if (cutter === undefined) continue
    takeLength(draft, entry, cutter, pair[which])
    read[cutter.hand] += 1
  }
  takeExplained(draft, entry, [])
  if (read.left + read.right > 0) learnSpan(draft, entry.happenedAt, read, expected)
}

/** Settings that plates have, against a new loop's: a progressive one goes to about the double. Starting values. */
const PLATES = { least: 0.5, most: 2.5 } as const

/** How gauges were lowered, wherever that is written. */
type Lowered = Pick<EntryOf<'gaugesLowered'>, 'id' | 'settingUm' | 'plate' | 'gaugesByEye'>

/** Whether there is such a plate. */
function isHeardOf({ spec: { settingUm: newUm } }: Draft, { settingUm, plate }: Lowered): boolean {
  const said = settingUm ?? plate?.stampedUm
  return said === undefined || (said >= PLATES.least * newUm && said <= PLATES.most * newUm)
}

/** What the plate left on each gauge, by its place from 0: as it was read, or as its step has it at this wear. */
function leftByPlate(draft: Draft, { settingUm, plate = { rests: 'constant' } }: Lowered, heardOf: boolean): Um[] {
  const { spec, cutters, lengths } = draft
  if (!heardOf) return cutters.map(() => spec.settingUm)
  return cutters.map((_, i) => settingUm ?? plateLeaves(spec, Math.round(meanOf(lengths.tied, i)), plate))
}

/**
 * Lowers gauges to a plate. A gauge that already stands lower stays: steel cannot be put back.
 *
 * The setting that was read from the plate holds; else what the plate that is named leaves at this wear. A new loop's
 * setting is taken where none is named, or one that no plate has.
 *
 * @param done whether a cutter's gauge came down, by its number; all where it is left out
 */
export function lowerGauges(draft: Draft, lowering: Lowered, done: (cutter: number) => boolean = () => true): void {
  const { id: entryId, settingUm, plate, gaugesByEye = false } = lowering
  const heardOf = isHeardOf(draft, lowering)
  if (heardOf) answer(draft, 'plateUnheardOf')
  else ask(draft, 'plateUnheardOf', entryId)
  const toUm = leftByPlate(draft, lowering, heardOf).map((um, i) => (done(i + 1) ? um : null))
  const lowered = lowerSettings(draft.settings, toUm, gaugesByEye)
  const known: Known = settingUm === undefined || !heardOf ? 'estimated' : 'measured'
  for (const [i, cutter] of draft.cutters.entries()) {
    if (!done(cutter.number)) continue
    // Filed flush and rounded again, as the work goes.
    cutter.damage = cutter.damage.filter(({ kind }) => CUTTER_DAMAGE[kind].effect !== 'gauge')
    // Of a plate that nobody heard of it is not known which gauges it left alone either.
    if (lowered[i] === true || !heardOf) cutter.settingKnown = known
  }
  if (plate?.rests === 'progressive') draft.woodStep = plate.step ?? 'standard'
  draft.sharpeningsSinceGauges = 0
  draft.readTogether = new Map()
  draft.plateUm = gaugesByEye ? null : toUm
  draft.gaugesByEye = gaugesByEye
  gaugesDone(draft, gaugesByEye)
}

/** Cutters that got no stroke. */
const passedOver = ({ strokes, apart = [] }: EntryOf<'sharpened'>, hand: Hand, number: number): boolean =>
  apart.some((one) => one.cutter === number && one.strokes === 0) ||
  (strokes?.[hand] === 0 && !apart.some((one) => one.cutter === number))

/** What the tool did to the gauges on the way, or somebody did besides. */
function gaugesOf(draft: Draft, entry: EntryOf<'sharpened'>): void {
  const { id, tool, gaugesLowered, settingUm, plate, gaugesByEye, onlySide } = entry
  if (tool === 'twoInOne') {
    // It files the gauge in every stroke, down to where its own plate has it: one setting for life.
    const done = new Set(
      draft.cutters
        .filter(({ hand, number }) => (onlySide ?? hand) === hand && !passedOver(entry, hand, number))
        .map(({ number }) => number),
    )
    lowerGauges(draft, { id, ...(settingUm === undefined ? {} : { settingUm }) }, (number) => done.has(number))
    return
  }
  if (!gaugesLowered) return
  lowerGauges(draft, {
    id,
    ...(settingUm === undefined ? {} : { settingUm }),
    ...(plate === undefined ? {} : { plate }),
    ...(gaugesByEye === undefined ? {} : { gaugesByEye }),
  })
}

/** Nobody works so many times as fast as the starting times. Starting value. */
const TOO_FAST = 4

/** How long it took, where somebody said so, against what was to be expected of it. */
function noteTime(draft: Draft, entry: EntryOf<'sharpened'>, population: Population, offUm: readonly number[]): void {
  const { tool, minutes, strokes, apart = [], onlySide, gaugesLowered, happenedAt: at, personId } = entry
  if (tool === undefined || minutes === undefined || minutes <= 0) return
  const worked = draft.cutters.filter(({ hand }) => (onlySide ?? hand) === hand)
  const own = new Map(apart.map((one) => [one.cutter, one.strokes]))
  const given = worked.map(({ number, hand }) => ({
    hand,
    offUm: offUm[number - 1] ?? 0,
    strokes: own.get(number) ?? strokes?.[hand],
  }))
  const gauges = gaugesLowered && tool !== 'twoInOne' ? worked.length : 0
  const usual = startingMinutes(tool, population === 'touchUp' ? 'field' : 'bench', given, gauges)
  // Who goes through it faster than anybody works wrote it down afterwards: that teaches nothing.
  if (minutes < usual / TOO_FAST) return
  draft.timed.push({
    at,
    personId,
    tool,
    population,
    cutters: worked.length,
    minutes,
    startingMinutes: usual,
  })
}

/** Notes what of the kit it used up. */
function noteSpent(draft: Draft, { used = [], strokes, apart = [], onlySide, happenedAt: at }: EntryOf<'sharpened'>) {
  if (used.length === 0) return
  const own = new Map(apart.map((one) => [one.cutter, one.strokes]))
  const all = draft.cutters
    .filter(({ hand }) => (onlySide ?? hand) === hand)
    .reduce((sum, { number, hand }) => sum + (own.get(number) ?? strokes?.[hand] ?? 0), 0)
  draft.spent.push({ at, used, strokes: strokes === undefined ? null : all, bite: null })
}

/** What came off the cutters that lost anything, on average. */
function meanTaken(offUm: readonly number[]): Um {
  const taken = offUm.filter((um) => um > 0)
  return taken.length === 0 ? 0 : Math.round(taken.reduce((sum, um) => sum + um, 0) / taken.length)
}

/** Counts a sharpening when it begins: the second half of one is no other, and the first half leaves a side waiting. */
function countOnce(draft: Draft, onlySide: Hand | undefined, population: Population): void {
  const follows = onlySide !== undefined && draft.waitingSide === onlySide
  draft.waitingSide = onlySide === undefined || follows ? null : otherHand(onlySide)
  draft.begun = null
  if (follows) return
  draft.sharpenings += 1
  draft.sharpenedBy[population] += 1
  draft.sharpeningsSinceGauges += 1
}

/** What is left of the damage of the cutters that were worked on. */
function takeDamageOff(
  draft: Draft,
  offUm: readonly number[],
  onlySide: Hand | undefined,
  cleared: boolean,
  ground: boolean,
): void {
  for (const cutter of draft.cutters) {
    if ((onlySide ?? cutter.hand) !== cutter.hand) continue
    draft.readBy.delete(cutter.number)
    if (cutter.damage.length === 0) continue
    cutter.damage = afterSharpening(cutter.damage, Math.round(offUm[cutter.number - 1] ?? 0), cleared, ground)
  }
}

/** Soil does no more than dull: once every cutter was sharpened, nothing of it is left to look for. */
function dirtIsGone(draft: Draft, entry: EntryOf<'sharpened'>): void {
  if (draft.openStrikes.length === 0) return
  if (draft.cutters.some(({ hand, number }) => passedOver(entry, hand, number))) return
  draft.openStrikes = draft.openStrikes.filter(({ against }) => against !== 'soil')
}

/** Every cutter that was worked stands at the angle that the tool was held at. */
function angleFiled(draft: Draft, angleDeg: number, onlySide: Hand | undefined): void {
  for (const cutter of draft.cutters) if ((onlySide ?? cutter.hand) === cutter.hand) cutter.angleDeg = angleDeg
}

/** The first cutter of a sharpening was done: one side is sharp, or begun, and the other is not. */
export const applyBegun: Applier<'begun'> = (draft, { id, happenedAt, personId, side }) => {
  if (draft.waitingSide === null) draft.begun = { entryId: id, at: happenedAt, personId, side }
}

/** A sharpening: edges go back, settings shrink, dullness goes, damage shrinks or is gone. */
export const applySharpened: Applier<'sharpened'> = (draft, entry) => {
  endSpell(draft, entry.wasDull === true)
  answer(draft, 'shopWorkUnsaid')
  askIfTwice(draft, entry)
  const population = populationOf(entry)
  noticeUse(
    draft,
    soundPairs(entry).map(({ cutter, beforeUm }) => ({ cutter, lengthUm: beforeUm })),
  )
  takePairs(draft, entry, 'beforeUm')
  const { onlySide } = entry
  /** The other half of a sharpening that was counted when it began. */
  const follows = onlySide !== undefined && draft.waitingSide === onlySide
  const { offUm, repaired } = takeOff(draft, entry, population)
  noteTime(draft, entry, population, offUm)
  noteSpent(draft, entry)
  const cleared = entry.damageCleared === true
  takeDamageOff(draft, offUm, onlySide, cleared, population === 'grind')
  noteSharpening(draft, entry, population, repaired, follows ? 0 : 1)
  takePairs(draft, entry, 'afterUm')
  for (const { cutter, beforeUm, afterUm } of entry.pairs ?? [])
    if (afterUm > beforeUm) doubt(draft, 'pairGrew', entry.id, cutter, afterUm - beforeUm)
  draft.plateUm = null
  const bothSides = onlySide === undefined || follows
  const shaped = cleared || population === 'grind'
  if (shaped && bothSides) draft.parts = draft.parts.filter(({ kind }) => PART_DAMAGE[kind].effect !== 'shape')
  countOnce(draft, onlySide, population)
  beginSpell(draft)
  draft.lastSharpened = {
    at: entry.happenedAt,
    personId: entry.personId,
    population,
    strokes: entry.strokes ?? null,
    tookUm: meanTaken(offUm),
  }
  edgesDone(draft, bothSides, shaped)
  if (bothSides) dirtIsGone(draft, entry)
  if (entry.angleDeg !== undefined) angleFiled(draft, entry.angleDeg, onlySide)
  gaugesOf(draft, entry)
  if (noteLifePoint(draft, entry.happenedAt) < 0) ask(draft, 'moreThanThere', entry.id)
}
