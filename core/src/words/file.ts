import type { FileChoice, FileFit } from '../geometry'
import { writeFile, writeMm } from '../units'

/**
 * The file for a loop: its size, or its shape where none is round.
 *
 * @example
 * nameFile({ fileUm: 5200, reason: 'oneSize' }) // '5.2 mm (13/64")'
 */
export const nameFile = ({ fileUm, reason }: Pick<FileChoice, 'fileUm' | 'reason'>): string =>
  reason === 'squareGround' ? 'bevelled' : writeFile(fileUm)

const FIT_WORDS: Readonly<Record<FileFit, string>> = {
  fits: '',
  tooSmall: 'Smaller than any file for this pitch: check the loop and its box.',
  tooLarge: 'Larger than any file for this pitch: check the loop and its box.',
  tooLargeByNow: 'A smaller one suits it by now.',
}

/** What is wrong with a file that does not suit the pitch or its wear; empty where it does. */
export const sayFileFit = (fit: FileFit): string => FIT_WORDS[fit]

/**
 * Why a file is the one for a loop's present wear, in one sentence. Cutter heights are worked out,
 * not measured, and the sentence says so.
 */
export function sayFile(choice: FileChoice): string {
  const wrong = choice.reason === 'squareGround' ? '' : sayFileFit(choice.fit)
  return wrong === '' ? sayWhy(choice) : `${sayWhy(choice)} ${wrong}`
}

function sayWhy({ reason, bottomUm, heightUm, otherUm, clears }: FileChoice): string {
  const height = `about ${writeMm(heightUm, 1)} above the tie strap by now`
  const depth = `its bottom lies ${writeMm(bottomUm, 1)} below the top plate, ${height}`
  const below = `about ${writeMm(heightUm, 1)} below the top plate`
  switch (reason) {
    case 'squareGround':
      return 'or a shaped wheel, never a round file; the side plate leans 5° forward.'
    case 'setOnLoop':
      return clears ? 'named for this loop.' : `named for this loop; hold it high, ${depth}.`
    case 'oneSize':
      return clears ? 'one size for life.' : `one size for life; hold it high, ${depth}.`
    case 'largerClears':
      return `still the larger: ${depth}.`
    case 'largerBites':
      return otherUm === null
        ? 'the smaller by now.'
        : `the smaller by now: ${writeMm(otherUm, 1)} would bite the tie strap, ${below}.`
  }
}
