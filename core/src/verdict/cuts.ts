import type { CutterState, LoopState } from '../state'
import { damageAfterRemoval, damageDepth, shapeUm } from '../damage'
import { edgeDrop } from '../geometry'
import type { UnevenSchool } from '../house'
import type { Hand } from '../loop'
import { BEHIND_DAMAGE_UM, filingRemovals, removals, strokesFor } from '../sharpen'
import { mean } from '../stats'
import type { Um } from '../units'
import { learnedOf } from './learned'
import { onceFor } from './onceFor'

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

/** How even the cutters would be. */
function evennessOf({ cutters }: LoopState, afterUm: readonly Um[]): Pick<Cut, 'spreadUm' | 'sideDifferenceUm'> {
  const side = (hand: Hand): number[] => afterUm.filter((_, i) => cutters[i]?.hand === hand)
  const [left, right] = [side('left'), side('right')]
  return {
    spreadUm: Math.max(...afterUm) - Math.min(...afterUm),
    sideDifferenceUm: left.length === 0 || right.length === 0 ? 0 : Math.round(mean(left) - mean(right)) + 0,
  }
}

function cutOf(state: LoopState, offUm: readonly Um[], perStrokeUm: number, slopeDeg: number): Cut {
  const afterUm: Um[] = []
  let shortestUm = Infinity
  let deepestUm = 0
  let damagedLeft = 0
  const strokes = { each: Infinity, most: 0, total: 0 }
  for (const [i, { length, damage }] of state.cutters.entries()) {
    const off = offUm[i] ?? 0
    const after = length.um - off
    afterUm.push(after)
    if (after < shortestUm) shortestUm = after
    if (off > deepestUm) deepestUm = off
    if (damage.length > 0 && damageDepth(damageAfterRemoval(damage, off)).knownUm > 0) damagedLeft += 1
    const given = strokesFor(off, perStrokeUm)
    if (given < strokes.each) strokes.each = given
    if (given > strokes.most) strokes.most = given
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
    ...evennessOf(state, afterUm),
    damagedLeft,
    dropUm: edgeDrop(meanUm, slopeDeg),
    strokes,
  }
}

/** A shape that takes length counts like damage that reaches as deep. */
function withShape(cutter: CutterState): CutterState {
  const takes = shapeUm(cutter.damage)
  return takes === 0
    ? cutter
    : { ...cutter, damage: [...cutter.damage, { kind: 'chipped', depthUm: Math.max(0, takes - BEHIND_DAMAGE_UM) }] }
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
