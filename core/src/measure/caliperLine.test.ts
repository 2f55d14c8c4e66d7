import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { LineReader, readCaliperLine, writeCaliperLine } from './caliperLine'

describe('a line of a caliper', () => {
  test('is read in the unit that it names', () => {
    expect(readCaliperLine('+0008.24 mm')).toEqual({ ok: true, um: 8240, unit: 'mm', lowBattery: false })
    // An inch is 25.4 mm exactly, since 1959.
    expect(readCaliperLine('+01.0000 in')).toMatchObject({ ok: true, um: 25_400, unit: 'inch' })
    expect(readCaliperLine('+0008.25 mm LOW\r')).toMatchObject({ um: 8250, lowBattery: true })
  })

  test('of an instrument that could not measure says so', () => {
    expect(readCaliperLine('ERR over')).toEqual({ ok: false, why: 'error' })
    expect(readCaliperLine('-0000.03 mm')).toEqual({ ok: false, why: 'error' })
  })

  test('that lost any of its characters on the way is never taken for another length', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 30_000 }), fc.constantFrom('mm' as const, 'inch' as const), (um, unit) => {
        const line = writeCaliperLine(um, unit)
        for (let from = 0; from < line.length; from += 1)
          for (let to = from + 1; to <= line.length; to += 1) {
            const cut = line.slice(0, from) + line.slice(to)
            const read = readCaliperLine(cut)
            expect(read.ok && cut !== line, cut).toBe(false)
          }
      }),
      { numRuns: 40 },
    )
  })

  test('written and read again it is the same to a hundredth', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 150_000 }), (um) => {
        const read = readCaliperLine(writeCaliperLine(um, 'mm'))
        expect(read.ok ? Math.abs(read.um - um) : 99).toBeLessThanOrEqual(5)
      }),
    )
  })
})

test('lines are put together from pieces of any size, and what has no end is not kept for ever', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 1, max: 9 }), { maxLength: 30 }), (sizes) => {
      const all = ['+0008.24 mm', '+0008.31 mm', 'ERR over'].map((line) => `${line}\r\n`).join('')
      const reader = new LineReader()
      const lines: string[] = []
      let at = 0
      for (const size of sizes) {
        lines.push(...reader.take(all.slice(at, at + size)))
        at += size
      }
      lines.push(...reader.take(all.slice(at)))
      expect(lines).toEqual(['+0008.24 mm', '+0008.31 mm', 'ERR over'])
    }),
  )
  const reader = new LineReader()
  reader.take('x'.repeat(10_000))
  expect(reader.take('\n')[0]?.length).toBeLessThanOrEqual(64)
})
