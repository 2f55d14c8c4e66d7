import { loopPriceMinor, type HouseRules } from '../house'
import type { LoopState } from '../state'
import type { Um } from '../units'
import { LOOK_MINUTES } from './decide'
import type { Option, Reason, Verdict } from './verdict'

/** One way to get a loop that must not cut back to work, or to do without it. */
export interface WayOut {
  readonly way: 'inspect' | 'measure' | 'otherSide' | 'cutBack' | 'shop' | 'replace'
  /** Minutes of work; null where somebody else does it. */
  readonly minutes: number | null
  /** Work, metal and what is paid, in whole minor units. */
  readonly costMinor: number
  /** Days that it is away. */
  readonly daysAway: number
  /** What comes off every cutter, where that is the way. */
  readonly takesUm: Um | null
}

type Prices = Pick<
  HouseRules,
  'labourPerHourMinor' | 'linkPriceMinor' | 'shopFeeMinor' | 'shopUsed' | 'shopDays' | 'grinderOwned' | 'reserveUm'
>

/** Rules that a closer look may take back: judged by eye, or not looked at at all. */
const BY_EYE: ReadonlySet<string> = new Set(['gaugeLow'])

const labour = (minutes: number, { labourPerHourMinor }: Prices): number =>
  Math.round((minutes / 60) * labourPerHourMinor)

/** Cutters go back until their gauges stand right again: no gauge can be put back, but a cutter can follow it. */
function cutBack(reasons: readonly Reason[], options: readonly Option[], state: LoopState, rules: Prices): WayOut[] {
  const takesUm = reasons.find(({ rule, takes }) => rule === 'gaugesTooLow' && takes !== undefined)?.takes?.amount
  const tool = options.find(({ action }) => action === (rules.grinderOwned ? 'regrind' : 'file'))
  if (takesUm === undefined || tool === undefined) return []
  const { spec, cutters } = state
  const shortestUm = Math.min(...cutters.map(({ length }) => length.um))
  if (takesUm > shortestUm - spec.markLengthUm - rules.reserveUm) return []
  const usableUm = Math.max(1, spec.newLengthUm - spec.markLengthUm)
  const metal = Math.round((takesUm / usableUm) * loopPriceMinor(spec, rules))
  const minutes = tool.minutes.likely
  return [{ way: 'cutBack', minutes, costMinor: labour(minutes, rules) + metal, daysAway: 0, takesUm }]
}

/** The side that waits is done as the first one was: about half of the work, and its metal is gone either way. */
function otherSide(reasons: readonly Reason[], options: readonly Option[], rules: Prices): WayOut[] {
  const waits = reasons.some(({ rule }) => rule === 'sideWaits' || rule === 'begunNotEnded')
  const tool = options.find(({ action }) => action === 'file')
  if (!waits || tool === undefined) return []
  const minutes = tool.minutes.likely / 2
  return [{ way: 'otherSide', minutes, costMinor: labour(minutes, rules), daysAway: 0, takesUm: null }]
}

/**
 * How a loop that must not cut as it is comes back to work, the cheapest way first; empty for one that may cut. The
 * way out of what is judged by eye begins with a look, and a new loop ends every list. What can be put right at all is
 * for a trained person to say.
 */
export function waysOut(state: LoopState, rules: Prices, verdict: Verdict): WayOut[] {
  if (verdict.fitForUse || state.retired !== null) return []
  const { action, minutes, reasons, options } = verdict
  const replace: WayOut = {
    way: 'replace',
    minutes: null,
    costMinor: loopPriceMinor(state.spec, rules),
    daysAway: 0,
    takesUm: null,
  }
  if (action === 'retire') return [replace]
  const look = (way: 'inspect' | 'measure', likely: number): WayOut => ({
    way,
    minutes: likely,
    costMinor: labour(likely, rules),
    daysAway: 0,
    takesUm: null,
  })
  if (action === 'inspect' || action === 'measure') return [look(action, minutes.likely), replace]
  const shop: WayOut[] = rules.shopUsed
    ? [{ way: 'shop', minutes: null, costMinor: rules.shopFeeMinor, daysAway: rules.shopDays, takesUm: null }]
    : []
  const byEye = reasons.some(
    ({ damage, known }) => known === 'estimated' || (damage !== undefined && BY_EYE.has(damage)),
  )
  const ways = [
    ...otherSide(reasons, options, rules),
    ...cutBack(reasons, options, state, rules),
    ...shop,
    replace,
  ].sort((a, b) => a.costMinor - b.costMinor)
  return byEye ? [look('measure', LOOK_MINUTES.measure.likely), ...ways] : ways
}
