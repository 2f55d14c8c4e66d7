import type { Population, RemovalSample } from '../state'
import type { FileAge, SharpenMethod } from '../log'
import { HANDS, type Hand } from '../loop'
import { shrunkGroups, type GroupBelief, type Observation } from '../stats'
import { REMOVAL_PRIORS } from './removal'

/** What removal may be told apart by. */
export interface RemovalGroups {
  readonly person: readonly GroupBelief[]
  readonly side: readonly GroupBelief<Hand>[]
  readonly method: readonly GroupBelief<SharpenMethod>[]
  readonly fileAge: readonly GroupBelief<FileAge>[]
  /** Each person's sides apart: `personId|hand`. */
  readonly personSide: readonly GroupBelief[]
  /** By person: how much more came off the right than off the left, in the same sharpening. */
  readonly sideGap: readonly GroupBelief[]
}

/**
 * How far people's sides differ from one another, and how far a single sharpening's does from its
 * person's. The same hand, file and caliper do both sides, so this strays less than the removal
 * itself. Starting values.
 */
const GAP = { betweenUm: 30, withinUm: 25 } as const

type Key<K extends string> = (sample: RemovalSample) => readonly Observation<K>[]

const whole = <K extends string>(group: K | null | undefined, sample: RemovalSample): Observation<K>[] =>
  group === null || group === undefined
    ? []
    : [{ group, value: sample.perSharpeningUm, weight: weightOf(sample, sample.sdUm) }]

/** Sharpenings that a figure is worth: one that is known vaguely counts for little. */
function weightOf({ population, sharpenings }: RemovalSample, sdUm: number): number {
  const { withinUm } = REMOVAL_PRIORS[population]
  return withinUm ** 2 / (withinUm ** 2 / sharpenings + sdUm ** 2)
}

const sidesOf = <K extends string>(sample: RemovalSample, key: (hand: Hand) => K): Observation<K>[] =>
  HANDS.flatMap((hand) => {
    const side = sample.sides?.[hand]
    return side === undefined ? [] : [{ group: key(hand), value: side.um, weight: weightOf(sample, side.sdUm) }]
  })

function gapOf({ personId, sides, sharpenings }: RemovalSample): Observation[] {
  if (personId == null || sides?.left === undefined || sides.right === undefined) return []
  const variance = sides.left.sdUm ** 2 + sides.right.sdUm ** 2
  const weight = GAP.withinUm ** 2 / (GAP.withinUm ** 2 / sharpenings + variance)
  return [{ group: personId, value: sides.right.um - sides.left.um, weight }]
}

/**
 * What a sharpening of one kind takes off by person, side, method and age of the file; each drawn
 * toward all the others while little is known of it. Micrometres for each sharpening.
 *
 * @example
 * learnBy(samples, 'touchUp').person // [] while nobody's are known
 */
export function learnBy(samples: readonly RemovalSample[], population: Population): RemovalGroups {
  const { meanUm, betweenUm, withinUm } = REMOVAL_PRIORS[population]
  const mine = samples.filter((sample) => sample.population === population)
  const by = <K extends string>(key: Key<K>): GroupBelief<K>[] =>
    shrunkGroups(mine.flatMap(key), { mean: meanUm, sd: betweenUm }, withinUm)
  return {
    person: by((sample) => whole(sample.personId, sample)),
    side: by((sample) => sidesOf(sample, (hand) => hand)),
    method: by((sample) => whole(sample.method, sample)),
    fileAge: by((sample) => whole(sample.fileAge, sample)),
    sideGap: shrunkGroups(mine.flatMap(gapOf), { mean: 0, sd: GAP.betweenUm }, GAP.withinUm),
    personSide: by((sample) =>
      sample.personId == null ? [] : sidesOf(sample, (hand) => `${sample.personId ?? ''}|${hand}`),
    ),
  }
}
