import { expect, test } from 'vitest'
import { fold } from '../fold'
import { DEFAULT_RULES } from '../house'
import { asWritten } from '../log'
import { choicesFor } from './choices'
import { guessColumns, headingUnit, IMPORT_FIELDS, rememberColumns, unusedColumns } from './columns'
import { findHeadings, withUnits } from './headings'
import { planImport, type ImportContext } from './planImport'
import * as read from './readCells'
import { sharedTroubles } from './troubles'

const NOW = '2026-03-20T12:00:00.000Z'
const HEADINGS = ['Tag', 'Pitch', 'Gauge', 'DL', 'Type', 'Left', 'Saw', 'Where']
let ids = 0
const planOf = (rows: readonly (readonly string[])[], more: Partial<ImportContext> = {}) =>
  planImport(rows, guessColumns(more.headings ?? HEADINGS), {
    tags: [],
    saws: [{ id: 'saw-bell', nickname: 'Bellwether', pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72 }],
    takenSawIds: [],
    rules: DEFAULT_RULES,
    unit: 'mm',
    headings: HEADINGS,
    now: NOW,
    newId: () => `messy-${(ids += 1)}`,
    random: () => 0,
    ...more,
  })
const plain = (...more: string[]): string[] => ['N1', '3/8 std', '1.5', '72', 'semi', ...more]
const loopsOf = (plan: ReturnType<typeof planOf>) => {
  const ids = [...new Set(plan.entries.map(({ loopId }) => loopId))]
  return ids.map((id) => fold(plan.entries.filter(({ loopId }) => loopId === id).map((entry) => asWritten(entry, NOW))))
}
const all = (plan: ReturnType<typeof planOf>, row = 0): string =>
  [...(plan.rows[row]?.problems ?? []), ...(plan.rows[row]?.doubts ?? [])].map(({ message }) => message).join(' ')

test.each([
  ['6,5', { is: 'measured', um: 6500 }],
  ['about 5', { is: 'about', um: 5000 }],
  ['~4.5 mm', { is: 'about', um: 4500 }],
  ['5ish', { is: 'about', um: 5000 }],
  ['new', { is: 'new' }],
  ['brand new', { is: 'new' }],
  ['unused', { is: 'new' }],
  ['about half', { is: 'part', part: 0.5 }],
  ['half left', { is: 'part', part: 0.5 }],
  ['3/4', { is: 'part', part: 0.75 }],
  ['three quarters gone', { is: 'part', part: 0.25 }],
  ['60 %', { is: 'part', part: 0.6 }],
  ['60% worn', { is: 'part', part: 0.4 }],
  ['nearly new', { is: 'part', part: 0.95 }],
  ['worn out', { is: 'part', part: 0 }],
  ['used', { is: 'used' }],
  ['', { is: 'unsaid' }],
  ['?', { is: 'unsaid' }],
])('of what is left, "%s" is understood', (text, value) => {
  expect(read.readLeftCell(text, 'mm')).toMatchObject({ ok: true, value })
})

test('what does not say how much is left is asked about, a formula that went wrong too', () => {
  expect(read.readLeftCell('blue', 'mm')).toMatchObject({ ok: false })
  expect(read.readLeftCell('#REF!', 'mm')).toMatchObject({ message: expect.stringContaining('went wrong') as string })
  expect(read.readLeftCell('130 %', 'mm').ok).toBe(false)
  // A quarter of an inch may well be left of a cutter, three quarters of one never.
  expect(['1/4', '3/4'].map((text) => 'doubt' in read.readLeftCell(text, 'mm'))).toEqual([true, false])
})

test('the trade’s short forms', () => {
  const pitch = (text: string) => read.readPitchCell(text, false)
  expect(['LP', '3/8LP', '3/8 lo-pro', '325', '404', '375 std', '0,325'].map(pitch)).toMatchObject(
    ['lowProfile', 'lowProfile', 'lowProfile', 'p325', 'p404', 'threeEighths', 'p325'].map((value) => ({ value })),
  )
  expect(['full', 'half', 'skip', 'F/S skip', 'semi', 'no', 'full skip', 'std'].map(read.readSequenceCell)).toEqual(
    ['full', 'semiSkip', 'fullSkip', 'fullSkip', 'semiSkip', 'full', 'fullSkip', 'full'].map((value) => ({
      ok: true,
      value,
    })),
  )
  expect(['FC', 'SC', 'semi', 'chisel', 'full'].map(read.readCutterTypeCell)).toMatchObject(
    ['fullChisel', 'semiChisel', 'semiChisel', 'fullChisel', 'fullChisel'].map((value) => ({ value })),
  )
  expect(read.readGaugeCell('1.3 mm (.050")', 'mm')).toEqual({ ok: true, value: 1300 })
  expect(read.readGaugeCell('1.3/.050', 'mm')).toEqual({ ok: true, value: 1300 })
})

