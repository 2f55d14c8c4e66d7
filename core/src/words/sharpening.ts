import { HANDS, type Hand } from '../loop'
import { comesOff, type CutterJob, type SharpeningTool, type StepId, type ToolRefusal } from '../jobs'
import {
  turnsFor,
  type FileSetUp,
  type LoopRefusal,
  type PlanDoubt,
  type ReadingDoubt,
  type Recheck,
  type SetUp,
  type SharpeningPlan,
  type StoneSetUp,
  type WheelSetUp,
} from '../sharpening'
import { writeFile, writeLength, writeMm } from '../units'
import type { Figures } from './figures'
import { WHEEL_PROBLEM_WORDS } from './wheels'
import { cutterName } from './damage'
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
  wheelUnnamed:
    'Name wheel and grinder from the tools, or read both speeds: that marked on the wheel, that of the spindle.',
  neverRound: 'Square-ground chisel takes a bevelled file or a shaped wheel, never anything round.',
  neverBevelled: 'This cutter is made for a round file.',
  oneSettingForLife: 'It lowers gauges to one setting for life, and this house lets the setting grow with wear.',
  oneAngle: 'It is made for another angle, and holds no other.',
  noTilt: 'This house sharpens this chain at a down angle, and it has no tilt.',
  noGrinder: 'The house has no grinder.',
  bumpers: 'Its flat file would take the bumper with the gauge, and a bumper is never filed off.',
  notForPitch: 'It is made for other pitches.',
}

