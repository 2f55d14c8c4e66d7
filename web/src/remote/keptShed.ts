import { STORED_VERSION } from '@undercliff/core'

/** Where the last answer of the shed is kept on the device; one of another version is not drawn. */
export const KEPT_SHED = `undercliff:shed:${STORED_VERSION}`
