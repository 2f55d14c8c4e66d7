import { TOOL_FACTS } from '../jobs/tools'
import type { CutterReading, EntryBodies, FileAge, NewEntry, PlateUsed, SharpenMethod } from '../log'
import type { Hand } from '../loop'
import type { CutterJob } from '../jobs/cutterJobs'
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
  /** The plate that the gauges were lowered to besides; null where they were left alone, or the tool has them done. */
  readonly gaugesTo: PlateUsed | null
  /** Things of the crew's that it used up, and how the file was. */
  readonly used?: readonly string[]
  readonly fileAge?: FileAge
  /** How long it took, where it was not walked through here; null where nobody knows. */
  readonly minutes?: number | null
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
  [...walk.work].flatMap(([cutter, { [which]: lengthUm, confirmed }]) =>
    lengthUm === null ? [] : [{ cutter, lengthUm, ...(confirmed.has(which) ? { confirmed: true } : {}) }],
  )

/** Cutters that got other strokes than their side. */
const apartFrom = (strokes: Readonly<Record<Hand, number>>, jobs: readonly CutterJob[], { work }: Walk) =>
  jobs.flatMap(({ number, hand, count }) => {
    const one = work.get(number)
    const given = one?.done === true ? (one.count ?? count) : 0
    return given === strokes[hand] ? [] : [{ cutter: number, strokes: Math.min(500, given) }]
  })

/** What was read before the strokes, with what was found then beside what was known to be wrong. */
function readBefore(plan: SharpeningPlan, walk: Walk): CutterReading[] {
  const both = new Map(readingsOf(walk, 'beforeUm').map((one) => [one.cutter, one]))
  const known = new Map(plan.sides.flatMap(({ cutters }) => cutters.map(({ number, damage }) => [number, damage])))
  for (const [cutter, { found }] of walk.work)
    if (found.length > 0)
      both.set(cutter, { cutter, ...both.get(cutter), damage: [...(known.get(cutter) ?? []), ...found] })
  return [...both.values()]
}

/** Whether everything that hurt the cutters that were worked is gone. */
function clearedAll(plan: SharpeningPlan, jobs: readonly CutterJob[], { work }: Walk): boolean {
  const hurt = jobs
    .map((job) => {
      const found = work.get(job.number)?.found ?? []
      return found.length === 0 ? job : { ...job, damageUm: 1, untilClean: plan.stopUm === null }
    })
    .filter(({ damageUm }) => damageUm > 0)
  return (
    hurt.length > 0 &&
    hurt.every(({ number, untilClean }) => {
      const one = work.get(number)
      // Under a wheel that no stop ends, going on says that it is clean.
      const ended = plan.stopUm === null ? plan.gives === 'touches' : !untilClean
      return one?.done === true && (one.clean || ended)
    })
  )
}

type Said = Omit<EntryBodies['sharpened'], 'method' | 'gaugesLowered'>

/** Where a stop ends every cutter strokes are no measure; what was left out is said all the same. */
function saidOfLeftOut(jobs: readonly CutterJob[], { work }: Walk): Said {
  const apart = jobs
    .filter(({ number }) => work.get(number)?.done !== true)
    .map(({ number }) => ({ cutter: number, strokes: 0 }))
  return apart.length === 0 ? {} : { apart }
}

/** What a sharpening by file says beyond what every one does. */
function saidOfStrokes(plan: SharpeningPlan, jobs: readonly CutterJob[], walk: Walk): Said {
  if (plan.gives === 'touches' || plan.stopUm !== null) return saidOfLeftOut(jobs, walk)
  const strokes = { left: strokesOn(plan, 'left', walk), right: strokesOn(plan, 'right', walk) }
  const apart = apartFrom(strokes, jobs, walk)
  const asRead = strokes.left !== strokes.right && readingsOf(walk, 'afterUm').length > 0
  return {
    strokes,
    ...(asRead ? { countsRead: true } : {}),
    ...(plan.evens ? { evened: true } : {}),
    ...(apart.length === 0 ? {} : { apart }),
  }
}

/** What one to a stop says of it. Of the first side alone there was nothing to check it against. */
function saidOfStop(plan: SharpeningPlan, alone: Hand | null, walk: Walk): Said {
  const { waiting } = plan
  const { stopUm, stopRead } = walk
  // Where it ends nobody knew beforehand, and nobody has read it since.
  if (stopUm === null || (plan.stopUnknown && !stopRead)) return {}
  const checked = alone === null || waiting !== null
  return {
    stopUm,
    ...(stopRead ? { stopRead } : {}),
    ...(checked ? { stopChecked: walk.check !== null && !walk.unchecked } : {}),
  }
}

/**
 * The entries that a sharpening writes, in one parcel, each to be struck out by itself: what was read before it, the
 * sharpening, what was read after it, the gauges. One side alone is written as that side's work. Empty until a side
 * is done.
 */
export function parcelOf(plan: SharpeningPlan, events: readonly WalkEvent[], written: Written): NewEntry[] {
  const walk = walkOf(plan, events)
  if (endedAs(plan, walk) === 'nothing') return []
  const alone = workedAlone(plan, walk)
  const { loopId, personId, newId, endedMs, gaugesTo, used = [], fileAge, minutes = minutesOf(plan, events) } = written
  const base = (after: number) => ({
    id: newId(),
    loopId,
    personId,
    // What was read before comes before the sharpening, and what was read after it behind it.
    happenedAt: new Date(endedMs + after - 3).toISOString(),
  })
  const jobs = plan.sides.filter(({ hand }) => (alone ?? hand) === hand).flatMap(({ cutters }) => cutters)
  const readings = (which: readonly CutterReading[], at: number): NewEntry[] =>
    which.length === 0 ? [] : [{ ...base(at), kind: 'measured', readings: which, chosen: 'some' }]
  return [
    ...readings(readBefore(plan, walk), 0),
    {
      ...base(1),
      kind: 'sharpened',
      method: methodOf(plan),
      gaugesLowered: TOOL_FACTS[plan.tool].gaugesToo,
      tool: plan.tool,
      ...(minutes === null ? {} : { minutes: Math.round(minutes * 10) / 10 }),
      ...saidOfStrokes(plan, jobs, walk),
      ...(clearedAll(plan, jobs, walk) ? { damageCleared: true } : {}),
      ...saidOfStop(plan, alone, walk),
      ...(used.length === 0 ? {} : { used }),
      ...(fileAge === undefined ? {} : { fileAge }),
      ...(plan.fileBite === null || plan.stopUm !== null ? {} : { fileBite: plan.fileBite }),
      ...(alone === null ? {} : { onlySide: alone }),
    },
    ...readings(readingsOf(walk, 'afterUm'), 2),
    ...(gaugesTo === null ? [] : [{ ...base(3), kind: 'gaugesLowered' as const, plate: gaugesTo }]),
  ]
}
