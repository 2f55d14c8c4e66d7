/**
 * A tag for another loop like the last: the next free one of its series; nothing where it ends in no number.
 *
 * @param taken tags that there are, in any case
 * @example
 * nextTag('K9', ['K9', 'k10']) // 'K11'
 */
export function nextTag(tag: string, taken: Iterable<string>): string {
  const [, stem, digits] = /^(.*?)(\d{1,6})$/.exec(tag) ?? []
  if (stem === undefined || digits === undefined) return ''
  const known = new Set([...taken].map((one) => one.toLowerCase()))
  for (let n = Number(digits) + 1; ; n += 1) {
    const next = `${stem}${String(n).padStart(digits.length, '0')}`
    if (!known.has(next.toLowerCase())) return next.length > 12 ? '' : next
  }
}
