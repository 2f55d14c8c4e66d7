import { DEFAULT_RULES } from '@undercliff/core'
import { expect, test } from 'vitest'
import { readMoney, rulesFrom, textsOf } from './limits'

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

test('money without minor units is read whole', () => {
  expect(readMoney('1600', 'JPY')).toBe(1600)
  expect(readMoney('16.5', 'EUR')).toBe(1650)
  expect(readMoney('1.234,00', 'EUR')).toBeNull()
})
