import type { SharpeningTool } from '../log'
import type { PitchClass } from '../profile'
import { kitOf, type KitItem } from './kitItem'

/** Angle lines of the guides of a kind that the crew has for a pitch; null where none of them says. */
export function linesOf(
  kit: readonly KitItem[],
  tool: SharpeningTool,
  pitchClass: PitchClass,
): readonly number[] | null {
  const lines = kitOf(kit, 'guide')
    .filter((guide) => guide.tool === tool && (guide.serves.length === 0 || guide.serves.includes(pitchClass)))
    .flatMap(({ linesDeg = [] }) => linesDeg)
  return lines.length === 0 ? null : [...new Set(lines)].sort((a, b) => a - b)
}

/** Whether the crew has a guide of a kind that is made for a pitch by name. */
export const serves = (kit: readonly KitItem[], tool: SharpeningTool, pitchClass: PitchClass): boolean =>
  kitOf(kit, 'guide').some((guide) => guide.tool === tool && guide.serves.includes(pitchClass))

/** Whether the crew has guides of a kind, and none of them serves a pitch. Of what is not written down nobody knows. */
export function servesNone(kit: readonly KitItem[], tool: SharpeningTool, pitchClass: PitchClass): boolean {
  const ours = kitOf(kit, 'guide').filter((guide) => guide.tool === tool)
  return ours.length > 0 && ours.every(({ serves }) => serves.length > 0 && !serves.includes(pitchClass))
}
