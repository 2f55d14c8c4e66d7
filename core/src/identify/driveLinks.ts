import { DRIVE_LINKS } from '../loop'
import type { Um } from '../units'

/**
 * What a loop needs beyond twice its bar's cutting length, to reach round nose and sprocket and
 * into the saw. Starting values: they span common saws.
 */
const ROUND_THE_ENDS_UM = { least: 230_000, most: 390_000 } as const

/**
 * Drive-link counts that a bar of a given cutting length may take at a pitch: twice the length and
 * what goes round the ends, over two pitches. A guess to count against, never instead of counting.
 *
 * @param barLengthUm cutting length of the bar
 * @param pitchUm half the span of three rivets
 * @returns the least and the most likely count
 * @example
 * likelyDriveLinks(508_000, 9525) // { least: 65, most: 74 } for a 20-inch 3/8" bar, which often takes 72
 */
export function likelyDriveLinks(barLengthUm: Um, pitchUm: Um): { least: number; most: number } {
  const clamp = (count: number): number => Math.min(DRIVE_LINKS.most, Math.max(DRIVE_LINKS.least, count))
  const links = (ends: number): number => (2 * barLengthUm + ends) / (2 * pitchUm)
  return {
    least: clamp(Math.floor(links(ROUND_THE_ENDS_UM.least))),
    most: clamp(Math.ceil(links(ROUND_THE_ENDS_UM.most))),
  }
}
