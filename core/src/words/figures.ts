import { writeLength, writeMoney, type LengthPreference } from '../units'
import type { Quantity } from '../verdict'
import { plural } from './text'

/** How a crew reads figures. */
export interface Figures {
  readonly lengths: LengthPreference
  /** ISO 4217 code. */
  readonly currency: string
}

/**
 * A figure with its unit, as the crew reads it.
 *
 * @example
 * sayQuantity({ unit: 'tanks', amount: 2 }, { lengths: 'mm', currency: 'EUR' }) // '2 tanks'
 */
export function sayQuantity({ unit, amount }: Quantity, { lengths, currency }: Figures): string {
  switch (unit) {
    case 'um':
      return writeLength(amount, lengths)
    case 'tanks':
      return plural(amount, 'tank')
    case 'cutters':
      return plural(amount, 'cutter')
    case 'strikes':
      return plural(amount, 'strike')
    case 'minorPerHour':
      return writeMoney(amount, currency)
  }
}
