import * as yup from 'yup'
import { strictObject } from './fields'
import { sharpeningFields } from './sharpening'

/** Body of `POST /api/loops/:id/job-sheet.pdf`: the sharpening that goes on paper. */
export const jobSheetSchema = strictObject({
  ...sharpeningFields,
  pace: yup.number().min(0.05).max(20),
})
