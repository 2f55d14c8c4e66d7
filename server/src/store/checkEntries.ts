import { validateEntries, type FieldProblem, type Validated } from '@undercliff/contract'
import type { NewEntry } from '@undercliff/core'
import { Refusal } from './refusal'

export const invalid = (problems: readonly FieldProblem[]): Refusal =>
  new Refusal('invalid', `${problems[0]?.field ?? ''}: ${problems[0]?.message ?? 'not right'}`, problems)

/** @throws Refusal that names every field that is not right */
function checked<T>(validated: Validated<T>): T {
  if (!validated.ok) throw invalid(validated.problems)
  return validated.value
}

/**
 * Any number of entries, each as `POST /api/entries` takes it.
 *
 * @param where path of the list within the body, for naming what is wrong
 * @throws Refusal that names every field that is not right
 */
export const checkEntries = (sent: readonly unknown[], where: string): NewEntry[] =>
  checked(validateEntries(sent, where))
