import { damageDepth, type CutterDamage } from '../damage'
import type { Instant } from '../log'
import type { Hand } from '../loop'
import { BEHIND_DAMAGE_UM } from '../sharpen'
import type { Um } from '../units'
import type { CutterJob, SideJob } from './cutterJobs'
import type { SharpeningPlan } from './plan'
import { countNow, recheck, strokeWorth, worthBefore, type Recheck, type StrokeWorth, type Stroked } from './progress'
import type { Step } from './steps'

/** What happens in the course of a sharpening, one thing after another; undo takes the last one back. */
export type WalkEvent = { readonly at: Instant } & (
  | /** The step, or the cutter in hand, is done: with so many strokes or touches where somebody counted. */
    { readonly kind: 'done'; readonly count?: number }
    /** A cutter was read: before it was worked, or after. */
  | { readonly kind: 'read'; readonly cutter: number; readonly um: Um }
  /** Damage was found on a cutter. */
  | { readonly kind: 'damage'; readonly cutter: number; readonly damage: CutterDamage }
  /** The top plate angle of a cutter was measured. */
  | { readonly kind: 'angle'; readonly cutter: number; readonly deg: number }
  /** Back to the cutter, or the step, before. */
  | { readonly kind: 'back' }
  /** The cutter in hand is clean. */
  | { readonly kind: 'clean' }
  /** The cutter in hand is left for now. */
  | { readonly kind: 'skip' }
  /** The second side goes on without a cutter having been measured against the first. */
  | { readonly kind: 'unchecked' }
)

/** How one cutter went. */
export interface CutterWork {
  /** Strokes or touches that it got; null where nobody counted and it had what was planned. */
  readonly count: number | null
  readonly done: boolean
  readonly skipped: boolean
  readonly clean: boolean
  readonly beforeUm: Um | null
  readonly afterUm: Um | null
  readonly angleDeg: number | null
  /** What was found on it on the way. */
  readonly found: readonly CutterDamage[]
}

const UNTOUCHED: CutterWork = {
  count: null,
  done: false,
  skipped: false,
  clean: false,
  beforeUm: null,
  afterUm: null,
  angleDeg: null,
  found: [],
}

/** A sharpening as it stands. */
export interface Walk {
  /** Place of the step among those of the plan; as many as it has once all are done. */
  readonly at: number
  readonly step: Step | null
  /** The cutter in hand; null in a step that has none. */
  readonly cutter: CutterJob | null
  /** Place of that cutter among those of its side, from 0, and how many they are. */
  readonly place: number
  readonly of: number
  readonly work: ReadonlyMap<number, CutterWork>
  /** What a stroke takes off on each side today, as far as readings have told. */
  readonly worth: Readonly<Record<Hand, StrokeWorth>>
  /** How the second side compares with the first; null while nothing of it was measured. */
  readonly check: Recheck | null
  /** The second side went on unchecked. */
  readonly unchecked: boolean
}

interface Going {
  at: number
  place: number
  work: Map<number, CutterWork>
  unchecked: boolean
}

const sideOf = (plan: SharpeningPlan, step: Step | null | undefined) =>
  step?.hand == null ? undefined : plan.sides.find(({ hand }) => hand === step.hand)

/** Goes on to the next cutter of a side, or to the next step behind its last one. */
function goOn(plan: SharpeningPlan, going: Going): void {
  const side = sideOf(plan, plan.steps[going.at])
  if (side !== undefined && going.place + 1 < side.cutters.length) going.place += 1
  else {
    going.at = Math.min(plan.steps.length, going.at + 1)
    going.place = 0
  }
  if (checkedAlready(plan, going)) goOn(plan, going)
}

/** Whether the cutter in hand had its strokes when the second side was checked against the first. */
function checkedAlready(plan: SharpeningPlan, { at, place, work }: Going): boolean {
  const step = plan.steps[at]
  if (step?.id !== 'secondSide') return false
  const number = sideOf(plan, step)?.cutters[place]?.number
  return number !== undefined && number === checkCutter(plan)?.number && work.get(number)?.done === true
}

/** Goes back to the cutter before, or to the last one of the step before. */
function goBack(plan: SharpeningPlan, going: Going): void {
  if (going.place > 0) going.place -= 1
  else if (going.at > 0) {
    going.at -= 1
    going.place = Math.max(0, (sideOf(plan, plan.steps[going.at])?.cutters.length ?? 1) - 1)
  }
}

