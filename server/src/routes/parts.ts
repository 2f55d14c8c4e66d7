import type { Database } from '../database/connect'
import type { Tries } from '../store/tries'

/** What routes are built from. */
export interface RouteParts {
  readonly db: Database
  readonly clock: () => Date
  readonly tries: Tries
}
