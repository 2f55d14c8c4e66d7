import type { HouseRules, UnevenSchool } from '../house'
import type { KitItem } from '../kit'
import { otherHand, type Hand } from '../loop'
import { hasBumpers } from '../profile'
import { angleMeant, NO_MINUTES, addMinutes, timesMinutes, type MinutesRange } from '../sharpen'
import type { LoopState, Population } from '../state'
import type { Um } from '../units'
import { TOUCH_UP_STROKES } from '../wear/removal'
import { sideBites, type HandAsked, type SideBites } from './bites'
import { firstSide, sideJobs, worstJob, type CutterJob, type Cutting, type SideJob } from './cutterJobs'
import { gaugeJobs, type EdgesBack, type GaugeJobs } from './gaugeJobs'
import { learnedOf } from './learned'
import { onceFor } from './onceFor'
import { stepsOf, type Step } from './steps'
import { TOOL_FACTS, usualTool, type SharpeningTool } from './tools'

/** A sharpening that is to be done. */
export interface WorkWanted extends HandAsked {
  readonly action: 'touchUp' | 'file' | 'regrind'
  /** The house's own where it is left out. */
  readonly tool?: SharpeningTool | undefined
  /** The side to begin with, where it is settled; the weaker one where it is left out. */
  readonly first?: Hand | undefined
  /** The side that whoever does it says is their weaker one. */
  readonly weakSide?: Hand | undefined
  /** What of the kit says which chains it serves, and at which angles. */
  readonly kit?: readonly KitItem[] | undefined
  /** The side that is blunter, or longer, by what the saw tells; a touch-up gives it more. */
  readonly behind?: Hand | null | undefined
}

/** What is done to every cutter and gauge, in which steps, and how long it takes: one figure for every page. */
export interface Work {
  readonly tool: SharpeningTool
  readonly action: WorkWanted['action']
  readonly gives: 'strokes' | 'touches'
  /** What a stroke takes off on each side in this person's hands. */
  readonly bites: SideBites
  /** What a stroke of the file in hand takes against a usual one, where that is known; null where its age tells. */
  readonly fileBite: number | null
  /** Both sides, the one to begin with first. */
  readonly sides: readonly SideJob[]
  /** The side that gets a couple of strokes more, by what the saw tells; null for none. */
  readonly behind: Hand | null
  /** The only side that is left to do, where the first was done another time; null where both are. */
  readonly waiting: Hand | null
  /** The cutter that needs most: a stop is found on it. */
  readonly worst: CutterJob | null
  /** Length that a stop ends every cutter at; null where each ends by itself. */
  readonly stopUm: Um | null
  /** Nobody has measured how deep it is hurt: in by a tenth until the worst is clean, then that is read. */
  readonly stopUnknown: boolean
  /** Whether a file brings every cutter to one length, rather than giving all the same strokes. */
  readonly evens: boolean
  readonly gauges: GaugeJobs
  readonly angleDeg: number
  readonly steps: readonly Step[]
  /** Of all steps together. */
  readonly minutes: MinutesRange
}

/** The side that comes first: the one that was done already where the other waits, else the one settled on. */
function beginWith(state: LoopState, bites: SideBites, { first, weakSide }: WorkWanted, worst: Hand | null): Hand {
  if (state.waitingSide !== null) return otherHand(state.waitingSide)
  return first ?? worst ?? weakSide ?? firstSide(state, bites)
}

/**
 * What is to come off a sound cutter. A touch-up is a few strokes in the hands that give them: the weaker side gets
 * those, and the other as many as come to the same, so that evening out takes no more metal.
 */
function usualOff({ action }: WorkWanted, gives: Work['gives'], { left, right }: SideBites, learnedUm: number): Um {
  if (gives === 'touches' || action !== 'touchUp') return Math.round(learnedUm)
  return Math.round(Math.min(learnedUm, TOUCH_UP_STROKES * Math.min(left, right)))
}

/** The kind of sharpening that it counts as. */
export const kindOf = (gives: Work['gives'], action: WorkWanted['action']): Population =>
  gives === 'touches' ? 'grind' : action === 'touchUp' ? 'touchUp' : 'routine'

/** The tool that a sharpening is done with: the one that is named, else the house's for this loop and its angle. */
export const toolFor = (
  state: LoopState,
  rules: HouseRules,
  { action, tool, kit }: Pick<WorkWanted, 'action' | 'tool' | 'kit'>,
): SharpeningTool =>
  tool ??
  usualTool(action, state.spec, rules, { angleDeg: angleMeant(state, rules), ...(kit === undefined ? {} : { kit }) })

/** Where a stop ends every cutter: where the worst is sound. */
const stopOn = (worst: CutterJob | null, { toStop }: Cutting): Um | null =>
  toStop && worst !== null ? worst.targetUm : null

