import type { Pace } from '../house'
import type { SharpeningTool } from '../log'
import { POPULATIONS, type Population, type TimedWork } from '../state'

/**
 * How far sharpenings stray from the starting times, as deviations of the logarithm of their ratio: the crew as a
 * whole, one person, one tool, one kind of work, and one sharpening. Starting values.
 */
const SPREADS = { crew: 0.35, person: 0.25, tool: 0.25, kind: 0.2, once: 0.25 } as const
/** A single time further off than this many times is a break or a slip, and says no more than that. */
const MOST_TIMES = 4
const Z80 = 1.281552

/** Whose work it is, with what, and of which kind; what is left out may be any. */
export interface PaceOf {
  readonly personId?: string | null
  readonly tool?: SharpeningTool
  readonly population?: Population
}

/** So many times the starting times: the middle, and between what eight of ten lie. */
export interface PaceBelief {
  readonly times: number
  readonly low: number
  readonly high: number
  /** Sharpenings of this very kind that it rests on. */
  readonly own: number
}

const keysOf = ({ personId, tool, population }: PaceOf): string[] => [
  'crew',
  ...(personId == null ? [] : [`person ${personId}`]),
  ...(tool === undefined ? [] : [`tool ${tool}`]),
  ...(population === undefined ? [] : [`kind ${population}`]),
]
const priorOf = (key: string): number => SPREADS[key.split(' ')[0] as keyof typeof SPREADS] ** 2
const UNKNOWN = { person: SPREADS.person ** 2, tool: SPREADS.tool ** 2, kind: SPREADS.kind ** 2 }

/**
 * What a crew's sharpenings have shown of its pace: the logarithm of each against its starting time is the sum of
 * what belongs to the crew, the person, the tool and the kind of work (a linear model with normal effects, each drawn
 * toward nothing while little is known of it; conditioned on one sharpening after another).
 *
 * @returns what to expect of any work
 * @example
 * learnPace([])({}).times // 1
 */
export function learnPace(timed: readonly TimedWork[]): (of: PaceOf) => PaceBelief {
  const places = new Map<string, number>()
  for (const work of timed) for (const key of keysOf(work)) if (!places.has(key)) places.set(key, places.size)
  const size = places.size
  const every = Array.from({ length: size }, (_, i) => i)
  let mean: readonly number[] = every.map(() => 0)
  const keys = [...places.keys()]
  let cov: readonly (readonly number[])[] = every.map((i) => every.map((k) => (i === k ? priorOf(keys[i] ?? '') : 0)))
  const placesOf = (of: PaceOf): number[] => keysOf(of).flatMap((key) => places.get(key) ?? [])
  const sumAt = (row: readonly number[], at: readonly number[]): number => at.reduce((sum, i) => sum + (row[i] ?? 0), 0)
  const withAll = (at: readonly number[]): number[] => cov.map((row) => sumAt(row, at))
  for (const work of timed) {
    const most = Math.log(MOST_TIMES)
    const seen = Math.max(-most, Math.min(most, Math.log(work.minutes / Math.max(0.1, work.startingMinutes))))
    const at = placesOf(work)
    const ties = withAll(at)
    const variance = sumAt(ties, at) + SPREADS.once ** 2
    const off = seen - sumAt(mean, at)
    mean = mean.map((one, i) => one + ((ties[i] ?? 0) / variance) * off)
    cov = cov.map((row, i) => row.map((one, k) => one - ((ties[i] ?? 0) * (ties[k] ?? 0)) / variance))
  }
  return (of) => {
    const at = placesOf(of)
    const known = sumAt(withAll(at), at)
    const has = (kind: string): boolean => keysOf(of).some((key) => key.startsWith(kind) && places.has(key))
    const open = (Object.keys(UNKNOWN) as (keyof typeof UNKNOWN)[]).filter((kind) => !has(kind))
    const crew = places.has('crew') ? 0 : SPREADS.crew ** 2
    const sd = Math.sqrt(open.reduce((sum, kind) => sum + UNKNOWN[kind], known + crew + SPREADS.once ** 2))
    const middle = sumAt(mean, at)
    const own = timed.filter(
      ({ personId, tool, population }) =>
        (of.personId == null || personId === of.personId) &&
        (of.tool ?? tool) === tool &&
        (of.population ?? population) === population,
    ).length
    return {
      times: Math.exp(middle),
      low: Math.exp(middle - Z80 * sd),
      high: Math.exp(middle + Z80 * sd),
      own,
    }
  }
}

/** What is known of the pace of one group: a person, a tool, a kind of work, or all three together. */
export interface PaceGroup extends PaceBelief {
  readonly personId: string | null
  readonly tool: SharpeningTool | null
  readonly population: Population | null
}

/** The pace of everybody, every tool and every kind of work that was seen, and of each of them together. */
export function paceGroups(timed: readonly TimedWork[]): PaceGroup[] {
  const paceOf = learnPace(timed)
  const groups = new Map<string, PaceGroup>()
  const add = (personId: string | null, tool: SharpeningTool | null, population: Population | null): void => {
    const key = JSON.stringify([personId, tool, population])
    if (groups.has(key)) return
    const of = {
      personId,
      ...(tool === null ? {} : { tool }),
      ...(population === null ? {} : { population }),
    }
    groups.set(key, { personId, tool, population, ...paceOf(of) })
  }
  for (const { personId, tool, population } of timed) {
    add(null, null, population)
    add(null, tool, null)
    if (personId !== null) add(personId, null, null)
    add(personId, tool, population)
  }
  return [...groups.values()]
}

/** What verdicts and every plan reckon with: the crew's pace by kind of work, to the hundredth. */
export function crewPace(timed: readonly TimedWork[]): Pace {
  const paceOf = learnPace(timed)
  return Object.fromEntries(
    POPULATIONS.map((population) => [population, Math.round(paceOf({ population }).times * 100) / 100]),
  ) as Record<Population, number>
}
