import {
  fileBevelDeg,
  fileBottom,
  fileFor,
  grinderSettings,
  partAboveWorn,
  topPlateHeight,
  type GrinderSettings,
} from '../geometry'
import type { HouseRules } from '../house'
import type { LoopSpec } from '../profile'
import { sidePlateOf } from '../sharpen'
import type { Um } from '../units'
import { downAngleFor, type SharpeningTool } from '../jobs/tools'

/** A line of a guide, and how far off it the file is held. */
export interface GuideLine {
  readonly lineDeg: number
  /** Above nothing the file points less square across the bar than the line does. */
  readonly offDeg: number
}

/** How a round file is held on a loop at its present wear. Angles in degrees, lengths in micrometres. */
export interface FileSetUp {
  readonly with: 'file'
  readonly fileUm: Um
  /** Part of its diameter above the top plate, and how much that is. */
  readonly partAbove: number
  readonly aboveUm: Um
  /** Bevel under the top plate that comes of it. */
  readonly bevelDeg: number
  readonly angleDeg: number
  /** The guide's own line to hold it against; null where there is none. */
  readonly line: GuideLine | null
  /** Handle lowered by this much. */
  readonly downDeg: number
  /** How far its bottom stays above the tie strap; below nothing it cuts into it. */
  readonly clearUm: Um
  /** How much more of it stands above than is wanted: a guide on the chassis does not sink with the cutters. */
  readonly higherThanWantedUm: Um
  /** A jig is set by its scales and ends a cutter at a stop; null for a guide that has neither. */
  readonly jig: { readonly stopUm: Um | null; readonly stops: boolean } | null
}

/** How a bevelled file is held. */
export interface SquareSetUp {
  readonly with: 'squareFile'
  readonly angleDeg: number
  /** How far the side plate leans forward. */
  readonly leanDeg: number
}

/** How a wheel is set up. */
export interface WheelSetUp extends GrinderSettings {
  readonly with: 'wheel'
  readonly tool: 'benchGrinder' | 'smallGrinder'
  /** Where the stop ends is found on the way. */
  readonly stopUnknown: boolean
  /** Radius that its rim is dressed to. */
  readonly rimRadiusUm: Um
  /** How far below the top plate the rim ends: where its depth stop is set. */
  readonly depthUm: Um
  /** How far that stays above the tie strap at the stop's length; below nothing the wheel cuts into it. */
  readonly clearUm: Um
}

/** How a stone in a hand-held grinder is set up. */
export interface StoneSetUp {
  readonly with: 'stone'
  readonly stoneUm: Um
  readonly partAbove: number
  readonly aboveUm: Um
  readonly angleDeg: number
  readonly line: GuideLine | null
}

export type SetUp = FileSetUp | SquareSetUp | WheelSetUp | StoneSetUp

/** What decides on a set-up besides the loop. */
export interface SetUpWanted {
  readonly tool: SharpeningTool
  /** Top plate angle that is meant, degrees. */
  readonly angleDeg: number
  /** Angle lines that are marked on the tool; null where it has none. */
  readonly linesDeg: readonly number[] | null
  /** The shortest cutter now: wear decides on the file, and on how high a roller holds it. */
  readonly shortestUm: Um
  /** Length that a wheel's stop ends every cutter at. */
  readonly stopUm: Um
  /** Nobody has measured how deep the worst is hurt: where it ends is found on the way. */
  readonly stopUnknown: boolean
  /** Depth-gauge setting wanted afterwards. */
  readonly settingUm: Um
}

type SetUpRules = Pick<HouseRules, 'chiselAngleDeg' | 'chiselDownAngleDeg' | 'fileSchool' | 'sidePlate'>

/** How far the side plate of square-ground chisel leans forward, since a cutter rocks back in wood. Common practice. */
const LEAN_DEG = 5
/** Part of a hand-held grinder's stone above the top plate. Common practice. */
const STONE_ABOVE = 0.2

/** The line of a guide that is nearest to an angle. */
function lineFor({ angleDeg, linesDeg }: SetUpWanted): GuideLine | null {
  if (linesDeg === null) return null
  const lineDeg = [...linesDeg].sort((a, b) => Math.abs(a - angleDeg) - Math.abs(b - angleDeg))[0] ?? angleDeg
  return { lineDeg, offDeg: angleDeg - lineDeg }
}

function fileSetUp(spec: LoopSpec, asked: SetUpWanted, rules: SetUpRules): FileSetUp {
  const { tool, angleDeg, shortestUm, stopUm, stopUnknown } = asked
  const { fileUm } = fileFor(spec, shortestUm, rules.fileSchool)
  const wanted = sidePlateOf(rules.sidePlate).partAbove
  const partAbove = tool === 'rollerGuide' ? partAboveWorn(spec, shortestUm, fileUm, wanted, 'chassis') : wanted
  return {
    with: 'file',
    fileUm,
    partAbove,
    aboveUm: Math.round(fileUm * partAbove),
    bevelDeg: fileBevelDeg(partAbove),
    angleDeg,
    line: lineFor(asked),
    downDeg: downAngleFor(spec, rules),
    clearUm: topPlateHeight(spec, shortestUm) - fileBottom(fileUm, partAbove),
    higherThanWantedUm: Math.round(fileUm * (partAbove - wanted)),
    jig: tool === 'jig' ? { stopUm: stopUm > 0 && !stopUnknown ? stopUm : null, stops: stopUm > 0 } : null,
  }
}

/**
 * How a tool is set up for a loop at its present wear. Common practice; manuals come first.
 *
 * @example
 * const at = { shortestUm: 8000, stopUm: 7800, stopUnknown: false }
 * const wanted = { tool: 'jig', angleDeg: 30, linesDeg: null, ...at } as const
 * setUpFor(spec38, { ...wanted, settingUm: 650 }, DEFAULT_RULES).with // 'file'
 */
export function setUpFor(spec: LoopSpec, wanted: SetUpWanted, rules: SetUpRules): SetUp {
  const { angleDeg } = wanted
  switch (wanted.tool) {
    case 'freehand':
    case 'plateGuide':
    case 'rollerGuide':
    case 'twoInOne':
    case 'jig':
      return fileSetUp(spec, wanted, rules)
    case 'squareFile':
      return { with: 'squareFile', angleDeg, leanDeg: LEAN_DEG }
    case 'benchGrinder':
    case 'smallGrinder': {
      const { stopUm, stopUnknown, settingUm } = wanted
      const settings = grinderSettings(spec, { angleDeg, downAngleDeg: downAngleFor(spec, rules), stopUm, settingUm })
      const [thin, thick] = settings.wheelUm
      const rimRadiusUm = Math.round((thin + thick) / 4)
      const depthUm = fileBottom(2 * rimRadiusUm, sidePlateOf(rules.sidePlate).partAbove)
      const clearUm = topPlateHeight(spec, stopUm) - depthUm
      return { with: 'wheel', tool: wanted.tool, ...settings, stopUnknown, rimRadiusUm, depthUm, clearUm }
    }
    case 'handGrinder': {
      const { fileUm } = fileFor(spec, wanted.shortestUm, rules.fileSchool)
      const line = lineFor(wanted)
      const aboveUm = Math.round(fileUm * STONE_ABOVE)
      return { with: 'stone', stoneUm: fileUm, partAbove: STONE_ABOVE, aboveUm, angleDeg, line }
    }
  }
}
