/**
 * Where the last answer of the shed is kept on the device. The number grows with what a card
 * holds, so that one of an older version is not drawn.
 */
export const KEPT_SHED = 'undercliff:shed:2'
