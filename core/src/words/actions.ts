import type { Action } from '../log'
import { writeMoney } from '../units'
import type { Option, Risk } from '../verdict'
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

/**
 * How a filing is spread over this sharpening and the next ones; empty where it is done in one go.
 *
 * @example
 * const stages = { sharpenings: 3, lostHours: 0.5, lostMinor: 210 }
 * sayStages({ way: 'sameStrokes', stages }, 'EUR')
 * // 'The same strokes for all: sound and even after about 3 sharpenings; meanwhile …'
 */
export function sayStages({ way, stages }: Pick<Option, 'way' | 'stages'>, currency: string): string {
  if (stages === null) return ''
  const how = way === 'sameStrokes' ? 'The same strokes for all' : 'Longer cutters get two strokes more each time'
  const { sharpenings, lostHours, lostMinor } = stages
  const when =
    sharpenings === null
      ? 'some stay blunt, or longer, for as long as anybody plans'
      : `sound and even after about ${sharpenings} sharpenings`
  const cost =
    lostHours < 0.05
      ? ''
      : `; meanwhile blunt cutters cost about ${lostHours.toFixed(1)} sharp hours, ${writeMoney(lostMinor, currency)}`
  return `${how}: ${when}${cost}.`
}

/** What an option leaves to be borne, in one sentence. */
export const RISK_WORDS: Record<Risk, string> = {
  cuttersLeftDull: 'Some cutters stay damaged until the next sharpenings have caught up.',
  unevenUntilGround: 'Cutters differ until it is next ground.',
  heat: 'Deep work under the wheel: touch, lift, touch. A cutter that turns blue has lost its temper.',
  away: 'It is away meanwhile.',
  strays: 'Long filing strays: measure as you go.',
}
