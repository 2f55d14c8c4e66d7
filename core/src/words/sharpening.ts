import type { Hand } from '../loop'
import {
  turnsFor,
  type CutterJob,
  type FileSetUp,
  type LoopRefusal,
  type PlanDoubt,
  type ReadingDoubt,
  type Recheck,
  type SetUp,
  type SharpeningPlan,
  type SharpeningTool,
  type StepId,
  type StoneSetUp,
  type ToolRefusal,
  type WheelSetUp,
} from '../sharpening'
import { writeFile, writeLength, writeMm, type Um } from '../units'
import type { Figures } from './figures'
import { WHEEL_PROBLEM_WORDS } from './wheels'
import { plural } from './text'

/** What each tool is called. */
export const TOOL_NAMES: Readonly<Record<SharpeningTool, string>> = {
  freehand: 'Round file, freehand',
  plateGuide: 'Round file, plate guide',
  rollerGuide: 'Round file, roller guide',
  twoInOne: 'Two-in-one',
  jig: 'Clamp-on jig',
  benchGrinder: 'Bench grinder',
  smallGrinder: 'Small bench grinder, no tilt',
  handGrinder: 'Hand-held grinder',
  squareFile: 'Bevelled file for square-ground',
}

/** Why a loop is not sharpened as it is, or not with a tool in this house. */
export const SHARPENING_REFUSALS: Readonly<Record<LoopRefusal | ToolRefusal, string>> = {
  retired: 'It is retired.',
  ends: 'Cracked, loose or stretched: no edge makes it fit. It is not sharpened, it is retired.',
  lookFirst: 'It struck something, and nobody has looked since: inspect it first.',
  pastMark: 'This would take a cutter past its mark: look at the decision.',
  wheelTooSlow: WHEEL_PROBLEM_WORDS.tooSlow,
  wheelSpeedUnknown: WHEEL_PROBLEM_WORDS.speedUnknown,
  neverRound: 'Square-ground chisel takes a bevelled file or a shaped wheel, never anything round.',
  neverBevelled: 'This cutter is made for a round file.',
  oneSettingForLife: 'It lowers gauges to one setting for life, and this house lets the setting grow with wear.',
  oneAngle: 'It is made for another angle, and holds no other.',
  noTilt: 'This house sharpens this chain at a down angle, and it has no tilt.',
  noGrinder: 'The house has no grinder.',
  notForPitch: 'Those that the crew has serve other pitches.',
}

/** What has to be looked at before anybody begins. */
export const PLAN_DOUBTS: Readonly<Record<PlanDoubt, string>> = {
  intoReserve: 'A cutter would end nearer to its mark than the house keeps: look at the decision again.',
  intoStrap: 'At this wear the tool as set up reaches the tie strap: take a smaller file, or end a wheel above it.',
  deepForFile: 'Deeper than the house files by hand.',
  hotUnderWheel: 'Deep work: many light touches, with time to cool. Blue steel has lost its temper.',
  ripperJumps: 'A cutter stands at another angle: ripping chain jumps by one degree between cutters.',
  fileSkates: 'Blued steel skates a file: it wants the wheel, or another loop.',
  stopOnEstimate: 'The cutter that the stop is set on was not measured. Measure it first.',
}

/** One step of a sharpening in words: what to do, how to see that it is right, the usual mistake, its caution. */
export interface StepWords {
  readonly name: string
  readonly what: string
  readonly see: string
  readonly mistake: string
  readonly caution: string
}

const step = (name: string, what: string, see: string, mistake: string, caution = ''): StepWords => ({
  ...{ name, what, see, mistake, caution },
})

