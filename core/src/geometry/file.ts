import { BENCH_FIGURES, PITCH_PROFILES, originOf, type LoopSpec } from '../profile'
import type { Um } from '../units'
import { edgeDrop } from './cutter'

/** Which round file a crew takes to a pitch that has two. */
export const FILE_SCHOOLS = ['oneSize', 'largerThenSmaller'] as const
export type FileSchool = (typeof FILE_SCHOOLS)[number]

/**
 * How far the bottom of a round file lies below the top plate: d(1 − p).
 *
 * @param fileUm diameter
 * @param partAbove part of the diameter above the top plate, 0 to 1
 * @throws RangeError outside 0 to 1
 * @example
 * fileBottom(5200, 0.25) // 3900
 */
export function fileBottom(fileUm: Um, partAbove: number): Um {
  if (!(partAbove >= 0 && partAbove <= 1)) throw new RangeError('part above the plate must be from 0 to 1')
  return Math.round(fileUm * (1 - partAbove))
}

/**
 * Top plate above the tie strap at a cutter length: it sinks as the cutter is filed back.
 *
 * @example
 * topPlateHeight(spec38, spec38.newLengthUm) // 4891
 */
export function topPlateHeight(spec: LoopSpec, lengthUm: Um): Um {
  const { topPlateHeightUm, topPlateSlopeDeg } = PITCH_PROFILES[spec.pitchClass]
  return topPlateHeightUm.value - edgeDrop(Math.max(0, spec.newLengthUm - lengthUm), topPlateSlopeDeg.value)
}

/** What the guide of a file rests on. */
export type Guide = 'topPlate' | 'chassis'

/**
 * Part of a file above the top plate on a worn cutter when the guide was set on a new one. A guide
 * on the top plate sinks with it and keeps the part; one on the chassis keeps the file where it is,
 * so more of it comes to stand above the plate.
 *
 * @param partNew part above the plate when new, 0 to 1
 * @returns part above the plate now, at most 1
 * @example
 * partAboveWorn(spec38, 4000, 5200, 0.2, 'chassis') // 0.294: 0.49 mm of 5.2 more
 */
export function partAboveWorn(spec: LoopSpec, lengthUm: Um, fileUm: Um, partNew: number, guide: Guide): number {
  if (guide === 'topPlate') return partNew
  const sunkUm = topPlateHeight(spec, spec.newLengthUm) - topPlateHeight(spec, lengthUm)
  return Math.min(1, partNew + sunkUm / fileUm)
}

/** How a round file suits a pitch, and a loop of it that is worn. */
export type FileFit = 'fits' | 'tooSmall' | 'tooLarge' | 'tooLargeByNow'

/** A file further than this from every size in use for a pitch is another pitch's. Starting value. */
const FILE_NEAR_UM: Um = 250

/**
 * Whether a round file suits the pitch of a loop: of a size in use for it, or near one. A smaller one hooks the
 * edge and digs the gullet, a larger one leaves it blunt and bites the strap.
 *
 * @example
 * fileFit({ pitchClass: 'threeEighths' }, 4000) // 'tooSmall'
 */
export function fileFit({ pitchClass }: Pick<LoopSpec, 'pitchClass'>, fileUm: Um): FileFit {
  const sizes = PITCH_PROFILES[pitchClass].filesUm.value
  if (fileUm < Math.min(...sizes) - FILE_NEAR_UM) return 'tooSmall'
  return fileUm > Math.max(...sizes) + FILE_NEAR_UM ? 'tooLarge' : 'fits'
}

/**
 * Whether a round file suits a loop at its present wear. The larger of two that suit the pitch bites the tie
 * strap once the top plate has sunk.
 *
 * @param lengthUm the shortest cutter now
 * @example
 * fileFitNow(spec38, 5500, 3000) // 'tooLargeByNow': the 5.2 mm is the one by then
 */
export function fileFitNow(spec: LoopSpec, fileUm: Um, lengthUm: Um): FileFit {
  const fit = fileFit(spec, fileUm)
  if (fit !== 'fits' || fileUm <= Math.min(...PITCH_PROFILES[spec.pitchClass].filesUm.value)) return fit
  const [least] = BENCH_FIGURES.filePartAbove.value
  return fileBottom(fileUm, least) > topPlateHeight(spec, lengthUm) ? 'tooLargeByNow' : 'fits'
}

/** Why a file is the one to take. */
export type FileReason =
  /** Square-ground chisel: a bevelled file or a shaped wheel, never a round file. */
  | 'squareGround'
  /** Set on this loop by the box, a measurement or the crew. */
  | 'setOnLoop'
  /** The pitch has one size, or the house keeps one for life. */
  | 'oneSize'
  /** The larger file still clears the tie strap. */
  | 'largerClears'
  /** The larger file would bite the tie strap by now. */
  | 'largerBites'

/** The file for a loop at its present wear, and why. */
export interface FileChoice {
  readonly fileUm: Um
  readonly reason: FileReason
  /** How far the bottom of that file lies below the top plate, with a fifth of it above. */
  readonly bottomUm: Um
  /** Top plate above the tie strap now. An estimate: cutter heights are not measured. */
  readonly heightUm: Um
  /** Whether that file's bottom clears the strap with a fifth of it above the plate. */
  readonly clears: boolean
  /** The other size, when there is one. */
  readonly otherUm: Um | null
  /** Whether it suits the pitch, and this wear. */
  readonly fit: FileFit
}

/**
 * The file for a loop at its present wear. Under *larger then smaller* the larger file is taken as
 * long as its bottom, with a fifth of the file above the top plate, clears the tie strap.
 *
 * @param lengthUm the shortest cutter now
 * @example
 * fileFor(spec38, 8000, 'largerThenSmaller').fileUm // 5500 new, 5200 below half
 */
export function fileFor(spec: LoopSpec, lengthUm: Um, school: FileSchool): FileChoice {
  const [least] = BENCH_FIGURES.filePartAbove.value
  const heightUm = topPlateHeight(spec, lengthUm)
  const choice = (fileUm: Um, reason: FileReason, otherUm: Um | null): FileChoice => {
    const bottomUm = fileBottom(fileUm, least)
    return {
      fileUm,
      reason,
      bottomUm,
      heightUm,
      clears: bottomUm <= heightUm,
      otherUm,
      fit: fileFitNow(spec, fileUm, lengthUm),
    }
  }
  if (spec.cutterType === 'squareGround') return choice(spec.fileUm, 'squareGround', null)
  const own = originOf(spec, 'fileUm')
  const sizes = [...PITCH_PROFILES[spec.pitchClass].filesUm.value].sort((a, b) => a - b)
  const smaller = sizes[0] ?? spec.fileUm
  const larger = sizes.at(-1) ?? spec.fileUm
  if (own === 'box' || own === 'measured' || own === 'crew') return choice(spec.fileUm, 'setOnLoop', null)
  if (school === 'oneSize' || smaller === larger) return choice(spec.fileUm, 'oneSize', null)
  return fileBottom(larger, least) <= heightUm
    ? choice(larger, 'largerClears', smaller)
    : choice(smaller, 'largerBites', larger)
}

/**
 * How a file that somebody named for a loop does not suit its pitch, or its wear by now; null where it does, or where
 * nobody named one.
 *
 * @param lengthUm the shortest cutter now
 */
export function namedFileMisfit(spec: LoopSpec, lengthUm: Um): Exclude<FileFit, 'fits'> | null {
  const { fit, reason } = fileFor(spec, lengthUm, 'oneSize')
  return reason !== 'setOnLoop' || fit === 'fits' ? null : fit
}
