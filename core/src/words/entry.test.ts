import { expect, test } from 'vitest'
import type { Entry, EntryBodies, EntryKind } from '../log'
import { specFromProfile } from '../profile'
import { sayEntry } from './entry'

const say = <K extends EntryKind>(kind: K, body: EntryBodies[K]): string =>
  sayEntry(
    {
      id: 'an-entry-id',
      loopId: 'a-loop-id-1',
      happenedAt: '',
      writtenAt: '',
      personId: null,
      kind,
      ...body,
    } as unknown as Entry,
    { lengths: 'mm', currency: 'JPY' },
    () => 'Petrel',
  )

test('every kind of entry has its line', () => {
  const spec = specFromProfile({ pitchClass: 'lowProfile', gaugeUm: 1300, driveLinks: 50, cutterType: 'chipper' })
  expect(say('registered', { tag: 'P1', spec })).toBe('Registered as P1: 3/8" low profile · 1.3 mm · 50 links')
  expect(say('fitted', { sawId: 'x', barFlipped: true })).toBe('Put on Petrel, bar flipped')
  expect(say('takenOff', {})).toBe('Taken off')
  expect(say('ran', { tanks: 1.5, conditions: 'gritty' })).toBe('Ran 1.5 tanks in gritty bark')
  expect(say('struck', { against: 'unknown' })).toBe('Struck something')
  expect(say('struck', { against: 'stone', cutters: [4] })).toBe('Struck stone at 1 cutter')
  expect(
    say('measured', {
      readings: [
        { cutter: 1, lengthUm: 5000, damage: [] },
        { cutter: 2, damage: [{ kind: 'stone', depthUm: 900 }] },
      ],
    }),
  ).toBe('Measured: 1 cutter read; stone strike on 1 cutter')
  expect(say('sharpened', { method: 'fileField', gaugesLowered: true, strokes: { left: 4, right: 6 } })).toBe(
    'Sharpened: filed in the field, 4 strokes left and 6 right, gauges lowered',
  )
  expect(say('sharpened', { method: 'shop', gaugesLowered: false })).toBe('Sharpened: by a shop')
  expect(say('gaugesLowered', { settingUm: 650 })).toBe('Gauges lowered to 0.65 mm')
  expect(say('inspected', { readings: [], parts: [] })).toBe('Inspected: nothing found')
  expect(say('inspected', { readings: [], parts: [{ kind: 'rivetLoose', nearCutter: null }] })).toBe(
    'Inspected: loose rivet',
  )
  expect(say('cameBack', { to: 'bench', costMinor: 2400 })).toBe('Came back, to the bench; it cost ¥2,400')
  expect(say('retired', { reason: 'worn' })).toBe('Retired: worn')
  expect(say('corrected', { strikes: 'x' })).toBe('Struck an entry out')
})
