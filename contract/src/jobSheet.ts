import { HANDS } from '@undercliff/core'
import { knownBiteSchema } from './entries'
import { optionalOneOf, strictObject } from './fields'
import { sharpeningFields } from './sharpening'

/** Body of `POST /api/loops/:id/job-sheet.pdf`: the sharpening that goes on paper. */
export const jobSheetSchema = strictObject({
  ...sharpeningFields,
  weakSide: optionalOneOf(HANDS, 'The weaker side'),
  known: knownBiteSchema.default(undefined).optional(),
})
