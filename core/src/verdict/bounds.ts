import type { LoopState, OpenStrike } from '../state'
import { CUTTER_DAMAGE, type CutterDamage } from '../damage'
import type { Um } from '../units'

/** Which end of what is not known. */
export type End = 'least' | 'most'

const bound = ({ kind }: CutterDamage, end: End): Um => CUTTER_DAMAGE[kind].boundsUm?.[end === 'least' ? 0 : 1] ?? 0

/**
 * Damage that a strike may have left on a cutter nobody has looked at. Where nobody said which
 * cutters it met, at worst it is the shortest, and at best none was hurt.
 */
function fromStrikes(strikes: readonly OpenStrike[], number: number, isShortest: boolean, end: End): CutterDamage[] {
  const met = strikes.find(
    ({ cutters }) => cutters.includes(number) || (cutters.length === 0 && isShortest && end === 'most'),
  )
  if (met === undefined || met.against === 'soil') return []
  const kind = met.against === 'metal' ? 'metal' : 'stone'
  return [{ kind, depthUm: bound({ kind, depthUm: null }, end) }]
}

/** Whether anything about the depth of damage on a loop is not known. */
export const depthOpen = ({ cutters, openStrikes }: LoopState): boolean =>
  openStrikes.length > 0 ||
  cutters.some(({ damage }) =>
    damage.some(({ kind, depthUm }) => depthUm === null && CUTTER_DAMAGE[kind].effect === 'depth'),
  )

/**
 * The loop as it would be if all that is not known about its damage were at one end of what it can
 * be. Never more than a cutter has left.
 */
export function atBound(state: LoopState, end: End): LoopState {
  const shortestUm = Math.min(...state.cutters.map(({ length }) => length.um))
  const shortest = state.cutters.find(({ length }) => length.um === shortestUm)?.number
  return {
    ...state,
    openStrikes: [],
    doubts: [],
    cutters: state.cutters.map((cutter) => {
      const deepest = Math.max(0, cutter.length.um - state.spec.markLengthUm)
      const damage = [
        ...cutter.damage.map((one) =>
          one.depthUm === null && CUTTER_DAMAGE[one.kind].effect === 'depth'
            ? { ...one, depthUm: Math.min(deepest, bound(one, end)) }
            : one,
        ),
        ...(cutter.damage.length > 0
          ? []
          : fromStrikes(state.openStrikes, cutter.number, cutter.number === shortest, end)),
      ]
      // What is supposed here counts as known, so that what follows from it is told.
      return { ...cutter, damage, length: { ...cutter.length, known: 'measured' as const } }
    }),
  }
}
