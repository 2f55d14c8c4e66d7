import { layoutLoop, loopLength } from '../loop'
import { pitchUmOf, type LoopSpec } from '../profile'

/** How long a bar touches a stone before it is pulled away. Starting value. */
export const TOUCH_MS = 20

/** Turns of a drive sprocket and its teeth at full throttle. Starting values; a saw's manual wins. */
export const FULL_THROTTLE = { perMinute: 12_000, teeth: 7 } as const

/**
 * Chain speed: each tooth of the sprocket moves one drive link on, and a drive link is two pitches.
 *
 * @param perMinute turns of the sprocket
 * @returns metres a second
 * @example
 * chainSpeed(9525, 12_000, 7) // 26.7
 */
export const chainSpeed = (pitchUm: number, perMinute: number, teeth: number): number =>
  (perMinute / 60) * teeth * 2 * (pitchUm / 1e6)

/** What a touch of a stone or nail meets. */
export interface Exposure {
  /** Length of chain that goes by, at most the whole loop, in micrometres. */
  readonly passedUm: number
  /** Cutters in a row that may have met it. */
  readonly cutters: number
  /** Every cutter went by at least once. */
  readonly wholeLoop: boolean
}

/**
 * How many cutters a touch meets: speed × time along the loop, and one more for the end it began on.
 *
 * @param metresPerSecond chain speed
 * @param touchMs length of the touch in milliseconds
 * @throws RangeError when speed or time is below nothing
 * @example
 * strikeExposure(spec38, 26.7, 20) // { passedUm: 534_000, cutters: 15, wholeLoop: false }: 0.53 of 1.37 m
 */
export function strikeExposure(spec: LoopSpec, metresPerSecond: number, touchMs: number): Exposure {
  if (!(metresPerSecond >= 0) || !(touchMs >= 0)) throw new RangeError('speed and time must not be below nothing')
  const pitchUm = pitchUmOf(spec)
  const lengthUm = loopLength(pitchUm, spec.driveLinks)
  const count = layoutLoop({ ...spec, pitchUm }).cutters.length
  const passedUm = Math.min(lengthUm, Math.round(metresPerSecond * touchMs * 1000))
  // The end that it began on may lie just behind a cutter: so many whole gaps go by, and one more begins.
  const cutters = Math.min(count, Math.floor((passedUm / lengthUm) * count) + 1)
  return { passedUm, cutters, wholeLoop: passedUm >= lengthUm }
}
