/**
 * Small letters of other alphabets that are drawn as a Latin one, each behind it. After the table of confusable
 * characters of Unicode's technical standard 39 (from memory), those of whole letters alone.
 */
const DRAWN_ALIKE =
  'aа aα bв bβ cс cϲ dԁ eе eε hһ hн iі iι jј kк kκ lӏ mм nп oо oο pр pρ qԛ sѕ tт tτ uυ vν vѵ wԝ wω xх xχ yу yγ zζ'
/** Latin letters that no mark can be taken off, as they are read without it. */
const WITHOUT_MARK = { ß: 'ss', æ: 'ae', œ: 'oe', ø: 'o', đ: 'd', ł: 'l', ı: 'i' }
const READ_AS = new Map([
  ...DRAWN_ALIKE.split(' ').map((pair) => [pair.slice(1), pair.slice(0, 1)] as const),
  ...Object.entries(WITHOUT_MARK),
])

/**
 * What a name looks like: the same for names that nobody tells apart by eye, whatever their case, accents, blanks and
 * alphabets, and whatever in them cannot be seen.
 *
 * @example
 * nameLook('Great\u00a0 Térn') // 'great tern'
 */
export const nameLook = (name: string): string =>
  Array.from(
    name
      .normalize('NFKD')
      .replace(/[\p{M}\p{Cf}\p{Default_Ignorable_Code_Point}]/gu, '')
      .toLowerCase()
      .replace(/\s+/gu, ' ')
      .trim(),
    (letter) => READ_AS.get(letter) ?? letter,
  ).join('')
