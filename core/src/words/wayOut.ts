import { writeLength, writeMoney } from '../units'
import type { Verdict, WayOut } from '../verdict'
import type { Figures } from './figures'
import { briefMinutes, sayRange } from './ranges'
import { plural } from './text'

/**
 * One way to get a loop back to work, with its minutes and money.
 *
 * @example
 * sayWayOut({ way: 'shop', minutes: null, costMinor: 1600, daysAway: 4, takesUm: null }, figures)
 * // 'a shop, where it can be put right: 4 days, €16.00'
 */
export function sayWayOut({ way, minutes, costMinor, daysAway, takesUm }: WayOut, figures: Figures): string {
  const time = minutes === null ? '' : briefMinutes({ low: minutes, likely: minutes, high: minutes })
  const cost = [time, daysAway > 0 ? plural(daysAway, 'day') : '', writeMoney(costMinor, figures.currency)]
  const figuresOf = cost.filter(Boolean).join(', ')
  switch (way) {
    case 'inspect':
      return `look it over: ${figuresOf}`
    case 'measure':
      return `measure what was judged by eye: ${figuresOf}`
    case 'otherSide':
      return `the side that waits, and it is fit again: ${figuresOf}`
    case 'cutBack':
      return `every cutter back by ${writeLength(takesUm ?? 0, figures.lengths)}, gauges right then: ${figuresOf}`
    case 'shop':
      return `a shop, where it can be put right: ${figuresOf}`
    case 'replace':
      return `a new loop: ${figuresOf}`
  }
}

/**
 * What comes after the job that a verdict calls for; empty where the verdict has said it itself.
 *
 * @example
 * sayWhatFollows({ action: 'touchUp', sharpeningsLeft: { low: 4, likely: 6, high: 9 }, … })
 * // 'Then it runs on; about 6 (4 to 9) sharpenings are left.'
 */
export function sayWhatFollows({ action, fitForUse, sharpeningsLeft }: Verdict): string {
  switch (action) {
    case 'runOn':
    case 'stop':
      return ''
    case 'retire':
      return 'Nothing follows: another loop takes its place.'
    case 'inspect':
    case 'measure':
      return fitForUse ? 'What is found then decides.' : 'What is found then decides; until then it stays off the saws.'
    case 'dirtyDuty':
      return `It goes on with stumps and dirty wood; ${sayRange(sharpeningsLeft)} sharpenings are left.`
    case 'shop':
    case 'regrind':
    case 'file':
    case 'lowerGauges':
    case 'touchUp':
      return `Then it runs on; ${sayRange(sharpeningsLeft)} sharpenings are left.`
  }
}
