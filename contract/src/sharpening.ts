import { FILE_AGES, HANDS, SHARPENING_TOOLS } from '@undercliff/core'
import * as yup from 'yup'
import { id, oneOf, optionalOneOf } from './fields'

/** What a sharpening is begun with, wherever it is sent. */
export const sharpeningFields = {
  action: oneOf(['touchUp', 'file', 'regrind'], 'What is done'),
  tool: optionalOneOf(SHARPENING_TOOLS, 'The tool'),
  personId: id().nullable().defined('Say who does it, or null.'),
  first: optionalOneOf(HANDS, 'The side'),
  fileAge: optionalOneOf(FILE_AGES, 'How used the file is'),
  fileBite: yup.number().min(0.1).max(3),
}
