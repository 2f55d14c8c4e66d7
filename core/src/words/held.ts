import type { LoopState } from '../state'
import { writeLength } from '../units'
import { cutterName } from './damage'
import type { Figures } from './figures'

/**
 * What is held out of what is known of a loop, and what that leaves open; null while nothing is.
 *
 * @example
 * sayHeld({ held: [], cutters: [] }, { lengths: 'mm' }) // null
 */
export function sayHeld(
  { held, cutters }: Pick<LoopState, 'held' | 'cutters'>,
  { lengths }: Pick<Figures, 'lengths'>,
): string | null {
  if (held.length === 0) return null
  const names = held.map(
    ({ cutter, um }) => `${cutterName(cutter, cutters[cutter - 1]?.hand ?? 'left')} read ${writeLength(um, lengths)}`,
  )
  const again = held.length === 1 ? 'it' : 'them'
  return (
    `Held out: ${names.join(', ')}. Nothing that is known explains it. Read ${again} again: until then nobody knows ` +
    'the worst cutter, the stop, how far cutters differ, or how many sharpenings are left.'
  )
}
