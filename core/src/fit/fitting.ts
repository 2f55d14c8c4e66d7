import type { HouseRules } from '../house'
import type { SawFit } from '../saw'
import type { LoopState } from '../state'
import { decide } from '../verdict'
import { fitCheck, type FitCheck, type SawWear } from './fit'

/** A saw as it stands: what its bar and sprocket take, and how worn they are. */
export interface FittedSaw extends SawFit, SawWear {}

/** Why a loop may not go on a saw: it must not at all, or nobody has said why it goes all the same. */
export interface FittingRefusal {
  readonly why: 'mustNot' | 'overruleNeeded'
  readonly check: FitCheck
}

/**
 * Whether a loop may go on a saw under a crew's rules; the same check for a fitting, for an import
 * and for a correction that would put it back.
 *
 * @param overruled whether somebody said why it goes on although it does not fit in every part
 * @returns null when it may
 */
export function fittingRefusal(
  state: LoopState,
  saw: FittedSaw,
  rules: HouseRules,
  overruled: boolean,
): FittingRefusal | null {
  const check = fitCheck(state.spec, saw, saw, decide(state, rules).fitForUse)
  if (check.level === 'mustNot') return { why: 'mustNot', check }
  return check.level === 'but' && !overruled ? { why: 'overruleNeeded', check } : null
}
