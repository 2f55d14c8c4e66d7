import type { GuideSchool, HouseRules } from '../house'
import { linesOf, serves, servesNone, type KitItem } from '../kit'
import { SHARPENING_TOOLS, type SharpeningTool } from '../log'
import { hasBumpers, type LoopSpec, type PitchClass } from '../profile'
import { GUIDES, topPlateAngleFor } from '../sharpen'

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
  /** Pitches that it is made for; null where it serves any. */
  readonly madeForPitch: readonly PitchClass[] | null
  /** Whether the table or the file can lie at a down angle. */
  readonly tilts: boolean
}

const file = (guide: GuideSchool, more: Partial<ToolFacts> = {}): ToolFacts => ({
  gives: 'strokes',
  toStop: false,
  gaugesToo: GUIDES[guide].gaugesToo,
  madeForDeg: null,
  madeForPitch: null,
  tilts: true,
  ...more,
})
const wheel = (more: Partial<ToolFacts>): ToolFacts => ({
  gives: 'touches',
  toStop: true,
  gaugesToo: false,
  madeForDeg: null,
  madeForPitch: null,
  tilts: true,
  ...more,
})

/**
 * What each tool does. A plate guide has lines at 30° and, for ripping chain, 10°; a roller and a two-in-one are made
 * for one angle; a two-in-one lies on this cutter and the next, so it is made for one pitch, and none is in use for
 * 1/4" and .404"; a small bench grinder has one angle and no tilt (common practice). What the crew's own have marked
 * on them goes before.
 */
