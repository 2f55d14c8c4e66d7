import * as yup from 'yup'
import { knownBiteSchema } from './entries'
import { strictObject } from './fields'
import { sharpeningFields } from './sharpening'

/** Body of `POST /api/loops/:id/job-sheet.pdf`: the sharpening that goes on paper. */
export const jobSheetSchema = strictObject({
  ...sharpeningFields,
  pace: yup.number().min(0.05).max(20),
  known: knownBiteSchema.default(undefined).optional(),
})