/** The second side's cutter that the re-check reads: its first one that is sound. */
export function checkCutter(plan: SharpeningPlan): CutterJob | null {
  const second = plan.sides[1]
  return second?.cutters.find(({ damageUm }) => damageUm === 0) ?? second?.cutters[0] ?? null
}

function inHand(plan: SharpeningPlan, { at, place }: Going): CutterJob | null {
  const step = plan.steps[at]
  if (step?.id === 'recheck') return checkCutter(plan)
  return sideOf(plan, step)?.cutters[place] ?? null
}

/** Changes what is known of a cutter. */
function change({ work }: Going, number: number | undefined, part: Partial<CutterWork>): void {
  if (number !== undefined) work.set(number, { ...(work.get(number) ?? UNTOUCHED), ...part })
}

/** What was seen of a cutter, wherever one is. */
function note(plan: SharpeningPlan, going: Going, event: Extract<WalkEvent, { readonly cutter: number }>): void {
  const { cutter } = event
  const { done = false, found = [] } = going.work.get(cutter) ?? {}
  switch (event.kind) {
    case 'damage':
      change(going, cutter, { found: [...found, event.damage] })
      return
    case 'angle':
      change(going, cutter, { angleDeg: event.deg })
      return
    case 'read':
      // Of the cutter in hand a length may be what it has before its strokes; of one that is done it is what is left.
      if (done || plan.steps[going.at]?.id === 'recheck') change(going, cutter, { done: true, afterUm: event.um })
      else change(going, cutter, { beforeUm: event.um })
  }
}

function take(plan: SharpeningPlan, going: Going, event: WalkEvent): void {
  const number = inHand(plan, going)?.number
  switch (event.kind) {
    case 'done': {
      const counted = event.count === undefined ? {} : { count: event.count }
      change(going, number, { done: true, skipped: false, ...counted })
      goOn(plan, going)
      return
    }
    case 'skip':
      change(going, number, { skipped: true })
      goOn(plan, going)
      return
    case 'clean':
      change(going, number, { clean: true })
      return
    case 'back':
      goBack(plan, going)
      return
    case 'unchecked':
      going.unchecked = true
      goOn(plan, going)
      return
    default:
      note(plan, going, event)
  }
}

/** The step that each thing happens in, before it changes anything. */
export function stepsAt(plan: SharpeningPlan, events: readonly WalkEvent[]): (Step | null)[] {
  const going: Going = { at: 0, place: 0, work: new Map(), unchecked: false }
  return events.map((event) => {
    const step = plan.steps[going.at] ?? null
    take(plan, going, event)
    return step
  })
}

const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length

/** What readings of one side say of a stroke. */
function strokedOf(plan: SharpeningPlan, hand: Hand, work: ReadonlyMap<number, CutterWork>): Stroked[] {
  const side = plan.sides.find((one) => one.hand === hand)
  return (side?.cutters ?? []).flatMap(({ number, lengthUm, lengthSdUm, count }) => {
    const one = work.get(number)
    if (one === undefined || one.afterUm === null) return []
    const [beforeUm, beforeSdUm] = one.beforeUm === null ? [lengthUm, lengthSdUm] : [one.beforeUm, 0]
    return [{ beforeUm, beforeSdUm, afterUm: one.afterUm, strokes: one.count ?? count }]
  })
}

/**
 * Where a side stands by what was read of it once it was worked, the last reading last. Where each cutter gets the same
 * strokes, one that was longer than its side before is so still, and says that much less of the side.
 */
function levelsRead(plan: SharpeningPlan, side: SideJob, work: ReadonlyMap<number, CutterWork>): number[] {
  const own = plan.stopUm === null && !plan.evens
  const sideUm = mean(side.cutters.map(({ lengthUm }) => lengthUm))
  return side.cutters.flatMap(({ number, damageUm, lengthUm }) => {
    const um = work.get(number)?.afterUm ?? null
    // What damage took a cutter to says nothing of its side, unless a stop brought it there.
    if (um === null || (damageUm > 0 && plan.stopUm === null)) return []
    return [own ? um - (lengthUm - sideUm) : um]
  })
}

