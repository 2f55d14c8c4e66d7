import { expect, test } from 'vitest'
import { admit } from '../admit'
import { fold } from '../fold'
import { DEFAULT_RULES } from '../house'
import { asWritten, type Entry } from '../log'
import { guessColumns, type ColumnMatch } from './columns'
import type { Remark } from './findings'
import { planImport, type ImportContext } from './planImport'
import { cleanCell, readCutterTypeCell, readDriveLinksCell, readGaugeCell, readPitchCell } from './readCells'

const NOW = '2026-03-20T12:00:00.000Z'
let ids = 0
const context = (more: Partial<ImportContext> = {}): ImportContext => ({
  tags: ['K1'],
  saws: [{ id: 'saw-bell', nickname: 'Bellwether', pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72 }],
  takenSawIds: [],
  rules: DEFAULT_RULES,
  unit: 'mm',
  headings: HEADINGS,
  now: NOW,
  newId: () => `imported-${(ids += 1)}`,
  random: () => 0,
  ...more,
})
const HEADINGS = [
  'Chain no.',
  'Pitch',
  'Gauge',
  'DL',
  'Type',
  'Skip?',
  'File',
  'Cutter length',
  'Saw',
  'Where',
  'Paint',
  'Remarks',
]
const MATCH = guessColumns(HEADINGS)
const plan = (...rows: string[][]) => planImport(rows, MATCH, context())
const said = (remarks: readonly Remark[] = []): string[] => remarks.map(({ message }) => message)

test('columns are matched by their headings', () => {
  expect(MATCH).toEqual({
    tag: 0,
    pitch: 1,
    gauge: 2,
    driveLinks: 3,
    cutterType: 4,
    sequence: 5,
    file: 6,
    length: 7,
    saw: 8,
    place: 9,
    startMark: 10,
    note: 11,
  })
})

// Gauges by definition of the inch: .043" 1.09, .050" 1.27, .058" 1.47, .063" 1.60, .080" 2.03 mm.
test.each([
  ['.050"', 1300],
  ['.058', 1500],
  ['63', 1600],
  ['1.3', 1300],
  ['1,5', 1500],
  ['0.043"', 1100],
  ['80', 2000],
])('gauge %s is %d µm', (text, um) => {
  expect(readGaugeCell(text, 'mm')).toEqual({ ok: true, value: um })
})

test('a gauge that lies off every size in use is a doubt, or cannot be', () => {
  expect(readGaugeCell('1.46', 'mm')).toMatchObject({
    ok: true,
    value: 1500,
    doubt: expect.stringContaining('worn, or a slip') as string,
  })
  expect(readGaugeCell('1.9', 'mm')).toMatchObject({ ok: false })
  // Six hundredths of a millimetre off one in use, no further; from four on it is said.
  expect(['1.660', '1.661'].map((text) => readGaugeCell(text, 'mm').ok)).toEqual([true, false])
  expect(['1.635', '1.636'].map((text) => 'doubt' in readGaugeCell(text, 'mm'))).toEqual([false, true])
  expect(readGaugeCell(' ', 'mm')).toEqual({ ok: false, message: 'The gauge is missing.' })
  // From two tenths of an inch on a bare number is no gauge in inches.
  expect(readGaugeCell('.2', 'mm')).toMatchObject({ message: 'A gauge of 0.20 mm is not in use.' })
  expect(readGaugeCell('wide', 'mm')).toEqual({ ok: false, message: '"wide" is not a gauge.' })
})

test.each([
  ['truck', 'truck'],
  ['sharp rack', 'sharpRack'],
  ['dull box', 'dullBox'],
  ['retired', 'retired'],
])('a loop that lies in the %s is moved there', (cell, at) => {
  const { rows, entries } = plan(['N1', '3/8 std', '1.5', '72', 'semi', '', '', '', '', cell])
  expect(rows[0]?.problems).toEqual([])
  expect(fold(entries.map((entry) => asWritten(entry, NOW)))?.place).toEqual({ at })
})

test.each([
  ['.325', 'p325'],
  ['0.325"', 'p325'],
  ['1/4', 'quarter'],
  ['3/8 LP', 'lowProfile'],
  ['3/8" low profile', 'lowProfile'],
  ['.404"', 'p404'],
  ['3/8 standard', 'threeEighths'],
  ['8.25', 'p325'],
])('pitch %s is %s', (text, pitchClass) => {
  expect(readPitchCell(text, false)).toMatchObject({ ok: true, value: pitchClass })
})

