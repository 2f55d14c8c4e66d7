import type { CutterReading, NewEntry, SharpenMethod } from '../log'
import type { Hand } from '../loop'
import type { CutterJob } from './cutterJobs'
import { minutesOf } from './elapsed'
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
  /** Things of the crew's that it used up. */
  readonly used?: readonly string[]
}

/** How far a sharpening went. With one side done the loop pulls: it is not fit until the other side follows. */
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
  const done = sidesDone(plan, walk)
  if (plan.waiting !== null) return done.includes(plan.waiting) ? 'both' : 'nothing'
  return done.length === 0 ? 'nothing' : done.length < plan.sides.length ? 'oneSide' : 'both'
}

/** The side that was worked alone: the other was done another time, or still waits; null for both in one go. */
export function workedAlone(plan: SharpeningPlan, walk: Walk): Hand | null {
  if (plan.waiting !== null) return plan.waiting
  const [only, other] = sidesDone(plan, walk)
  return plan.sides.length > 1 && other === undefined ? (only ?? null) : null
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

/** Cutters that got other strokes than their side. */
const apartFrom = (strokes: Readonly<Record<Hand, number>>, jobs: readonly CutterJob[], { work }: Walk) =>
  jobs.flatMap(({ number, hand, count }) => {
    const one = work.get(number)
    const given = one?.done === true ? (one.count ?? count) : 0
    return given === strokes[hand] ? [] : [{ cutter: number, strokes: Math.min(500, given) }]
  })

/**
 * The entries that a sharpening writes, in one parcel, each to be struck out by itself: what was read before it, the
 * sharpening, what was read after it, the gauges. One side alone is written as that side's work. Empty until a side
 * is done.
 */
export function parcelOf(plan: SharpeningPlan, events: readonly WalkEvent[], written: Written): NewEntry[] {
  const walk = walkOf(plan, events)
  if (endedAs(plan, walk) === 'nothing') return []
  const alone = workedAlone(plan, walk)
  const { loopId, personId, newId, endedMs, gaugesToUm, used = [] } = written
  const base = (after: number) => ({
    id: newId(),
    loopId,
    personId,
    // What was read before comes before the sharpening, and what was read after it behind it.
    happenedAt: new Date(endedMs + after - 3).toISOString(),
  })
  const [before, after] = [readingsOf(walk, 'beforeUm'), readingsOf(walk, 'afterUm')]
  const jobs = plan.sides.filter(({ hand }) => (alone ?? hand) === hand).flatMap(({ cutters }) => cutters)
  const hurt = jobs.filter(({ damageUm }) => damageUm > 0)
  const cleared =
    hurt.length > 0 &&
    hurt.every(({ number, untilClean }) => {
      const one = walk.work.get(number)
      return one?.done === true && (one.clean || (!untilClean && plan.stopUm !== null))
    })
  const strokes = { left: strokesOn(plan, 'left', walk), right: strokesOn(plan, 'right', walk) }
  const apart = plan.gives === 'strokes' ? apartFrom(strokes, jobs, walk) : []
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
      tool: plan.tool,
      minutes: Math.round(minutesOf(plan, events) * 10) / 10,
      ...(used.length === 0 ? {} : { used }),
      ...(apart.length === 0 ? {} : { apart }),
      ...(plan.stopUm === null ? {} : { stopUm: plan.stopUm }),
      ...(alone === null ? {} : { onlySide: alone }),
      // Of the first side alone there was nothing to check it against.
      ...(plan.stopUm === null || (alone !== null && plan.waiting === null)
        ? {}
        : { stopChecked: walk.check !== null && !walk.unchecked }),
    },
    ...readings(after, 2),
    ...(gaugesToUm === null ? [] : [{ ...base(3), kind: 'gaugesLowered' as const, settingUm: gaugesToUm }]),
  ]
}
