import type { Action } from '../log'
import type { Risk } from '../verdict'
import { lower } from './text'

/** What a person does, in the words of the trade. */
export const ACTION_WORDS: Record<Action, string> = {
  retire: 'Retire',
  stop: 'Do not use',
  inspect: 'Inspect',
  measure: 'Measure',
  shop: 'Send to a shop',
  regrind: 'Regrind',
  file: 'File at bench',
  lowerGauges: 'Lower gauges',
  touchUp: 'Touch up',
  dirtyDuty: 'Dirty duty',
  runOn: 'Run on',
}

/** What a person does, in the middle of a sentence. `actionInWords('touchUp') // 'touch up'` */
export const actionInWords = (action: Action): string => lower(ACTION_WORDS[action])

/** What an option leaves to be borne, in one sentence. */
export const RISK_WORDS: Record<Risk, string> = {
  cuttersLeftDull: 'Some cutters stay damaged until the next sharpenings have caught up.',
  unevenUntilGround: 'Cutters differ until it is next ground.',
  heat: 'Deep work under the wheel: touch, lift, touch. A cutter that turns blue has lost its temper.',
  away: 'It is away meanwhile.',
  strays: 'Long filing strays: measure as you go.',
}
