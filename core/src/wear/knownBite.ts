import {
  afterSums,
  ANY_LEAN,
  fileFactor,
  restedUm,
  LENGTH_SPREADS,
  UM_PER_STROKE,
  USUAL_BITES,
  type Normal,
  type Sum,
} from '../belief'
import type { KnownBite, KnownHand } from '../log'
import type { Hand } from '../loop'
import type { RemovalSample, SideRemoval } from '../state'
import { personBite, USUAL_BITE, type PersonBite } from './personBite'
import { REMOVAL_PRIORS } from './removal'

/** How far one loop's figures stray from those of a crew's others: steel and files differ. Starting values. */
const ANOTHER_LOOP = { strokePart: 0.08, uncounted: 0.05, leanUm: 0.6 } as const

/** People whose hands are written down with a loop that comes; with more, those of whom most is known. */
export const MOST_HANDS = 12

/** Places of what is learned, ahead of how everybody leans. */
const STROKE = 0
const UNCOUNTED = 1
const LEANS = 2

/** A sharpening with a file that somebody is known to have done, or nobody is. */
interface Filed {
  readonly sample: RemovalSample
  readonly by: PersonBite
  /** Place of how they lean; undefined where nobody knows who it was. */
  readonly lean: number | undefined
}

/** What a stroke took on a side, and how far that may be off by the readings alone. */
function strokeOn({ sample, by }: Filed, side: SideRemoval | undefined): Normal | null {
  // A side without strokes tells nothing.
  if (side === undefined || side.strokes === 0) return null
  const given = side.strokes ?? REMOVAL_PRIORS[sample.population].meanUm / UM_PER_STROKE
  const bites = given * fileFactor(sample) * by.factor
  const offUm = side.strokes === undefined ? side.um : restedUm(side.um)
  return { mean: offUm / bites, variance: ((side.sdUm * offUm) / Math.max(1, side.um) / bites) ** 2 }
}

/** What one sharpening tells: of both sides what a stroke takes, and how they differ of how its person leans. */
function sumsOf(filed: Filed): Sum[] {
  const { sample, by, lean } = filed
  const { sides = {}, sharpenings } = sample
  const counted = [sides.left, sides.right].some((side) => side?.strokes !== undefined)
  const { day, daySide, dayUncounted } = LENGTH_SPREADS
  const dayVariance = (part: number): number => (part * UM_PER_STROKE) ** 2 / sharpenings
  const both = dayVariance(counted ? day : dayUncounted) + (by.sd * UM_PER_STROKE) ** 2
  const one = dayVariance(daySide)
  const whole = [[STROKE, 1], ...(counted ? [] : [[UNCOUNTED, UM_PER_STROKE] as const])] as const
  const leaning = (part: number): Sum['of'] => (lean === undefined ? [] : [[lean, part]])
  const [left, right] = [strokeOn(filed, sides.left), strokeOn(filed, sides.right)]
  if (left !== null && right !== null) {
    const variance = (left.variance + right.variance) / 4 + one / 2
    const apart = { mean: (left.mean - right.mean) / 2, variance, of: leaning(1) }
    return [
      { mean: (left.mean + right.mean) / 2, variance: variance + both, of: whole },
      ...(lean === undefined ? [] : [apart]),
    ]
  }
  const alone = (side: Normal | null, hand: Hand): Sum[] =>
    side === null
      ? []
      : [
          {
            mean: side.mean,
            // Nobody knows how they lean, or it is learned.
            variance: side.variance + one + both + (lean === undefined ? ANY_LEAN.variance : 0),
            of: [...whole, ...leaning(hand === 'left' ? 1 : -1)],
          },
        ]
  return [...alone(left, 'left'), ...alone(right, 'right')]
}

/** Whose sharpenings are among the samples, those of whom most is known first. */
function peopleIn(samples: readonly RemovalSample[]): string[] {
  const done = new Map<string, number>()
  for (const { personId, sharpenings } of samples)
    if (personId != null) done.set(personId, (done.get(personId) ?? 0) + sharpenings)
  return [...done].sort(([, a], [, b]) => b - a).map(([id]) => id)
}

/** Of another loop no more is known than before it, and no less than so. */
const ofAnotherLoop = ({ mean, variance }: Normal, strays: number, before: Normal): Normal => ({
  mean,
  variance: Math.min(before.variance, variance + strays ** 2),
})

const rounded = (value: number, digits: number): number => Number(value.toFixed(digits))

/**
 * What a crew's files are known to take off, by what readings of its loops have shown: what a loop begins with
 * that comes next. What each of the samples says is free of what was expected.
 *
 * @param samples what sharpenings of all its loops took off
 * @returns undefined where nothing is known but common practice
 * @example
 * knownBite([]) // undefined
 */
export function knownBite(samples: readonly RemovalSample[]): KnownBite | undefined {
  const filed = samples.filter(({ population }) => population !== 'grind')
  const people = peopleIn(filed).slice(0, MOST_HANDS)
  const bites = new Map(people.map((id) => [id, personBite(filed, id)]))
  const sums = filed.flatMap((sample) => {
    const place = people.indexOf(sample.personId ?? '')
    const by = bites.get(sample.personId ?? '') ?? USUAL_BITE
    return sumsOf({ sample, by, lean: place < 0 ? undefined : LEANS + place })
  })
  if (sums.length === 0) return undefined
  const { stroke, uncounted } = USUAL_BITES
  const known = afterSums([stroke, uncounted, ...people.map(() => ANY_LEAN)], sums)
  const figure = (place: number, strays: number, before: Normal): Normal =>
    ofAnotherLoop(known[place] ?? before, strays, before)
  const each = figure(STROKE, ANOTHER_LOOP.strokePart * UM_PER_STROKE, stroke)
  const more = figure(UNCOUNTED, ANOTHER_LOOP.uncounted, uncounted)
  const hands = people.map((personId, i): KnownHand => {
    const { factor, sd } = bites.get(personId) ?? USUAL_BITE
    const { mean, variance } = figure(LEANS + i, ANOTHER_LOOP.leanUm, ANY_LEAN)
    return {
      personId,
      factor: rounded(factor, 3),
      factorSd: rounded(sd, 3),
      leanUm: rounded(mean, 2),
      leanSdUm: rounded(Math.sqrt(variance), 2),
    }
  })
  return {
    strokeUm: rounded(each.mean, 2),
    strokeSdUm: rounded(Math.sqrt(each.variance), 2),
    uncounted: rounded(more.mean, 3),
    uncountedSd: rounded(Math.sqrt(more.variance), 3),
    people: hands,
  }
}
