import { ENTRY_KINDS, SAW_ENTRY_KINDS, type NewEntry, type NewSawEntry } from '@undercliff/core'
import * as yup from 'yup'
import type { AnyNewEntry } from './anyNewEntry'
import { entrySchemas } from './entries'
import { oneOf, strictObject } from './fields'
import { MOST_ENTRIES } from './limits'
import type { FieldProblem } from './problem'
import { sawEntrySchemas } from './sawEntries'
import { validate, type Validated } from './validate'

const schemas: Readonly<Record<string, yup.AnyObjectSchema>> = { ...entrySchemas, ...sawEntrySchemas }

/** An entry of one of some kinds, told apart by `kind`. */
const entryOf = (kinds: readonly string[]) => {
  const unknownKind = yup
    .object({ kind: oneOf(kinds, 'The kind of entry') })
    .required()
    .strict()
  return yup.lazy((value: unknown) => {
    const kind: unknown = typeof value === 'object' && value !== null && 'kind' in value ? value.kind : undefined
    return typeof kind === 'string' && kinds.includes(kind) ? (schemas[kind] ?? unknownKind) : unknownKind
  })
}

const listOf = (kinds: readonly string[]) =>
  strictObject({
    entries: yup
      .array(entryOf(kinds))
      .required('The entries are missing.')
      .min(1, 'There is no entry.')
      .max(MOST_ENTRIES, `At most ${MOST_ENTRIES} entries at once.`),
  })

/** Body of `POST /api/entries`: entries of loops and saws, in the order in which they are to be written. */
export const newEntriesSchema = listOf([...ENTRY_KINDS, ...SAW_ENTRY_KINDS])
export interface NewEntries {
  readonly entries: readonly AnyNewEntry[]
}

const ofLoops = listOf(ENTRY_KINDS)
const ofSaws = listOf(SAW_ENTRY_KINDS)

/** Any number of entries, checked as many at a time as a request holds. */
function validateMany<E>(schema: yup.Schema<unknown>, sent: readonly unknown[], where: string): Validated<E[]> {
  const value: E[] = []
  const problems: FieldProblem[] = []
  for (let from = 0; from < sent.length; from += MOST_ENTRIES) {
    const checked = validate<{ entries: E[] }>(schema, { entries: sent.slice(from, from + MOST_ENTRIES) })
    if (checked.ok) {
      value.push(...checked.value.entries)
      continue
    }
    const placed = (field: string): string =>
      field.replace(/^entries\[(\d+)\]/, (_all, i: string) => `${where}[${Number(i) + from}]`)
    problems.push(...checked.problems.map(({ field, ...rest }) => ({ ...rest, field: placed(field) })))
  }
  return problems.length === 0 ? { ok: true, value } : { ok: false, problems }
}

/**
 * Any number of entries of loops, each as `POST /api/entries` takes it.
 *
 * @param where path of the list within the body, for naming what is wrong
 */
export const validateEntries = (sent: readonly unknown[], where: string): Validated<NewEntry[]> =>
  validateMany(ofLoops, sent, where)

/** The same for entries of saws. */
export const validateSawEntries = (sent: readonly unknown[], where: string): Validated<NewSawEntry[]> =>
  validateMany(ofSaws, sent, where)
