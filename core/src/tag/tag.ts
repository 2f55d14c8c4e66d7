import { checkValue } from './iso7064'

/**
 * Characters of the tags that Undercliff makes. No 0 or O, 1 or I; and of letters that look alike
 * in dirt or sound alike over a saw (B 8, S 5 F, M N, A H 8, the "ee" letters) at most one.
 */
export const TAG_ALPHABET = '23456789FHKMRWXY'

/** Characters of a made tag, the last of them a check. */
export const TAG_LENGTH = 4

/** How many tags can be made. */
export const TAG_COUNT = TAG_ALPHABET.length ** (TAG_LENGTH - 1)

/**
 * What stands before the tag in a QR code, so that other codes are known for what they are. Plain
 * letters, which scanners that type send alike on most keyboards; no screen uses Q as a key.
 */
export const TAG_CODE_PREFIX = 'QUC'

const valuesOf = (text: string): number[] => Array.from(text).map((char) => TAG_ALPHABET.indexOf(char))

/**
 * The made tag with a number.
 *
 * @param number 0 to {@link TAG_COUNT} − 1
 * @throws RangeError outside that
 * @example
 * madeTag(0) // '222F'
 */
export function madeTag(number: number): string {
  if (!Number.isInteger(number) || number < 0 || number >= TAG_COUNT) throw new RangeError('there is no such tag')
  const size = TAG_ALPHABET.length
  const values = Array.from(
    { length: TAG_LENGTH - 1 },
    (_, i) => Math.floor(number / size ** (TAG_LENGTH - 2 - i)) % size,
  )
  return [...values, checkValue(values, size)].map((value) => TAG_ALPHABET.charAt(value)).join('')
}

/**
 * A tag that nobody has yet.
 *
 * @param taken tags in use, of any kind
 * @param random a number from 0 to below 1
 * @returns null when every tag is taken
 */
export function freshTag(taken: ReadonlySet<string>, random: number): string | null {
  const start = Math.floor(random * TAG_COUNT)
  for (let i = 0; i < TAG_COUNT; i += 1) {
    const tag = madeTag((start + i) % TAG_COUNT)
    if (!taken.has(tag)) return tag
  }
  return null
}

/** Whether a text could be a tag that Undercliff made: its length and its characters. */
export const looksMade = (text: string): boolean =>
  text.length === TAG_LENGTH && Array.from(text).every((char) => TAG_ALPHABET.includes(char))

/**
 * Whether the check character of a made tag agrees.
 *
 * @example
 * checks('222F') // true
 */
export function checks(text: string): boolean {
  if (!looksMade(text)) return false
  const values = valuesOf(text)
  return checkValue(values.slice(0, -1), TAG_ALPHABET.length) === values.at(-1)
}

/** The text of a tag's QR code. */
export const tagCode = (tag: string): string => TAG_CODE_PREFIX + tag

/** What a scanned or typed text turned out to be. */
export type ReadTag =
  | { readonly ok: true; readonly tag: string }
  | { readonly ok: false; readonly message: string; readonly nearest: readonly string[] }

const shown = (text: string): string => {
  // Control characters have no place in a message.
  const plain = text.replace(/[\u0000-\u001f\u007f]/g, ' ').trim()
  return plain.length > 40 ? `${plain.slice(0, 40)}…` : plain
}

/** Whether two texts differ by one character, one missing, or a swap of neighbours. */
function nearlySame(a: string, b: string): boolean {
  let i = 0
  while (i < a.length && a[i] === b[i]) i += 1
  const [restA, restB] = [a.slice(i), b.slice(i)]
  if (restA.length === restB.length) {
    const swapped =
      restA.length > 1 && restA[0] === restB[1] && restA[1] === restB[0] && restA.slice(2) === restB.slice(2)
    return swapped || restA.slice(1) === restB.slice(1)
  }
  return restA.length > restB.length ? restA.slice(1) === restB : restB.slice(1) === restA
}

/**
 * The tag that was typed or scanned, among those in use.
 *
 * Typed text may be in small letters and have spaces around it. A code of something else, a slip
 * that the check character catches and a tag that nobody has are told apart.
 *
 * @param known tags in use
 * @example
 * readTag('QUCK3', ['K3']) // { ok: true, tag: 'K3' }
 */
export function readTag(text: string, known: readonly string[]): ReadTag {
  const trimmed = text.trim()
  const among = (wanted: string): string | undefined =>
    known.find((tag) => tag === wanted) ?? known.find((tag) => tag.toUpperCase() === wanted.toUpperCase())
  const coded = trimmed.toUpperCase().startsWith(TAG_CODE_PREFIX)
  const wanted = coded ? trimmed.slice(TAG_CODE_PREFIX.length) : trimmed
  const upper = wanted.toUpperCase()
  // A tag of the crew's own may begin as a code does, so it is looked for whole as well.
  const found = among(wanted) ?? among(trimmed)
  if (found !== undefined) return { ok: true, tag: found }
  if (wanted === '') return { ok: false, message: 'There is no tag in that.', nearest: [] }
  const nearest = known.filter((tag) => nearlySame(tag.toUpperCase(), upper)).slice(0, 5)
  if (!coded && (/[:/?=]/.test(wanted) || wanted.length > 12)) {
    return { ok: false, message: `That is a code of something else: "${shown(wanted)}".`, nearest: [] }
  }
  if (looksMade(upper) && !checks(upper)) {
    return { ok: false, message: `${upper} is misread: its last character does not agree with the others.`, nearest }
  }
  return { ok: false, message: `No loop has the tag ${shown(wanted)}.`, nearest }
}
