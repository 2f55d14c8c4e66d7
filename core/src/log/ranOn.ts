import type { Entry } from './entry'
import { entriesThatCount } from './order'

/** Kinds of entries after which a loop is on no saw. */
const OFF: ReadonlySet<Entry['kind']> = new Set(['takenOff', 'moved', 'sentOut', 'cameBack'])

/**
 * The saw that a loop was on at each of its runs, by the id of the entry; null where it was on none as far as its log
 * says.
 *
 * @param log entries of one loop, in any order
 */
export function ranOn(log: readonly Entry[]): ReadonlyMap<string, string | null> {
  const saws = new Map<string, string | null>()
  let sawId: string | null = null
  for (const entry of entriesThatCount(log)) {
    if (entry.kind === 'fitted') ({ sawId } = entry)
    else if (OFF.has(entry.kind)) sawId = null
    else if (entry.kind === 'ran') saws.set(entry.id, sawId)
  }
  return saws
}
