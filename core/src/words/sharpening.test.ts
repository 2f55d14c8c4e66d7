import { expect, test } from 'vitest'
import { Log, SPEC, stateOf } from '../fixtures/logs'
import { DEFAULT_RULES, type HouseRules } from '../house'
import { CUTTER_TYPES, PITCH_CLASSES, specFromProfile } from '../profile'
import { SHARPENING_TOOLS, type SharpeningTool } from '../jobs'
import { planSharpening } from '../sharpening'
import { sayCount, sayRecheck, saySides, sayStep, sayTurns, setUpRows } from './sharpening'

const FILE = { gives: 'strokes', stopUm: null } as const
const WHEEL = { gives: 'touches', stopUm: 6000 } as const
const FIGURES = { lengths: 'mm', currency: 'EUR' } as const
const rowsOf = (log: Log, tool: SharpeningTool, rules: Partial<HouseRules> = {}): Record<string, string> => {
  const action = tool.endsWith('Grinder') ? 'regrind' : 'file'
  const wanted = { action, tool, personId: null } as const
  const { setUp } = planSharpening(stateOf(log), { ...DEFAULT_RULES, ...rules }, wanted)
  return Object.fromEntries(setUpRows(setUp, FIGURES))
}

test('every card and every step of every tool can be read, whatever the chain', () => {
  for (const pitchClass of PITCH_CLASSES)
    for (const cutterType of CUTTER_TYPES) {
      const state = stateOf(new Log(specFromProfile({ pitchClass, gaugeUm: 1300, driveLinks: 60, cutterType })))
      for (const tool of SHARPENING_TOOLS) {
        const plan = planSharpening(state, DEFAULT_RULES, { action: 'file', tool, personId: null })
        const said = [
          ...setUpRows(plan.setUp, FIGURES).flat(),
          ...plan.steps.flatMap(({ id, hand }) =>
            Object.values(sayStep(id, hand, plan) as object as Record<string, string>),
          ),
        ]
        for (const text of said) expect(text).not.toMatch(/NaN|undefined|Infinity|\d[.,]\d{3,}/)
      }
    }
})

test('another angle than the guide’s line is said by how much the file is held off it', () => {
  const chisel = new Log(specFromProfile({ ...SPEC, cutterType: 'fullChisel' }))
  const own = new Log(
    specFromProfile({ pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72, cutterType: 'ripping' }),
  )
  expect(rowsOf(own, 'plateGuide')['Top plate']).toBe('10°, along the 10° line')
  expect(rowsOf(chisel, 'plateGuide')['Top plate']).toMatch(
    /^30°, along the 30° line$|^25°: 5° less than the 30° line$/,
  )
  const twentyFive = new Log(
    specFromProfile({ pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72, cutterType: 'fullChisel' }),
  )
  const rows = rowsOf(twentyFive, 'plateGuide', { chiselAngleDeg: 25, chiselDownAngleDeg: 10 })
  expect(rows['Top plate']).toBe('25°: 5° less than the 30° line')
  expect(rows.Handle).toBe('lowered by 10°')
})

// A file a fifth to a quarter above the plate leaves a bevel of about 50 to 60°: common practice.
test('the height is said as a part and in millimetres, with the bevel that comes of it', () => {
  const rows = rowsOf(new Log(), 'plateGuide', { sidePlate: 'lessHook' })
  expect(rows.Height).toBe('25 % of it, 1.30 mm, above the plate')
  expect(rows.Bevel).toContain('60°')
})

test('a roller holds the file higher against a worn cutter, and says so; a plate guide does not', () => {
  const worn = new Log().measureAll(2500)
  expect(rowsOf(worn, 'rollerGuide').Height).toContain('more than when new')
  expect(rowsOf(worn, 'plateGuide').Height).not.toContain('more than when new')
})

