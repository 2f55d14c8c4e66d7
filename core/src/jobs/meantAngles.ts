import type { CutterDamage } from '../damage'
import type { HouseRules } from '../house'
import { angleCostUm, angleMeant, angleOffDeg } from '../sharpen'
import type { CutterState, LoopState } from '../state'
import { cuttersWorkedWith } from './heldOut'
import { onceFor } from './onceFor'

/** A cutter with what its angle takes to be put right: by geometry where degrees were read, else nothing. */
function withAngle(cutter: CutterState, state: LoopState, meantDeg: number): CutterState {
  const { angleDeg, damage } = cutter
  if (angleDeg === null) return cutter
  const others = damage.filter(({ kind }) => kind !== 'wrongAngle')
  if (Math.abs(angleDeg - meantDeg) < angleOffDeg(state.spec))
    return others.length === damage.length ? cutter : { ...cutter, damage: others }
  const wrong: CutterDamage = {
    kind: 'wrongAngle',
    depthUm: null,
    takesUm: angleCostUm(state.spec, angleDeg, meantDeg),
  }
  return { ...cutter, damage: [...others, wrong] }
}

const byAngle = onceFor((_state: LoopState) => new Map<number, LoopState>())

/**
 * A loop as it looks to whoever means to sharpen it at an angle: cutters whose own was read and is another are wrong by
 * so many degrees, and what that takes follows from the width of the plate. While a reading is held out the shorter of
 * both figures is worked with.
 */
export function asMeant(state: LoopState, rules: Pick<HouseRules, 'chiselAngleDeg'>): LoopState {
  if (state.held.length === 0 && state.cutters.every(({ angleDeg }) => angleDeg === null)) return state
  const meantDeg = angleMeant(state, rules)
  const known = byAngle(state)
  const before = known.get(meantDeg)
  if (before !== undefined) return before
  const cutters = cuttersWorkedWith(state).map((cutter) => withAngle(cutter, state, meantDeg))
  const seen = cutters.every((cutter, i) => cutter === state.cutters[i]) ? state : { ...state, cutters }
  known.set(meantDeg, seen)
  // What was made so is so already.
  if (seen !== state) byAngle(seen).set(meantDeg, seen)
  return seen
}
