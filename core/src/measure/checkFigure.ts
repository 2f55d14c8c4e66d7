import { GAUGES_UM, type LoopSpec } from '../profile'
import { otherUnit, slippedDecimals, writeLength, type LengthPreference, type LengthUnit, type Um } from '../units'

/** No depth gauge has a larger setting than this. Starting value. */
export const MOST_SETTING_UM: Um = 4000

/** Within what a figure can be true, and near what it is to be expected. */
export interface FigureBounds {
  /** Nothing less and nothing more can be. */
  readonly leastUm: Um
  readonly mostUm: Um
  /** What it usually is. */
  readonly expectedUm: Um
  /** A figure so many times more or less than that is asked about. */
  readonly factor: number
  /** Nothing at all is as good an answer as any. */
  readonly mayBeNothing?: boolean
}

/** Whether a figure can be true, and is likely to be. */
export type FigureCheck =
  | { readonly ok: true }
  | {
      readonly ok: false
      /** `refuse`: cannot be true. `ask`: may be, but is more likely a slip. */
      readonly weight: 'refuse' | 'ask'
      /** What was probably meant; null when nothing fits better. */
      readonly meantUm: Um | null
    }

/**
 * Whether a figure can be true, and what was probably meant where it hardly can: a decimal mark one or two places
 * off, or the other unit.
 *
 * @param unit what it was typed in
 * @example
 * checkFigure(6500, 'mm', settingBounds(spec38)) // { ok: false, weight: 'refuse', meantUm: 650 }
 */
export function checkFigure(um: Um, unit: LengthUnit, bounds: FigureBounds): FigureCheck {
  const { leastUm, mostUm, expectedUm, factor } = bounds
  const can = (one: Um): boolean => one >= leastUm && one <= mostUm
  const off = (one: Um): number => Math.abs(Math.log(Math.max(one, 1) / expectedUm))
  const likely = (one: Um): boolean => can(one) && off(one) <= Math.log(factor)
  if (likely(um) || (um === 0 && bounds.mayBeNothing === true)) return { ok: true }
  const [down, up] = slippedDecimals(um)
  const meant = [down, up, otherUnit(um, unit), Math.round(um / 100), um * 100]
    .filter(likely)
    .sort((a, b) => off(a) - off(b))
  return { ok: false, weight: can(um) ? 'ask' : 'refuse', meantUm: meant[0] ?? null }
}

/** Of a depth-gauge setting. The factor is a starting value. */
export const settingBounds = ({ settingUm }: Pick<LoopSpec, 'settingUm'>): FigureBounds => ({
  leastUm: 0,
  mostUm: MOST_SETTING_UM,
  expectedUm: settingUm,
  factor: 2.2,
})

/** Of how deep damage reaches. Starting values. */
export const depthBounds = ({ newLengthUm }: Pick<LoopSpec, 'newLengthUm'>): FigureBounds => ({
  leastUm: 0,
  mostUm: newLengthUm,
  expectedUm: 500,
  factor: 8,
})

/** Of a groove's width, by the drive links that it takes; null where nobody knows those. Starting values. */
export const grooveBounds = (gaugeUm: Um | null): FigureBounds => {
  const [thin, thick] = [GAUGES_UM[0] ?? 1100, GAUGES_UM.at(-1) ?? 2000]
  return {
    leastUm: (gaugeUm ?? thin) - 100,
    mostUm: (gaugeUm ?? thick) + 2000,
    expectedUm: gaugeUm ?? Math.round((thin + thick) / 2),
    factor: gaugeUm === null ? 2 : 1.4,
  }
}

/** Of a groove's depth. Starting values. */
export const GROOVE_DEPTH_BOUNDS: FigureBounds = { leastUm: 500, mostUm: 20_000, expectedUm: 6000, factor: 2.5 }

/** Of what a reading shows at the mark: nothing, where a crew measures to it. Starting values. */
export const markBounds = (expectedUm: Um, newLengthUm: Um): FigureBounds => ({
  leastUm: 0,
  mostUm: newLengthUm,
  expectedUm: Math.max(expectedUm, 500),
  factor: 3,
  mayBeNothing: true,
})

/** Of a length that a profile or the box gives: new, at the mark, or a file. The factor is a starting value. */
export const specLengthBounds = (expectedUm: Um): FigureBounds => ({
  leastUm: Math.round(expectedUm / 5),
  mostUm: expectedUm * 3,
  expectedUm,
  factor: 1.6,
})

/**
 * What is odd about a figure, and what was probably meant.
 *
 * @example
 * sayFigureCheck(4100, { ok: false, weight: 'ask', meantUm: 410 }, 'mm') // '4.10 mm is hardly right. Was it 0.41 mm?'
 */
export function sayFigureCheck(um: Um, check: FigureCheck & { readonly ok: false }, lengths: LengthPreference): string {
  const { weight, meantUm } = check
  const meant = meantUm === null ? '' : ` Was it ${writeLength(meantUm, lengths)}?`
  return `${writeLength(um, lengths)} ${weight === 'refuse' ? 'cannot be' : 'is hardly right'}.${meant}`
}