/** The steps, but for those that go by the plan. Common practice. */
const STEP_WORDS: Readonly<Record<Exclude<StepId, 'firstSide' | 'secondSide'>, StepWords>> = {
  makeSafe: step(
    'Make it safe',
    'Engine off and cold, or battery out. Gloves on.',
    'The loop moves by hand, and nothing else can move it.',
    'Filing on a saw that is still warm, or with the battery in.',
    'A neglected cutter cuts as deep as a sharp one.',
  ),
  clean: step(
    'Clean it',
    'Brush or blow off dirt and resin; degrease it for a wheel.',
    'Bare steel, and every rivet to be seen.',
    'Dirt buries itself in a file, and glazes a wheel until it burns.',
  ),
  hold: step(
    'Hold the bar',
    'Bar in a vise between two blocks, or a stump vise driven into the end of a stump.',
    'The cutters stand free, close to the body, about the middle of the bar.',
    'Working where it is awkward: what is awkward is done badly.',
  ),
  tension: step(
    'Tension it',
    'Tighter than for cutting. Brake on to lock it, off to move it.',
    'No cutter rocks under a thumb.',
    'Leaving it so tight: it is slackened again afterwards.',
  ),
  mark: step(
    'Mark the start',
    'Bright paint on both faces and the top of one cutter, or begin at the joint.',
    'It is still to be seen when it comes by again.',
    'Paint on the top alone is gone in seconds of cutting.',
  ),
  ring: step(
    'Look at the wheel',
    'Hang it, tap it with something that is not metal. Fit it, run it up alone, dress the rim.',
    'A clear ring, no wobble, a rim that fits the template.',
    'Mounting one whose marked speed is below the spindle’s.',
    'Guard fitted, eyes covered, out of the plane of the wheel. A wheel that does not ring is not mounted.',
  ),
  setUp: step(
    'Set it up',
    'As the card says, by the cutter that needs most. Of a wheel the depth stop ends before the strap.',
    'With the motor off the tool meets the edge as it will when it runs, and no strap.',
    'Setting it on the first cutter that comes instead of the worst.',
  ),
  turn: step(
    'Change sides',
    'Turn the clamp or the guide, and the tilt with it; or go round the saw and change hands.',
    'The tool lies in the other side’s cutters as it lay in these.',
    'Taking it for granted that the stop still stands where it stood.',
  ),
  recheck: step(
    'Measure one',
    'Do one cutter of this side, then measure it against the first side.',
    'Both read alike.',
    'Going on without measuring: this is where sides come apart.',
  ),
  gauges: step(
    'Depth gauges',
    'Plate on, flat file across what stands proud, until it skates. Round the fronts again.',
    'Level with the plate, the front round, the edge untouched.',
    'By eye. Steel that is gone from a gauge cannot be put back.',
    'A gauge too low makes the saw snatch, and kickback likelier.',
  ),
  lookOver: step(
    'Look all round',
    'Hold every cutter to the light.',
    'No bright line: a sharp edge reflects nothing. Straight top and side, no burr, chrome sound to the edge.',
    'Looking at the first few only.',
  ),
  putBack: step(
    'Put it back',
    'Bar turned over, groove scraped, oil hole clear. Chain the right way round. Tip up while the nuts go tight.',
    'Pulled at the middle about three quarters of a tang shows, it snaps back and runs freely by hand.',
    'Leaving it as tight as it was filed, or forgetting the nuts.',
    'Run it a minute, tighten it again; oil with every tank.',
  ),
}

const SIDE_NAMES: Readonly<Record<Hand, string>> = { left: 'Left cutters', right: 'Right cutters' }

const counted = (gives: SharpeningPlan['gives'], count: number): string =>
  plural(count, gives === 'strokes' ? 'stroke' : 'touch', gives === 'strokes' ? 'strokes' : 'touches')

function sideStep(plan: SharpeningPlan, hand: Hand, first: boolean): StepWords {
  const side = plan.sides.find((one) => one.hand === hand)
  const count = counted(plan.gives, side?.count ?? 0)
  const untilClean = side?.cutters.filter((job) => job.untilClean).length ?? 0
  const more = untilClean === 0 ? '' : ` ${plural(untilClean, 'cutter')} until clean.`
  const name = `${SIDE_NAMES[hand]}${first ? ', first' : ''}`
  return plan.gives === 'strokes'
    ? step(
        name,
        `Every second cutter, ${count} each: inside out, full length, back against the plate, slightly up.${more}`,
        'It rasps while it is dull and goes slick when it is sharp. A clean half-moon in the gullet.',
        'Pressing down: that digs the gullet and hooks the edge.',
        'Push the chain on with the file or the guide, never with fingers on a cutter.',
      )
    : step(
        name,
        `Every second cutter, ${count} each: touch, lift, touch, light and slow.`,
        'Bright, even steel, the same length on all.',
        'Staying on one: blue is lost temper.',
        'Eyes covered, guard on, out of the plane of the wheel.',
      )
}

