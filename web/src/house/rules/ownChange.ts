import type { HouseRules } from '@undercliff/core'

type Field = keyof HouseRules

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b)

/** The rules that a change touches; the version is none of them. */
export const changedFields = (before: HouseRules, after: HouseRules): readonly Field[] =>
  (Object.keys(after) as Field[]).filter((field) => field !== 'version' && !same(before[field], after[field]))

/**
 * What takes one's own change back: the fields of that change as they were before, where they still
 * are what it made them. What somebody changed since is theirs.
 *
 * @param saved the rules as the change left them
 * @param now the rules as they hold when it is taken back
 * @param own the fields of the change
 */
export function takenBack(
  before: HouseRules,
  saved: HouseRules,
  now: HouseRules,
  own: readonly Field[],
): Partial<HouseRules> {
  const fields = own.filter((field) => same(now[field], saved[field]))
  return Object.fromEntries(fields.map((field) => [field, before[field]]))
}