/** How the second side compares with the first, once a cutter of each was measured; a stop says what the first is. */
function checkOf(plan: SharpeningPlan, work: ReadonlyMap<number, CutterWork>, strokeUm: number): Recheck | null {
  const [first, second] = plan.sides
  const now = second === undefined ? [] : levelsRead(plan, second, work)
  if (first === undefined || now.length === 0) return null
  const then = levelsRead(plan, first, work)
  // Of a side that was done another time its lengths are what is known of it.
  const before = plan.waiting === null ? null : mean(first.cutters.map((job) => job.lengthUm))
  const against = then.length > 0 ? mean(then) : (before ?? plan.stopUm)
  return against === null ? null : recheck(Math.round(against), Math.round(now.at(-1) ?? 0), strokeUm)
}

/** Part of the strokes of a side by which the check changes the rest of it at most. Starting value. */
const MOST_BESIDE = 0.6

/**
 * Strokes for the rest of the second side, so that it ends where the first one did: what the cutter that was measured
 * last got, and so many more or fewer as the check says. Null where nothing was checked, or damage decides.
 */
function countBeside(
  plan: SharpeningPlan,
  job: CutterJob,
  work: ReadonlyMap<number, CutterWork>,
  check: Recheck | null,
): number | null {
  const second = plan.sides[1]
  if (check === null || plan.gives === 'touches' || job.untilClean || job.hand !== second?.hand) return null
  const read = second.cutters.filter(({ number, damageUm }) => damageUm === 0 && work.get(number)?.afterUm != null)
  const last = read.at(-1)
  const planned = second.cutters.find(({ number }) => number === job.number)?.count ?? job.count
  if (last === undefined) return null
  const given = work.get(last.number)?.count ?? last.count
  // No hand is that much weaker on one side: beyond it a reading is rather a slip.
  const most = Math.max(1, Math.ceil(last.count * MOST_BESIDE))
  const more = Math.min(most, Math.max(-most, check.strokes))
  return Math.max(1, given + more + planned - last.count)
}

/**
 * A sharpening as it stands: a pure fold of what happened over its plan, so that a reload or another device goes on
 * where it was.
 *
 * @example
 * walkOf(plan, []).at // 0
 */
export function walkOf(plan: SharpeningPlan, events: readonly WalkEvent[]): Walk {
  const going: Going = { at: 0, place: 0, work: new Map(), unchecked: false }
  for (const event of events) take(plan, going, event)
  const { at, place, work, unchecked } = going
  const worthOf = (hand: Hand): StrokeWorth =>
    strokeWorth(worthBefore(plan.bites[hand]), plan.gives === 'strokes' ? strokedOf(plan, hand, work) : [])
  const worth = { left: worthOf('left'), right: worthOf('right') }
  const job = inHand(plan, going)
  const step = plan.steps[at] ?? null
  const second = plan.sides[1]?.hand ?? 'right'
  const check = checkOf(plan, work, worth[second].meanUm)
  const jobIs = job === null ? null : jobNow(plan, job, work, worth)
  const beside = jobIs === null || step?.id === 'recheck' ? null : countBeside(plan, jobIs, work, check)
  return {
    at,
    step,
    cutter: jobIs === null || beside === null ? jobIs : { ...jobIs, count: beside },
    place,
    of: sideOf(plan, step)?.cutters.length ?? 0,
    work,
    worth,
    check,
    unchecked,
  }
}

/** A cutter's job with what is known by now: its length where it was read, its count by what a stroke is worth. */
function jobNow(
  plan: SharpeningPlan,
  job: CutterJob,
  work: ReadonlyMap<number, CutterWork>,
  worth: Walk['worth'],
): CutterJob {
  const { beforeUm = null, found = [] } = work.get(job.number) ?? {}
  const lengthUm = beforeUm ?? job.lengthUm
  const foundUm = damageDepth(found).knownUm
  // To a stop, or to what others have, it comes down to the same length whatever it began at; else it gets as much.
  const plannedUm = plan.stopUm ?? Math.min(lengthUm, beforeUm === null ? job.targetUm : lengthUm - job.removeUm)
  // What was found on the way is worked through too; a stop ends where it ends.
  const targetUm =
    foundUm === 0 || plan.stopUm !== null ? plannedUm : Math.min(plannedUm, lengthUm - foundUm - BEHIND_DAMAGE_UM)
  const untilClean = job.untilClean || (found.length > 0 && plan.stopUm === null)
  const damageUm = Math.max(job.damageUm, foundUm)
  const now = { ...job, lengthUm, targetUm, damageUm, untilClean, removeUm: Math.max(0, lengthUm - targetUm) }
  if (plan.gives === 'touches') return now
  return { ...now, count: Math.max(1, countNow(now, worth[job.hand])) }
}
