import type { Applier } from './applier'
import { answer } from './questions'
import { takeReadings } from './readings'
import { lookedOver } from './signs'

/** A look at the whole loop: what it names was found; what it does not name was passed. */
export const applyInspected: Applier<'inspected'> = (draft, entry) => {
  takeReadings(draft, entry, entry.readings)
  const named = new Set(entry.readings.map(({ cutter }) => cutter))
  for (const cutter of draft.cutters) {
    // Worked out from a neighbour, and not found when somebody looked.
    if (!named.has(cutter.number) && cutter.damage.some(({ estimated }) => estimated))
      cutter.damage = cutter.damage.filter(({ estimated }) => !estimated)
  }
  // A stone that shortened a cutter left a mark on it: where somebody looked and saw none, it explains nothing.
  for (const [number, why] of draft.mayBeShorter)
    if (why === 'struck' && !named.has(number)) draft.mayBeShorter.delete(number)
  draft.parts = entry.parts
  draft.openStrikes = []
  answer(draft, 'shopWorkUnsaid')
  lookedOver(draft)
  draft.lastInspectedAt = entry.happenedAt
}
