import type { KitItemOf } from './kitItem'

/** What keeps a wheel from being mounted, or has to be done before. */
export type WheelProblem =
  /** The greatest speed marked on it is below the spindle's: it may burst. Nobody overrules that. */
  | 'tooSlow'
  /** Nobody has said what is marked on it, or how fast the spindle turns. */
  | 'speedUnknown'
  /** Its grains are closed: it burns cutters until it is dressed. */
  | 'glazed'
  /** Wider or narrower than the pitch takes. */
  | 'width'

/** Wheels differ from what a pitch takes by no more than this. Starting value. */
const WIDTH_SLACK_UM = 400

/**
 * What speaks against a wheel on a grinder.
 *
 * @param widthUm what the chain takes, from and to; null where that does not matter
 * @returns the gravest first
 */
export function wheelProblems(
  { markedRpm, glazed = false, widthUm: ownUm }: KitItemOf<'wheel'>,
  { spindleRpm }: KitItemOf<'grinder'>,
  widthUm: readonly [number, number] | null = null,
): WheelProblem[] {
  const speeds: WheelProblem[] =
    markedRpm === undefined || spindleRpm === undefined ? ['speedUnknown'] : markedRpm < spindleRpm ? ['tooSlow'] : []
  const fits = widthUm === null || (ownUm >= widthUm[0] - WIDTH_SLACK_UM && ownUm <= widthUm[1] + WIDTH_SLACK_UM)
  return [...speeds, ...(glazed ? (['glazed'] as const) : []), ...(fits ? [] : (['width'] as const))]
}

/** Whether a wheel may be mounted on a grinder at all. A speed that nobody has read is read before. */
export const mayMount = (wheel: KitItemOf<'wheel'>, grinder: KitItemOf<'grinder'>): boolean =>
  !wheelProblems(wheel, grinder).some((problem) => problem === 'tooSlow' || problem === 'speedUnknown')
