import type { WheelProblem } from '../kit'

/** What speaks against a wheel on a grinder. */
export const WHEEL_PROBLEM_WORDS: Readonly<Record<WheelProblem, string>> = {
  tooSlow:
    'The speed marked on this wheel is below the spindle’s: it may burst. It is not mounted; nobody overrules that.',
  speedUnknown: 'Nobody has written down what is marked on the wheel, or how fast the spindle turns. Read both before.',
  glazed: 'The wheel is glazed: dress it first, or it burns the cutters.',
  width: 'The wheel is of another width than this pitch takes.',
}
