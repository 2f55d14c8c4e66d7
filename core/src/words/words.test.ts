import { describe, expect, test } from 'vitest'
import type { UnevenSchool } from '../house'
import type { Reason } from '../verdict'
import {
  beginWithRange,
  cutterName,
  damageName,
  sayDamage,
  sayFit,
  sayMinutes,
  sayQuantity,
  sayRange,
  sayReason,
  saySpecValue,
  sayStages,
  sayTurn,
} from '.'

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
      { rule: 'longUnmeasured', cutter: 6, hand: 'right', value: um(4100), limit: um(4000), known: 'estimated' },
      'About 4.10 mm is thought to have gone since a length was last read, and no reading has shown what ' +
        'a sharpening takes: it may be twice that. Measure it before it runs.',
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
      'Depth gauges stand about 0.18 mm high; up to 0.10 mm is left as it is.',
    ],
    [
      { rule: 'gaugesHigh', value: um(180), limit: um(100), known: 'measured' },
      'Depth gauges stand 0.18 mm high; up to 0.10 mm is left as it is.',
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

describe('sentences at their edges', () => {
  const mm = { lengths: 'mm', currency: 'EUR' } as const

  test('minutes become hours at an hour and a half', () => {
    expect(sayMinutes({ low: 0, likely: 89, high: 0 })).toBe('about 89 min')
    expect(sayMinutes({ low: 0, likely: 90, high: 0 })).toBe('about 1.5 h')
    expect(beginWithRange({ low: 8, likely: 11, high: 15 })).toBe('About 11 (8 to 15)')
  })

  test('figures with their units', () => {
    expect(sayQuantity({ unit: 'cutters', amount: 1 }, mm)).toBe('1 cutter')
    expect(sayQuantity({ unit: 'tanks', amount: 0.5 }, mm)).toBe('0.5 tanks')
    expect(sayQuantity({ unit: 'strikes', amount: 2 }, mm)).toBe('2 strikes')
    expect(sayQuantity({ unit: 'minorPerHour', amount: 1450 }, mm)).toBe('€14.50')
    expect(sayQuantity({ unit: 'um', amount: 900 }, mm)).toBe('0.90 mm')
  })

  test('damage says its depth, or that nobody measured one, where it has one', () => {
    expect(sayDamage({ kind: 'stone', depthUm: 900 }, 'mm')).toBe('stone strike 0.90 mm deep')
    expect(sayDamage({ kind: 'stone', depthUm: null }, 'mm')).toBe('stone strike, depth not measured')
    expect(sayDamage({ kind: 'hook', depthUm: null }, 'mm')).toBe('hook')
  })

  test.each<[Reason, string]>([
    [
      { rule: 'gaugesTooLow', value: um(300), limit: um(150), known: 'new' },
      'Depth gauge is about 0.30 mm too low (limit 0.15 mm): the saw snatches and kickback is likelier. ' +
        'No filing brings it right.',
    ],
    [
      { rule: 'tooDeepToFile', value: um(3500), limit: um(3000) },
      '3.50 mm would have to come off; at most 3.00 mm is filed by hand.',
    ],
    [{ rule: 'fileSkates' }, 'Blued steel: a file skates on it.'],
    [
      { rule: 'atMark', value: um(0), limit: um(0) },
      'The shortest cutter is at its witness mark: 0.00 mm measured, the mark is at 0.00 mm.',
    ],
    [
      { rule: 'contradiction', value: um(400), cutter: 3, doubt: 'shrank' },
      'Cutter 3 was read 0.40 mm shorter than it was measured, and no sharpening is logged since: ' +
        'is one missing, or a slip?',
    ],
    [
      { rule: 'contradiction', value: um(400), cutter: 3, doubt: 'disagree' },
      'Two people measured cutter 3 and differ by 0.40 mm: wrong loop, wrong cutter or a slip? Measure it again.',
    ],
    [
      { rule: 'contradiction', value: um(400), cutter: 3, doubt: 'pairGrew' },
      'Cutter 3 is 0.40 mm longer after its sharpening than before it: were the two figures swapped?',
    ],
    [
      { rule: 'contradiction', value: um(400), cutter: 3, doubt: 'belowPlate' },
      'Depth gauge on cutter 3 was read 0.40 mm finer than the plate it was just filed to: read it again.',
    ],
  ])('%o', (reason, said) => {
    expect(sayReason(reason, mm)).toBe(said)
  })

  test('what would change a verdict', () => {
    expect(sayTurn({ by: 'loopPrice', from: 'above', atMinor: 900, turnsTo: 'retire' }, 'regrind', mm)).toBe(
      'Regrind as long as a new loop costs less than €9.00; then: retire.',
    )
    expect(sayTurn({ by: 'labour', from: 'below', atMinor: 900, turnsTo: 'shop' }, 'file', mm)).toBe(
      'File at bench as long as an hour of work costs more than €9.00; then: send to a shop.',
    )
    expect(sayTurn({ by: 'measuring', cutters: 1, turnsTo: ['file', 'retire'] }, 'regrind', mm)).toBe(
      '1 cutter is estimated. Measured, it may turn to: file at bench, or retire.',
    )
    expect(sayTurn({ by: 'measuring', cutters: 3, turnsTo: ['file'] }, 'regrind', mm)).toContain('3 cutters are')
    expect(sayTurn({ by: 'sides', readings: { left: 1, right: 0 }, turnsTo: ['regrind'] }, 'file', mm)).toBe(
      'Measure 1 more left-hand cutter: if the sides differ, it may turn to: regrind.',
    )
    expect(sayTurn({ by: 'sides', readings: { left: 2, right: 4 }, turnsTo: ['shop'] }, 'file', mm)).toBe(
      'Measure 2 more left-hand and 4 more right-hand cutters: if the sides differ, it may turn to: send to a shop.',
    )
    const reading = { by: 'reading', cutter: 14, hand: 'right', chance: 1 / 6, turnsTo: ['retire'] } as const
    expect(sayTurn({ ...reading, savesMinor: 120 }, 'file', mm)).toBe(
      'The reading worth most is cutter 14, right: ' +
        'in 17 of 100 cases it would turn to: retire, and save €1.20 a sharp hour.',
    )
    expect(sayTurn({ ...reading, savesMinor: 0 }, 'file', mm)).toMatch(/retire\.$/)
  })

  test('values of a spec, and none where there is none', () => {
    expect(saySpecValue({ fileUm: 5200 }, 'fileUm', 'mm')).toBe('5.2 mm (13/64")')
    expect(saySpecValue({ topPlateAngleDeg: 25 }, 'topPlateAngleDeg', 'mm')).toBe('25°')
    expect(saySpecValue({ cutterType: 'fullChisel' }, 'cutterType', 'mm')).toBe('full chisel')
    expect(saySpecValue({ links: 'bumper' }, 'links', 'mm')).toBe('low-kickback, bumpers')
    expect(saySpecValue({}, 'startMark', 'mm')).toBe('')
  })

  test('a filing in stages says how long, and what it costs until then', () => {
    const say = (way: UnevenSchool, sharpenings: number | null, lostHours: number) =>
      sayStages({ way, stages: { sharpenings, lostHours, lostMinor: 210 } }, 'EUR')
    expect(sayStages({ way: 'matchShortest', stages: null }, 'EUR')).toBe('')
    expect(say('sameStrokes', 3, 0.5)).toBe(
      'The same strokes for all: sound and even after about 3 sharpenings; ' +
        'meanwhile blunt cutters cost about 0.5 sharp hours, €2.10.',
    )
    expect(say('sameStrokes', null, 0.04)).toBe(
      'The same strokes for all: some stay blunt, or longer, for as long as anybody plans.',
    )
    expect(say('extraOnBad', 4, 0)).toBe(
      'Longer cutters get two strokes more each time: sound and even after about 4 sharpenings.',
    )
  })

  test('the fit says the parts that decide it', () => {
    const parts = [
      { part: 'groove', level: 'but', reason: 'the groove is worn' },
      { part: 'sprocket', level: 'fits', reason: 'pitch 3/8"' },
      { part: 'driveLinks', level: 'fits', reason: '72 drive links' },
    ] as const
    expect(sayFit('K3', 'Petrel', { level: 'but', parts })).toBe('K3 will run on Petrel, but the groove is worn.')
    expect(sayFit('K3', 'Petrel', { level: 'fits', parts })).toBe('K3 fits Petrel: pitch 3/8"; 72 drive links.')
  })
})
