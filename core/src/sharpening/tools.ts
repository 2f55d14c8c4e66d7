import { GUIDES, topPlateAngleFor } from '../sharpen'
import type { GuideSchool, HouseRules } from '../house'
import { SHARPENING_TOOLS, type SharpeningTool } from '../log'
import type { LoopSpec } from '../profile'

export { SHARPENING_TOOLS, type SharpeningTool }

/** What a tool does, and what it cannot. */
export interface ToolFacts {
  /** A file goes over a cutter in strokes, a wheel in touches. */
  readonly gives: 'strokes' | 'touches'
  /** Ends every cutter at one length by a stop. */
  readonly toStop: boolean
  /** Files the depth gauge in the same stroke. */
  readonly gaugesToo: boolean
  /** Angles that its lines or its frame are made for; null where a scale or the hand sets any. */
  readonly madeForDeg: readonly number[] | null
  /** Whether the table or the file can lie at a down angle. */
  readonly tilts: boolean
  /** Minutes to set it up and take it away again, from and to. */
  readonly setUpMinutes: readonly [number, number]
  /** Seconds from one cutter to the next. */
  readonly secondsToNext: number
  /** Minutes to change to the other side. */
  readonly turnMinutes: number
}

const file = (guide: GuideSchool, more: Partial<ToolFacts> = {}): ToolFacts => ({
  gives: 'strokes',
  toStop: false,
  gaugesToo: GUIDES[guide].gaugesToo,
  madeForDeg: null,
  tilts: true,
  setUpMinutes: [0.5, 1.5],
  secondsToNext: GUIDES[guide].secondsToNext,
  turnMinutes: 0.5,
  ...more,
})
const wheel = (more: Partial<ToolFacts>): ToolFacts => ({
  gives: 'touches',
  toStop: true,
  gaugesToo: false,
  madeForDeg: null,
  tilts: true,
  setUpMinutes: [3, 8],
  secondsToNext: 5,
  turnMinutes: 1,
  ...more,
})

/**
 * What each tool does. A plate guide has lines at 30° and, for ripping chain, 10°; a roller and a two-in-one are made
 * for one angle; a small bench grinder has one angle and no tilt (common practice). Times are starting values but
 * for those of `GUIDES` and of setting a grinder up and turning its clamp (common practice).
 */
export const TOOL_FACTS: Readonly<Record<SharpeningTool, ToolFacts>> = {
  freehand: file('freehand'),
  plateGuide: file('topPlate', { madeForDeg: [30, 10] }),
  rollerGuide: file('chassis', { madeForDeg: [30], tilts: false }),
  twoInOne: file('twoInOne', { madeForDeg: [30], tilts: false, setUpMinutes: [0.3, 0.8], turnMinutes: 0.3 }),
  jig: file('jig', { toStop: true, setUpMinutes: [2, 5], turnMinutes: 1 }),
  benchGrinder: wheel({}),
  smallGrinder: wheel({ tilts: false, setUpMinutes: [1, 3], secondsToNext: 3, turnMinutes: 0.5 }),
  handGrinder: wheel({ toStop: false, madeForDeg: [30], setUpMinutes: [1, 3], secondsToNext: 4, turnMinutes: 0.5 }),
  squareFile: file('freehand', { setUpMinutes: [2, 5], secondsToNext: 6 }),
}

/** Why a loop is not sharpened with a tool. */
export type ToolRefusal =
  /** Square-ground chisel takes a bevelled file or a shaped wheel, never anything round. */
  | 'neverRound'
  /** A bevelled file spoils a cutter that was made for a round one. */
  | 'neverBevelled'
  /** Its gauge is one setting for life, and the house lets settings grow with wear. */
  | 'oneSettingForLife'
  /** It is made for another angle, and holds no other. */
  | 'oneAngle'
  /** The house grinds this chain at a down angle, and the tool has no tilt. */
  | 'noTilt'
  | 'noGrinder'
  /** The crew's own of that kind serve other pitches. */
  | 'notForPitch'

/** What of the house decides on a tool. */
export type ToolRules = Pick<HouseRules, 'gaugeSchool' | 'grinderOwned' | 'chiselAngleDeg' | 'chiselDownAngleDeg'>

/** The down angle that a loop is sharpened at: full chisel in a house that does so. */
export const downAngleFor = (
  { cutterType }: LoopSpec,
  { chiselDownAngleDeg }: Pick<ToolRules, 'chiselDownAngleDeg'>,
) => (cutterType === 'fullChisel' ? chiselDownAngleDeg : 0)

/** Whether a tool is held at another angle than it is made for by eye and a line; others have a frame that is fixed. */
const HELD_OFF_ITS_LINE: ReadonlySet<SharpeningTool> = new Set<SharpeningTool>(['plateGuide', 'handGrinder'])

const SQUARE: ReadonlySet<SharpeningTool> = new Set<SharpeningTool>(['squareFile', 'benchGrinder'])

/**
 * Why a loop is not sharpened with a tool in this house; null where it may be.
 *
 * @example
 * whyNotWith('twoInOne', spec38, { ...DEFAULT_RULES, gaugeSchool: 'progressive' }) // 'oneSettingForLife'
 */
export function whyNotWith(tool: SharpeningTool, spec: LoopSpec, rules: ToolRules): ToolRefusal | null {
  const { gives, gaugesToo, madeForDeg, tilts } = TOOL_FACTS[tool]
  const square = spec.cutterType === 'squareGround'
  if (square && !SQUARE.has(tool)) return 'neverRound'
  if (!square && tool === 'squareFile') return 'neverBevelled'
  if (gives === 'touches' && !rules.grinderOwned) return 'noGrinder'
  if (gaugesToo && rules.gaugeSchool === 'progressive') return 'oneSettingForLife'
  if (!tilts && downAngleFor(spec, rules) !== 0) return 'noTilt'
  const angleDeg = topPlateAngleFor(spec, rules.chiselAngleDeg)
  const fixed = madeForDeg !== null && !HELD_OFF_ITS_LINE.has(tool)
  return fixed && !madeForDeg.includes(angleDeg) ? 'oneAngle' : null
}

const OF_GUIDE: Readonly<Record<GuideSchool, SharpeningTool>> = {
  topPlate: 'plateGuide',
  chassis: 'rollerGuide',
  twoInOne: 'twoInOne',
  jig: 'jig',
  freehand: 'freehand',
}

/** The tool that a house takes to a job: its guide to a file, its grinder to a regrind. */
export function usualTool(
  action: 'file' | 'touchUp' | 'regrind',
  spec: LoopSpec,
  { guide }: Pick<HouseRules, 'guide'>,
) {
  if (action === 'regrind') return 'benchGrinder'
  return spec.cutterType === 'squareGround' ? 'squareFile' : OF_GUIDE[guide]
}
