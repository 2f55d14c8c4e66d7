import fc from 'fast-check'
import { expect, test } from 'vitest'
import { checkValue } from './iso7064'
import { checks, freshTag, looksMade, madeTag, readTag, tagCode, TAG_ALPHABET, TAG_COUNT } from './tag'

// ISO/IEC 7064 hybrid systems, examples from memory: MOD 11,10 over 0794 gives 5; MOD 37,36 over
// A12425GABC1234002 gives M (the worked example of the GRid standard).
test('check values agree with the published examples of ISO 7064', () => {
  expect(checkValue([0, 7, 9, 4], 10)).toBe(5)
  const alphabet = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ'
  const value = checkValue(
    Array.from('A12425GABC1234002').map((char) => alphabet.indexOf(char)),
    36,
  )
  expect(alphabet.charAt(value)).toBe('M')
  expect(() => checkValue([10], 10)).toThrow(RangeError)
})

test('no character of a tag is taken for another', () => {
  expect(TAG_ALPHABET).not.toMatch(/[0O1IL]/)
  expect(new Set(TAG_ALPHABET).size).toBe(TAG_ALPHABET.length)
})

const anyTag = fc.integer({ min: 0, max: TAG_COUNT - 1 }).map(madeTag)
const anyChar = fc.constantFrom(...Array.from(TAG_ALPHABET))

test('every made tag checks, and no single slip does', () => {
  fc.assert(
    fc.property(anyTag, fc.integer({ min: 0, max: 3 }), anyChar, (tag, at, char) => {
      expect(checks(tag)).toBe(true)
      const slipped = tag.slice(0, at) + char + tag.slice(at + 1)
      expect(checks(slipped)).toBe(slipped === tag)
    }),
  )
})

test('every made tag is another one', () => {
  const all = new Set(Array.from({ length: TAG_COUNT }, (_, i) => madeTag(i)))
  expect(all.size).toBe(TAG_COUNT)
  expect(() => madeTag(TAG_COUNT)).toThrow(RangeError)
  expect(freshTag(all, 0.5)).toBeNull()
  all.delete(madeTag(7))
  expect(freshTag(all, 0.9)).toBe(madeTag(7))
})

test('a new tag begins where chance says, goes past those in use, and there is none when all are', () => {
  expect(freshTag(new Set(), 0)).toBe(madeTag(0))
  expect(freshTag(new Set(), 0.5)).toBe(madeTag(TAG_COUNT / 2))
  expect(freshTag(new Set([madeTag(0)]), 0)).toBe(madeTag(1))
  const last = 1 - 1 / TAG_COUNT
  expect(freshTag(new Set([madeTag(TAG_COUNT - 1)]), last)).toBe(madeTag(0))
  expect(freshTag(new Set(Array.from({ length: TAG_COUNT }, (_, i) => madeTag(i))), 0.3)).toBeNull()
})

test('a tag is read from a scan, from typing, in small letters', () => {
  const known = ['K3', '222Y', 'Müller 1']
  expect(readTag(tagCode('K3'), known)).toEqual({ ok: true, tag: 'K3' })
  expect(readTag(' k3 ', known)).toEqual({ ok: true, tag: 'K3' })
  expect(readTag('quc222y', known)).toEqual({ ok: true, tag: '222Y' })
  // A tag of the crew's own may begin like a code.
  expect(readTag('QUC9', ['QUC9'])).toEqual({ ok: true, tag: 'QUC9' })
  expect(readTag(tagCode('Müller 1'), known)).toEqual({ ok: true, tag: 'Müller 1' })
})

test('a slip, a tag nobody has and a code of something else are told apart', () => {
  const known = ['222Y', 'K3']
  expect(readTag('223Y', known)).toEqual({
    ok: false,
    message: '223Y is misread: its last character does not agree with the others.',
    nearest: ['222Y'],
  })
  expect(readTag('K4', known)).toEqual({ ok: false, message: 'No loop has the tag K4.', nearest: ['K3'] })
  expect(readTag('https://example.org/x', known)).toMatchObject({
    ok: false,
    nearest: [],
    message: expect.stringContaining('something else') as string,
  })
  expect(readTag('WIFI:S:shed;;', known)).toMatchObject({
    ok: false,
    message: expect.stringContaining('something else') as string,
  })
  // A tag has at most twelve characters; what is longer was never one.
  const messageOf = (text: string) => readTag(text, known)
  expect(messageOf('K'.repeat(12))).toMatchObject({ message: `No loop has the tag ${'K'.repeat(12)}.` })
  expect(messageOf('K'.repeat(13))).toMatchObject({ message: expect.stringContaining('something else') as string })
  expect(readTag('', known)).toMatchObject({ ok: false, message: 'There is no tag in that.' })
  expect(looksMade('K3')).toBe(false)
  expect(looksMade('222Y')).toBe(true)
  // One character that no made tag has is enough.
  expect(looksMade('22!Y')).toBe(false)
})

test('near is one character other, one too many or too few, or two neighbours swapped', () => {
  const near = (text: string, known: string) => {
    const read = readTag(text, [known])
    return !read.ok && read.nearest.length === 1
  }
  expect(['XK35', 'K345', 'K4', 'K53', 'K43', '3K5'].map((text) => near(text, 'K35'))).toEqual([
    true,
    true,
    false,
    true,
    false,
    true,
  ])
  expect(near('K', 'K3')).toBe(true)
  expect(near('K', 'K35')).toBe(false)
  expect(TAG_COUNT).toBe(16 ** 3)
  expect(near('AB', 'BC')).toBe(false)
  expect(near('BACD', 'ABCE')).toBe(false)
  expect(near('BAC', 'ABD')).toBe(false)
})

test('at most five that are near are named', () => {
  const known = ['K1', 'K2', 'K3', 'K4', 'K5', 'K6', 'K7']
  const read = readTag('K9', known)
  expect(!read.ok && read.nearest).toEqual(known.slice(0, 5))
})

test('a long or unprintable text is not shown whole', () => {
  const read = readTag(`QUC${'x'.repeat(45)}\u0007`, [])
  expect(!read.ok && read.message).toBe(`No loop has the tag ${'x'.repeat(40)}….`)
})
