/** Base letters alone: case, accents and what cannot be seen do not count. */
const LETTERS = new Intl.Collator('und', { sensitivity: 'base', ignorePunctuation: false })

/**
 * Whether two names are one to whoever reads them: neither case nor accents tell them apart, as in
 * the database.
 *
 * @example
 * sameName('Zoë', 'ZOE') // true
 */
export const sameName = (a: string, b: string): boolean => LETTERS.compare(a, b) === 0
