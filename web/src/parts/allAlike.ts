import type { CutterDamage } from '@undercliff/core'

/**
 * *They are all like this*: what is wrong with one cutter, marked on every other that does not have it. A depth that
 * was read on the one is an estimate on the others.
 *
 * @param damageOf what is known of a cutter, by its number from 1
 * @returns the damage of those that change, by their number
 */
export function allAlike(
  here: number,
  count: number,
  damageOf: (number: number) => readonly CutterDamage[],
): Record<number, CutterDamage[]> {
  const changed: Record<number, CutterDamage[]> = {}
  for (let number = 1; number <= count; number += 1) {
    const had = damageOf(number)
    const more = damageOf(here).filter(({ kind }) => had.every((one) => one.kind !== kind))
    if (number !== here && more.length > 0)
      changed[number] = [
        ...had,
        ...more.map((one) => (one.depthUm === null ? one : { ...one, estimated: true as const })),
      ]
  }
  return changed
}
