import type { Database } from '../database/connect'
import type { Tries } from '../store/tries'
import type { ReachAnswer } from '@undercliff/contract'
import type { Workers } from '../work/workers'

/** What routes are built from. */
export interface RouteParts {
  /** For reading, and for writes that wait for nobody. */
  readonly db: Database
  /** For transactions that lock a crew. */
  readonly writes: Database
  readonly workers: Workers
  readonly clock: () => Date
  /** A clock that no setting of the machine's moves, in ms. */
  readonly steadyMs: () => number
  readonly tries: Tries
  /** How phones get to it. */
  readonly reach: ReachAnswer
}
