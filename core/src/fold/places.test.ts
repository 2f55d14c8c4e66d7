import fc from 'fast-check'
import { expect, test } from 'vitest'
import { admit } from '../admit'
import { Log, hour, SPEC } from '../fixtures/logs'
import type { EntryBodies, EntryKind, NewEntry } from '../log'
import { originOf } from '../profile'
import { fold } from './fold'

const NOW_MS = Date.parse(hour(5000))
const problemsOf = <K extends EntryKind>(log: Log, kind: K, body: EntryBodies[K]) =>
  admit(
    {
      id: 'entry-to-try',
      loopId: 'loop-under-test',
      happenedAt: hour(log.entries.length),
      personId: null,
      kind,
      ...body,
    } as unknown as NewEntry,
    log.entries,
    NOW_MS,
  ).map(({ code }) => code)

test('a time on a saw takes no more than all of a loop, and no less than nothing', () => {
  const fitted = () => new Log({ ...SPEC, markLengthUm: 6000 }).measureAll(7000).add('fitted', { sawId: 'saw-one-1' })
  const worn = (um: number) => fold(fitted().measureAll(um).entries)?.stints[0]?.worn
  expect([worn(3000), worn(6000), worn(7200)]).toEqual([1, expect.closeTo(0.5, 1), 0])
})

test('a loop is where it was put last', () => {
  const log = new Log()
  expect(fold(log.entries)?.place).toEqual({ at: 'bench' })
  expect(fold(log.add('moved', { to: 'truck' }).entries)?.place).toEqual({ at: 'truck' })
  expect(fold(log.add('fitted', { sawId: 'saw-one-1' }).entries)).toMatchObject({
    place: { at: 'saw', sawId: 'saw-one-1' },
    sawId: 'saw-one-1',
  })
  expect(fold(log.add('takenOff', { to: 'dullBox' }).entries)).toMatchObject({ place: { at: 'dullBox' }, sawId: null })
  expect(fold(log.add('sentOut', { shop: 'Quay works', dueBackAt: hour(99) }).entries)?.place).toMatchObject({
    at: 'shop',
    shop: 'Quay works',
    dueBackAt: hour(99),
  })
  expect(fold(log.add('cameBack', { to: 'sharpRack', costMinor: 1450 }).entries)).toMatchObject({
    place: { at: 'sharpRack' },
    shopCostMinor: 1450,
  })
  expect(fold(log.add('retired', { reason: 'worn' }).entries)?.place).toEqual({ at: 'retired' })
})

test('what is at a shop has to come back before it goes anywhere else', () => {
  const log = new Log().add('sentOut', { shop: 'Quay works' })
  expect(problemsOf(log, 'fitted', { sawId: 'saw-one-1' })).toEqual(['at-a-shop'])
  expect(problemsOf(log, 'moved', { to: 'truck' })).toEqual(['at-a-shop'])
  expect(problemsOf(log, 'cameBack', { to: 'bench' })).toEqual([])
  expect(problemsOf(new Log(), 'cameBack', { to: 'bench' })).toEqual(['not-at-a-shop'])
})

test('times on saws carry their tanks and what of the loop went meanwhile', () => {
  const log = new Log()
    .add('fitted', { sawId: 'saw-one-1', barFlipped: true })
    .add('ran', { tanks: 2, conditions: 'clean' })
    .add('takenOff', {})
  log.add('ran', { tanks: 1, conditions: 'clean' }).measureAll(6000).add('fitted', { sawId: 'saw-two-2' })
  const stints = fold(log.entries)?.stints
  expect(stints).toMatchObject([
    { sawId: 'saw-one-1', tanks: 2, flipped: true, worn: 0.25, to: hour(3) },
    { sawId: 'saw-two-2', tanks: 0, flipped: false, worn: 0, to: null },
  ])
})

test('whatever is done with it, a loop is in one place, and on a saw exactly when its place is one', () => {
  const step = fc.constantFrom(
    ['fitted', { sawId: 'saw-one-1' }],
    ['fitted', { sawId: 'saw-two-2' }],
    ['takenOff', {}],
    ['moved', { to: 'truck' }],
    ['sentOut', { shop: 'Quay works' }],
    ['cameBack', { to: 'bench' }],
  ) as fc.Arbitrary<[EntryKind, never]>
  fc.assert(
    fc.property(fc.array(step, { maxLength: 15 }), (steps) => {
      const log = new Log()
      for (const [kind, body] of steps) if (problemsOf(log, kind, body).length === 0) log.add(kind, body)
      const state = fold(log.entries)
      expect(state?.sawId).toBe(state?.place.at === 'saw' ? state.place.sawId : null)
      const open = state?.stints.filter(({ to }) => to === null) ?? []
      expect(open.map(({ sawId }) => sawId)).toEqual(state?.sawId === null ? [] : [state?.sawId])
    }),
  )
})

