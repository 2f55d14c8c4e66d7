import { damageDepth, type CutterDamage } from '../damage'
import type { Instant } from '../log'
import { otherHand, type Hand } from '../loop'
import { BEHIND_DAMAGE_UM } from '../sharpen'
import type { Um } from '../units'
import { strokesNear, type CutterJob, type SideJob } from '../jobs/cutterJobs'
import type { SharpeningPlan } from './plan'
import {
  ALIKE_UM,
  countNow,
  recheck,
  strokeWorth,
  worthBeside,
  type Recheck,
  type StrokeWorth,
  type Stroked,
} from './progress'
import type { Step, StepId } from '../jobs/steps'

/** What happens in the course of a sharpening, one thing after another; undo takes the last one back. */
export type WalkEvent = { readonly at: Instant } & (
  | /** The step, or the cutter in hand, is done: with so many strokes or touches where somebody counted. */
    { readonly kind: 'done'; readonly count?: number }
  /** A cutter was read, before it was worked or after; confirmed where that was asked about, and read so again. */
  | { readonly kind: 'read'; readonly cutter: number; readonly um: Um; readonly confirmed?: boolean }
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
  /** Readings that were asked about, and said to be right. */
  readonly confirmed: ReadonlySet<'beforeUm' | 'afterUm'>
  readonly angleDeg: number | null
  /** What was found on it on the way. */
  readonly found: readonly CutterDamage[]
  /** It came out long and was gone back to: strokes or touches that it has had beyond its first turn. */
  readonly again: boolean
}

const UNTOUCHED: CutterWork = {
  count: null,
  done: false,
  skipped: false,
  clean: false,
  beforeUm: null,
  afterUm: null,
  confirmed: new Set(),
  angleDeg: null,
  found: [],
  again: false,
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
  /** Where the stop ended: as it was read on the cutter that it was found on, else as it was meant; null for none. */
  readonly stopUm: Um | null
  readonly stopRead: boolean
  /** Cutters that came out long and are gone back to, each until it is right. */
  readonly long: readonly LongCutter[]
}

/** A cutter that came out longer than where the others were brought to. */
export interface LongCutter {
  readonly number: number
  readonly hand: Hand
  readonly byUm: Um
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
  if (doneAlready(plan, going)) goOn(plan, going)
}

/**
 * Whether the cutter in hand had its turn before its side began: under a wheel the one that the stop was found on, and
 * the one by which the second side was checked. One that came out long is done again; so is the first in a jig, whose
 * stop was still being set.
 */
function doneAlready(plan: SharpeningPlan, { at, place, work }: Going): boolean {
  const step = plan.steps[at]
  const number = sideOf(plan, step)?.cutters[place]?.number
  if (number === undefined || work.get(number)?.done !== true || longBy(plan, work, number) > 0) return false
  if (step?.id === 'firstSide') return plan.gives === 'touches' && number === stopCutter(plan)?.number
  return step?.id === 'secondSide' && number === checkCutter(plan)?.number
}

/** The cutter that the stop is found on: the worst; null where no stop has to be found. */
export const stopCutter = ({ steps, worst }: SharpeningPlan): CutterJob | null =>
  steps.some(({ id }) => id === 'stop') ? worst : null

/** Where the stop ended, and whether it was read: the last reading of the cutter that it was found on. */
function stopOf(plan: SharpeningPlan, work: ReadonlyMap<number, CutterWork>): { um: Um | null; read: boolean } {
  const found = stopCutter(plan)
  const um = found === null ? null : (work.get(found.number)?.afterUm ?? null)
  if (um !== null) return { um, read: true }
  return { um: plan.stopUm, read: false }
}

/**
 * By how much a cutter came out longer than it was to, by its last reading; 0 where it is right, or nobody knows.
 * Where a stop ended is where all are to be; a filed second side is to come down to the first.
 */
function longBy(plan: SharpeningPlan, work: ReadonlyMap<number, CutterWork>, number: number): Um {
  const um = work.get(number)?.afterUm ?? null
  if (um === null || (plan.stopUm === null && !plan.evens)) return 0
  const [first, second] = plan.sides
  const onSecond = second?.cutters.some((job) => job.number === number) === true
  const toUm =
    onSecond && first !== undefined
      ? levelOfFirst(plan, first, work)
      : plan.stopUm === null
        ? null
        : stopOf(plan, work).um
  // What was found on the stop itself is the stop.
  if (toUm === null || (!onSecond && number === stopCutter(plan)?.number)) return 0
  return um - toUm > ALIKE_UM ? um - toUm : 0
}

