import type { CutterReading, NewEntry, SharpenMethod } from '../log'
import type { Hand } from '../loop'
import type { SharpeningPlan } from './plan'
import { walkOf, type CutterWork, type Walk, type WalkEvent } from './walk'

/** What the device says of the entries that a sharpening writes. */
export interface Written {
  readonly loopId: string
  readonly personId: string | null
  /** A new id for each entry. */
  readonly newId: () => string
  /** When it ended, milliseconds since 1970. */
  readonly endedMs: number
  /** Setting that the gauges were lowered to; null where they were left alone. */
  readonly gaugesToUm: number | null
}

/** How far a sharpening went. One with one side done would leave a loop that pulls: it stays open. */
export type Ended = 'nothing' | 'oneSide' | 'both'

const doneOf = (plan: SharpeningPlan, hand: Hand, { work }: Walk): readonly CutterWork[] =>
  (plan.sides.find((side) => side.hand === hand)?.cutters ?? []).flatMap(({ number }) => {
    const one = work.get(number)
    return one?.done === true ? [one] : []
  })

/** Sides of which more than half of the cutters are done. The re-check's one cutter makes no side. */
export function sidesDone(plan: SharpeningPlan, walk: Walk): Hand[] {
  return plan.sides
    .filter(({ hand, cutters }) => doneOf(plan, hand, walk).length * 2 > cutters.length)
    .map(({ hand }) => hand)
}

/** How far a sharpening went. */
export function endedAs(plan: SharpeningPlan, walk: Walk): Ended {
  const done = sidesDone(plan, walk).length
  return done === 0 ? 'nothing' : done < plan.sides.length ? 'oneSide' : 'both'
}

/** Strokes that a cutter of a side had: the middle of those that were given. */
function strokesOn(plan: SharpeningPlan, hand: Hand, walk: Walk): number {
  const side = plan.sides.find((one) => one.hand === hand)
  if (side === undefined || !sidesDone(plan, walk).includes(hand)) return 0
  const given = side.cutters
    .flatMap(({ number, count }) => {
      const one = walk.work.get(number)
      return one?.done === true ? [one.count ?? count] : []
    })
    .sort((a, b) => a - b)
  return given[Math.floor(given.length / 2)] ?? side.count
}

const methodOf = ({ gives, action }: SharpeningPlan): SharpenMethod =>
  gives === 'touches' ? 'grinder' : action === 'touchUp' ? 'fileField' : 'fileBench'

const readingsOf = (walk: Walk, which: 'beforeUm' | 'afterUm'): CutterReading[] =>
  [...walk.work].flatMap(([cutter, { [which]: lengthUm }]) => (lengthUm === null ? [] : [{ cutter, lengthUm }]))

/**
 * The entries that a sharpening writes, in one parcel, each to be struck out by itself: what was read before it, the
 * sharpening, what was read after it, the gauges. Empty until both sides are done.
 */
export function parcelOf(plan: SharpeningPlan, events: readonly WalkEvent[], written: Written): NewEntry[] {
  const walk = walkOf(plan, events)
  if (endedAs(plan, walk) !== 'both') return []
  const { loopId, personId, newId, endedMs, gaugesToUm } = written
  const base = (after: number) => ({
    id: newId(),
    loopId,
    personId,
    // What was read before comes before the sharpening, and what was read after it behind it.
    happenedAt: new Date(endedMs + after - 3).toISOString(),
  })
  const [before, after] = [readingsOf(walk, 'beforeUm'), readingsOf(walk, 'afterUm')]
  const jobs = plan.sides.flatMap(({ cutters }) => cutters)
  const hurt = jobs.filter(({ damageUm }) => damageUm > 0)
  const cleared =
    hurt.length > 0 &&
    hurt.every(({ number, untilClean }) => {
      const one = walk.work.get(number)
      return one?.done === true && (one.clean || (!untilClean && plan.stopUm !== null))
    })
  const strokes = { left: strokesOn(plan, 'left', walk), right: strokesOn(plan, 'right', walk) }
  const readings = (which: readonly CutterReading[], at: number): NewEntry[] =>
    which.length === 0 ? [] : [{ ...base(at), kind: 'measured', readings: which, chosen: 'some' }]
  return [
    ...readings(before, 0),
    {
      ...base(1),
      kind: 'sharpened',
      method: methodOf(plan),
      gaugesLowered: false,
      ...(plan.gives === 'strokes' ? { strokes } : {}),
      ...(plan.evens ? { evened: true } : {}),
      ...(cleared ? { damageCleared: true } : {}),
      ...(plan.stopUm === null ? {} : { stopChecked: walk.check !== null && !walk.unchecked }),
    },
    ...readings(after, 2),
    ...(gaugesToUm === null ? [] : [{ ...base(3), kind: 'gaugesLowered' as const, settingUm: gaugesToUm }]),
  ]
}