test('a row that says it is at a shop goes there', () => {
  const { entries } = plan(['N1', '3/8 std', '1.5', '72', 'semi', '', '', '', '', 'at the shop'])
  expect(fold(entries.map((entry) => asWritten(entry, NOW)))?.place).toMatchObject({ at: 'shop' })
})

test('a pitch is taken for the one that it lies next to, to about a tenth of a millimetre', () => {
  // 3/8" is 9.525 mm, .404" 10.262 mm.
  expect(readPitchCell('9.64', false)).toMatchObject({ ok: true, value: 'threeEighths' })
  expect(readPitchCell('9.645', false)).toMatchObject({ ok: true, value: 'threeEighths' })
  expect(readPitchCell('9.646', false)).toMatchObject({ ok: false })
  expect(readPitchCell('9.41', false)).toMatchObject({ ok: true, value: 'threeEighths' })
})

test('a file as thin as those of small cutters tells low profile from standard', () => {
  const pitchOf = (...cells: readonly string[]) => {
    const { entries } = plan(['N1', '3/8', ...cells])
    return fold(entries.map((entry) => asWritten(entry, NOW)))?.spec.pitchClass
  }
  expect(pitchOf('1.3', '50', 'semi', '', '4.0')).toBe('lowProfile')
  expect(pitchOf('1.5', '72', 'semi', '', '5.2')).toBe('threeEighths')
  expect(pitchOf('1.5', '72', 'semi')).toBe('threeEighths')
  expect(pitchOf('1.1', '50', 'semi')).toBe('lowProfile')
})

test('3/8 alone is a doubt, whichever way it is taken', () => {
  expect(readPitchCell('3/8', false)).toMatchObject({
    value: 'threeEighths',
    doubt: expect.stringContaining('standard') as string,
  })
  expect(readPitchCell('3/8', true)).toMatchObject({
    value: 'lowProfile',
    doubt: expect.stringContaining('low profile') as string,
  })
  expect(readPitchCell('7/16', false)).toMatchObject({ ok: false })
})

test('a plain row becomes a loop where it is said to be, and the log takes every entry', () => {
  const { rows, entries, counts } = plan([
    'N1',
    '3/8 std',
    '1.5',
    '72',
    'semi',
    '',
    '5.2',
    '6,5',
    'Bellwether',
    'on saw',
    'red',
    'bought in spring',
  ])
  expect(rows[0]).toMatchObject({ row: 2, fate: 'add', tag: 'N1', problems: [] })
  expect(counts).toEqual({ add: 1, wrong: 0, blank: 0, out: 0, doubtful: 0 })
  const log: Entry[] = []
  for (const entry of entries) {
    expect(admit(entry, log, Date.parse(NOW))).toEqual([])
    log.push(asWritten(entry, NOW))
  }
  expect(entries.map(({ note }) => note)).toContain('bought in spring')
  const state = fold(log)
  expect(state).toMatchObject({
    tag: 'N1',
    sawId: 'saw-bell',
    spec: { startMark: 'red', fileUm: 5200, origins: { fileUm: 'crew' } },
  })
  // One length without a date is of some time or other: an estimate.
  expect(state?.cutters[0]?.length).toMatchObject({ um: 6500, known: 'estimated' })
})

test('a long sheet says how far it is, row by row counted', () => {
  const rows = Array.from({ length: 520 }, () => ['', '', '', ''])
  const seen: number[] = []
  planImport(rows, MATCH, context(), (done) => seen.push(done))
  expect(seen).toEqual([250, 500])
})

