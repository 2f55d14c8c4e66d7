import * as yup from 'yup'
import { id, oneOf, strictObject } from './fields'
import { LABEL_SHEETS, type LabelSheet } from './labelSheets'

/** Body of `POST /api/tags.pdf`. */
export const tagSheetSchema = strictObject({
  loopIds: yup
    .array(id())
    .required('The loops are missing.')
    .min(1, 'Choose at least one loop.')
    .max(2000, 'At most 2000 tags at once.'),
  sheet: oneOf(LABEL_SHEETS, 'The sheet'),
  skip: yup
    .number()
    .required('Say how many labels are used up.')
    .integer()
    .min(0)
    .max(29, 'A sheet has at most 30 labels.'),
})
export interface TagSheet {
  readonly loopIds: readonly string[]
  readonly sheet: LabelSheet
  /** Labels of the first sheet that are used up already. */
  readonly skip: number
}
