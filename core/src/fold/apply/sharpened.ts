import type { Population, RemovalSample } from '../../state'
import { CUTTER_DAMAGE, PART_DAMAGE, damageAfterRemoval, type DamageEffect } from '../../damage'
import { edgeDrop } from '../../geometry'
import type { BeforeAfter, EntryBodies, EntryOf } from '../../log'
import type { Hand } from '../../loop'
import { neededUm, removals } from '../../sharpen/removals'
import type { Um } from '../../units'
import { learnRemoval, meanRemoved, TOUCH_UP_STROKES, type RemovalBelief } from '../../wear/removal'
import { PLATE_SD_UM, READING_SD_UM } from '../../measure/accuracy'
import { noteLifePoint, slopeDegOf, type Draft, type DraftCutter } from '../draft'
import type { Applier } from './applier'
import { doubt } from './doubts'
import { bySide } from './readings'
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

/** What no sharpening puts right, whatever was ticked. */
const BEYOND_SHARPENING: ReadonlySet<DamageEffect> = new Set(['ends', 'unfit'])

interface TakenOff {
  readonly usualUm: Um
  readonly sdUm: number
}

/** Pairs that can be true: nothing grows by sharpening. */
const soundPairs = ({ pairs }: EntryOf<'sharpened'>): readonly BeforeAfter[] =>
  (pairs ?? []).filter(({ beforeUm, afterUm }) => afterUm <= beforeUm)

function usualRemoval(entry: EntryOf<'sharpened'>, belief: RemovalBelief): TakenOff {
  const pairs = soundPairs(entry)
  if (pairs.length > 0) return { usualUm: meanRemoved(pairs), sdUm: READING_SD_UM }
  return { usualUm: Math.round(belief.meanUm), sdUm: Math.hypot(belief.sdUm, belief.withinUm) }
}

/** What the pairs of one sharpening show. */
function sampleOf(draft: Draft, entry: EntryOf<'sharpened'>, population: Population, usualUm: Um): RemovalSample {
  const removed: Record<Hand, number[]> = { left: [], right: [] }
  for (const { cutter, beforeUm, afterUm } of soundPairs(entry)) {
    const hand = draft.cutters[cutter - 1]?.hand
    if (hand !== undefined) removed[hand].push(beforeUm - afterUm)
  }
  return {
    population,
    perSharpeningUm: usualUm,
    sharpenings: 1,
    at: entry.happenedAt,
    personId: entry.personId,
    method: entry.method,
    sides: bySide(removed, entry.strokes),
    ...(entry.fileAge === undefined ? {} : { fileAge: entry.fileAge }),
  }
}

function takePairs(draft: Draft, entry: EntryOf<'sharpened'>): void {
  for (const { cutter: number, beforeUm, afterUm } of entry.pairs ?? []) {
    const cutter = draft.cutters[number - 1]
    if (cutter === undefined) continue
    const grewUm = afterUm - beforeUm
    cutter.length = { um: afterUm, known: 'measured', sdUm: Math.max(READING_SD_UM, grewUm) }
    draft.readBy.set(number, entry.personId)
    if (grewUm > 0) doubt(draft, 'pairGrew', entry.id, number, grewUm)
  }
}

function lowerEdge(draft: Draft, cutter: DraftCutter, lengthUm: Um, sdUm: number): void {
  const removedUm = cutter.length.um - lengthUm
  cutter.length = { um: lengthUm, known: 'estimated', sdUm: Math.hypot(cutter.length.sdUm, sdUm) }
  cutter.setting = {
    um: cutter.setting.um - edgeDrop(removedUm, slopeDegOf(draft)),
    known: 'estimated',
    sdUm: Math.hypot(cutter.setting.sdUm, edgeDrop(sdUm, slopeDegOf(draft))),
  }
}

/**
 * Lowers every gauge to a setting. A gauge that already stands lower stays: steel cannot be put
 * back.
 *
 * @param settingUm setting read from the plate; the new setting is taken when nobody read one
 */
export function lowerGauges(draft: Draft, settingUm: Um | undefined): void {
  const targetUm = settingUm ?? draft.spec.settingUm
  for (const cutter of draft.cutters) {
    // Filed flush and rounded again, as the work goes.
    if (cutter.damage.some(({ kind }) => CUTTER_DAMAGE[kind].effect === 'gauge')) {
      cutter.damage = cutter.damage.filter(({ kind }) => CUTTER_DAMAGE[kind].effect !== 'gauge')
    }
    if (cutter.setting.um > targetUm) continue
    cutter.setting = { um: targetUm, known: settingUm === undefined ? 'estimated' : 'measured', sdUm: PLATE_SD_UM }
  }
  draft.sharpeningsSinceGauges = 0
  draft.readTogether = new Map()
  draft.plateUm = targetUm
}

/** A sharpening: edges go back, settings shrink, dullness goes, damage shrinks or is gone. */
export const applySharpened: Applier<'sharpened'> = (draft, entry) => {
  endSpell(draft, entry.wasDull === true)
  const population = populationOf(entry)
  const { usualUm, sdUm } = usualRemoval(entry, learnRemoval(draft.removals, population))
  const cleared = entry.damageCleared === true
  const repaired = cleared && draft.cutters.some((cutter) => neededUm(cutter, usualUm) > usualUm)
  const off = removals(draft.cutters, population === 'grind' ? 'wheel' : 'file', usualUm, cleared)

  for (const [i, cutter] of draft.cutters.entries()) {
    const before = cutter.length.um
    lowerEdge(draft, cutter, before - (off[i] ?? 0), sdUm)
    cutter.damage = cleared
      ? cutter.damage.filter(({ kind }) => BEYOND_SHARPENING.has(CUTTER_DAMAGE[kind].effect))
      : damageAfterRemoval(cutter.damage, before - cutter.length.um)
  }
  draft.readBy = new Map()
  takePairs(draft, entry)

  if (soundPairs(entry).length > 0 && !repaired) draft.removals.push(sampleOf(draft, entry, population, usualUm))
  draft.sharpenerSinceSet =
    draft.sharpenerSinceSet === undefined || draft.sharpenerSinceSet === entry.personId ? entry.personId : null
  draft.plateUm = null
  if (cleared || population === 'grind')
    draft.parts = draft.parts.filter(({ kind }) => PART_DAMAGE[kind].effect !== 'shape')
  draft.sinceSet.set(population, (draft.sinceSet.get(population) ?? 0) + 1)
  draft.repairedSinceSet ||= repaired
  draft.sharpenings += 1
  draft.sharpeningsSinceGauges += 1
  beginSpell(draft)
  draft.lastSharpened = { at: entry.happenedAt, personId: entry.personId }
  if (entry.gaugesLowered) lowerGauges(draft, entry.settingUm)
  noteLifePoint(draft, entry.happenedAt)
}
