import { expect, test } from 'vitest'
import { SPEC } from '../fixtures/logs'
import { fitCheck, fits } from './fit'
import { sayFit, saySawFit } from '../words'

const SAW = { pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72, nosePitchClass: 'threeEighths' } as const

// Common practice: pitch, gauge and drive-link count decide what goes on a bar.
test('a loop that agrees in every part fits', () => {
  const check = fitCheck(SPEC, SAW)
  expect(check.level).toBe('fits')
  expect(check.parts.map(({ part }) => part).sort()).toEqual(['driveLinks', 'groove', 'nose', 'sprocket'])
})

test.each([
  ['pitch', { ...SPEC, pitchClass: 'p325' as const }, 'sprocket', /pitch is \.325", the sprocket takes 3\/8"/],
  ['too thick', { ...SPEC, gaugeUm: 1600 }, 'groove', /gauge is 1\.6 mm, the groove takes 1\.5 mm: it binds/],
  ['too thin', { ...SPEC, gaugeUm: 1300 }, 'groove', /flops/],
  ['too short', { ...SPEC, driveLinks: 70 }, 'driveLinks', /70 drive links, the bar takes 72/],
])('%s must not be, and says why', (_name, spec, part, reason) => {
  const { level, parts } = fitCheck(spec, SAW)
  expect(level).toBe('mustNot')
  expect(parts.find((one) => one.part === part && one.level === 'mustNot')?.reason).toMatch(reason)
  expect(fits(spec, SAW)).toBe(false)
})

test('a nose of another pitch keeps a loop off even when the sprocket agrees', () => {
  const { level, parts } = fitCheck(SPEC, { ...SAW, nosePitchClass: 'p325' })
  expect(level).toBe('mustNot')
  expect(parts[0]).toMatchObject({ part: 'nose', level: 'mustNot' })
  expect(fitCheck(SPEC, { ...SAW, nosePitchClass: null }).level).toBe('fits')
})

test('what is a drawback and no danger will run, but', () => {
  expect(fitCheck({ ...SPEC, pitchClass: 'lowProfile' }, SAW).level).toBe('but')
  expect(fitCheck(SPEC, SAW, { grooveWidthUm: 1710 }).level).toBe('but')
  expect(fitCheck(SPEC, SAW, { grooveWidthUm: 1700 }).level).toBe('fits')
  expect(fitCheck(SPEC, SAW, { due: ['sprocketNow'] }).level).toBe('but')
})

test.each([
  ['pitch', { ...SAW, pitchClass: null }, 'sprocket', /nobody has said which pitch the sprocket takes/],
  ['gauge', { ...SAW, gaugeUm: null }, 'groove', /nobody has said which gauge the groove takes/],
  ['drive links', { ...SAW, driveLinks: null }, 'driveLinks', /nobody has said how many drive links the bar takes/],
])('a saw whose %s nobody has read off takes no loop', (_name, saw, part, reason) => {
  const { level, parts } = fitCheck(SPEC, saw)
  expect(level).toBe('mustNot')
  expect(parts.find((one) => one.level === 'mustNot')).toMatchObject({ part })
  expect(parts[0]?.reason).toMatch(reason)
  expect(saySawFit(saw)).toMatch(/ not known/)
})

test('a loop that is not fit for use must not go on any saw', () => {
  const check = fitCheck(SPEC, SAW, {}, false)
  expect(check.level).toBe('mustNot')
  expect(sayFit('K4', 'Bellwether', check)).toBe('K4 must not go on Bellwether: it is not fit for use as it is.')
})
