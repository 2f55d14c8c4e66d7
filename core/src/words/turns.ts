import type { Action } from '../log'
import { writeMoney } from '../units'
import type { Turn } from '../verdict'
import { ACTION_WORDS, actionInWords } from './actions'
import type { Figures } from './figures'
import { plural } from './text'

/**
 * What would change a verdict, in one sentence.
 *
 * @example
 * sayTurn({ by: 'loopPrice', from: 'below', atMinor: 900, turnsTo: 'retire' }, 'regrind', { currency: 'EUR' })
 * // 'Regrind as long as a new loop costs more than €9.00; then: retire.'
 */
export function sayTurn(turn: Turn, now: Action, { currency }: Pick<Figures, 'currency'>): string {
  switch (turn.by) {
    case 'loopPrice':
    case 'labour': {
      const what = turn.by === 'labour' ? 'an hour of work' : 'a new loop'
      const bound = `${turn.from === 'below' ? 'more' : 'less'} than ${writeMoney(turn.atMinor, currency)}`
      return `${ACTION_WORDS[now]} as long as ${what} costs ${bound}; then: ${actionInWords(turn.turnsTo)}.`
    }
    case 'measuring': {
      const cutters = `${plural(turn.cutters, 'cutter')} ${turn.cutters === 1 ? 'is' : 'are'} estimated`
      return `${cutters}. Measured, it may turn to: ${turn.turnsTo.map(actionInWords).join(', or ')}.`
    }
    case 'sides': {
      const { left, right } = turn.readings
      const sides = [left > 0 ? `${left} more left-hand` : '', right > 0 ? `${right} more right-hand` : '']
      const cutters = (right > 0 ? right : left) === 1 ? 'cutter' : 'cutters'
      const read = `Measure ${sides.filter((side) => side !== '').join(' and ')} ${cutters}`
      return `${read}: if the sides differ, it may turn to: ${turn.turnsTo.map(actionInWords).join(', or ')}.`
    }
    case 'reading': {
      const chance = Math.max(1, Math.round(turn.chance * 100))
      const saves = turn.savesMinor > 0 ? `, and save ${writeMoney(turn.savesMinor, currency)} a sharp hour` : ''
      const may = `in ${chance} of 100 cases it would turn to: ${turn.turnsTo.map(actionInWords).join(', or ')}${saves}`
      return `The reading worth most is cutter ${turn.cutter}, ${turn.hand}: ${may}.`
    }
  }
}
