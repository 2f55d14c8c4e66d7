import { CUTTER_DAMAGE, damageAfterRemoval, type DamageEffect } from '../../damage'
import { edgeDrop } from '../../geometry'
import type { EntryBodies, EntryOf } from '../../log'
import { neededUm, removals } from '../../sharpen/removals'
import type { Um } from '../../units'
import { learnRemoval, meanRemoved, TOUCH_UP_STROKES, type Population, type RemovalBelief } from '../../wear/removal'
import { noteLifePoint, PLATE_SD_UM, READING_SD_UM, slopeDegOf, type Draft, type DraftCutter } from '../draft'
import type { Applier } from './applier'

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

function usualRemoval(entry: EntryOf<'sharpened'>, belief: RemovalBelief): TakenOff {
  if (entry.pairs !== undefined && entry.pairs.length > 0) {
    return { usualUm: meanRemoved(entry.pairs), sdUm: READING_SD_UM }
  }
  return { usualUm: Math.round(belief.meanUm), sdUm: Math.hypot(belief.sdUm, belief.withinUm) }
}

function lowerEdge(draft: Draft, cutter: DraftCutter, lengthUm: Um, sdUm: number): void {
  const removedUm = cutter.length.um - lengthUm
  cutter.length = { um: lengthUm, known: 'estimated', sdUm: Math.hypot(cutter.length.sdUm, sdUm) }
  cutter.setting = {
    um: cutter.setting.um - edgeDrop(removedUm, slopeDegOf(draft.spec)),
    known: 'estimated',
    sdUm: Math.hypot(cutter.setting.sdUm, edgeDrop(sdUm, slopeDegOf(draft.spec))),
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
    if (cutter.setting.um > targetUm) continue
    cutter.setting = { um: targetUm, known: settingUm === undefined ? 'estimated' : 'measured', sdUm: PLATE_SD_UM }
  }
  draft.sharpeningsSinceGauges = 0
}

/** A sharpening: edges go back, settings shrink, dullness goes, damage shrinks or is gone. */
export const applySharpened: Applier<'sharpened'> = (draft, entry) => {
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
  for (const { cutter: number, afterUm } of entry.pairs ?? []) {
    const cutter = draft.cutters[number - 1]
    if (cutter !== undefined) cutter.length = { um: afterUm, known: 'measured', sdUm: READING_SD_UM }
  }

  if (entry.pairs !== undefined && entry.pairs.length > 0 && !repaired) {
    draft.removals.push({ population, perSharpeningUm: usualUm, sharpenings: 1 })
  }
  draft.sinceSet.set(population, (draft.sinceSet.get(population) ?? 0) + 1)
  draft.repairedSinceSet ||= repaired
  draft.sharpenings += 1
  draft.sharpeningsSinceGauges += 1
  draft.tanksSinceSharpened = 0
  draft.wearTanksSinceSharpened = 0
  draft.lastSharpened = { at: entry.happenedAt, personId: entry.personId }
  if (entry.gaugesLowered) lowerGauges(draft, entry.settingUm)
  noteLifePoint(draft, entry.happenedAt)
}
