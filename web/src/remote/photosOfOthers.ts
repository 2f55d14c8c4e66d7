import { shallowRef } from 'vue'

/**
 * How many photographs somebody else left on this device; 0 until the store of photographs says. Apart from it, so
 * that the first page need not fetch it.
 */
export const photosOfOthers = shallowRef(0)
