import type { Entry, Instant } from './entry'

const compareText = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0)

/**
 * The order in which entries count: when they happened, then when they were written, then by id,
 * so that a log folds the same however it was gathered. Registration comes before anything that
 * shares its instant.
 */
export function compareEntries(a: Entry, b: Entry): number {
  return (
    compareText(a.happenedAt, b.happenedAt) ||
    Number(b.kind === 'registered') - Number(a.kind === 'registered') ||
    compareText(a.writtenAt, b.writtenAt) ||
    compareText(a.id, b.id)
  )
}

/** Ids of the entries that a correction has struck out. */
export function struckOutIds(entries: readonly Entry[]): ReadonlySet<string> {
  const ids = new Set<string>()
  for (const entry of entries) if (entry.kind === 'corrected') ids.add(entry.strikes)
  return ids
}

/**
 * The entries that count, in the order in which they count: struck-out ones and the corrections
 * themselves left out, and, with `until`, those that happened later.
 */
export function entriesThatCount(entries: readonly Entry[], until?: Instant): Entry[] {
  const struck = struckOutIds(entries)
  return entries
    .filter(
      (entry) =>
        entry.kind !== 'corrected' && !struck.has(entry.id) && (until === undefined || entry.happenedAt <= until),
    )
    .sort(compareEntries)
}
