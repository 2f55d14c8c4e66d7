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

/**
 * Cutter numbers in the order in which they met something: a run that goes on past the joint
 * begins before it.
 *
 * @example
 * inTheirOrder([1, 2, 35, 36], 36) // [35, 36, 1, 2]
 */
export function inTheirOrder(numbers: readonly number[], most: number): number[] {
  const sorted = [...numbers].sort((a, b) => a - b)
  if (sorted[0] !== 1 || sorted.at(-1) !== most || sorted.length === most) return sorted
  const gap = sorted.findIndex((number, i) => i > 0 && number !== (sorted[i - 1] ?? 0) + 1)
  return [...sorted.slice(gap), ...sorted.slice(0, gap)]
}

/** A run as people write it. `sayRun([35, 36, 1, 2]) // '35-36, 1-2'` */
export function sayRun(run: readonly number[]): string {
  const parts: [number, number][] = []
  for (const number of run) {
    const last = parts.at(-1)
    if (last !== undefined && number === last[1] + 1) last[1] = number
    else parts.push([number, number])
  }
  return parts.map(([from, to]) => (from === to ? String(from) : `${from}-${to}`)).join(', ')
}
