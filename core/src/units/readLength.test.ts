import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { fromInch, UM_PER_INCH } from './length'
import { readLength, slippedDecimals } from './readLength'
import { lengthField, pitchName, writeFile, writeFraction, writeInch, writeLength, writeMm } from './writeLength'

const um = (text: string, bare: 'mm' | 'inch' = 'mm') => {
  const reading = readLength(text, bare)
  return reading.ok ? reading.um : reading.reason
}

describe('readLength', () => {
  test.each([
    ['5.2', 5200],
    ['5.2mm', 5200],
    ['5,2 mm', 5200],
    ['.325', 325],
    ['.250', 250],
    ['.325"', 8255],
    ['0.325"', 8255],
    ['3/8', 9525],
    ['13/64 in', 5159],
    ['25 thou', 635],
    ['1 1/16"', 26_988],
    ['1-1/16 in', 26_988],
    ['.5', 500],
    ['1½"', 38_100],
    ['⅜', 9525],
    ['5.20\u00a0mm', 5200],
    ['0', 0],
  ])('%s is %d µm', (text, expected) => {
    expect(um(text)).toBe(expected)
  })

  // 1 in = 25.4 mm exactly: NIST SP 811, from memory.
  test('an inch is 25.4 mm exactly', () => {
    expect(um('1 in')).toBe(25_400)
    expect(UM_PER_INCH).toBe(25_400)
    expect(um('1', 'inch')).toBe(25_400)
  })

  // Decimal equivalents as printed in machinists' tables of 64ths (from memory), in inches.
  test.each([
    ['5/32', 0.15625],
    ['3/16', 0.1875],
    ['13/64', 0.203125],
    ['7/32', 0.21875],
  ])('the file size %s is %d inch', (text, inch) => {
    expect(um(text)).toBe(Math.round(inch * 25_400))
  })

  test.each([
    ['', 'empty', null],
    ['abc', 'notALength', null],
    ['5..2', 'twoSeparators', '5.2 mm'],
    ['1,234.5', 'twoSeparators', '1,234 mm'],
    ['5.2 cm', 'unknownUnit', '5.2 mm'],
    ['5.2 kg', 'unknownUnit', '5.2 mm'],
    ['3/0', 'zeroDenominator', null],
    ['3/8 mm', 'fractionOfMm', '3/8 in'],
    ['3\\8', 'notALength', '3/8 in'],
    ['-1', 'negative', '1 mm'],
    ['99 999 in', 'notALength', null],
    ['0..001', 'twoSeparators', null],
    ['5.2.', 'twoSeparators', '5.2 mm'],
  ])('%s is refused as %s', (text, reason, nearest) => {
    const reading = readLength(text)
    expect(reading).toMatchObject({ ok: false, reason, nearest })
  })

  test('what is offered instead of a refused text can always be read', () => {
    fc.assert(
      fc.property(fc.oneof(fc.string({ maxLength: 20 }), fc.stringMatching(/^[-0-9.,/ "a-z]{0,14}$/)), (text) => {
        const reading = readLength(text)
        if (reading.ok) expect(Number.isInteger(reading.um) && reading.um >= 0).toBe(true)
        else if (reading.nearest !== null) expect(readLength(reading.nearest).ok).toBe(true)
      }),
      { numRuns: 1000 },
    )
  })

  test('whole micrometres written in mm come back the same, with point or comma', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 10_000_000 }), (length) => {
        const text = writeMm(length, 3)
        expect(um(text)).toBe(length)
        expect(um(text.replace('.', ','))).toBe(length)
      }),
    )
  })

  test('every 64th of an inch is written and read as itself', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 640 }), (parts) => {
        const length = fromInch(parts / 64)
        expect(um(writeFraction(length) ?? '')).toBe(length)
      }),
    )
  })
})

test("a bare number is in the crew's unit, whatever its form; a fraction is inches, and said to be one", () => {
  expect([um('.250', 'inch'), um('.250', 'mm'), um('0.250', 'mm')]).toEqual([6350, 250, 250])
  const fraction = (text: string) => {
    const reading = readLength(text)
    return reading.ok && reading.fraction
  }
  expect(['3/8', '3/8"', '1 1/16 in', '.375', '0.375"', '9.5'].map(fraction)).toEqual([
    true,
    true,
    true,
    false,
    false,
    false,
  ])
})

test('what is offered for a slip is a likely length: neither a hair nor a tree', () => {
  const offered = (text: string) => {
    const reading = readLength(text)
    return reading.ok ? 'read' : reading.nearest
  }
  expect(['0..05', '0..049', '1100..', '1101..'].map(offered)).toEqual(['0.05 mm', null, '1100 mm', null])
})

test('whether a unit was named or taken from what is around is said', () => {
  const assumed = (text: string) => {
    const reading = readLength(text, 'mm')
    return reading.ok ? reading.assumed : null
  }
  expect(['5.2', '.325', '3/8'].map(assumed)).toEqual([true, true, true])
  expect(['5.2 mm', '.325"', '3/8"'].map(assumed)).toEqual([false, false, false])
})

test('lengths are written the way the trade reads them', () => {
  expect(writeLength(650, 'both')).toBe('0.65 mm · .026"')
  expect(writeInch(26_988)).toBe('1.063"')
  expect(writeFile(5200)).toBe('5.2 mm (13/64")')
  expect(writeFile(4000)).toBe('4.0 mm (5/32")')
  // 3/16" is 4.7625 mm: 58 µm off is it still, 68 is not.
  expect(writeFile(4820)).toBe('4.8 mm (3/16")')
  expect(writeFile(4830)).toBe('4.8 mm')
  expect(writeFraction(8255)).toBeNull()
  // As far from 3/8" as is let pass, and one micrometre more.
  expect(writeFraction(9575)).toBe('3/8"')
  expect(writeFraction(9576)).toBeNull()
  expect(writeFraction(9475)).toBe('3/8"')
  expect(writeFraction(9474)).toBeNull()
  expect(writeFraction(0)).toBeNull()
  expect(pitchName(8255)).toBe('.325"')
  expect(pitchName(9525)).toBe('3/8"')
})

test('a slipped decimal is a place either way', () => {
  expect(slippedDecimals(52_000)).toEqual([5200, 520_000])
})

test('what a field shows is read as the same micrometres again', () => {
  const units = fc.constantFrom('mm' as const, 'inch' as const)
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 60_000 }), units, (length, bare) => {
      expect(um(lengthField(length, bare), bare)).toBe(length)
    }),
  )
  // 0.020" would be 508 µm.
  expect(lengthField(500, 'inch')).toBe('0.0197')
  expect(lengthField(650, 'mm')).toBe('0.65')
  expect(lengthField(8000, 'mm')).toBe('8')
  expect(lengthField(5200, 'mm')).toBe('5.2')
})
