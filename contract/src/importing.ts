import type { NewEntry } from '@undercliff/core'
import * as yup from 'yup'
import type { NewSaw } from './answers'
import { newSawSchema } from './crew'
import { strictObject } from './fields'
import { MOST_IMPORT_ROWS } from './limits'

/** Body of `POST /api/import`: written all together or not at all. Entries are checked like any. */
export const importSchema = strictObject({
  saws: yup.array(newSawSchema.required()).required('The saws are missing.').max(1000, 'At most 1000 saws at once.'),
  entries: yup
    .array()
    .required('The entries are missing.')
    .min(1, 'There is no entry.')
    .max(MOST_IMPORT_ROWS * 3, 'That is too much for one import.'),
})
export interface Import {
  readonly saws: readonly NewSaw[]
  readonly entries: readonly NewEntry[]
}
