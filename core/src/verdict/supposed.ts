import { copyLengths, lengthOf, readLengthOf } from '../belief'
import { READING_SD_UM } from '../measure'
import type { LoopState } from '../state'
import type { Um } from '../units'

/**
 * A loop as it would be if some of its cutters were read now, and what that would tell of the others.
 *
 * @param lengths what would be read, by the cutter's place from 0
 */
export function readAt(state: LoopState, lengths: ReadonlyMap<number, Um>): LoopState {
  const belief = copyLengths(state.lengths)
  for (const [place, um] of lengths) readLengthOf(belief, place, Math.max(0, um), READING_SD_UM)
  const cutters = state.cutters.map((cutter, i) => {
    const { mean, variance } = lengthOf(belief, i)
    const length = {
      um: Math.max(0, Math.round(mean)),
      sdUm: Math.max(1, Math.round(Math.sqrt(variance))),
      known: lengths.has(i) ? ('measured' as const) : cutter.length.known,
    }
    return { ...cutter, length }
  })
  return { ...state, decision: null, lengths: belief, cutters }
}
