import { STORED_VERSION } from '@undercliff/core'

/** Where every version keeps it, the version behind. */
export const KEPT_SHEDS = 'undercliff:shed:'

/** Where the last answer of the shed is kept on the device; one of another version is not drawn. */
export const KEPT_SHED = `${KEPT_SHEDS}${STORED_VERSION}`
