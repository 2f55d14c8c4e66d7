import { expect, test } from 'vitest'
import type { SawDue, SawEntry, SawEntryBodies, SawEntryKind } from '../saw'
import { isFlip, sayDueBriefly, saySawEntry, SAW_DUE_WORDS } from './sawEntry'

const say = <K extends SawEntryKind>(kind: K, body: SawEntryBodies[K]): string =>
  saySawEntry(
    { id: 'e', sawId: 's', happenedAt: '', writtenAt: '', personId: null, kind, ...body } as unknown as SawEntry,
    'mm',
  )

test('every kind of entry in a saw’s log has its line', () => {
  expect(say('barFitted', { gaugeUm: 1600, driveLinks: 84, nosePitchClass: 'threeEighths' })).toBe(
    'Another bar: 1.6 mm, 84 drive links, nose 3/8".',
  )
  expect(say('barFitted', { gaugeUm: 1600, driveLinks: 84, nosePitchClass: null })).toContain('solid nose')
  expect(say('barFlipped', {})).toBe('Bar flipped.')
  expect(say('barChecked', { grooveWidthUm: 1650, grooveDepthUm: 8000, burrs: true })).toBe(
    'Bar checked: groove 1.65 mm wide, 8.00 mm deep, rails burred.',
  )
  expect(say('barChecked', { burrs: false })).toBe('Bar checked: no burrs.')
  expect(say('barChecked', { grooveDepthUm: 8000 })).toBe('Bar checked: 8.00 mm deep.')
  expect(say('railsDressed', {})).toBe('Rails dressed.')
  expect(say('sprocketRenewed', { pitchClass: 'p325' })).toBe('Sprocket renewed: .325".')
  expect(say('sawCorrected', { strikes: 'x' })).toBe('Struck an entry out.')
})

test('what is due, in a word: the sprocket before the bar, flipping where it is all there is', () => {
  const brief: Record<string, SawDue[]> = {
    sprocket: ['burrs', 'sprocketSoon'],
    bar: ['burrs', 'flipByHours'],
    'flip the bar': ['flipAtChange'],
  }
  for (const [word, due] of Object.entries(brief)) expect(sayDueBriefly(due)).toBe(word)
  expect(sayDueBriefly(['sprocketNow'])).toBe('sprocket')
  expect(sayDueBriefly(['grooveWorn'])).toBe('bar')
  const flips = (Object.keys(SAW_DUE_WORDS) as SawDue[]).filter(isFlip)
  expect(flips).toEqual(['flipAtChange', 'flipByHours'])
})
