import { HANDS } from '@undercliff/core'
import * as yup from 'yup'
import { knownBiteSchema } from './entries'
import { optionalOneOf, strictObject } from './fields'
import { sharpeningFields } from './sharpening'

/** Body of `POST /api/loops/:id/job-sheet.pdf`: the sharpening that goes on paper. */
export const jobSheetSchema = strictObject({
  ...sharpeningFields,
  pace: yup.number().min(0.05).max(20),
  weakSide: optionalOneOf(HANDS, 'The weaker side'),
  known: knownBiteSchema.default(undefined).optional(),
})
