/** Small helps for putting sentences together. */

/** `plural(2, 'cutter') // '2 cutters'` */
export const plural = (amount: number, one: string, many = `${one}s`): string =>
  `${amount} ${amount === 1 ? one : many}`

/** `capital('loose rivet') // 'Loose rivet'` */
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)

/** `lower('Touch up') // 'touch up'` */
export const lower = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1)
