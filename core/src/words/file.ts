import type { FileChoice } from '../geometry'
import { writeMm } from '../units'

/**
 * Why a file is the one for a loop's present wear, in one sentence. Cutter heights are worked out,
 * not measured, and the sentence says so.
 */
export function sayFile({ reason, bottomUm, heightUm, otherUm, clears }: FileChoice): string {
  const height = `about ${writeMm(heightUm, 1)} above the tie strap by now`
  const depth = `its bottom lies ${writeMm(bottomUm, 1)} below the top plate, ${height}`
  const below = `about ${writeMm(heightUm, 1)} below the top plate`
  switch (reason) {
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
