import type { UnevenSchool } from '../house/schools'
import type { Um } from '../units'
import { soundUm, type CutterToSharpen } from './removals'

/** Extra strokes a cutter that a hand keeps count of while some are to catch up. Common practice. */
export const EXTRA_STROKES = 2

/** Sharpenings further ahead than this nobody plans. */
const FURTHEST = 40

/** What a filing leaves to the next ones. */
export interface Stages {
  /** Sharpenings, with this one, until nothing is left of it; null where nobody plans so far ahead. */
  readonly sharpenings: number | null
  /** Cutters that stay blunt after each of them, from this one on. */
  readonly blunt: readonly number[]
}

/**
 * Over how many filings a loop comes right, by the school that the house follows: with the same strokes for all,
 * damage goes as deep as they reach, and longer cutters catch up by a stroke or two more each time; by the
 * others all is done in one go, but that cutters may differ until they have caught up.
 *
 * @param usualUm what a filing takes off a cutter
 * @param apartUm how far cutters differ beyond what the house lets be, after this one
 * @param perStrokeUm what a stroke takes off, above nothing
 * @example
 * // one cutter of four with a nick 0.5 mm deep
 * stagesOf(cutters, 200, 'sameStrokes', 0, 20) // { sharpenings: 3, blunt: [1, 1, 0] }
 */
export function stagesOf(
  cutters: readonly Pick<CutterToSharpen, 'damage'>[],
  usualUm: Um,
  school: UnevenSchool,
  apartUm: number,
  perStrokeUm: number,
): Stages {
  const blunt: number[] = []
  if (school === 'sameStrokes') {
    const deep = cutters.map((cutter) => soundUm(cutter, 0)).filter((um) => um > usualUm)
    for (let done = 1; done < FURTHEST; done += 1) {
      const left = deep.filter((um) => um > done * usualUm).length
      blunt.push(left)
      if (left === 0) break
    }
  } else blunt.push(0)
  const catchingUp = Math.ceil(Math.max(0, apartUm) / (EXTRA_STROKES * perStrokeUm))
  const sharpenings = Math.max(blunt.length, 1 + catchingUp)
  const never = (blunt.at(-1) ?? 0) > 0 || sharpenings > FURTHEST
  return { sharpenings: never ? null : sharpenings, blunt }
}
