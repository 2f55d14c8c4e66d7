import { DEFAULT_RULES, type HouseRules } from '@undercliff/core'
import { expect, test } from 'vitest'
import { oddChanges, rulesFrom, textsOf } from './limits'

test('what is shown and saved unchanged is what it was', () => {
  expect(rulesFrom(DEFAULT_RULES, textsOf(DEFAULT_RULES, 'mm'), 'mm')).toEqual(DEFAULT_RULES)
})

test('limits are read as the crew types them', () => {
  const typed = {
    ...textsOf(DEFAULT_RULES, 'mm'),
    evennessUm: '0,4 mm',
    reserveUm: '.010"',
    labourPerHourMinor: '42,50',
    'link:p404': '0.55',
    benchTanks: '7.5',
  }
  expect(rulesFrom(DEFAULT_RULES, typed, 'mm')).toMatchObject({
    evennessUm: 400,
    reserveUm: 254,
    labourPerHourMinor: 4250,
    benchTanks: 7.5,
    linkPriceMinor: { p404: 55, threeEighths: 42 },
  })
})

test.each([
  ['evennessUm', 'half', 'evennessUm'],
  ['benchTanks', '', 'benchTanks'],
  ['shopFeeMinor', 'sixteen', 'shopFeeMinor'],
  ['link:quarter', '-1', 'link:quarter'],
  ['currency', 'euros', 'currency'],
])('%s as "%s" is named and changes nothing', (field, text, named) => {
  expect(rulesFrom(DEFAULT_RULES, { ...textsOf(DEFAULT_RULES, 'mm'), [field]: text }, 'mm')).toMatchObject({
    field: named,
  })
})

test.each(['mm', 'inch'] as const)('opened and saved in %s, nothing changes by a micrometre', (unit) => {
  const rules = { ...DEFAULT_RULES, evennessUm: 500, gaugeHighUm: 101, reserveUm: 1, sideDifferenceUm: 333 }
  expect(rulesFrom(rules, textsOf(rules, unit), unit)).toEqual(rules)
})

test('money of any number of decimals is shown and read alike', () => {
  for (const currency of ['EUR', 'JPY', 'KWD']) {
    const rules = { ...DEFAULT_RULES, currency }
    expect(rulesFrom(rules, textsOf(rules, 'mm'), 'mm')).toEqual(rules)
  }
  expect(textsOf({ ...DEFAULT_RULES, currency: 'KWD' }, 'mm').shopFeeMinor).toBe('1.600')
  const yen = { ...DEFAULT_RULES, currency: 'JPY' }
  expect(rulesFrom(yen, { ...textsOf(yen, 'mm'), shopFeeMinor: '16.5' }, 'mm')).toEqual({
    field: 'shopFeeMinor',
    message: 'A visit to a shop: an amount is wanted, such as 1600.',
  })
})

test('a limit or a price that probably slipped is asked about before it holds', () => {
  const figures = { lengths: 'mm', currency: 'EUR' } as const
  const odd = (change: Partial<HouseRules>): string[] => oddChanges(DEFAULT_RULES, change, figures)
  const { labourPerHourMinor, reserveUm, linkPriceMinor } = DEFAULT_RULES
  expect(odd({ labourPerHourMinor: labourPerHourMinor * 100 })[0]).toMatch(/An hour of work: .* Was it .*\?/)
  expect(odd({ reserveUm: reserveUm * 100 })[0]).toMatch(/above the witness mark: .* Was it .*\?/)
  expect(odd({ linkPriceMinor: { ...linkPriceMinor, p404: linkPriceMinor.p404 * 10 } })).toHaveLength(1)
  expect(odd({ labourPerHourMinor: labourPerHourMinor * 2, reserveUm: Math.round(reserveUm / 2) })).toEqual([])
  expect(odd({ currency: 'KWD', labourPerHourMinor: labourPerHourMinor * 100 })).toEqual([])
})
