import { expect, test } from 'vitest'
import { card, saw } from '../../fixtures/shed'
import { Finder, type Found } from './find'

const people = [{ id: 'person-tobe', name: 'Tobe Harrow', role: 'sawyer' as const }]
const loops = [card('K10'), card('K2', 'Kittiwake'), card('B7', null, {}, true), card('TREE')]
const sought = { loops, saws: [saw('Kittiwake'), saw('Great Tern')], people, isLead: true, dates: 'dayFirst' as const }
const finder = new Finder(sought)
const names = (typed: string) => finder.find(typed).map(({ name }) => name)
const first = (typed: string): Found | undefined => finder.find(typed)[0]

test('a tag, in any case, stands first, and tags that begin alike are counted', () => {
  expect(first('k2')).toMatchObject({ kind: 'loop', name: 'K2', to: { params: { tag: 'K2' } } })
  expect(names('k').slice(0, 3)).toEqual(['K2', 'K10', 'Kittiwake'])
})

test('loops that were retired are found, and say so', () => {
  expect(first('b7')).toMatchObject({ name: 'B7', about: 'retired' })
})

test('a loop that is not fit says so, and which side of it waits where one does', () => {
  const half = { fitForUse: false, reason: { rule: 'sideWaits', hand: 'right' } } as const
  const cracked = { fitForUse: false, reason: { rule: 'endsLoop' }, action: 'retire' } as const
  const unfit = new Finder({
    ...sought,
    loops: [{ ...card('H1'), ...half }, { ...card('H2'), ...cracked }, card('H3')],
  })
  const about = (tag: string): string | undefined => unfit.find(tag)[0]?.about
  expect(about('h1')).toMatch(/^not fit · right side waits · /)
  expect(about('h2')).toMatch(/^not fit · .* · /)
  expect(about('h3')).not.toContain('not fit')
})

test('saws, people, screens, house rules and words are found by a beginning or with a slip', () => {
  expect(first('great')).toMatchObject({ kind: 'saw', name: 'Great Tern' })
  expect(first('tobe')).toMatchObject({ kind: 'person', to: { name: 'crew' } })
  expect(first('password')).toMatchObject({ kind: 'screen', name: 'My page' })
  expect(first('side plate')?.name.toLowerCase()).toBe('side plate')
  expect(finder.find('same strokes').map(({ kind }) => kind)).toContain('rule')
  expect(first('blued')).toMatchObject({ kind: 'word', to: { name: 'glossary', hash: '#word-blued' } })
  expect(names('witnes mark')).toContain('witness mark')
})

test('a loop is found by what it is and by where it is', () => {
  expect(names('kittiwake')).toEqual(expect.arrayContaining(['Kittiwake', 'K2']))
})

test('before anything is typed the screens are shown, and a lead’s are kept from others', () => {
  expect(finder.find('').every(({ kind }) => kind === 'screen')).toBe(true)
  expect(names('add a loop')).toContain('Add a loop')
  const others = new Finder({ ...sought, isLead: false }).find('add a loop')
  expect(others.map(({ name }) => name)).not.toContain('Add a loop')
})

test('what is not there is not found', () => {
  expect(finder.find('qqqq')).toEqual([])
  expect(finder.find('  ')).toEqual(finder.find(''))
})
