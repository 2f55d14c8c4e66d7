import type { Applier } from './applier'
import { closeStrikes, takeReadings } from './readings'

/** A walk round the loop: lengths, settings and damage of the cutters that were read. */
export const applyMeasured: Applier<'measured'> = (draft, entry) => {
  takeReadings(draft, entry, entry.readings, entry)
  closeStrikes(draft, entry.readings)
}
