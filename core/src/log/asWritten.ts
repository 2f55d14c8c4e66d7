import type { Entry, Instant, NewEntry } from './entry'

/**
 * A new entry as it stands in a log once it is written; without more said, as if it were written the
 * moment it happened, by nobody in particular.
 */
export const asWritten = (
  entry: NewEntry,
  writtenAt: Instant = entry.happenedAt,
  writtenBy: string | null = null,
): Entry => ({ ...entry, writtenAt, writtenBy })
