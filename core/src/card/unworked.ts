import type { NewEntry } from '../log'
import { otherHand } from '../loop'
import type { LoopCard } from './card'
import type { Reason } from '../verdict'

/** A loop does not cut until somebody has seen to it. */
const kept = (card: LoopCard, action: 'inspect' | 'stop', reason: Reason): LoopCard => ({
  ...card,
  action,
  also: [],
  fitForUse: false,
  reason,
  runnerUp: null,
  settled: false,
})

const NOTHING_FOUND = (entry: Extract<NewEntry, { kind: 'inspected' }>): boolean =>
  entry.parts.length === 0 &&
  entry.readings.every(({ damage = [] }) => damage.every(({ kind }) => kind === 'dirtDulled'))

/** What one entry changes of a card where nothing can be worked out: where the loop is, and what keeps it off. */
function after(card: LoopCard, entry: NewEntry): LoopCard {
  switch (entry.kind) {
    case 'fitted':
      return { ...card, sawId: entry.sawId, place: { at: 'saw', sawId: entry.sawId } }
    case 'takenOff':
      return { ...card, sawId: null, place: { at: entry.to ?? 'bench' } }
    case 'moved':
      return { ...card, sawId: null, place: { at: entry.to } }
    case 'struck': {
      const value = { unit: 'strikes', amount: 1 } as const
      return kept(card, 'inspect', { rule: 'struckUnseen', value, limitFrom: 'trade' })
    }
    case 'begun':
      return kept(card, 'stop', { rule: 'begunNotEnded', hand: otherHand(entry.side), limitFrom: 'trade' })
    case 'sharpened':
      return entry.onlySide === undefined
        ? card
        : kept(card, 'stop', { rule: 'sideWaits', hand: otherHand(entry.onlySide), limitFrom: 'trade' })
    case 'gaugesLowered':
      return entry.gaugesByEye === true
        ? kept(card, 'stop', { rule: 'signsOfLowGauges', cause: 'gaugesLow', known: 'estimated' })
        : card
    default:
      return card
  }
}

/**
 * The card of a loop where its log cannot be worked out on this device: the rules that keep people safe are applied to
 * it without that. What was struck is looked over before it cuts; what was begun on one side waits for the other. What
 * would let it cut again is left to whoever can work it out, but for a look that found nothing.
 *
 * @param card as it was last told
 * @param waiting what was logged of it since, in its order
 */
export function cardWithoutWork(card: LoopCard, waiting: readonly NewEntry[]): LoopCard {
  const looked = waiting.findLastIndex((entry) => entry.kind === 'inspected' && NOTHING_FOUND(entry))
  return waiting.reduce((is, entry, i) => {
    const struck = entry.kind === 'struck' && i < looked
    return struck ? is : after(is, entry)
  }, card)
}
