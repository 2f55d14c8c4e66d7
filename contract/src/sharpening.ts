import { FILE_AGES, HANDS, SHARPENING_TOOLS } from '@undercliff/core'
import * as yup from 'yup'
import { id, oneOf, optionalOneOf, strictObject } from './fields'

/** Turns a minute that somebody read off a wheel or what turns it. */
const rpm = () =>
  yup
    .number()
    .typeError('A speed is a number.')
    .required('A speed is missing.')
    .integer('A speed is whole turns a minute.')
    .min(100, 'No spindle turns so slowly.')
    .max(50_000, 'No spindle turns so fast.')

/** What a sharpening is begun with, wherever it is sent. */
export const sharpeningFields = {
  action: oneOf(['touchUp', 'file', 'regrind'], 'What is done'),
  tool: optionalOneOf(SHARPENING_TOOLS, 'The tool'),
  personId: id().nullable().defined('Say who does it, or null.'),
  first: optionalOneOf(HANDS, 'The side'),
  speeds: strictObject({ markedRpm: rpm(), spindleRpm: rpm() }).default(undefined).optional(),
  fileAge: optionalOneOf(FILE_AGES, 'How used the file is'),
  fileBite: yup.number().min(0.1).max(3),
}
