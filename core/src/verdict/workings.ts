import type { LoopState } from '../fold'
import type { Cuts } from './cuts'
import type { Learned } from './learned'
import type { Found } from './needs'

/**
 * What was worked out of a state once, to be found again: a decision in full asks for it under
 * every school. A state never changes, so nothing here grows stale.
 */
export interface Workings {
  learned?: Learned
  cuts?: Cuts
  /** By the rules that what is found rests on. */
  readonly found: Map<string, Found>
}

const workings = new WeakMap<LoopState, Workings>()

/** The workings of a state; empty when nothing was asked of it yet. */
export function workingsOf(state: LoopState): Workings {
  let kept = workings.get(state)
  if (kept === undefined) {
    kept = { found: new Map() }
    workings.set(state, kept)
  }
  return kept
}
