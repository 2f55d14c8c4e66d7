/**
 * Cutter numbers as people write them: `5-9, 12`.
 *
 * @param most how many cutters the loop has
 * @returns the numbers in order, or the sentence that says what is wrong
 */
export function readCutterNumbers(text: string, most: number): number[] | string {
  const numbers = new Set<number>()
  for (const part of text.split(/[,;\s]+/).filter(Boolean)) {
    const match = /^(\d{1,3})(?:[-–](\d{1,3}))?$/.exec(part)
    if (match === null) return `"${part}" is not a cutter number. Write them like 5-9, 12.`
    const from = Number(match[1])
    const to = Number(match[2] ?? match[1])
    if (from < 1 || to < from) return `"${part}" does not run upward from 1.`
    if (to > most) return `There is no cutter ${to}: this loop has ${most}.`
    for (let number = from; number <= to; number += 1) numbers.add(number)
  }
  return numbers.size === 0 ? 'Name the cutters, such as 5-9, 12.' : [...numbers].sort((a, b) => a - b)
}
