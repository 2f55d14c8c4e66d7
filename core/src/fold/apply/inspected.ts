import type { Applier } from './applier'
import { takeReadings } from './readings'

/** A look at the whole loop: what it names was found; what it does not name was passed. */
export const applyInspected: Applier<'inspected'> = (draft, entry) => {
  takeReadings(draft, entry, entry.readings)
  draft.parts = entry.parts
  draft.openStrikes = []
  draft.lastInspectedAt = entry.happenedAt
}