export const TOOL_FACTS: Readonly<Record<SharpeningTool, ToolFacts>> = {
  freehand: file('freehand'),
  plateGuide: file('topPlate', { madeForDeg: [30, 10] }),
  rollerGuide: file('chassis', { madeForDeg: [30], tilts: false }),
  twoInOne: file('twoInOne', {
    madeForDeg: [30],
    madeForPitch: ['lowProfile', 'p325', 'threeEighths'],
    tilts: false,
  }),
  jig: file('jig', { toStop: true }),
  benchGrinder: wheel({}),
  smallGrinder: wheel({ tilts: false }),
  handGrinder: wheel({ toStop: false, madeForDeg: [30] }),
  squareFile: file('freehand'),
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
  /** Its flat file would take the bumper with the gauge, and a bumper is never filed off. */
  | 'bumpers'
  /** The crew's own of that kind serve other pitches. */
  | 'notForPitch'

/** What of the house decides on a tool. */
export type ToolRules = Pick<HouseRules, 'gaugeSchool' | 'grinderOwned' | 'chiselAngleDeg' | 'chiselDownAngleDeg'>

/** The down angle that a loop is sharpened at: its own, else full chisel in a house that does so. */
export const downAngleFor = (
  { cutterType, downAngleDeg }: LoopSpec,
  { chiselDownAngleDeg }: Pick<ToolRules, 'chiselDownAngleDeg'>,
) => downAngleDeg ?? (cutterType === 'fullChisel' ? chiselDownAngleDeg : 0)

/** Angle lines of a tool: what is marked on the crew's own, else what such tools usually have; null for any angle. */
export const anglesOf = (tool: SharpeningTool, pitchClass: PitchClass, kit: readonly KitItem[] = []) =>
  linesOf(kit, tool, pitchClass) ?? TOOL_FACTS[tool].madeForDeg

/** What is known of a loop and of the crew's things when a tool is chosen. */
export interface ToolAsked {
  /** Top plate angle that is meant; the spec's, or the house's, where it is left out. */
  readonly angleDeg?: number
  readonly kit?: readonly KitItem[]
}

/** Whether a tool is held at another angle than it is made for by eye and a line; others have a frame that is fixed. */
const HELD_OFF_ITS_LINE: ReadonlySet<SharpeningTool> = new Set<SharpeningTool>(['plateGuide', 'handGrinder'])

const SQUARE: ReadonlySet<SharpeningTool> = new Set<SharpeningTool>(['squareFile', 'benchGrinder'])

/**
 * Why a loop is not sharpened with a tool in this house; null where it may be.
 *
 * @example
 * whyNotWith('twoInOne', spec38, { ...DEFAULT_RULES, gaugeSchool: 'progressive' }) // 'oneSettingForLife'
 */
export function whyNotWith(
  tool: SharpeningTool,
  spec: LoopSpec,
  rules: ToolRules,
  { angleDeg = topPlateAngleFor(spec, rules.chiselAngleDeg), kit = [] }: ToolAsked = {},
): ToolRefusal | null {
  const { gives, tilts } = TOOL_FACTS[tool]
  const shape = whyNotItsShape(tool, spec)
  if (shape !== null) return shape
  if (gives === 'touches' && !rules.grinderOwned) return 'noGrinder'
  if (!isMadeFor(tool, spec.pitchClass, kit)) return 'notForPitch'
  const gauges = whyNotItsGauges(tool, spec, rules)
  if (gauges !== null) return gauges
  if (!tilts && downAngleFor(spec, rules) !== 0) return 'noTilt'
  const lines = linesItKeeps(tool, spec.pitchClass, kit)
  return lines === null || lines.includes(angleDeg) ? null : 'oneAngle'
}

/** Square-ground cutters take a square file or a wheel that is dressed for them, and no others do. */
function whyNotItsShape(tool: SharpeningTool, { cutterType }: LoopSpec): ToolRefusal | null {
  if (cutterType === 'squareGround') return SQUARE.has(tool) ? null : 'neverRound'
  return tool === 'squareFile' ? 'neverBevelled' : null
}

/** What a tool that brings gauges down with every stroke must not be used on. */
function whyNotItsGauges(tool: SharpeningTool, spec: LoopSpec, { gaugeSchool }: ToolRules): ToolRefusal | null {
  if (!TOOL_FACTS[tool].gaugesToo) return null
  if (hasBumpers(spec)) return 'bumpers'
  return gaugeSchool === 'progressive' ? 'oneSettingForLife' : null
}

/** Angle lines that a tool cannot be held off; null for one that can. */
function linesItKeeps(tool: SharpeningTool, pitchClass: PitchClass, kit: readonly KitItem[]) {
  const fixed = TOOL_FACTS[tool].madeForDeg !== null || tool === 'jig'
  return fixed && !HELD_OFF_ITS_LINE.has(tool) ? anglesOf(tool, pitchClass, kit) : null
}

/** Whether a tool serves a pitch: by what the crew's own are made for, else by what such tools are. */
function isMadeFor(tool: SharpeningTool, pitchClass: PitchClass, kit: readonly KitItem[]): boolean {
  if (servesNone(kit, tool, pitchClass)) return false
  const { madeForPitch } = TOOL_FACTS[tool]
  return madeForPitch === null || madeForPitch.includes(pitchClass) || serves(kit, tool, pitchClass)
}

const OF_GUIDE: Readonly<Record<GuideSchool, SharpeningTool>> = {
  topPlate: 'plateGuide',
  chassis: 'rollerGuide',
  twoInOne: 'twoInOne',
  jig: 'jig',
  freehand: 'freehand',
}

/** Guides in the order in which another is taken where the house's own is none for a loop. */
const INSTEAD = ['plateGuide', 'freehand'] as const satisfies readonly SharpeningTool[]

/**
 * The tool that a house takes to a job: its guide to a file, its grinder to a regrind. Where its guide is none for
 * this loop, a plate guide or the bare file.
 */
export function usualTool(
  action: 'file' | 'touchUp' | 'regrind',
  spec: LoopSpec,
  rules: ToolRules & Pick<HouseRules, 'guide'>,
  asked: ToolAsked = {},
): SharpeningTool {
  if (action === 'regrind') return 'benchGrinder'
  if (spec.cutterType === 'squareGround') return 'squareFile'
  const usual = OF_GUIDE[rules.guide]
  return [usual, ...INSTEAD].find((tool) => whyNotWith(tool, spec, rules, asked) === null) ?? usual
}
