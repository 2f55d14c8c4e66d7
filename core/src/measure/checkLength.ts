import { isEntered, type LoopSpec } from '../profile'
import { otherUnit, slippedDecimals, type LengthUnit, type Um } from '../units'

/** A cutter may come out of the box a little longer than its profile says. Starting value. */
export const OVER_NEW_ALLOWED = 1.06
/** So much longer a new one may turn out where nobody read its new length off a box. Starting value. */
export const OVER_ASSUMED_ALLOWED = 1.3
/** What a cutter is not seen to lose between two looks without a reason worth asking about. Starting value. */
export const SUDDEN_LOSS_UM: Um = 2500

/** How close ten times the reading must come to what was expected to be taken for a slip. Starting value. */
const SLIP_MATCH_UM: Um = 600

/** Whether a cutter length can be true of this loop. */
export type LengthCheck =
  | { readonly ok: true }
  | {
      readonly ok: false
      readonly reason: 'longerThanNew' | 'slippedDecimal' | 'wrongUnit' | 'suddenLoss'
      /** `refuse`: cannot be true. `ask`: may be, but is more likely a slip. */
      readonly weight: 'refuse' | 'ask'
      /** What was probably meant; null when nothing fits better. */
      readonly meantUm: Um | null
    }

/**
 * Whether a length read from a cutter can be true, and what was probably meant where it cannot:
 * a decimal mark one place off, or the other unit.
 *
 * @param lengthUm what was read
 * @param expectedUm what the cutter was thought to be; null when nothing is known
 * @param unit what the reading was taken in
 * @example
 * checkLength(spec38, 52_000, 5400) // { reason: 'slippedDecimal', meantUm: 5200, … }
 */
export function checkLength(
  spec: Pick<LoopSpec, 'newLengthUm' | 'origins'>,
  lengthUm: Um,
  expectedUm: Um | null,
  unit: LengthUnit = 'mm',
): LengthCheck {
  const most = spec.newLengthUm * OVER_NEW_ALLOWED
  const near = (um: Um): boolean =>
    um <= most && (expectedUm === null ? um >= spec.newLengthUm / 20 : Math.abs(um - expectedUm) <= SUDDEN_LOSS_UM / 2)
  const [down, up] = slippedDecimals(lengthUm)
  const swapped = otherUnit(lengthUm, unit)

  if (lengthUm > most) {
    if (near(down)) return { ok: false, reason: 'slippedDecimal', weight: 'refuse', meantUm: down }
    if (near(swapped)) return { ok: false, reason: 'wrongUnit', weight: 'refuse', meantUm: swapped }
    // A new length that is only assumed gives way to what a new loop measures.
    const maybe = !isEntered(spec, 'newLengthUm') && lengthUm <= spec.newLengthUm * OVER_ASSUMED_ALLOWED
    return { ok: false, reason: 'longerThanNew', weight: maybe ? 'ask' : 'refuse', meantUm: null }
  }
  if (expectedUm === null) return { ok: true }
  const slippedUp =
    expectedUm - lengthUm > Math.max(expectedUm / 2, SLIP_MATCH_UM) && Math.abs(up - expectedUm) <= SLIP_MATCH_UM
  if (!slippedUp && expectedUm - lengthUm <= SUDDEN_LOSS_UM) return { ok: true }
  if (slippedUp || near(up)) return { ok: false, reason: 'slippedDecimal', weight: 'ask', meantUm: up }
  if (near(swapped)) return { ok: false, reason: 'wrongUnit', weight: 'ask', meantUm: swapped }
  return { ok: false, reason: 'suddenLoss', weight: 'ask', meantUm: null }
}
