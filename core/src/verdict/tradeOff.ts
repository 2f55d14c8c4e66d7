import type { LoopState } from '../fold'
import { fileFor, partAboveWorn, fileBevelDeg, targetSetting, type FileChoice } from '../geometry'
import type { HouseRules, Schools } from '../house'
import type { Action } from '../log'
import { usableLengthUm } from '../profile'
import { GUIDES, sidePlateOf, topPlateAngleFor, type MinutesRange } from '../sharpen'
import type { Um } from '../units'
import type { CountRange } from '../wear'
import { decide } from './decide'
import { learnedOf, type Learned } from './learned'
import type { Option, Range, Verdict } from './verdict'

/** A question on which crews disagree. */
export type Question = 'uneven' | 'gauges' | 'file' | 'chisel' | 'sidePlate' | 'guide' | 'when' | 'bench'
export const QUESTIONS: readonly Question[] = [
  'uneven',
  'gauges',
  'file',
  'chisel',
  'sidePlate',
  'guide',
  'when',
  'bench',
]

/** One school: what it is called and what it sets. */
export interface School {
  readonly name: string
  /** What it trades, in a few words. */
  readonly trades: string
  readonly sets: Partial<Schools> & { readonly touchUpTanks?: number }
}

/** The schools of every question. Common practice. */
export const QUESTION_SCHOOLS: Readonly<Record<Question, readonly School[]>> = {
  uneven: [
    {
      name: 'Match the shortest',
      trades: 'Straight cut now; takes the most metal.',
      sets: { unevenSchool: 'matchShortest' },
    },
    {
      name: 'Same strokes for all',
      trades: 'Least metal; a short or nicked cutter catches up over the next few, and some are dull meanwhile.',
      sets: { unevenSchool: 'sameStrokes' },
    },
    {
      name: 'Worst sets the count',
      trades: 'Every cutter clean and sharp; the strokes the worst needs, for all.',
      sets: { unevenSchool: 'worstSetsCount' },
    },
    {
      name: 'Extra on the bad ones',
      trades: 'Each to clean steel; uneven until it is next ground.',
      sets: { unevenSchool: 'extraOnBad' },
    },
  ],
  gauges: [
    {
      name: 'One setting for life',
      trades: 'A simple plate across several cutters; a worn chain bites less and less.',
      sets: { gaugeSchool: 'constant', woodStep: 'standard' },
    },
    {
      name: 'Growing with wear',
      trades: 'The attack stays as it was when new; a plate on the single cutter.',
      sets: { gaugeSchool: 'progressive', woodStep: 'standard' },
    },
    {
      name: 'Growing, softer-wood step',
      trades: 'More bite; too greedy for a small engine or hard wood.',
      sets: { gaugeSchool: 'progressive', woodStep: 'softer' },
    },
    {
      name: 'Growing, harder-wood step',
      trades: 'Less bite, smoother in hard or frozen wood.',
      sets: { gaugeSchool: 'progressive', woodStep: 'harder' },
    },
  ],
  file: [
    { name: 'One file for life', trades: 'One size in the pocket.', sets: { fileSchool: 'oneSize' } },
    {
      name: 'Larger, later smaller',
      trades: 'A stronger edge while the cutter is tall; two sizes to carry.',
      sets: { fileSchool: 'largerThenSmaller' },
    },
  ],
  chisel: [
    { name: '30°, no down angle', trades: 'Quick in clean wood.', sets: { chiselAngleDeg: 30, chiselDownAngleDeg: 0 } },
    {
      name: '25°, no down angle',
      trades: 'Smoother, and steadier in hard wood.',
      sets: { chiselAngleDeg: 25, chiselDownAngleDeg: 0 },
    },
    {
      name: '30°, 10° down',
      trades: 'As some grind full chisel; some makers say none.',
      sets: { chiselAngleDeg: 30, chiselDownAngleDeg: 10 },
    },
    {
      name: '25°, 10° down',
      trades: 'For hard wood, ground with the table tilted.',
      sets: { chiselAngleDeg: 25, chiselDownAngleDeg: 10 },
    },
  ],
  sidePlate: [
    {
      name: 'More hook',
      trades: 'Quicker in clean soft wood; a thin edge that goes sooner.',
      sets: { sidePlate: 'moreHook' },
    },
    { name: 'Between', trades: 'Neither greedy nor slow.', sets: { sidePlate: 'neutral' } },
    { name: 'Less hook', trades: 'Holds up in hard wood; cuts slower.', sets: { sidePlate: 'lessHook' } },
  ],
  guide: [
    { name: 'On the top plate', trades: 'The same result on any chain; hides the tooth.', sets: { guide: 'topPlate' } },
    {
      name: 'On the chassis',
      trades: 'Shows the tooth; the file stands higher against it as the cutter wears.',
      sets: { guide: 'chassis' },
    },
    { name: 'Two in one', trades: 'Edge and gauge in one stroke; always to one setting.', sets: { guide: 'twoInOne' } },
    { name: 'Clamp-on jig', trades: 'Every cutter to one stop; slow.', sets: { guide: 'jig' } },
    { name: 'Freehand', trades: 'Fast; needs skill, and strays most.', sets: { guide: 'freehand' } },
  ],
  when: [
    {
      name: 'Every tank, in the field',
      trades: 'Never dull; the most touch-ups.',
      sets: { when: 'byTanks', where: 'field', touchUpTanks: 1 },
    },
    {
      name: 'Every second tank, in the field',
      trades: 'Half the stops; a little dull at the end.',
      sets: { when: 'byTanks', where: 'field', touchUpTanks: 2 },
    },
    {
      name: 'On signs only',
      trades: 'Fewest stops; relies on people noticing.',
      sets: { when: 'onSigns', where: 'field' },
    },
    {
      name: 'Carry spares, sharpen at the bench',
      trades: 'Better work in the warm; more loops to own.',
      sets: { when: 'byTanks', where: 'bench', touchUpTanks: 2 },
    },
  ],
  bench: [
    {
      name: 'File for the routine',
      trades: 'The wheel only for stones, nails, uneven loops and milling chain.',
      sets: { bench: 'fileForRoutine' },
    },
    {
      name: 'Wheel for all at the bench',
      trades: 'Even every time; a little more metal, and heat to watch.',
      sets: { bench: 'wheelAtBench' },
    },
    { name: 'Whichever costs least', trades: 'Time and metal weighed each time.', sets: { bench: 'cheapest' } },
  ],
}

