import type { SharpeningTool } from '../log'
import type { PitchClass } from '../profile'
import { kitOf, type KitItem } from './kitItem'

/** Whether the crew has guides of a kind, and none of them serves a pitch. Of what is not written down nobody knows. */
export function servesNone(kit: readonly KitItem[], tool: SharpeningTool, pitchClass: PitchClass): boolean {
  const ours = kitOf(kit, 'guide').filter((guide) => guide.tool === tool)
  return ours.length > 0 && ours.every(({ serves }) => serves.length > 0 && !serves.includes(pitchClass))
}