test('every kind of mess in a row is named', () => {
  const { rows } = plan(
    ['K1', '3/8 std', '1.5', '72'],
    ['N2', '', '1.5', '72'],
    ['N3', '3/8 std', '1.9', '72'],
    ['N4', '3/8 std', '1.5', '7'],
    ['N5', '3/8 std', '1.5', '72', 'banana'],
    ['N6', '3/8 std', '1.5', '72', 'semi', '', '', '65'],
    ['=SUM(A1)', '3/8 std', '1.5', '72', 'semi'],
    ['', '', '', ''],
    ['N7', '.325', '1.3', '64', 'semi', '', '', '', 'Bellwether', 'saw'],
    ['n5', '3/8 std', '1.5', '72', 'semi'],
    ['N5', '3/8 std', '1.5', '72', 'semi'],
  )
  expect(rows.map(({ fate }) => fate)).toEqual([
    'wrong',
    'wrong',
    'wrong',
    'wrong',
    'wrong',
    'wrong',
    'wrong',
    'blank',
    'wrong',
    'add',
    'wrong',
  ])
  const why = rows.map(({ problems }) => said(problems).join(' '))
  expect(why[0]).toBe('The tag K1 is taken.')
  expect(why[1]).toBe('The pitch is missing.')
  expect(why[2]).toMatch(/1\.90 mm is not in use/)
  expect(why[3]).toMatch(/20 to 250 drive links, not 7/)
  expect(why[4]).toMatch(/"banana" is not a cutter type/)
  expect(why[5]).toMatch(/65\.00 mm is longer than a new cutter/)
  expect(why[6]).toMatch(/cannot be a tag/)
  expect(why[8]).toMatch(/must not be on Bellwether: pitch is/)
  expect(why[10]).toBe('The tag N5 is taken.')
})

test('a row with more cells than there are headings is not guessed at; one with fewer is read', () => {
  const row = ['N8', '3/8 std', '1.5', '72', 'semi', '', '', '', '', '', '', 'a note']
  const { rows } = plan(
    [...row, ' with a comma'],
    [...row.slice(0, 5)].map((cell) => (cell === 'N8' ? 'N9' : cell)),
    [...row, '', ''],
  )
  expect(rows.map(({ fate }) => fate)).toEqual(['wrong', 'add', 'add'])
  expect(said(rows[0]?.problems)).toEqual(['It has 1 cell more than there are headings: a comma too many?'])
})

test('two rows cannot have the same saw, and an unknown saw is added with a doubt', () => {
  const row = (tag: string, saw: string): string[] => [tag, '3/8 std', '1.5', '72', 'semi', '', '', 'new', saw, 'saw']
  const { rows, saws } = plan(row('A1', 'Petrel'), row('A2', 'petrel'))
  expect(rows[0]).toMatchObject({ fate: 'add' })
  expect(rows[1]).toMatchObject({ fate: 'wrong' })
  expect(said(rows[0]?.doubts)).toContainEqual(expect.stringContaining('No saw is called Petrel'))
  expect(said(rows[1]?.problems)).toEqual(['Another loop is on Petrel.'])
  expect(saws.map(({ nickname }) => nickname)).toEqual(['Petrel'])
})

test('a row without a tag gets a made one', () => {
  const { rows } = plan(['', '.325', '1.3', '64', 'semi'], ['', '.325', '1.3', '64', 'semi'])
  expect(rows[0]?.tag).not.toBe(rows[1]?.tag)
  expect(said(rows[0]?.doubts)[0]).toMatch(/was made for it/)
})

test('control characters are taken out and said; an apostrophe before a formula goes', () => {
  expect(cleanCell('K\u00079 ')).toEqual({ text: 'K 9', changed: true })
  expect(cleanCell("'=1+1")).toEqual({ text: '=1+1', changed: false })
})

test('without a column for the pitch nothing is planned', () => {
  expect(() => planImport([], { gauge: 1 }, context())).toThrow(/Pitch, Drive links/)
})

test('a file of another pitch is left out with a doubt, and the row still comes in', () => {
  const headings = ['Tag', 'Pitch', 'Gauge', 'DL', 'Type', 'File']
  const row = (file: string, type = 'semi') =>
    planImport([['N9', '3/8 std', '1.5', '72', type, file]], guessColumns(headings), context({ headings })).rows[0]
  expect(said(row('6.5')?.doubts)).toContain('No file for this pitch is 6.5 mm: left out, check it on the loop.')
  expect(row('6.5')?.fate).toBe(row('5.2')?.fate)
  for (const one of [row('5.2'), row('6.5', 'square')]) expect(said(one?.doubts).join()).not.toMatch(/No file/)
})