/** What has to be looked at before anybody begins. */
export const PLAN_DOUBTS: Readonly<Record<PlanDoubt, string>> = {
  intoReserve: 'A cutter would end nearer to its mark than the house keeps: look at the decision again.',
  intoStrap: 'At this wear the tool as set up reaches the tie strap: take a smaller file, or end a wheel above it.',
  deepForFile: 'Deeper than the house files by hand.',
  hotUnderWheel: 'Deep work: many light touches, with time to cool. Blue steel has lost its temper.',
  ripperJumps: 'A cutter stands at another angle: ripping chain jumps by one degree between cutters.',
  fileSkates: 'Blued steel skates a file: it wants the wheel, or another loop.',
  stopOnEstimate: 'The cutter that the stop is set on was not measured: read it once it is clean, that is the stop.',
  readingHeld:
    'A reading is being held out: of two lengths one is right, and the shorter is worked with. Read it again.',
  fileMisfits:
    'The file that is named for this loop is not of its size: too large a one cuts low into the strap, too small a ' +
    'one hooks the edge. Look at its spec, or take the right one.',
  depthUnknown: 'Nobody has measured how deep it is hurt: until it is clean, and no count before.',
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

/** The steps as they are for most tools. Common practice. */
const STEP_WORDS: Readonly<Record<Exclude<StepId, 'firstSide' | 'secondSide' | 'stop'>, StepWords>> = {
  makeSafe: step(
    'Make it safe',
    'Engine off and cold, or battery out. Gloves on.',
    'The loop moves by hand, and nothing else can move it.',
    'Filing on a saw that is still warm, or with the battery in.',
    'A neglected cutter cuts as deep as a sharp one.',
  ),
  clean: step(
    'Clean it',
    'Brush or blow off dirt and resin.',
    'Bare steel, and every rivet to be seen.',
    'Dirt buries itself in a file.',
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
    'As the card says, by the cutter that needs most.',
    'The tool meets the edge as it is meant to, and no strap.',
    'Setting it on the first cutter that comes instead of the worst.',
  ),
  turn: step(
    'Change sides',
    'Turn the guide, or go round the saw and change hands.',
    'The tool lies in the other side’s cutters as it lay in these.',
    'One hand for both sides: that gives a curve in the cut.',
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

/** What is otherwise with a loop that lies under a wheel at the bench. Common practice. */
const AT_A_BENCH: Partial<typeof STEP_WORDS> = {
  makeSafe: step(
    'Make it safe',
    'The loop off its bar, the grinder unplugged or switched off while it is set. Gloves for the loop.',
    'Nothing turns, and nobody else can switch it on.',
    'Reaching over a wheel that still runs down.',
    'A neglected cutter cuts as deep as a sharp one.',
  ),
  clean: step(
    'Clean it',
    'Degrease it, and brush off dirt and resin.',
    'Bare steel, and every rivet to be seen.',
    'Grease glazes a wheel until it burns.',
  ),
  setUp: step(
    'Set it up',
    'As the card says, by the cutter that needs most. The depth stop ends before the strap.',
    'With the motor off the wheel just brushes the edge when a finger turns it, and no strap.',
    'Setting it on the first cutter that comes instead of the worst.',
  ),
  turn: step(
    'Turn the clamp',
    'Turn the clamp to the other side, and the table with it.',
    'The wheel lies in the other side’s cutters as it lay in these.',
    'Taking it for granted that the stop still stands where it stood.',
  ),
  gauges: step(
    'Depth gauges',
    'Lower one by hand with the plate. Set the gauge wheel to just touch it, then do the others. Round the fronts.',
    'Every gauge as the first one, level with the plate; the edge untouched.',
    'Setting the wheel by eye: a gauge that is ground too low cannot be put back.',
    'Eyes covered, guard on. A gauge too low makes the saw snatch, and kickback likelier.',
  ),
}

/** What is otherwise with a tool of its own kind. Common practice. */
const OF_TOOL: Partial<Record<SharpeningTool, Partial<typeof STEP_WORDS>>> = {
  benchGrinder: AT_A_BENCH,
  smallGrinder: {
    ...AT_A_BENCH,
    turn: step(
      'Turn the clamp',
      'Turn the clamp to the other side.',
      'The wheel lies in the other side’s cutters as it lay in these.',
      'Pulling hard: the frame bends, and the sides come out apart.',
    ),
  },
  handGrinder: {
    ring: step(
      'Look at the stone',
      'The speed marked on it against the tool’s. Into the collet as deep as its sheet says, tight, run it up alone.',
      'It runs true, is neither chipped nor grooved, and the shield stands as the card says.',
      'A stone whose marked speed is below the tool’s, or one that stands out too far.',
      'Eyes covered. A stone that is chipped or runs out is not used.',
    ),
    setUp: step(
      'Set the shield',
      'A fifth of the stone above the plate, the angle line along the chassis.',
      'With the motor off the stone lies in the gullet, and touches no strap.',
      'Trusting the shield once it has slipped.',
    ),
    turn: step(
      'Change sides',
      'Go round the saw, and hold the other line along the chassis.',
      'The stone lies in the other side’s cutters as it lay in these.',
      'Holding the same line for both sides.',
    ),
  },
  jig: {
    setUp: step(
      'Clamp the jig on',
      'Level, its plates just above the rivets; height, turn and tilt by the scales. The stop is out.',
      'The file lies in the gullet, a quarter of it above the plate.',
      'Clamping it askew: every cutter comes out so.',
    ),
    turn: step(
      'Turn the jig',
      'End for end, not just across, and the scales with it.',
      'The file lies in the other side’s cutters as it lay in these.',
      'Turned across alone, the file cuts into the tooth.',
    ),
  },
  squareFile: {
    setUp: step(
      'Lay it in',
      'The file’s edge from the corner of the tooth into the bottom corner. Chain tight, the cutter close to the nose.',
      'Its corner lies in the corner of the cutter along its whole length.',
      'Starting with a file whose corner has gone: it shines, and cuts nothing there.',
    ),
  },
  twoInOne: {
    setUp: step(
      'Lay it on',
      'On this cutter and the next, on both rails, the arrow with the stroke, handles parallel to the bar.',
      'It lies flat on both, and the flat file meets the gauge.',
      'Tipped up: then it rather tips down than up.',
    ),
    turn: step(
      'Turn it end for end',
      'The guide end for end for the other side, the arrow with the stroke.',
      'It lies flat on both rails again.',
      'One hand for both sides: that gives a curve in the cut.',
    ),
  },
}

/** What is otherwise with a touch-up on the saw: no bar comes off. */
const IN_FIELD: Partial<typeof STEP_WORDS> = {
  putBack: step(
    'Slacken it again',
    'Back to cutting tension. Nuts tight, oil hole clear.',
    'Pulled at the middle about three quarters of a tang shows, it snaps back and runs freely by hand.',
    'Leaving it as tight as it was filed.',
    'Look at the tension again after a few minutes of cutting.',
  ),
}

/** How the stop is found: on the worst cutter, and its reading is the stop. */
function stopStep({ worst, gives, stopUnknown, tool }: SharpeningPlan): StepWords {
  const named = worst === null ? 'the worst cutter' : cutterName(worst.number, worst.hand)
  const inwards = stopUnknown ? 'in by a tenth of a millimetre at a time' : 'in touch by touch'
  const again = tool === 'jig' ? ' Then do it once more against the stop.' : ''
  return gives === 'touches'
    ? step(
        `The stop: ${named}`,
        `The worst cutter, ${named}, against the stop. Bring it ${inwards} until it is clean, ` +
          'then read it: that is the stop for all.',
        'Sound steel to the corner, no bright line; the length that is read is what all come down to.',
        'Going on with the figure that was planned instead of the one that was read.',
        'Eyes covered, guard on, out of the plane of the wheel. Light touches: blue is lost temper.',
      )
    : step(
        `The stop: ${named}`,
        `The worst cutter, ${named}: file it with the stop out, turn the stop in until it is clean ` +
          `and the hook is right, then read it.${again}`,
        'The stroke goes easy when the stop is reached.',
        'Counting strokes: against a stop they are no measure.',
      )
}

const SIDE_NAMES: Readonly<Record<Hand, string>> = { left: 'Left cutters', right: 'Right cutters' }

const counted = (gives: SharpeningPlan['gives'], count: number): string =>
  plural(count, gives === 'strokes' ? 'stroke' : 'touch', gives === 'strokes' ? 'strokes' : 'touches')

/** How a stroke goes, how to see that it is right, and the usual mistake, by what is in the hand. */
const STROKES: Readonly<Record<'round' | 'square' | 'stop' | 'twoInOne', readonly [string, string, string]>> = {
  round: [
    'inside out, full length, back against the plate, slightly up',
    'It rasps while it is dull and goes slick when it is sharp. A clean half-moon in the gullet.',
    'Pressing down: that digs the gullet and hooks the edge.',
  ],
  square: [
    'from inside out, the line of its edge from corner to corner; look after every stroke',
    'Top plate and side plate meet in one sharp corner; the side plate leans about 5° forward.',
    'The file’s own corner goes first and shines: chase it with a fresh stretch or file, never by leaning it back.',
  ],
  stop: [
    'until the stop ends it, then nothing more; relax on the way back and leave the file in',
    'The stroke goes easy at the stop. One that ends long: the stop has moved, set it and do those before again.',
    'Counting strokes, or pressing past the stop.',
  ],
  twoInOne: [
    'with the arrow, full length, level: the gauge comes down in the same stroke',
    'It rasps while it is dull and goes slick when it is sharp; the flat file just skims the gauge.',
    'Tipping it up: then the edge goes back and the gauge does not.',
  ],
}

function strokesOf({ tool, stopUm }: SharpeningPlan): (typeof STROKES)[keyof typeof STROKES] {
  if (stopUm !== null) return STROKES.stop
  return STROKES[tool === 'squareFile' ? 'square' : tool === 'twoInOne' ? 'twoInOne' : 'round']
}

function sideStep(plan: SharpeningPlan, hand: Hand, first: boolean): StepWords {
  const side = plan.sides.find((one) => one.hand === hand)
  const count = counted(plan.gives, side?.count ?? 0)
  const untilClean = side?.cutters.filter((job) => job.untilClean).length ?? 0
  const more = untilClean === 0 ? '' : ` ${plural(untilClean, 'cutter')} until clean.`
  const name = `${SIDE_NAMES[hand]}${first ? ', first' : ''}`
  const [how, see, mistake] = strokesOf(plan)
  if (plan.gives === 'strokes')
    return step(
      name,
      plan.stopUm === null
        ? `Every second cutter, ${count} each: ${how}.${more}`
        : `Every second cutter: ${how}. About ${count} each.`,
      see,
      mistake,
      'Push the chain on with the file or the guide, never with fingers on a cutter.',
    )
  return plan.tool === 'handGrinder'
    ? step(
        name,
        `Every second cutter: the stone to and fro along it, light, until it is clean.${more}`,
        'Bright, even steel; read one after the first, and the rest by it.',
        'Staying in one place: that makes a hot spot, and grooves the stone.',
        'Eyes covered. Blue is lost temper.',
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
 * A step of a plan in words: those that belong to the tool.
 *
 * @example
 * sayStep('clean', null, plan).name // 'Clean it'
 */
export function sayStep(id: StepId, hand: Hand | null, plan: SharpeningPlan): StepWords {
  if (id === 'firstSide' || id === 'secondSide') return sideStep(plan, hand ?? 'left', id === 'firstSide')
  if (id === 'stop') return stopStep(plan)
  const inField = plan.action === 'touchUp' && !comesOff(plan.tool) ? IN_FIELD[id] : undefined
  return OF_TOOL[plan.tool]?.[id] ?? inField ?? STEP_WORDS[id]
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

function jigRows(
  { stopUm, stops }: NonNullable<FileSetUp['jig']>,
  angleDeg: number,
  downDeg: number,
  { lengths }: Figures,
): SetUpRow[] {
  const level = 'its plates level, just above the rivets'
  const stop =
    stopUm !== null
      ? `about ${writeLength(stopUm, lengths)} on the worst cutter`
      : stops
        ? 'unknown: in bit by bit until the worst is clean, then read it'
        : 'out: each gets its strokes'
  return [
    ['Jig', level],
    ['Scales', `turn ${degrees(angleDeg)}, tilt ${degrees(downDeg)}; turned end for end for the other side`],
    ['Stop', stopUm === null ? stop : `${stop}; out at first, in until it is clean, then read and left`],
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
    ...(jig === null ? [] : jigRows(jig, angleDeg, downDeg, figures)),
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

const sayHead = ([least, most]: readonly [number, number]): string =>
  least === most ? `${least}°, this loop’s own` : `${least}° or ${most}°, by the chain’s sheet`

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
    ['Head', sayHead(headTiltDeg)],
    ['Table', table],
    [
      'Stop',
      setUp.stopUnknown
        ? 'unknown: in by a tenth until the worst cutter is clean, then read it'
        : `about ${writeLength(stopUm, figures.lengths)} on the worst cutter; where it ends there is the stop`,
    ],
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

/**
 * What a cutter gets, as it is said over it. Against a stop it is worked until that ends it; where nobody knows how
 * deep it is hurt, no count is said at all.
 */
export function sayCount(
  job: Pick<CutterJob, 'count' | 'untilClean' | 'depthUnknown'>,
  { gives, stopUm }: Pick<SharpeningPlan, 'gives' | 'stopUm'>,
): string {
  const count = counted(gives, job.count)
  if (gives === 'strokes' && stopUm !== null) return 'to the stop'
  if (job.depthUnknown) return stopUm === null ? 'until clean' : `to the stop, until clean`
  return job.untilClean ? `until clean, about ${count}` : count
}

/**
 * Strokes that cutters get by a plan, side by side. Empty where strokes are not counted.
 *
 * @example
 * saySides({ gives: 'strokes', stopUm: 6000, sides: [] }) // ''
 */
export function saySides({ gives, stopUm, sides }: Pick<SharpeningPlan, 'gives' | 'stopUm' | 'sides'>): string {
  if (gives !== 'strokes' || stopUm !== null) return ''
  const bySide = HANDS.flatMap((hand) => {
    const side = sides.find((one) => one.hand === hand)
    if (side === undefined || side.cutters.length === 0) return []
    // Of one that is worked until it is clean no count is said.
    const counts = side.cutters.flatMap((job) => (job.untilClean || job.depthUnknown ? [] : [job.count]))
    if (counts.length === 0) return [`until clean ${hand}`]
    const [least, most] = [Math.min(...counts), Math.max(...counts)]
    return [`${side.count}${least === most ? '' : ` (${least} to ${most})`} ${hand}`]
  })
  const open = sides.some(({ cutters }) => cutters.some(({ untilClean, depthUnknown }) => untilClean || depthUnknown))
  return `${bySide.join(', ')}${open ? ', and until clean where it is hurt' : ''}`
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
 * sayRecheck({ offUm: 20, alike: true, stop: null, strokes: 0 }, { gives: 'touches', stopUm: 6000 }, figures)
 * // 'Both sides read alike: go on.'
 */
export function sayRecheck(
  { offUm, alike, stop, strokes }: Recheck,
  { gives, stopUm }: Pick<SharpeningPlan, 'gives' | 'stopUm'>,
  { lengths }: Figures,
): string {
  if (alike || stop === null) return 'Both sides read alike: go on.'
  const off = `${writeLength(Math.abs(offUm), lengths)} ${offUm > 0 ? 'longer' : 'shorter'} than the first side`
  if (gives === 'strokes' && stopUm === null) {
    const by = `${plural(Math.abs(strokes), 'stroke')} ${strokes > 0 ? 'more' : 'fewer'}`
    const itself = strokes > 0 ? ', and for this one' : ''
    return `It came out ${off}: ${by} for the rest of this side${itself}, counted in already.`
  }
  const turn = `about ${sayTurns(turnsFor(stop.byUm))} of a screw with 1 mm a turn`
  const again = stop.way === 'in' ? ' Then do this one again: it is gone back to.' : ''
  return `It came out ${off}: move the stop ${stop.way} by ${writeLength(stop.byUm, lengths)}, ${turn}.${again}`
}
