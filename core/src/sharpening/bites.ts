import { copyLengths, fileLengths, UM_PER_STROKE } from '../belief'
import type { FileAge } from '../log'
import { HANDS, type Hand } from '../loop'
import type { LoopState } from '../state'
import { personBite } from '../wear'

/** Less than this no file takes in a stroke. Starting value. */
const LEAST_UM = 4

/** What a stroke of one person's takes off each side of a loop, micrometres. */
export type SideBites = Readonly<Record<Hand, number>>

/**
 * What a stroke takes off on each side in somebody's hands, as far as readings have told of them on this loop.
 *
 * @param fileAge how the file is; used where nobody says
 * @param fileBite what a stroke of the file in hand takes against what is usual; its age is not asked then
 * @example
 * sideBites(state, null).left // 20: common practice, while nothing was read
 */
export function sideBites(
  { lengths, removals, cutters }: Pick<LoopState, 'lengths' | 'removals' | 'cutters'>,
  personId: string | null,
  fileAge?: FileAge,
  fileBite?: number,
): SideBites {
  const off = fileLengths(copyLengths(lengths), {
    strokes: { left: 1, right: 1 },
    usualUm: UM_PER_STROKE,
    fileAge: fileBite === undefined ? fileAge : undefined,
    by: personId,
    person: personBite(removals, personId),
    atLeastUm: [],
  })
  const of = (hand: Hand): number =>
    Math.max(LEAST_UM, (off[cutters.findIndex((cutter) => cutter.hand === hand)] ?? 0) * (fileBite ?? 1))
  return Object.fromEntries(HANDS.map((hand) => [hand, of(hand)])) as Record<Hand, number>
}