test('lengths that no chain or file has are wrong, those at the edge are taken', () => {
  const headings = ['Tag', 'Pitch', 'Gauge', 'DL', 'Type', 'File', 'New length']
  const match = guessColumns(headings)
  expect(match).toMatchObject({ file: 5, newLength: 6 })
  const wrong = (fileMm: string, newMm: string) =>
    said(
      planImport([['N9', '3/8 std', '1.5', '72', 'semi', fileMm, newMm]], match, context({ headings })).rows[0]
        ?.problems,
    ).join(' ')
  expect(wrong('5.2', '0.99')).toBe('No cutter is 0.99 mm long when new.')
  expect(wrong('5.2', '20.01')).toBe('No cutter is 20.01 mm long when new.')
  expect(wrong('1.99', '8')).toBe('No file is 1.99 mm thick.')
  expect(wrong('10.01', '8')).toBe('No file is 10.01 mm thick.')
  for (const [file, length] of [
    ['2', '1'],
    ['10', '20'],
    ['', ''],
    ['', '8'],
    ['5.2', ''],
  ] as const)
    expect(wrong(file, length), `${file}/${length}`).not.toMatch(/^No (cutter|file) is/)
})

test('the cells of a kind as people write them', () => {
  const types = [
    'square',
    'ripping',
    'mill',
    'low-profile chipper',
    'LP',
    'semi chisel',
    'round',
    'full chisel',
    'chisel',
  ]
  expect(types.map((text) => readCutterTypeCell(text))).toEqual(
    (
      [
        'squareGround',
        'ripping',
        'ripping',
        'chipper',
        'chipper',
        'semiChisel',
        'semiChisel',
        'fullChisel',
        'fullChisel',
      ] as const
    ).map((value) => ({ ok: true, value })),
  )
  expect(readCutterTypeCell(' ')).toMatchObject({ value: 'semiChisel', doubt: 'No cutter type: taken as semi-chisel.' })
  expect(['19', '20', '250', '251', '72E', '72 dl', 'many', ''].map((text) => readDriveLinksCell(text).ok)).toEqual([
    ...[false, true, true, false, true, true, false, false],
  ])
})

test('a saw’s name has at most forty characters', () => {
  const on = (saw: string) => plan(['N9', '3/8 std', '1.5', '72', 'semi', '', '', '', saw, 'saw']).rows[0]
  expect(on('x'.repeat(41))).toMatchObject({ fate: 'wrong' })
  expect(said(on('x'.repeat(41))?.problems)).toContain("A saw's name has at most 40 characters.")
  expect(on('x'.repeat(40))).toMatchObject({ fate: 'add' })
})

test('a field that is needed and has no column is named, one as well as several', () => {
  const context = {
    tags: [],
    saws: [],
    takenSawIds: [],
    rules: DEFAULT_RULES,
    unit: 'mm',
    headings: ['', '', ''],
    now: '',
    newId: String,
    random: () => 0,
  }
  const planned = (match: ColumnMatch) => () => planImport([], match, { ...context, unit: 'mm', newId: () => '' })
  expect(planned({ pitch: 0, gauge: 1 })).toThrow('No column is matched to: Drive links.')
  expect(planned({ pitch: 0 })).toThrow(/Gauge, Drive links/)
  expect(planned({ pitch: 0, gauge: 1, driveLinks: 2 })).not.toThrow()
})

test('of a note as many letters are kept as any note may have', () => {
  const kept = (letters: number): number => {
    const cells = ['N8', '3/8 std', '1.5', '72', 'semi', '', '', '', '', '', '', 'x'.repeat(letters)]
    return Math.max(...plan(cells).entries.map(({ note }) => note?.length ?? 0))
  }
  expect([kept(2000), kept(2001)]).toEqual([2000, 2000])
})

test('a loop that is on a saw which will run it, but, is said to have been found so; one that fits is not', () => {
  const fitted = (pitch: string) =>
    plan(['N1', pitch, '1.5', '72', 'semi', '', '', 'about half', 'Bellwether', 'saw']).entries.find(
      ({ kind }) => kind === 'fitted',
    )
  expect(fitted('3/8 std')).toMatchObject({ sawId: 'saw-bell' })
  expect(fitted('3/8 std')).not.toHaveProperty('overruled')
  expect(fitted('3/8 LP')).toMatchObject({ overruled: 'As it was found' })
})