/**
 * A step of a plan in words.
 *
 * @example
 * sayStep('clean', null, plan).name // 'Clean it'
 */
export function sayStep(id: StepId, hand: Hand | null, plan: SharpeningPlan): StepWords {
  if (id === 'firstSide' || id === 'secondSide') return sideStep(plan, hand ?? 'left', id === 'firstSide')
  return STEP_WORDS[id]
}

/** A row of a set-up card. */
export type SetUpRow = readonly [name: string, value: string]

const degrees = (value: number): string => `${Math.round(value)}°`

function lineRow({ line, angleDeg }: Pick<FileSetUp | StoneSetUp, 'line' | 'angleDeg'>): SetUpRow {
  if (line === null) return ['Top plate', degrees(angleDeg)]
  const off = Math.abs(line.offDeg)
  const aside = `${degrees(angleDeg)}: ${off}° ${line.offDeg < 0 ? 'less' : 'more'} than the ${line.lineDeg}° line`
  return ['Top plate', off === 0 ? `${degrees(angleDeg)}, along the ${line.lineDeg}° line` : aside]
}

const above = ({ partAbove, aboveUm }: Pick<FileSetUp, 'partAbove' | 'aboveUm'>, { lengths }: Figures): string =>
  `${Math.round(partAbove * 100)} % of it, ${writeLength(aboveUm, lengths)}, above the plate`

function jigRows(stopUm: Um | null, angleDeg: number, downDeg: number, { lengths }: Figures): SetUpRow[] {
  const level = 'its plates level, just above the rivets'
  const stop = stopUm === null ? 'out: each gets its strokes' : `${writeLength(stopUm, lengths)} on the worst cutter`
  return [
    ['Jig', level],
    ['Scales', `turn ${degrees(angleDeg)}, tilt ${degrees(downDeg)}; turned end for end for the other side`],
    ['Stop', stopUm === null ? stop : `${stop}; out at first, in until the hook is right, then left`],
  ]
}

function fileRows(setUp: FileSetUp, figures: Figures): SetUpRow[] {
  const { fileUm, bevelDeg, downDeg, clearUm, higherThanWantedUm } = setUp
  const higher =
    higherThanWantedUm > 100
      ? `; ${writeLength(higherThanWantedUm, figures.lengths)} more than when new, since the cutters have sunk`
      : ''
  const { jig, angleDeg } = setUp
  return [
    ['File', writeFile(fileUm)],
    ...(jig === null ? [] : jigRows(jig.stopUm, angleDeg, downDeg, figures)),
    ['Height', `${above(setUp, figures)}${higher}`],
    lineRow(setUp),
    ['Bevel', `about ${degrees(bevelDeg)} comes of it`],
    ['Handle', downDeg === 0 ? 'level' : `lowered by ${degrees(downDeg)}`],
    [
      'Tie strap',
      clearUm >= 0
        ? `about ${writeLength(clearUm, figures.lengths)} below the file, by estimate`
        : 'the file reaches it at this wear',
    ],
  ]
}

/** Where the depth stop ends a wheel: above the strap, which is not measured. */
function depthStop({ depthUm, clearUm }: WheelSetUp, { lengths }: Figures): string {
  const [depth, strap] = [writeLength(depthUm, lengths), writeLength(depthUm + clearUm, lengths)]
  return clearUm >= 0
    ? `about ${depth} below the top plate; the tie strap lies ${writeLength(clearUm, lengths)} deeper, by estimate`
    : `no deeper than ${strap} below the top plate: there the tie strap lies, by estimate`
}

