import fc from 'fast-check'
import { expect, test } from 'vitest'
import { isCurrency, moneyField, readMoney, writeMoney } from './money'

// ISO 4217: the yen has no minor unit, the euro two decimals, the Kuwaiti dinar three.
const CURRENCIES = ['EUR', 'USD', 'JPY', 'KWD'] as const

test('what a field shows is read as the same money again, in any currency', () => {
  fc.assert(
    fc.property(fc.constantFrom(...CURRENCIES), fc.integer({ min: 0, max: 9_999_999 }), (currency, minor) => {
      expect(readMoney(moneyField(minor, currency), currency)).toBe(minor)
    }),
  )
})

test.each([
  ['14.50', 'EUR', 1450],
  ['14,5', 'EUR', 1450],
  [' 14 ', 'EUR', 1400],
  ['14.500', 'EUR', 1450],
  ['14.505', 'EUR', null],
  ['1450', 'JPY', 1450],
  ['14.0', 'JPY', 14],
  ['14.5', 'JPY', null],
  ['1.234', 'KWD', 1234],
  ['1234567', 'EUR', 123_456_700],
  ['12345678', 'EUR', null],
  ['', 'EUR', null],
  ['-3', 'EUR', null],
  ['1.2.3', 'EUR', null],
  ['fourteen', 'EUR', null],
] as const)('%j in %s is %j', (text, currency, minor) => {
  expect(readMoney(text, currency)).toBe(minor)
})

test('an amount is written with the decimals of its money', () => {
  expect(writeMoney(1450, 'EUR')).toContain('14.50')
  expect(writeMoney(1450, 'JPY')).toMatch(/1,450$/)
  expect(writeMoney(1450, 'KWD')).toContain('1.450')
})

test('a currency is a code that is in use', () => {
  expect(['EUR', 'JPY', 'ABC', 'eur', 'EURO', ''].map(isCurrency)).toEqual([true, true, false, false, false, false])
})
