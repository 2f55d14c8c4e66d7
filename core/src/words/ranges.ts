import type { MinutesRange } from '../sharpen'
import type { CountRange } from '../wear'
import { capital } from './text'

/**
 * Minutes, or hours where they are many; empty for none.
 *
 * @example
 * briefMinutes({ low: 4, likely: 6, high: 9 }) // '6 min'
 */
export function briefMinutes({ likely }: MinutesRange): string {
  if (likely <= 0) return ''
  return likely >= 90 ? `${(likely / 60).toFixed(1)} h` : `${Math.max(1, Math.round(likely))} min`
}

/** `sayMinutes({ low: 4, likely: 6, high: 9 }) // 'about 6 min'` */
export const sayMinutes = (minutes: MinutesRange): string => {
  const brief = briefMinutes(minutes)
  return brief === '' ? '' : `about ${brief}`
}

/** `sayRange({ low: 8, likely: 11, high: 15 }) // 'about 11 (8 to 15)'` */
export const sayRange = ({ low, likely, high }: CountRange): string =>
  low === high ? String(likely) : `about ${likely} (${low} to ${high})`

/** `beginWithRange({ low: 8, likely: 11, high: 15 }) // 'About 11 (8 to 15)'` */
export const beginWithRange = (range: CountRange): string => capital(sayRange(range))