function wheelRows(setUp: WheelSetUp, figures: Figures): SetUpRow[] {
  const { wheelUm, rimRadiusUm, squareGround, clampDeg, headTiltDeg, downAngleDeg, stopUm, gauges } = setUp
  const [thin, thick] = wheelUm
  const table = downAngleDeg === 0 ? '0°' : `${downAngleDeg}° toward the side that is ground, turned with the clamp`
  const width = thin === thick ? writeMm(thin, 1) : `${thin / 1000} to ${writeMm(thick, 1)}`
  return [
    ['Wheel', width],
    squareGround === null
      ? ['Rim', `dressed round to a radius of about ${writeMm(rimRadiusUm, 1)}`]
      : ['Rim', `dressed to the corner; side plate leaning ${squareGround.sidePlateLeanDeg}° forward`],
    ['Clamp', `${clampDeg}°, then ${clampDeg}° the other way`],
    ['Head', `${headTiltDeg.join('° or ')}°, by the chain’s sheet`],
    ['Table', table],
    ['Stop', `${writeLength(stopUm, figures.lengths)} on the worst cutter; measure one after turning`],
    ['Depth stop', depthStop(setUp, figures)],
    [
      'Gauges',
      `wheel about ${writeMm(gauges.wheelUm, 0)}, clamp 0°, head ${gauges.headDeg.join(' to ')}°, down to ${writeLength(
        gauges.settingUm,
        figures.lengths,
      )}`,
    ],
  ]
}

/** A set-up card's rows, in the order in which things are set. */
export function setUpRows(setUp: SetUp, figures: Figures): SetUpRow[] {
  switch (setUp.with) {
    case 'file':
      return fileRows(setUp, figures)
    case 'wheel':
      return wheelRows(setUp, figures)
    case 'stone':
      return [
        ['Stone', writeFile(setUp.stoneUm)],
        ['Shield', `so that ${above(setUp, figures)}`],
        lineRow(setUp),
        ['Move', 'to and fro along the cutter: one place makes a hot spot'],
      ]
    case 'squareFile':
      return [
        ['File', 'bevelled, from inside out; never round'],
        ['Top plate', degrees(setUp.angleDeg)],
        ['Line', 'its edge from the corner of the tooth into the bottom corner: look after every stroke'],
        ['Side plate', `leans ${setUp.leanDeg}° forward, since the cutter rocks back in wood`],
        ['Chain', 'very tight, the cutter just before the nose'],
      ]
  }
}

/** What is asked about an odd reading. */
export const READING_DOUBTS: Readonly<Record<ReadingDoubt, string>> = {
  grew: 'Longer than it was before its strokes. Was it the cutter beside it?',
  tooShort: 'Far shorter than that can have left it. Was it the cutter beside it?',
}

/** What a cutter gets, as it is said over it. */
export function sayCount(job: Pick<CutterJob, 'count' | 'untilClean'>, gives: SharpeningPlan['gives']): string {
  const count = counted(gives, job.count)
  return job.untilClean ? `until clean, about ${count}` : count
}

const EIGHTHS: Readonly<Record<number, string>> = {
  1: 'an eighth of a turn',
  2: 'a quarter turn',
  4: 'half a turn',
  6: 'three quarters of a turn',
  8: 'a whole turn',
}

/** Turns of a screw, in words. `sayTurns(0.25) // 'a quarter turn'` */
export const sayTurns = (turns: number): string => EIGHTHS[turns * 8] ?? `${turns.toFixed(1)} turns`

/**
 * What to change once one cutter of the second side was measured.
 *
 * @example
 * sayRecheck({ offUm: 20, alike: true, stop: null, strokes: 0 }, 'touches', figures)
 * // 'Both sides read alike: go on.'
 */
export function sayRecheck(
  { offUm, alike, stop, strokes }: Recheck,
  gives: 'strokes' | 'touches',
  { lengths }: Figures,
) {
  if (alike || stop === null) return 'Both sides read alike: go on.'
  const off = `${writeLength(Math.abs(offUm), lengths)} ${offUm > 0 ? 'longer' : 'shorter'} than the first side`
  if (gives === 'strokes') {
    const by = `${plural(Math.abs(strokes), 'stroke')} ${strokes > 0 ? 'more' : 'fewer'}`
    return `It came out ${off}: ${by} for the rest of this side, counted in already.`
  }
  const turn = `about ${sayTurns(turnsFor(stop.byUm))} of a screw with 1 mm a turn`
  return `It came out ${off}: move the stop ${stop.way} by ${writeLength(stop.byUm, lengths)}, ${turn}.`
}
