import type { LoopState } from '../state'
import { damageAfterRemoval, damageDepth } from '../damage'
import { edgeDrop } from '../geometry'
import type { UnevenSchool } from '../house'
import { filingRemovals, removals, strokesFor, withShape } from '../sharpen'
import { mean } from '../stats'
import type { Um } from '../units'
import { learnedOf } from '../jobs/learned'
import { onceFor } from '../jobs/onceFor'

/** What taking metal off leaves, cutter by cutter, whatever the house says about it. */
export interface Cut {
  readonly offUm: readonly Um[]
  readonly afterUm: readonly Um[]
  readonly deepestUm: Um
  readonly meanUm: Um
  readonly meanAfterUm: Um
  readonly shortestUm: Um
  /** Shortest to longest. */
  readonly spreadUm: Um
  /** Mean left less mean right. */
  readonly sideDifferenceUm: Um
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

/** Mean of the left less mean of the right. */
function sideDifferenceOf({ cutters }: LoopState, afterUm: readonly Um[]): Um {
  const sums = { left: 0, right: 0 }
  let lefts = 0
  for (let i = 0; i < cutters.length; i += 1) {
    const hand = cutters[i]?.hand ?? 'left'
    sums[hand] += afterUm[i] ?? 0
    if (hand === 'left') lefts += 1
  }
  const rights = cutters.length - lefts
  return Math.round(sums.left / lefts - sums.right / rights) + 0
}

function cutOf(state: LoopState, offUm: readonly Um[], perStrokeUm: number, slopeDeg: number): Cut {
  const afterUm: Um[] = []
  let shortestUm = Infinity
  let longestUm = -Infinity
  let deepestUm = 0
  let damagedLeft = 0
  const strokes = { each: Infinity, most: 0, total: 0 }
  for (let i = 0; i < state.cutters.length; i += 1) {
    const cutter = state.cutters[i]
    if (cutter === undefined) continue
    const off = offUm[i] ?? 0
    const after = cutter.length.um - off
    afterUm.push(after)
    shortestUm = Math.min(shortestUm, after)
    longestUm = Math.max(longestUm, after)
    deepestUm = Math.max(deepestUm, off)
    if (cutter.damage.length > 0 && damageDepth(damageAfterRemoval(cutter.damage, off)).knownUm > 0) damagedLeft += 1
    const given = strokesFor(off, perStrokeUm)
    strokes.each = Math.min(strokes.each, given)
    strokes.most = Math.max(strokes.most, given)
    strokes.total += given
  }
  const meanUm = Math.round(offUm.length === 0 ? 0 : mean(offUm))
  return {
    offUm,
    afterUm,
    deepestUm,
    meanUm,
    meanAfterUm: Math.round(mean(afterUm)),
    shortestUm,
    spreadUm: longestUm - shortestUm,
    sideDifferenceUm: sideDifferenceOf(state, afterUm),
    damagedLeft,
    dropUm: edgeDrop(meanUm, slopeDeg),
    strokes,
  }
}

/**
 * Every way of taking metal off a loop. They depend on the loop alone, so each is worked out once
 * for a state, and a decision under another school finds it there.
 */
export const cutsOf = onceFor((state: LoopState): Cuts => {
  const { removal, perStroke, slopeDeg } = learnedOf(state)
  const { cutters } = state
  const cut = (offUm: readonly Um[]): Cut => cutOf(state, offUm, perStroke.meanUm, slopeDeg)
  const bySchool = new Map<UnevenSchool, Cut>()
  const usualUm = Math.round(removal.routine.meanUm)
  return {
    none: cut([]),
    touchUp: cut(filingRemovals(cutters, Math.round(removal.touchUp.meanUm), 'sameStrokes')),
    file: (school) => {
      const filed = bySchool.get(school) ?? cut(filingRemovals(cutters, usualUm, school))
      bySchool.set(school, filed)
      return filed
    },
    grind: cut(removals(cutters.map(withShape), 'wheel', Math.round(removal.grind.meanUm), true)),
  }
})