/** Back to a cutter that came out long, in its own side. */
function goBackTo(plan: SharpeningPlan, going: Going, number: number): void {
  const at = plan.steps.findIndex((step) => sideOf(plan, step)?.cutters.some((job) => job.number === number) === true)
  if (at < 0) return
  going.at = at
  going.place = sideOf(plan, plan.steps[at])?.cutters.findIndex((job) => job.number === number) ?? 0
  change(going, number, { again: true })
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
  if (step?.id === 'stop') return stopCutter(plan)
  return sideOf(plan, step)?.cutters[place] ?? null
}

/** Changes what is known of a cutter. */
function change({ work }: Going, number: number | undefined, part: Partial<CutterWork>): void {
  if (number !== undefined) work.set(number, { ...(work.get(number) ?? UNTOUCHED), ...part })
}

/** Steps in which one cutter is worked and read, whatever its side. */
const FINDS: ReadonlySet<StepId | undefined> = new Set(['stop', 'recheck'])

/** A reading of a cutter, and whether it was said to be right; what was said of its other reading stays. */
function readingOf(
  { work }: Going,
  { cutter, um, confirmed }: Extract<WalkEvent, { readonly kind: 'read' }>,
  which: 'beforeUm' | 'afterUm',
): Partial<CutterWork> {
  const said = new Set(work.get(cutter)?.confirmed)
  if (confirmed === true) said.add(which)
  else said.delete(which)
  return { [which]: um, confirmed: said }
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
      if (done || FINDS.has(plan.steps[going.at]?.id)) {
        change(going, cutter, { done: true, ...readingOf(going, event, 'afterUm') })
        if (!FINDS.has(plan.steps[going.at]?.id) && longBy(plan, going.work, cutter) > 0) goBackTo(plan, going, cutter)
      } else change(going, cutter, readingOf(going, event, 'beforeUm'))
  }
}

