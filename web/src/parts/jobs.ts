import type { Action } from '@undercliff/core'

/** Names of the screens at which something is done to one loop. */
export type LoopScreen =
  | 'decide'
  | 'signs'
  | 'measure'
  | 'sharpen'
  | 'sharpened'
  | 'ran'
  | 'struck'
  | 'inspected'
  | 'gaugesLowered'
  | 'retire'

/** Where each job is done, and what the button that starts it says. */
export interface Job {
  /** The screen at which it is done; null where something else than a screen begins it. */
  readonly to: LoopScreen | null
  readonly start: string
}

export const JOBS: Readonly<Record<Action, Job>> = {
  retire: { to: 'retire', start: 'Retire it' },
  stop: { to: 'inspected', start: 'Log what was found' },
  inspect: { to: 'inspected', start: 'Inspect it' },
  measure: { to: 'measure', start: 'Measure it' },
  shop: { to: null, start: 'Send it out' },
  regrind: { to: 'sharpen', start: 'Start the regrind' },
  file: { to: 'sharpen', start: 'Start filing' },
  lowerGauges: { to: 'gaugesLowered', start: 'Start on the gauges' },
  touchUp: { to: 'sharpened', start: 'Start the touch-up' },
  dirtyDuty: { to: null, start: 'Keep it for dirty work' },
  runOn: { to: 'ran', start: 'Log tanks run' },
}