test('every choice that a cell can be mended to is read back as what it says, with no doubt left', () => {
  const readers = {
    pitch: (text: string) => read.readPitchCell(text, true),
    gauge: (text: string) => read.readGaugeCell(text, 'inch'),
    cutterType: read.readCutterTypeCell,
    sequence: read.readSequenceCell,
    condition: (text: string) => read.readLeftCell(text, 'inch'),
    place: read.readPlaceCell,
    startMark: read.readStartMarkCell,
  }
  for (const [field, reader] of Object.entries(readers)) {
    const choices = choicesFor(field as keyof typeof readers)
    const values = choices.map(({ text }) => reader(text))
    expect(
      values.filter((cell) => !cell.ok || 'doubt' in cell),
      field,
    ).toEqual([])
    expect(new Set(values.map((cell) => JSON.stringify(cell))).size, field).toBe(choices.length)
  }
})

test('headings are found below titles, with the units beside or below them', () => {
  const rows = [
    ['Chains of the crew', '', ''],
    ['spring', '', ''],
    [],
    ['Tag', 'Pitch', 'Gauge', 'DL', 'Length'],
    ['', '', 'thou', '', 'mm'],
    ['K9', '3/8 std', '58', '72', '6.5'],
  ]
  expect(findHeadings(rows)).toEqual({ row: 3, fields: 5 })
  const { headings, first } = withUnits(rows, 3)
  expect([headings[2], headings[4], first]).toEqual(['Gauge (thou)', 'Length (mm)', 5])
  expect(withUnits(rows, 0)).toEqual({ headings: rows[0], first: 1 })
  // Where nothing looks like a heading, the first row that holds anything is taken.
  expect(findHeadings([[''], ['Eins', 'Zwei']])).toEqual({ row: 1, fields: 0 })
  expect(['Gauge (thou)', 'Length mm', 'File [in]', 'Left "', 'Chain'].map(headingUnit)).toEqual([
    'thou',
    'mm',
    'in',
    'in',
    null,
  ])
})

test('figures are in the unit of their heading, whatever the crew writes', () => {
  const headings = ['Tag', 'Pitch', 'Gauge (thou)', 'DL', 'Type', 'Length (in)']
  const [loop] = loopsOf(planOf([['N1', '3/8 std', '58', '72', 'semi', '0.25']], { headings }))
  expect(loop?.spec.gaugeUm).toBe(1500)
  // A quarter of an inch is 6.35 mm by definition.
  expect(loop?.cutters[0]?.length.um).toBe(6350)
})

test('a row that repeats the headings is no loop, and the numbers of rows are those of the sheet', () => {
  const { rows, counts } = planOf([plain(), HEADINGS, plain().with(0, 'N2')], { firstRow: 6 })
  expect(counts).toMatchObject({ add: 2, blank: 1, wrong: 0 })
  expect(rows.map(({ row }) => row)).toEqual([6, 7, 8])
})

test('a used loop never comes as new: only what is called new does', () => {
  const came = (left: string) => {
    const plan = planOf([plain(left)])
    return { entry: plan.entries[0], asks: plan.counts.doubtful }
  }
  expect(came('new').entry).not.toHaveProperty('used')
  expect(came('')).toMatchObject({ entry: { used: {} }, asks: 1 })
  // Half way between 8.0 mm new and 1.0 mm at the mark, where the profile of standard 3/8" has them.
  const { spec } = loopsOf(planOf([plain('new')]))[0] ?? {}
  const half = Math.round(((spec?.newLengthUm ?? 0) + (spec?.markLengthUm ?? 0)) / 200) * 100
  expect(came('about half')).toMatchObject({ entry: { used: { aboutUm: half } }, asks: 0 })
  expect(came('6.5')).toMatchObject({ entry: { used: {} } })
  expect(all(planOf([plain('about 50')]))).toContain('longer than a new cutter')
})

test('new in one column and half worn in another is used, and asked', () => {
  const headings = [...HEADINGS, 'Condition']
  const plan = planOf([[...plain('about half', '', ''), 'new']], { headings })
  expect(plan.entries[0]).toHaveProperty('used.aboutUm')
  expect(all(plan)).toContain('Called new in one place and used in another')
})