function take(plan: SharpeningPlan, going: Going, event: WalkEvent): void {
  const number = inHand(plan, going)?.number
  switch (event.kind) {
    case 'done': {
      const counted = countedOf(plan, going, event.count)
      const before = number === undefined ? undefined : going.work.get(number)
      // Gone back to: what it gets now comes on top, and what it reads is to be seen anew.
      const more = before?.again === true && before.done ? againAfter(plan, going, before, event.count) : counted
      change(going, number, { done: true, skipped: false, ...more })
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

/** What a cutter got: as many as somebody counted, else as many as it was shown to get then. */
function countedOf(plan: SharpeningPlan, going: Going, given: number | undefined): Partial<CutterWork> {
  if (given !== undefined) return { count: given }
  if (plan.gives === 'touches' || plan.stopUm !== null || plan.steps[going.at]?.hand == null) return {}
  const shown = shownNow(plan, going).cutter
  return shown === null ? {} : { count: shown.count }
}

/** What a cutter has had once it was done again. */
function againAfter(
  plan: SharpeningPlan,
  going: Going,
  { count, afterUm }: CutterWork,
  more: number | undefined,
): Partial<CutterWork> {
  const job = inHand(plan, going)
  const given =
    more ??
    (job === null || afterUm === null
      ? 0
      : Math.max(1, strokesNear(Math.max(1, longBy(plan, going.work, job.number)), plan.bites[job.hand], false)))
  return { again: false, afterUm: null, count: plan.gives === 'touches' ? count : (count ?? job?.count ?? 0) + given }
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
  // Against a stop strokes are no measure: what it ends at is where the stop stands.
  if (plan.stopUm !== null) return []
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

/** Where the first side stands: as it was read, as it was known before, or where the stop ended; null for unknown. */
function levelOfFirst(plan: SharpeningPlan, first: SideJob, work: ReadonlyMap<number, CutterWork>): Um | null {
  const then = levelsRead(plan, first, work)
  if (then.length > 0) return Math.round(mean(then))
  // Of a side that was done another time its lengths are what is known of it.
  if (plan.waiting !== null) return Math.round(mean(first.cutters.map((job) => job.lengthUm)))
  return stopOf(plan, work).um
}

/** How the second side compares with the first, once a cutter of each was measured; a stop says what the first is. */
function checkOf(plan: SharpeningPlan, work: ReadonlyMap<number, CutterWork>, strokeUm: number): Recheck | null {
  const [first, second] = plan.sides
  const now = second === undefined ? [] : levelsRead(plan, second, work)
  const against = first === undefined ? null : levelOfFirst(plan, first, work)
  return against === null || now.length === 0 ? null : recheck(against, Math.round(now.at(-1) ?? 0), strokeUm)
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
  if (check === null || plan.gives === 'touches' || plan.stopUm !== null || job.untilClean || job.hand !== second?.hand)
    return null
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

/** The cutter in hand as it is shown: with what readings say of a stroke, and of the first side against the second. */
function shownNow(plan: SharpeningPlan, going: Going): Pick<Walk, 'cutter' | 'worth' | 'check'> {
  const { at, work } = going
  const read = (hand: Hand): Stroked[] => (plan.gives === 'strokes' ? strokedOf(plan, hand, work) : [])
  const { bites } = plan
  const worthOf = (hand: Hand): StrokeWorth => {
    const other = otherHand(hand)
    return strokeWorth(worthBeside(bites[hand], bites[other], read(other)), read(hand))
  }
  const worth = { left: worthOf('left'), right: worthOf('right') }
  const job = inHand(plan, going)
  const second = plan.sides[1]?.hand ?? 'right'
  const check = checkOf(plan, work, worth[second].meanUm)
  const cutter = job === null ? null : jobNow(plan, job, work, worth)
  const beside =
    cutter === null || FINDS.has(plan.steps[at]?.id) || work.get(cutter.number)?.again === true
      ? null
      : countBeside(plan, cutter, work, check)
  return { cutter: cutter === null || beside === null ? cutter : { ...cutter, count: beside }, worth, check }
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
  const { cutter, worth, check } = shownNow(plan, going)
  const step = plan.steps[at] ?? null
  const stop = stopOf(plan, work)
  return {
    at,
    step,
    cutter,
    place,
    of: sideOf(plan, step)?.cutters.length ?? 0,
    work,
    worth,
    check,
    unchecked,
    stopUm: stop.um,
    stopRead: stop.read,
    long: plan.sides.flatMap(({ cutters }) =>
      cutters.flatMap(({ number, hand }) => {
        const byUm = longBy(plan, work, number)
        return byUm > 0 ? [{ number, hand, byUm }] : []
      }),
    ),
  }
}

/** Where a stop ends a cutter: as it was read on the first side, and the second side comes to where that one stands. */
function stopFor(plan: SharpeningPlan, { hand }: CutterJob, work: ReadonlyMap<number, CutterWork>): Um | null {
  const [first, second] = plan.sides
  return second?.hand === hand && first !== undefined ? levelOfFirst(plan, first, work) : stopOf(plan, work).um
}

/** What a cutter gets that came out long: down to where it was to be. */
function longJob(
  plan: SharpeningPlan,
  job: CutterJob,
  lengthUm: Um,
  work: ReadonlyMap<number, CutterWork>,
  worth: Walk['worth'],
): CutterJob {
  const targetUm = lengthUm - longBy(plan, work, job.number)
  const now = { ...job, lengthUm, targetUm, removeUm: lengthUm - targetUm, untilClean: false }
  if (plan.gives === 'touches') return { ...now, count: 1 }
  return { ...now, count: Math.max(1, countNow({ ...now, damageUm: 0 }, worth[job.hand])) }
}

/** Where a cutter comes to that was found hurt on the way: behind its damage, or where it was planned to. */
const throughFound = (foundUm: Um, lengthUm: Um, plannedUm: Um): Um =>
  foundUm === 0 ? plannedUm : Math.min(plannedUm, lengthUm - foundUm - BEHIND_DAMAGE_UM)

/** A cutter's job with what is known by now: its length where it was read, its count by what a stroke is worth. */
function jobNow(
  plan: SharpeningPlan,
  job: CutterJob,
  work: ReadonlyMap<number, CutterWork>,
  worth: Walk['worth'],
): CutterJob {
  const { beforeUm, afterUm, again, found } = work.get(job.number) ?? UNTOUCHED
  if (again && afterUm !== null) return longJob(plan, job, afterUm, work, worth)
  const lengthUm = beforeUm ?? job.lengthUm
  const toStop = plan.stopUm !== null
  const foundUm = damageDepth(found).knownUm
  // To a stop, or to what others have, it comes down to the same length whatever it began at; else it gets as much.
  const stopUm = toStop ? stopFor(plan, job, work) : null
  const plannedUm = stopUm ?? Math.min(lengthUm, beforeUm === null ? job.targetUm : lengthUm - job.removeUm)
  // What was found on the way is worked through too; a stop ends where it ends.
  const targetUm = throughFound(toStop ? 0 : foundUm, lengthUm, plannedUm)
  const untilClean = job.untilClean || (found.length > 0 && !toStop)
  const damageUm = Math.max(job.damageUm, foundUm)
  const now = { ...job, lengthUm, targetUm, damageUm, untilClean, removeUm: Math.max(0, lengthUm - targetUm) }
  // To a stop it is worked until the stop ends it: nothing is counted up.
  if (plan.gives === 'touches' || stopUm !== null) return now
  return { ...now, count: Math.max(1, countNow(now, worth[job.hand])) }
}