/** The side that a touch-up gives more; none where one side waits for the other. */
const behindOf = ({ waitingSide }: LoopState, { action, behind = null }: WorkWanted): Hand | null =>
  action === 'touchUp' && waitingSide === null ? behind : null

const cutSides = onceFor((_state: LoopState) => new Map<string, readonly SideJob[]>())
/** The work of both sides: the same under many house rules, as all is that follows from it. */
function sidesOf(state: LoopState, cutting: Cutting): readonly SideJob[] {
  const { gives, toStop, usualUm, school, bites, behind } = cutting
  const key = `${gives} ${toStop ? 1 : 0} ${usualUm} ${school} ${bites.left} ${bites.right} ${behind ?? ''}`
  const known = cutSides(state)
  const sides = known.get(key) ?? sideJobs(state, cutting)
  known.set(key, sides)
  return sides
}

const turned = onceFor((sides: readonly SideJob[]): readonly SideJob[] => [...sides].reverse())
const jobsOf = onceFor((sides: readonly SideJob[]) => sides.flatMap(({ cutters }) => cutters))
const worstOf = onceFor((sides: readonly SideJob[]) => worstJob(jobsOf(sides)) ?? null)

const filedGauges = onceFor((_jobs: readonly CutterJob[]) => new Map<string, GaugeJobs>())
/** The gauges after that work: by the rules for them alone. */
function gaugesOf(state: LoopState, jobs: readonly CutterJob[], rules: HouseRules, edges: EdgesBack): GaugeJobs {
  const { gaugeSchool, woodStep, gaugeHighUm, gaugeLowUm } = rules
  const key = `${gaugeSchool} ${woodStep} ${gaugeHighUm} ${gaugeLowUm} ${edges.slopeDeg} ${edges.onTheWay ? 1 : 0}`
  const known = filedGauges(jobs)
  const gauges = known.get(key) ?? gaugeJobs(state, jobs, { gaugeSchool, woodStep, gaugeHighUm, gaugeLowUm }, edges)
  known.set(key, gauges)
  return gauges
}

/**
 * What a sharpening does to every cutter and gauge of a loop, in its steps. The decision, the card, the job sheet and
 * the work step by step all read it here.
 *
 * @param state as {@link asMeant} has it
 * @param school how a filing is done where cutters differ or are hurt
 */
export function workOf(state: LoopState, rules: HouseRules, school: UnevenSchool, wanted: WorkWanted): Work {
  const { action } = wanted
  const angleDeg = angleMeant(state, rules)
  const tool = toolFor(state, rules, wanted)
  const { gives, toStop, gaugesToo } = TOOL_FACTS[tool]
  const { removal, slopeDeg } = learnedOf(state)
  const bites = sideBites(state, wanted)
  // A touch-up is never so much of a side that it evens hurt cutters out.
  const usualUm = usualOff(
    wanted,
    gives,
    sideBites(state, { ...wanted, fileAge: undefined, fileBite: undefined }),
    removal[kindOf(gives, action)].meanUm,
  )
  const bySchool = action === 'touchUp' ? 'sameStrokes' : school
  const { waitingSide: waiting } = state
  const behind = behindOf(state, wanted)
  const cutting: Cutting = { gives, toStop: toStop && action !== 'touchUp', usualUm, school: bySchool, bites, behind }
  // A stop is found on the worst cutter, so its side comes first.
  const bySides = sidesOf(state, cutting)
  const worked = waiting === null ? bySides : bySides.filter(({ hand }) => hand === waiting)
  const worst = worstOf(worked)
  const stopUm = stopOn(worst, cutting)
  const first = beginWith(state, bites, wanted, stopUm === null ? null : (worst?.hand ?? null))
  const sides = first === 'left' ? bySides : turned(bySides)
  const stopUnknown = cutting.toStop && jobsOf(worked).some(({ depthUnknown }) => depthUnknown)
  const gauges = gaugesOf(state, jobsOf(sides), rules, { slopeDeg, onTheWay: gaugesToo })
  const pace = rules.pace[kindOf(gives, action)]
  const inField = action === 'touchUp'
  const bumpers = hasBumpers(state.spec)
  const steps = stepsOf({ tool, inField, sides, gauges, bumpers, waiting, findsStop: stopUm !== null }).map((step) => ({
    ...step,
    minutes: timesMinutes(step.minutes, pace),
  }))
  return {
    tool,
    action,
    gives,
    bites,
    fileBite: gives === 'strokes' ? (wanted.fileBite ?? null) : null,
    sides,
    behind,
    waiting,
    worst,
    stopUm,
    stopUnknown,
    evens: gives === 'strokes' && (cutting.toStop || bySchool === 'matchShortest'),
    gauges,
    angleDeg,
    steps,
    minutes: steps.reduce((sum, { minutes }) => addMinutes(sum, minutes), NO_MINUTES),
  }
}
