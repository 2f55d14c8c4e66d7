import { fileBevelDeg } from '../geometry'
import type { SidePlateSchool } from '../house/schools'
import { BENCH_FIGURES } from '../profile'

/** What the hook of a side plate does. */
export interface SidePlateFacts {
  /** Part of the file above the top plate. */
  readonly partAbove: number
  /** Bevel under the top plate that follows from it, in degrees. */
  readonly bevelDeg: number
  /** How long it stays sharp against a neutral one. Starting value. */
  readonly lasts: number
}

/**
 * Where the file sits for more or less hook, and what that trades: a lower file leaves a thinner
 * edge, quicker in clean soft wood; a higher one holds up in hard wood (common practice; the
 * figure for how long it lasts is a starting value).
 *
 * @example
 * sidePlateOf('lessHook').bevelDeg // 60
 */
export function sidePlateOf(school: SidePlateSchool): SidePlateFacts {
  const [least, most] = BENCH_FIGURES.filePartAbove.value
  const partAbove = { moreHook: least, neutral: (least + most) / 2, lessHook: most, third: 1 / 3 }[school]
  const lasts = { moreHook: 0.85, neutral: 1, lessHook: 1.1, third: 1.15 }[school]
  return { partAbove, bevelDeg: fileBevelDeg(partAbove), lasts }
}
