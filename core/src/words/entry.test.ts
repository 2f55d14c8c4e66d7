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
  const knownBite = { strokeUm: 17.6, strokeSdUm: 2, uncounted: 0, uncountedSd: 0.1, people: [] }
  expect(say('registered', { tag: 'P1', spec, knownBite })).toBe(
    'Registered as P1: 3/8" low profile · 1.3 mm · 50 links; a stroke taken at 0.02 mm, as on the loops before it',
  )
  expect(say('fitted', { sawId: 'x', barFlipped: true })).toBe('Put on Petrel, bar flipped')
  expect(say('takenOff', {})).toBe('Taken off')
  expect(say('ran', { tanks: 1.5, conditions: 'gritty' })).toBe('Ran 1.5 tanks in gritty bark')
  expect(say('struck', { against: 'unknown' })).toBe('Struck something')
  const one = [{ cutter: 1, lengthUm: 5000 }]
  expect(say('measured', { readings: one, readWith: 'ruler' })).toMatch(/^Measured with a ruler: /)
  expect(say('measured', { readings: one, readWith: 'eye' })).toMatch(/^Judged by eye: /)
  expect(say('measured', { readings: one, readWith: 'caliper' })).toBe(say('measured', { readings: one }))
  expect(say('measured', { readings: [{ cutter: 1, settingUm: 650 }] })).toBe('Measured: 1 gauge read')
  const checked = { method: 'grinder', gaugesLowered: false, stopChecked: true } as const
  expect(say('sharpened', checked)).toBe('Sharpened: ground, the stop checked at the turn')
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
  expect(say('specChanged', { changes: { settingUm: 600, fileUm: 5500 }, origin: 'box' })).toBe(
    'Spec: gauge setting 0.60 mm, file 5.5 mm (7/32"), from the box or sheet',
  )
  expect(say('retagged', { tag: 'K9' })).toBe('New tag: K9')
  expect(say('fitted', { sawId: 'x' })).toBe('Put on Petrel')
  expect(say('fitted', { sawId: 'x', tensionChecked: true, barFlipped: false, overruled: 'No other' })).toBe(
    'Put on Petrel, tension checked; overruled: No other',
  )
  expect(say('takenOff', { to: 'dullBox' })).toBe('Taken off, to the dull box')
  expect(say('moved', { to: 'sharpRack' })).toBe('Moved to the sharp rack')
  expect(say('sentOut', { shop: 'Quay works' })).toBe('Sent to Quay works')
  expect(say('sentOut', { shop: 'Quay works', dueBackAt: '2026-03-06T12:00:00.000Z' })).toBe(
    'Sent to Quay works, due back 2026-03-06',
  )
  expect(say('cameBack', { to: 'truck' })).toBe('Came back, to the truck')
  expect(say('ran', { tanks: 1, conditions: 'soil' })).toBe('Ran 1 tank in soil')
  expect(say('struck', { against: 'metal', cutters: [4, 5], deepest: { cutter: 5, depthUm: 900 } })).toBe(
    'Struck metal at 2 cutters, 0.90 mm deep on cutter 5',
  )
  expect(
    say('measured', {
      readings: [
        { cutter: 1, settingUm: 600 },
        { cutter: 2, settingUm: 610 },
      ],
    }),
  ).toBe('Measured: 2 gauges read')
  expect(
    say('sharpened', {
      method: 'grinder',
      gaugesLowered: false,
      strokes: { left: 4, right: 4 },
      wasDull: true,
      fileAge: 'worn',
    }),
  ).toBe('Sharpened: ground, 4 strokes, it was dull, worn file')
  expect(say('sharpened', { method: 'fileBench', gaugesLowered: false, wasDull: false })).toBe(
    'Sharpened: filed at the bench',
  )
  expect(say('gaugesLowered', {})).toBe('Gauges lowered')
  expect(say('dutyChanged', { duty: 'dirty' })).toBe('Kept for dirty work from now on')
  expect(say('dutyChanged', { duty: 'clean' })).toBe('Back to clean work')
  expect(say('decided', { action: 'file', advised: 'file', rulesVersion: 1 })).toBe('Settled: file at bench')
  expect(say('decided', { action: 'file', advised: 'regrind', rulesVersion: 1, overruled: 'No wheel here' })).toBe(
    'Overruled: file at bench instead of regrind; No wheel here',
  )
})