test('strokes side by side are those of whose hands they are in, and none is said where none is counted', () => {
  const log = new Log().measureAll(7000)
  const leans = { personId: 'ina', factor: 1, factorSd: 0.05, leanUm: 6, leanSdUm: 1 }
  const known = { strokeUm: 20, strokeSdUm: 2, uncounted: 0, uncountedSd: 0.1, people: [leans] }
  const by = (personId: string | null, tool: SharpeningTool = 'freehand') =>
    planSharpening(stateOf(log), DEFAULT_RULES, { action: 'file', tool, personId, known })
  expect(saySides(by(null))).toMatch(/^(\d+) left, \1 right$/)
  const [, left = 0, right = 0] = /^(\d+) left, (\d+) right$/.exec(saySides(by('ina')))?.map(Number) ?? []
  // A stroke of theirs takes 26 on the left and 14 on the right.
  expect(right / left).toBeGreaterThan(1.4)
  expect(saySides(by('ina', 'jig'))).toBe('')
  expect(saySides(by('ina', 'benchGrinder'))).toBe('')
  log.add('inspected', { readings: [{ cutter: 3, damage: [{ kind: 'stone', depthUm: 600 }] }], parts: [] })
  expect(saySides(by(null))).toMatch(/^\d+ left, \d+ right, and until clean where it is hurt$/)
  const uneven = new Log().measureAll((cutter) => (cutter === 5 ? 6900 : 7000))
  const matched = planSharpening(stateOf(uneven), DEFAULT_RULES, { action: 'file', tool: 'freehand', personId: null })
  expect(saySides(matched)).toMatch(/^\d+ \(\d+ to \d+\) left, \d+( \(\d+ to \d+\))? right$/)
  // Nobody knows how deep: the others' count, and none for that one.
  const hurt = new Log().measureAll(7000)
  hurt.add('inspected', { readings: [{ cutter: 3, damage: [{ kind: 'stone', depthUm: null }] }], parts: [] })
  const open = planSharpening(
    stateOf(hurt),
    { ...DEFAULT_RULES, unevenSchool: 'sameStrokes' },
    { action: 'file', tool: 'freehand', personId: null },
  )
  expect(saySides(open)).toMatch(/^(\d+) left, \1 right, and until clean where it is hurt$/)
})

test('counts, turns of a screw and the second side, in words', () => {
  expect(sayCount({ count: 4, untilClean: false, depthUnknown: false }, FILE)).toBe('4 strokes')
  expect(sayCount({ count: 30, untilClean: true, depthUnknown: false }, FILE)).toBe('until clean, about 30 strokes')
  expect(sayCount({ count: 1, untilClean: false, depthUnknown: false }, WHEEL)).toBe('1 touch')
  expect(sayCount({ count: 30, untilClean: true, depthUnknown: true }, FILE)).toBe('until clean')
  expect(sayCount({ count: 5, untilClean: false, depthUnknown: false }, { ...FILE, stopUm: 6000 })).toBe('to the stop')
  expect(sayTurns(0.25)).toBe('a quarter turn')
  expect(sayTurns(0.375)).toBe('0.4 turns')
  const off = { offUm: 150, alike: false, stop: { way: 'in', byUm: 150 }, strokes: 8 } as const
  expect(sayRecheck(off, WHEEL, FIGURES)).toContain('move the stop in by 0.15 mm, about an eighth of a turn')
  expect(sayRecheck(off, FILE, FIGURES)).toBe(
    'It came out 0.15 mm longer than the first side: 8 strokes more for the rest of this side, ' +
      'and for this one, counted in already.',
  )
  expect(sayRecheck({ ...off, offUm: -150, stop: { way: 'out', byUm: 150 }, strokes: -8 }, FILE, FIGURES)).toContain(
    '8 strokes fewer',
  )
})

test('a jig is set by its scales and ends each cutter at its stop; a guide has neither', () => {
  const jig = rowsOf(new Log().measureAll(6500), 'jig')
  expect(jig['Scales']).toBe('turn 30°, tilt 0°; turned end for end for the other side')
  expect(jig['Stop']).toMatch(/^about \d\.\d\d mm on the worst cutter; out at first/)
  expect(rowsOf(new Log().measureAll(6500), 'plateGuide')).not.toHaveProperty('Scales')
})