/** Part of its best that a chain cuts at by the mark under one setting for life. Common practice: about 60 %. */
const CONSTANT_AT_MARK = 0.6

/** What a choice comes to on a real loop. */
export interface TradeOff {
  readonly action: Action
  /** The job that it is judged by: the sharpening advised, or a filing at the bench. */
  readonly job: Action
  readonly metalUm: Um
  readonly deepestUm: Um
  readonly minutes: MinutesRange
  readonly spreadUm: Um | null
  readonly damagedLeft: number
  readonly sharpeningsLeft: CountRange
  readonly perHourMinor: Range | null
  readonly sharpHours: Range
  /** Setting that the gauges come down to at its present wear. */
  readonly targetUm: Um
  /** Part of its best that it cuts at with that setting, 0 to 1. */
  readonly cutsAt: number
  readonly file: FileChoice
  /** Part of the file above the top plate on the worn cutter, and the bevel that it leaves. */
  readonly partAbove: number
  readonly bevelDeg: number
  readonly topPlateAngleDeg: number
  readonly strayUm: Um
  /** What the habit of when and where comes to, sharpening after sharpening. */
  readonly cycle: Cycle
}

/** A habit of sharpening, for each tank that the loop cuts. */
export interface Cycle {
  /** Tanks from one sharpening to the next. */
  readonly tanks: number
  readonly metalPerTankUm: number
  readonly minutesPerTank: number
  /** Tanks until the loop is used up at that. */
  readonly tanksLeft: number
}

/** Whether a school is the one that a crew follows. */
export const followsSchool = (rules: HouseRules, { sets }: School): boolean =>
  (Object.keys(sets) as (keyof School['sets'])[]).every((field) => rules[field] === sets[field])

const SHARPENS: ReadonlySet<Action> = new Set(['touchUp', 'file', 'regrind', 'shop'])

const FILED: ReadonlySet<Action> = new Set(['touchUp', 'file'])
/** Questions that are about work with a file, and which jobs show them. */
const BY_FILE: Partial<Record<Question, ReadonlySet<Action>>> = {
  uneven: new Set(['file']),
  file: FILED,
  sidePlate: FILED,
  guide: FILED,
}

function jobOf(options: readonly Option[], action: Action, question: Question): Option | undefined {
  const wanted =
    BY_FILE[question]?.has(action) === true || (BY_FILE[question] === undefined && SHARPENS.has(action))
      ? action
      : 'file'
  return options.find((option) => option.action === wanted)
}

/** Touch-ups in the field, or filing at the bench: after so many tanks, or once it shows that it is dull. */
function cycleOf(rules: HouseRules, { options }: Verdict, { removal, sharpness }: Learned, usableUm: Um): Cycle {
  const inField = rules.where === 'field' && rules.when === 'byTanks'
  const tanks = rules.when === 'byTanks' ? Math.max(0.5, rules.touchUpTanks) : sharpness.mean
  const minutes = options.find(({ action }) => action === (inField ? 'touchUp' : 'file'))?.minutes.likely ?? 0
  const metalPerTankUm = (inField ? removal.touchUp.meanUm : removal.routine.meanUm) / tanks
  return { tanks, metalPerTankUm, minutesPerTank: minutes / tanks, tanksLeft: Math.max(0, usableUm) / metalPerTankUm }
}

