import type { WoodStep } from '../geometry'
import { comesOff, type SharpeningTool } from '../jobs'
import type { PlateChoice } from '../kit'
import type { PlateUsed } from '../log'
import { writeLength, type Um } from '../units'
import type { Figures } from './figures'

/** What the steps of a progressive plate are called. */
export const WOOD_STEP_NAMES: Readonly<Record<WoodStep, string>> = {
  softer: 'softer step',
  standard: 'plain step',
  harder: 'harder step',
}

/** The plate of a lowering, and what it leaves on the cutter in the middle. */
interface PlateAtHand {
  readonly choice: PlateChoice | null
  readonly used: PlateUsed
  readonly leavesUm: Um
}

/** A plate in words: for the question at the end, and for the step that uses it. */
export interface PlateSaid {
  readonly used: PlateUsed
  readonly said: string
  readonly how: string
}

/** A plate in words, by its name and its step: what is stamped on a progressive one is never what it leaves. */
export function sayPlate(
  { choice, used, leavesUm }: PlateAtHand,
  tool: SharpeningTool,
  { lengths }: Figures,
): PlateSaid {
  const grows = used.rests === 'progressive'
  const step = grows ? `, ${WOOD_STEP_NAMES[used.step ?? 'standard']}` : ''
  const name = choice === null ? (grows ? 'the plate on the single cutter' : 'the plate') : choice.plate.name
  const leaves = grows ? `leaves about ${writeLength(leavesUm, lengths)} at this wear` : writeLength(leavesUm, lengths)
  const said = `by ${name}${step} (${leaves})`
  return {
    used,
    said,
    how: comesOff(tool)
      ? `One gauge ${said} by hand, the gauge wheel set to just touch that one, then the others.`
      : `Each ${said}.`,
  }
}
