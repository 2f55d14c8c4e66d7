import type { GuideSchool } from '../house/schools'
import type { SharpeningTool } from '../log'
import type { Um } from '../units'
import { filingMinutesOf, grindingMinutes, strokesFor } from './time'

/** The guide whose times a file goes by; a wheel has none. */
const GUIDE_OF: Readonly<Record<SharpeningTool, GuideSchool | null>> = {
  freehand: 'freehand',
  plateGuide: 'topPlate',
  rollerGuide: 'chassis',
  twoInOne: 'twoInOne',
  jig: 'jig',
  benchGrinder: null,
  smallGrinder: null,
  handGrinder: null,
  squareFile: 'freehand',
}

/** What one cutter got. */
interface Given {
  readonly offUm: Um
  /** Left out where nobody counted. */
  readonly strokes: number | undefined
}

/**
 * Minutes that so much work with a tool takes by the starting times, before anything is learned of this crew.
 *
 * @param given one for each cutter that was worked
 */
export function startingMinutes(tool: SharpeningTool, where: 'field' | 'bench', given: readonly Given[]): number {
  const guide = GUIDE_OF[tool]
  if (guide === null) return grindingMinutes(given.map(({ offUm }) => offUm)).likely
  const strokes = given.reduce((sum, one) => sum + (one.strokes ?? strokesFor(one.offUm)), 0)
  return filingMinutesOf(strokes, given.length, where, guide).likely
}