/**
 * The loop as it comes to the bench in the routine: what hurt it cleaned out, every cutter as long
 * as the worst is then, and dull. Habits are told apart on that, not on a loop that a stone has just hit.
 */
function inRoutine(state: LoopState, rules: HouseRules): LoopState {
  const { summary } = learnedOf(state)
  return {
    ...state,
    parts: [],
    openStrikes: [],
    doubts: [],
    decision: null,
    // What it is supposed to have run has not been seen, and teaches nothing.
    spellOver: true,
    wearTanksSinceSharpened: Math.max(rules.benchTanks, state.wearTanksSinceSharpened),
    cutters: state.cutters.map((cutter) => ({
      ...cutter,
      damage: [],
      length: { ...cutter.length, um: summary.worstAfterUm },
    })),
  }
}

/** What some rules come to on one of the crew's own loops. */
export function tradeOff(
  state: LoopState,
  rules: HouseRules,
  question: Question,
  verdict = decide(state, rules),
): TradeOff | null {
  const { advised, options } = verdict
  const job = jobOf(options, advised, question)
  if (job === undefined) return null
  const { spec } = state
  const { meanLengthUm: meanUm, shortestUm } = learnedOf(state)
  const worn = Math.min(1, Math.max(0, (spec.newLengthUm - meanUm) / Math.max(1, usableLengthUm(spec))))
  const file = fileFor(spec, shortestUm, rules.fileSchool)
  const guide = GUIDES[rules.guide]
  const partAbove = partAboveWorn(
    spec,
    meanUm,
    file.fileUm,
    sidePlateOf(rules.sidePlate).partAbove,
    guide.restsOn === 'chassis' ? 'chassis' : 'topPlate',
  )
  return {
    action: advised,
    job: job.action,
    metalUm: job.meanUm,
    deepestUm: job.deepestUm,
    minutes: job.minutes,
    spreadUm: job.spreadUm,
    damagedLeft: job.damagedLeft,
    sharpeningsLeft: job.sharpeningsLeft,
    perHourMinor: job.perHourMinor,
    sharpHours: job.sharpHours,
    targetUm: targetSetting(spec, meanUm, rules),
    cutsAt: rules.gaugeSchool === 'constant' ? 1 - (1 - CONSTANT_AT_MARK) * worn : 1,
    file,
    partAbove,
    bevelDeg: fileBevelDeg(partAbove),
    topPlateAngleDeg: topPlateAngleFor(spec, rules.chiselAngleDeg),
    strayUm: guide.strayUm,
    cycle: cycleOf(rules, verdict, learnedOf(state), shortestUm - spec.markLengthUm - rules.reserveUm),
  }
}

/** One school as it would turn out. */
export interface SchoolOutcome {
  readonly name: string
  readonly follows: boolean
  readonly outcome: TradeOff | null
}

/** Questions of angle and file: they change how a loop is sharpened, not whether. */
const SHAPE_ONLY: ReadonlySet<Question> = new Set(['file', 'chisel'])

/**
 * What every school of every question comes to on a loop, the other rules of the house as they are.
 * Habits (when, file or wheel) are shown on the loop as the routine brings it to the bench.
 *
 * @param verdict the one under the house's own rules
 */
export function everySchool(
  state: LoopState,
  rules: HouseRules,
  verdict = decide(state, rules),
): Record<Question, SchoolOutcome[]> {
  const routine = inRoutine(state, rules)
  const atTheBench = decide(routine, rules)
  const outcome = (question: Question, school: School): SchoolOutcome => {
    const follows = followsSchool(rules, school)
    // When it is sharpened does not change what is done then.
    if (question === 'when')
      return {
        name: school.name,
        follows,
        outcome: tradeOff(routine, { ...rules, ...school.sets }, question, atTheBench),
      }
    if (question === 'bench')
      return {
        name: school.name,
        follows,
        outcome: tradeOff(routine, { ...rules, ...school.sets }, question, follows ? atTheBench : undefined),
      }
    const asItIs = follows || SHAPE_ONLY.has(question) ? verdict : undefined
    return { name: school.name, follows, outcome: tradeOff(state, { ...rules, ...school.sets }, question, asItIs) }
  }
  const of = (question: Question): SchoolOutcome[] =>
    QUESTION_SCHOOLS[question].map((school) => outcome(question, school))
  return {
    uneven: of('uneven'),
    gauges: of('gauges'),
    file: of('file'),
    chisel: of('chisel'),
    sidePlate: of('sidePlate'),
    guide: of('guide'),
    when: of('when'),
    bench: of('bench'),
  }
}
