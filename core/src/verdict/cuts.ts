import { CUTTER_DAMAGE, damageAfterRemoval, damageDepth } from '../damage'
import type { CutterState, LoopState } from '../fold'
import { edgeDrop } from '../geometry'
import type { UnevenSchool } from '../house'
import { BEHIND_DAMAGE_UM, filingRemovals, removals, strokesFor } from '../sharpen'
import { mean } from '../stats'
import type { Um } from '../units'
import { learnedOf } from './learned'
import { workingsOf } from './workings'

/** What taking metal off leaves, cutter by cutter, whatever the house says about it. */
export interface Cut {
  readonly offUm: readonly Um[]
  readonly afterUm: readonly Um[]
  readonly deepestUm: Um
  readonly meanUm: Um
  readonly meanAfterUm: Um
  readonly shortestUm: Um
  /** Shortest to longest over measured cutters; null while fewer than two are measured. */
  readonly spreadUm: Um | null
  /** Mean left less mean right over measured cutters; null while fewer than two a side are. */
  readonly sideDifferenceUm: Um | null
  /** Cutters that are still damaged. */
  readonly damagedLeft: number
  /** How far the edges sank, and with them the settings. */
  readonly dropUm: Um
  readonly strokes: { readonly each: number; readonly most: number; readonly total: number }
}

/** The ways of taking metal off a loop. */
export interface Cuts {
  readonly none: Cut
  readonly touchUp: Cut
  readonly file: (school: UnevenSchool) => Cut
  readonly grind: Cut
}

function cutOf({ cutters }: LoopState, offUm: readonly Um[], perStrokeUm: number, slopeDeg: number): Cut {
  const afterUm: Um[] = []
  let shortestUm = Infinity
  let deepestUm = 0
  let damagedLeft = 0
  let least = Infinity
  let most = -Infinity
  let measured = 0
  let leftSum = 0
  let leftCount = 0
  let rightSum = 0
  let rightCount = 0
  let fewest = Infinity
  let greatest = 0
  let total = 0
  for (let i = 0; i < cutters.length; i += 1) {
    const cutter = cutters[i]
    if (cutter === undefined) continue
    const off = offUm[i] ?? 0
    const after = cutter.length.um - off
    afterUm.push(after)
    if (after < shortestUm) shortestUm = after
    if (off > deepestUm) deepestUm = off
    if (cutter.damage.length > 0 && damageDepth(damageAfterRemoval(cutter.damage, off)).knownUm > 0) damagedLeft += 1
    const strokes = strokesFor(off, perStrokeUm)
    if (strokes < fewest) fewest = strokes
    if (strokes > greatest) greatest = strokes
    total += strokes
    if (cutter.length.known !== 'measured') continue
    measured += 1
    if (after < least) least = after
    if (after > most) most = after
    if (cutter.hand === 'left') {
      leftSum += after
      leftCount += 1
    } else {
      rightSum += after
      rightCount += 1
    }
  }
  const meanUm = Math.round(offUm.length === 0 ? 0 : mean(offUm))
  return {
    offUm,
    afterUm,
    deepestUm,
    meanUm,
    meanAfterUm: Math.round(mean(afterUm)),
    shortestUm,
    spreadUm: measured < 2 ? null : most - least,
    sideDifferenceUm: leftCount < 2 || rightCount < 2 ? null : Math.round(leftSum / leftCount - rightSum / rightCount),
    damagedLeft,
    dropUm: edgeDrop(meanUm, slopeDeg),
    strokes: { each: fewest, most: greatest, total },
  }
}

/** A shape that takes length counts like damage that reaches as deep. */
function withShape(cutter: CutterState): CutterState {
  const takes = cutter.damage.reduce((most, { kind }) => Math.max(most, CUTTER_DAMAGE[kind].takesUm), 0)
  return takes === 0
    ? cutter
    : { ...cutter, damage: [...cutter.damage, { kind: 'chipped', depthUm: Math.max(0, takes - BEHIND_DAMAGE_UM) }] }
}

/**
 * Every way of taking metal off a loop. They depend on the loop alone, so each is worked out once
 * for a state, and a decision under another school finds it there.
 */
export function cutsOf(state: LoopState): Cuts {
  const kept = workingsOf(state)
  if (kept.cuts !== undefined) return kept.cuts
  const { removal, perStroke, slopeDeg } = learnedOf(state)
  const { cutters } = state
  const cut = (offUm: readonly Um[]): Cut => cutOf(state, offUm, perStroke.meanUm, slopeDeg)
  const bySchool = new Map<UnevenSchool, Cut>()
  const usualUm = Math.round(removal.routine.meanUm)
  const cuts: Cuts = {
    none: cut([]),
    touchUp: cut(filingRemovals(cutters, Math.round(removal.touchUp.meanUm), 'sameStrokes')),
    file: (school) => {
      const filed = bySchool.get(school) ?? cut(filingRemovals(cutters, usualUm, school))
      bySchool.set(school, filed)
      return filed
    },
    grind: cut(removals(cutters.map(withShape), 'wheel', Math.round(removal.grind.meanUm), true)),
  }
  kept.cuts = cuts
  return cuts
}