test('a value of the spec is replaced for the whole life, with where it comes from, and can be struck out', () => {
  const log = new Log()
    .measureAll(6000)
    .add('specChanged', { changes: { newLengthUm: 7500, settingUm: 600 }, origin: 'box' })
  const state = fold(log.entries)
  expect(state?.spec).toMatchObject({ newLengthUm: 7500, settingUm: 600, fileUm: SPEC.fileUm })
  expect(state === null ? null : originOf(state.spec, 'settingUm')).toBe('box')
  expect(originOf(SPEC, 'settingUm')).toBe('commonPractice')
  expect(state?.life[0]?.shortestUm).toBe(7500)
  log.add('corrected', { strikes: log.entries.at(-1)?.id ?? '' })
  expect(fold(log.entries)?.spec).toEqual(SPEC)
})

test('a spec that the log contradicts is refused in words', () => {
  const log = new Log().measureAll(6000)
  expect(problemsOf(log, 'specChanged', { changes: { driveLinks: 60 }, origin: 'measured' })).toEqual([
    'spec-cannot-be',
  ])
  expect(problemsOf(log, 'specChanged', { changes: { markLengthUm: 9000 }, origin: 'box' })).toEqual(['spec-cannot-be'])
  expect(problemsOf(new Log(), 'specChanged', { changes: { driveLinks: 60 }, origin: 'measured' })).toEqual([])
})

test('another tag counts from when it was given', () => {
  const log = new Log().add('retagged', { tag: '222Y' })
  expect(fold(log.entries)?.tag).toBe('222Y')
  expect(fold(log.entries, hour(0))?.tag).toBe('T1')
})

test('of two who put one loop on two saws the later stands, and the earlier is set aside until somebody looks', () => {
  const both = () =>
    new Log()
      .add('fitted', { sawId: 'saw-one-1', from: null }, { personId: 'one' })
      .add('ran', { tanks: 1, conditions: 'clean' })
      .add('fitted', { sawId: 'saw-two-2', from: null }, { personId: 'two' })
  const { entries } = both()
  const [, fitting] = entries
  const set = {
    overtaken: { entryId: fitting?.id, sawId: 'saw-one-1', at: fitting?.happenedAt, personId: 'one', by: 'two' },
  }
  expect(fold(entries)).toMatchObject({ sawId: 'saw-two-2', ...set })
  // In whichever order they come home, and however much it ran between and since.
  expect(fold([...entries].reverse())).toEqual(fold(entries))
  expect(fold(both().add('ran', { tanks: 2, conditions: 'clean' }).entries)).toMatchObject(set)
  // Whoever knew where it was, and puts it where it is, ends that; so does striking out the one that was wrong.
  const after = (kind: 'takenOff' | 'fitted', from: string | null, sawId?: string) =>
    fold((kind === 'fitted' ? both().add(kind, { from, sawId: sawId ?? '' }) : both().add(kind, { from })).entries)
  expect(after('fitted', 'saw-two-2', 'saw-one-1')).toMatchObject({ sawId: 'saw-one-1', overtaken: null })
  expect(after('takenOff', 'saw-two-2')?.overtaken).toBeNull()
  expect(after('takenOff', 'saw-one-1')?.overtaken).toMatchObject({ sawId: 'saw-two-2' })
  const struck = both().add('corrected', { strikes: fitting?.id ?? '' })
  expect(fold(struck.entries)).toMatchObject({ sawId: 'saw-two-2', overtaken: null })
})

test('who says the same, knew of it or says nothing of where it was sets nothing aside', () => {
  const on = () => new Log().add('fitted', { sawId: 'saw-one-1', from: null })
  for (const body of [
    { sawId: 'saw-one-1', from: null },
    { sawId: 'saw-two-2', from: 'saw-one-1' },
    { sawId: 'saw-two-2' },
  ])
    expect(fold(on().add('fitted', body).entries)?.overtaken, JSON.stringify(body)).toBeNull()
  expect(fold(on().add('moved', { to: 'bench', from: null }).entries)?.overtaken).toMatchObject({ sawId: 'saw-one-1' })
})