test('a loop goes onto the saw that its row names, once, and only where it fits', () => {
  const plan = planOf([
    plain('new', 'Bellwether'),
    plain('new', 'Bellwether').with(0, 'N2'),
    ['N3', '.325', '1.3', '64', 'semi', 'new', 'Bellwether'],
    plain('new', 'Bellwether', 'rack').with(0, 'N4'),
  ])
  expect(loopsOf(plan).map((loop) => loop?.place.at)).toEqual(['saw', 'bench', 'bench', 'sharpRack'])
  expect(plan.counts.wrong).toBe(0)
  expect(all(plan, 1)).toContain('Another loop is on Bellwether: put on the bench.')
  expect(all(plan, 2)).toContain('must not be on it: pitch is')
})

test('a saw that is lent out takes no loop, and a worn groove is overruled as it was found', () => {
  const bell = {
    id: 'saw-bell',
    nickname: 'Bellwether',
    pitchClass: 'threeEighths',
    gaugeUm: 1500,
    driveLinks: 72,
  } as const
  const onBell = (more: object) => planOf([plain('new', 'Bellwether')], { saws: [{ ...bell, ...more }] })
  expect(loopsOf(onBell({ gone: { how: 'lent' } }))[0]?.place.at).toBe('bench')
  expect(all(onBell({ gone: { how: 'lent' } }))).toContain('the saw is lent out')
  expect(onBell({ grooveWidthUm: 1800 }).entries.at(-1)).toMatchObject({ kind: 'fitted', overruled: 'As it was found' })
})

test('what was mended stands in place of the cell, a row left out stays out, a hidden one is asked about', () => {
  const rows = [plain('new').with(1, '3/8'), plain('new').with(0, 'N2').with(4, 'banana'), plain('new').with(0, 'N3')]
  const before = planOf(rows, { hiddenRows: [4] })
  expect(before.rows.map(({ fate }) => fate)).toEqual(['add', 'wrong', 'add'])
  expect(before.rows[1]?.texts).toMatchObject({ cutterType: 'banana' })
  expect(all(before, 2)).toContain('The sheet hides this row.')
  const mended = { 2: { texts: { pitch: '3/8" low profile', gauge: '1.3' } }, 3: { texts: { cutterType: 'chisel' } } }
  const after = planOf(rows, { mended: { ...mended, 4: { out: true } } })
  expect(after.counts).toMatchObject({ add: 2, wrong: 0, out: 1, doubtful: 0 })
  expect(loopsOf(after).map((loop) => [loop?.spec.pitchClass, loop?.spec.cutterType])).toEqual([
    ['lowProfile', 'semiChisel'],
    ['threeEighths', 'fullChisel'],
  ])
})

test('the same words in a column are one trouble, settled once; a tag is each row’s own', () => {
  const rows = ['A', 'B', 'C', 'D'].map((tag, i) => [tag, '3/8', '1.5', '72', i < 3 ? 'CJ' : 'semi', 'new'])
  const { rows: fates } = planOf([...rows, ['A', ...plain('new').slice(1)]])
  expect(sharedTroubles(fates).map(({ field, text, rows: of }) => [field, text, of])).toEqual([
    ['pitch', '3/8', [2, 3, 4, 5]],
    ['cutterType', 'CJ', [2, 3, 4]],
  ])
})

test('columns that nothing is taken from are named, and a match is remembered for the next file', () => {
  const headings = ['Chain', 'Pitch', 'Gauge', 'Teeth below', 'Bought', '']
  const match = { ...guessColumns(headings), driveLinks: 3 }
  expect(unusedColumns(headings, match)).toEqual(['Bought'])
  const remembered = rememberColumns(headings, match)
  const next = ['PITCH', 'Teeth below (count)', 'bought', 'Gauge', 'Chain']
  expect(guessColumns(next, remembered)).toEqual({ pitch: 0, driveLinks: 1, gauge: 3, tag: 4 })
  expect(IMPORT_FIELDS).toContain('condition')
})

test('a loop that is not fit for use as it comes is not put on a saw, whatever the sheet says', () => {
  const onSaw = (left: string, place = '') => {
    const plan = planOf([plain(left, 'Bellwether', place)])
    return [loopsOf(plan)[0]?.place.at, /not fit for use as it is/.test(all(plan))]
  }
  expect(onSaw('', 'on saw')).toEqual(['bench', true])
  expect(onSaw('almost none')).toEqual(['bench', true])
  expect(onSaw('about half', 'on saw')).toEqual(['saw', false])
  expect(onSaw('new')).toEqual(['saw', false])
})
