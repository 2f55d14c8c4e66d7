import { describe, expect, test } from 'vitest'
import type { Reason } from '../verdict'
import { cutterName, damageName, sayMinutes, sayRange, sayReason } from '.'

const um = (amount: number) => ({ unit: 'um', amount }) as const

describe('sayReason', () => {
  test.each<[Reason, string]>([
    [
      { rule: 'atMark', cutter: 5, hand: 'left', value: um(0), limit: um(0), known: 'measured' },
      'Cutter 5 L is at its witness mark: 0.00 mm measured, the mark is at 0.00 mm.',
    ],
    [
      { rule: 'perhapsAtMark', cutter: 6, hand: 'right', value: um(150), limit: um(200), known: 'estimated' },
      'Cutter 6 R may be at its mark: about 0.15 mm by estimate. Measure it before the loop runs.',
    ],
    [
      { rule: 'endsLoop', damage: 'strapCracked', cutter: 19 },
      'Cracked or broken tie strap near cutter 19: that ends a loop, however long its cutters are.',
    ],
    [
      { rule: 'endsLoop', damage: 'stretched' },
      'Stretched past the tensioner: that ends a loop, however long its cutters are.',
    ],
    [{ rule: 'struckUnseen', value: { unit: 'strikes', amount: 2 } }, '2 strikes since anybody looked it over.'],
    [
      { rule: 'depthUnknown', damage: 'chipped', cutter: 7, hand: 'left' },
      'Chipped corner on cutter 7 L: nobody has measured how deep.',
    ],
    [
      { rule: 'sidesDiffer', hand: 'right', value: um(400), limit: um(250) },
      'The right side is 0.40 mm longer on average (limit 0.25 mm): the saw pulls right.',
    ],
    [
      { rule: 'gaugesHigh', value: um(180), limit: um(100), known: 'estimated' },
      'Depth gauges stand about 0.18 mm high; 0.10 mm is let run.',
    ],
    [
      { rule: 'gaugesHigh', value: um(180), limit: um(100), known: 'measured' },
      'Depth gauges stand 0.18 mm high; 0.10 mm is let run.',
    ],
    [
      { rule: 'touchUpDue', value: { unit: 'tanks', amount: 2.5 }, limit: { unit: 'tanks', amount: 2 } },
      'About 2.5 tanks of wear since it was sharpened; a touch-up is due at 2 tanks.',
    ],
    [{ rule: 'dull', damage: 'rounded', value: { unit: 'cutters', amount: 1 } }, '1 cutter marked as rounded edge.'],
  ])('%o', (reason, said) => {
    expect(sayReason(reason, { lengths: 'mm', currency: 'EUR' })).toBe(said)
  })

  test('lengths are said as the crew reads them', () => {
    expect(sayReason({ rule: 'uneven', value: um(635), limit: um(508) }, { lengths: 'inch', currency: 'EUR' })).toBe(
      'Cutters differ by .025"; .020" counts as even.',
    )
    expect(
      sayReason({ rule: 'uneven', value: um(635), limit: um(508) }, { lengths: 'both', currency: 'EUR' }),
    ).toContain('0.64 mm · .025"')
  })
})

test('names, minutes and ranges', () => {
  expect(cutterName(17, 'right')).toBe('17 R')
  expect(damageName('rivetLoose')).toBe('loose rivet')
  expect(sayMinutes({ low: 4, likely: 6.4, high: 9 })).toBe('about 6 min')
  expect(sayMinutes({ low: 0, likely: 0.2, high: 1 })).toBe('about 1 min')
  expect(sayMinutes({ low: 0, likely: 0, high: 0 })).toBe('')
  expect(sayMinutes({ low: 100, likely: 150, high: 200 })).toBe('about 2.5 h')
  expect(sayRange({ low: 8, likely: 11, high: 15 })).toBe('about 11 (8 to 15)')
  expect(sayRange({ low: 0, likely: 0, high: 0 })).toBe('0')
})
