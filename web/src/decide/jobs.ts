import type { Action } from '@undercliff/core'

/** Where each job is done, and what the button that starts it says. */
export interface Job {
  /** Path below the loop; null where something else than a page begins it. */
  readonly to: string | null
  readonly start: string
}

export const JOBS: Readonly<Record<Action, Job>> = {
  retire: { to: 'note/retired', start: 'Retire it' },
  stop: { to: 'note/inspected', start: 'Log what was found' },
  inspect: { to: 'note/inspected', start: 'Inspect it' },
  measure: { to: 'measure', start: 'Measure it' },
  shop: { to: null, start: 'Send it out' },
  regrind: { to: 'sharpened', start: 'Start the regrind' },
  file: { to: 'sharpened', start: 'Start filing' },
  lowerGauges: { to: 'note/gaugesLowered', start: 'Start on the gauges' },
  touchUp: { to: 'sharpened', start: 'Start the touch-up' },
  dirtyDuty: { to: null, start: 'Keep it for dirty work' },
  runOn: { to: 'note/ran', start: 'Log tanks run' },
}
