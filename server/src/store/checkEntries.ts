import { MOST_ENTRIES, newEntriesSchema, validate, type FieldProblem } from '@undercliff/contract'
import type { NewEntry } from '@undercliff/core'
import { Refusal } from './refusal'

export const invalid = (problems: readonly FieldProblem[]): Refusal =>
  new Refusal('invalid', `${problems[0]?.field ?? ''}: ${problems[0]?.message ?? 'not right'}`, problems)

/**
 * Any number of entries, each as `POST /api/entries` takes it.
 *
 * @param where path of the list within the body, for naming what is wrong
 * @throws Refusal that names every field that is not right
 */
export function checkEntries(sent: readonly unknown[], where: string): NewEntry[] {
  const read: NewEntry[] = []
  for (let from = 0; from < sent.length; from += MOST_ENTRIES) {
    const checked = validate<{ entries: NewEntry[] }>(newEntriesSchema, {
      entries: sent.slice(from, from + MOST_ENTRIES),
    })
    const shifted = (field: string): string =>
      field.replace(/entries\[(\d+)\]/, (_all, i: string) => `${where}[${Number(i) + from}]`)
    if (!checked.ok) throw invalid(checked.problems.map(({ field, ...rest }) => ({ field: shifted(field), ...rest })))
    read.push(...checked.value.entries)
  }
  return read
}
