import { writeMoney, type Money, type Option } from '@undercliff/core'

/** Parts of what an option costs, in the order in which they are drawn. */
export const MONEY_PARTS = [
  { part: 'labourMinor', name: 'work' },
  { part: 'consumablesMinor', name: 'files, wheel' },
  { part: 'shopMinor', name: 'shop' },
  { part: 'metalMinor', name: 'cutter spent' },
  { part: 'newLoopMinor', name: 'new loop, its first spell' },
  { part: 'upkeepMinor', name: 'sharpening it later' },
] as const satisfies readonly { part: Exclude<keyof Money, 'totalMinor'>; name: string }[]

/** What an option costs, part by part; parts that cost nothing are left out. */
export const partsOf = (
  { money }: Pick<Option, 'money'>,
  currency: string,
): { name: string; part: string; minor: number; said: string }[] =>
  MONEY_PARTS.filter(({ part }) => money[part] > 0).map(({ part, name }) => ({
    name,
    part,
    minor: money[part],
    said: `${writeMoney(money[part], currency)} ${name}`,
  }))

/** Feasible options before the others, the cheapest for an hour of sharp running first. */
export function inOrder(options: readonly Option[]): Option[] {
  const rate = ({ perHourMinor }: Option): number => perHourMinor?.likely ?? Infinity
  return [...options].sort(
    (a, b) => Number(b.feasible) - Number(a.feasible) || (rate(a) === rate(b) ? 0 : rate(a) - rate(b)),
  )
}
