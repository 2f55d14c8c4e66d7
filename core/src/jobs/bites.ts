import { beginSpan, copyLengths, fileLengths, takenOff, UM_PER_STROKE, type Normal } from '../belief'
import type { FileAge, KnownBite } from '../log'
import { HANDS, type Hand } from '../loop'
import type { LoopState } from '../state'
import { personBite } from '../wear'
import { onceFor } from './onceFor'

/** Less than this no file takes in a stroke. Starting value. */
const LEAST_UM = 4

/** What a stroke of one person's takes off each side of a loop, micrometres. */
export type SideBites = Readonly<Record<Hand, number>>

/** Whose hand it is, with which file, and what is known of both. */
export interface HandAsked {
  readonly personId: string | null
  /** How the file is; used where nobody says. */
  readonly fileAge?: FileAge | undefined
  /** What a stroke of the file in hand takes against what is usual; its age is not asked then. */
  readonly fileBite?: number | undefined
  /** What readings of all the crew's loops have shown by now. */
  readonly known?: KnownBite | undefined
}

/** What a stroke of somebody's takes on a side by all that the crew's loops have shown; null where they show none. */
function byCrew(known: KnownBite | undefined, personId: string | null, hand: Hand): Normal | null {
  const one = known?.people.find((person) => person.personId === personId)
  if (known === undefined || one === undefined) return null
  const mean = known.strokeUm * one.factor + (hand === 'left' ? one.leanUm : -one.leanUm)
  const sd = Math.hypot(known.strokeSdUm, known.strokeUm * one.factorSd, one.leanSdUm)
  return { mean, variance: sd ** 2 }
}

/** Two views of one figure, each counting by how well it is known. */
const together = (a: Normal, b: Normal | null): number =>
  b === null || b.variance <= 0
    ? a.mean
    : (a.mean / a.variance + b.mean / b.variance) / (1 / a.variance + 1 / b.variance)

/**
 * What a stroke takes off on each side in somebody's hands: as far as readings have told of them on this loop, and on
 * the crew's others.
 *
 * @example
 * sideBites(state, { personId: null }).left // 20: common practice, while nothing was read
 */
export function sideBites(state: Biting, asked: HandAsked): SideBites {
  // The verdict asks for the same hand dozens of times.
  if (asked.known !== undefined) return bitesOf(state, asked)
  const key = `${asked.personId ?? ''} ${asked.fileAge ?? ''} ${asked.fileBite ?? ''}`
  const found = foundBites(state).get(key)
  if (found !== undefined) return found
  const bites = bitesOf(state, asked)
  foundBites(state).set(key, bites)
  return bites
}

type Biting = Pick<LoopState, 'lengths' | 'removals' | 'cutters'>
const foundBites = onceFor((_state: Biting) => new Map<string, SideBites>())

function bitesOf({ lengths, removals, cutters }: Biting, { personId, fileAge, fileBite, known }: HandAsked): SideBites {
  const belief = copyLengths(lengths)
  for (const hand of HANDS) beginSpan(belief, hand)
  const off = fileLengths(belief, {
    strokes: { left: 1, right: 1 },
    usualUm: UM_PER_STROKE,
    fileAge: fileBite === undefined ? fileAge : undefined,
    by: personId,
    person: personBite(removals, personId),
    atLeastUm: [],
  })
  const of = (hand: Hand): number => {
    const here = off[cutters.findIndex((cutter) => cutter.hand === hand)] ?? 0
    const own = { mean: here, variance: Math.max(1e-6, takenOff(belief, hand).variance) }
    return Math.max(LEAST_UM, together(own, byCrew(known, personId, hand)) * (fileBite ?? 1))
  }
  return Object.fromEntries(HANDS.map((hand) => [hand, of(hand)])) as Record<Hand, number>
}
