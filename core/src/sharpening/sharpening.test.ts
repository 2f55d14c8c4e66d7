import { describe, expect, test } from 'vitest'
import fc from 'fast-check'
import { Log, SPEC, stateOf } from '../fixtures/logs'
import { topPlateHeight } from '../geometry'
import { DEFAULT_RULES, type HouseRules } from '../house'
import { changedSpec, specFromProfile, type CutterType } from '../profile'
import { decide, grinderFor } from '../verdict'
import { SHARPENING_TOOLS, STEP_IDS, usualTool, whyNotWith } from '../jobs'
import { planSharpening, type Sharpening, type SharpeningPlan } from '.'

const RIGHT_HANDED = 'person-right'
const plan = (log: Log, wanted: Partial<Sharpening> = {}, rules: Partial<HouseRules> = {}): SharpeningPlan =>
  planSharpening(stateOf(log), { ...DEFAULT_RULES, ...rules }, { action: 'file', personId: null, ...wanted })
const of = (cutterType: CutterType) =>
  specFromProfile({ pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72, cutterType })

/** A loop that one person filed five times, so many micrometres a stroke on each side, read after each. */
function filedBy(personId: string, left: number, right: number): Log {
  const log = new Log().measureAll(8000)
  let [l, r] = [8000, 8000]
  for (let times = 0; times < 5; times += 1) {
    log.add('sharpened', { method: 'fileBench', strokes: { left: 10, right: 10 }, gaugesLowered: false }, { personId })
    l -= 10 * left
    r -= 10 * right
    log.measureAll((cutter) => (cutter % 2 === 1 ? l : r))
  }
  return log
}

describe('sides', () => {
  test('the side that loses less each time comes first, and gets more strokes for the same length', () => {
    const log = filedBy(RIGHT_HANDED, 15, 21)
    // As the sides stand even again, only the hand makes the difference.
    log.measureAll(6800)
    const { sides, bites } = plan(log, { personId: RIGHT_HANDED })
    expect(bites.left).toBeLessThan(bites.right)
    expect(sides.map(({ hand }) => hand)).toEqual(['left', 'right'])
    const [left, right] = sides
    expect(left?.count).toBeGreaterThan(right?.count ?? 0)
    // The other way round for who leans the other way.
    const other = filedBy(RIGHT_HANDED, 21, 15).measureAll(6800)
    expect(plan(other, { personId: RIGHT_HANDED }).sides[0]?.hand).toBe('right')
  })

  test('the side that was begun with stays the first, whoever goes on', () => {
    const log = filedBy(RIGHT_HANDED, 15, 21)
    const firstOf = (wanted: Partial<Sharpening>) => plan(log, wanted).sides[0]?.hand
    expect(firstOf({ personId: RIGHT_HANDED, first: 'right' })).toBe('right')
    expect(firstOf({ personId: null, first: 'right' })).toBe('right')
  })

  test('a side that is known to be longer gets more: at once, two strokes a time, or not at all, by the school', () => {
    const log = new Log().measureAll((cutter) => (cutter % 2 === 1 ? 6600 : 6400))
    const apart = (unevenSchool: HouseRules['unevenSchool']): number => {
      const { sides } = plan(log, {}, { unevenSchool })
      const countOf = (hand: 'left' | 'right') => sides.find((side) => side.hand === hand)?.count ?? 0
      return countOf('left') - countOf('right')
    }
    // 0.2 mm at 20 µm a stroke.
    expect(apart('matchShortest')).toBe(10)
    expect(apart('sameStrokes')).toBe(2)
    expect(apart('extraOnBad')).toBe(0)
  })

  test.each([
    ['leftSharper', 'right', 'left'],
    ['rightSharper', 'left', 'right'],
  ] as const)('%s: a touch-up gives the %s two strokes more, on every page', (cause, behind, other) => {
    const log = new Log().measureAll(7000).add('noticed', { signs: ['pulls'], toward: other })
    log.add('traced', { into: log.entries.at(-1)?.id ?? '', cause })
    const touchUp = plan(log, { action: 'touchUp' })
    const countOf = (hand: 'left' | 'right') => touchUp.sides.find((side) => side.hand === hand)?.count ?? 0
    expect(touchUp.behind).toBe(behind)
    expect(countOf(behind) - countOf(other)).toBe(2)
    const advised = decide(stateOf(log), DEFAULT_RULES).options.find(({ action }) => action === 'touchUp')
    expect(advised?.strokes).toMatchObject({ each: countOf(other), most: countOf(behind) })
    expect(advised?.minutes).toEqual(touchUp.minutes)
    // At the bench the school has the sides.
    expect(plan(log).behind).toBeNull()
  })

  test('a difference that nobody can be sure of is not filed after', () => {
    const { sides } = plan(new Log(), {}, { unevenSchool: 'sameStrokes' })
    expect(sides[0]?.count).toBe(sides[1]?.count)
  })
})

describe('damage', () => {
  const struck = () =>
    new Log().add('measured', {
      readings: Array.from({ length: 36 }, (_, i) => ({
        cutter: i + 1,
        lengthUm: 6500,
        damage: i === 8 ? [{ kind: 'stone' as const, depthUm: 900 }] : [],
      })),
    })

  test('a wheel begins with the worst cutter, and its stop ends all at one length behind the damage', () => {
    const { worst, stopUm, sides, gives } = plan(struck(), { action: 'regrind' })
    expect(gives).toBe('touches')
    expect(worst?.number).toBe(9)
    expect(stopUm).toBeLessThanOrEqual(6500 - 900)
    const ends = new Set(sides.flatMap(({ cutters }) => cutters.map(({ targetUm }) => targetUm)))
    expect(ends).toEqual(new Set([stopUm]))
  })

  test('the stop is the one that the decision was made with, whatever the damage', () => {
    for (const kind of ['stone', 'hook', 'wrongAngle', 'backSlope'] as const) {
      const log = new Log().add('measured', {
        readings: Array.from({ length: 36 }, (_, i) => ({
          cutter: i + 1,
          lengthUm: 6500 - i * 3,
          damage: i === 8 ? [{ kind, depthUm: kind === 'stone' ? 700 : null }] : [],
        })),
      })
      const state = stateOf(log)
      const { stopUm } = grinderFor(state, DEFAULT_RULES, decide(state, DEFAULT_RULES))
      expect(plan(log, { action: 'regrind' }).stopUm, kind).toBe(stopUm)
    }
  })

  test('a file works the damaged one until it is clean: its count is an expectation, the others’ a count', () => {
    const { sides, stopUm } = plan(struck(), {}, { unevenSchool: 'extraOnBad' })
    const jobs = sides.flatMap(({ cutters }) => cutters)
    expect(stopUm).toBeNull()
    expect(jobs.filter(({ untilClean }) => untilClean).map(({ number }) => number)).toEqual([9])
    const [bad, sound] = [jobs.find(({ number }) => number === 9), jobs.find(({ number }) => number === 11)]
    expect(bad?.removeUm).toBeGreaterThan(900)
    expect(bad?.count).toBeGreaterThan(5 * (sound?.count ?? 0))
    expect(bad?.damageUm).toBeGreaterThan(0)
  })

  test('the same strokes for all leave the rest of it to the next times, and say no count that is none', () => {
    const { sides } = plan(struck(), {}, { unevenSchool: 'sameStrokes' })
    const jobs = sides.flatMap(({ cutters }) => cutters)
    expect(new Set(jobs.map(({ count }) => count)).size).toBe(1)
    expect(jobs.some(({ untilClean }) => untilClean)).toBe(false)
  })
})

describe('what a tool is not for', () => {
  const { gaugeSchool, ...others } = DEFAULT_RULES
  const constant = { ...others, gaugeSchool }

  test('a two-in-one has one setting for life: refused where settings grow with wear', () => {
    expect(whyNotWith('twoInOne', SPEC, constant)).toBeNull()
    expect(whyNotWith('twoInOne', SPEC, { ...constant, gaugeSchool: 'progressive' })).toBe('oneSettingForLife')
  })

  test('a square-ground loop never sees a round file, whatever the house and the job', () => {
    const square = of('squareGround')
    for (const tool of SHARPENING_TOOLS)
      if (tool !== 'squareFile' && tool !== 'benchGrinder')
        expect(whyNotWith(tool, square, constant)).toBe('neverRound')
    for (const guide of ['topPlate', 'chassis', 'twoInOne', 'jig', 'freehand'] as const)
      expect(usualTool('file', square, { ...DEFAULT_RULES, guide })).toBe('squareFile')
    expect(whyNotWith('squareFile', SPEC, constant)).toBe('neverBevelled')
    const { setUp, refusal } = planSharpening(stateOf(new Log(square)), DEFAULT_RULES, {
      action: 'file',
      personId: null,
    })
    expect(refusal).toBeNull()
    expect(setUp).toMatchObject({ with: 'squareFile', leanDeg: 5 })
  })

  test('an angle or a tilt that it does not have', () => {
    expect(whyNotWith('rollerGuide', of('ripping'), constant)).toBe('oneAngle')
    expect(whyNotWith('plateGuide', of('ripping'), constant)).toBeNull()
    expect(whyNotWith('smallGrinder', of('fullChisel'), { ...constant, chiselDownAngleDeg: 10 })).toBe('noTilt')
    expect(whyNotWith('benchGrinder', SPEC, { ...constant, grinderOwned: false })).toBe('noGrinder')
  })
})

describe('what is not sharpened at all, whatever the tool', () => {
  const refusals = (log: Log) =>
    new Set(
      SHARPENING_TOOLS.map(
        (tool) => plan(log, { tool, action: tool.endsWith('Grinder') ? 'regrind' : 'file' }).refusal,
      ),
    )

  test('what is cracked, loose or stretched: no edge makes it fit', () => {
    for (const kind of ['strapCracked', 'driveLinkCracked', 'rivetLoose', 'stretched'] as const)
      expect(refusals(new Log().add('inspected', { readings: [], parts: [{ kind, nearCutter: null }] }))).toEqual(
        new Set(['ends']),
      )
    const cracked = new Log().add('inspected', {
      readings: [{ cutter: 5, damage: [{ kind: 'cracked', depthUm: null }] }],
      parts: [],
    })
    expect(refusals(cracked)).toEqual(new Set(['ends']))
  })

  test('what was struck and not looked at, what is retired, and what would go past its mark', () => {
    expect(refusals(new Log().add('struck', { against: 'metal' }))).toEqual(new Set(['lookFirst']))
    expect(refusals(new Log().add('retired', { reason: 'worn' }))).toEqual(new Set(['retired']))
    const worn = specFromProfile({ ...SPEC, markLengthUm: 1000 })
    expect(refusals(new Log(worn).measureAll(1050))).toEqual(new Set(['pastMark']))
  })

  test('blued steel is said to skate a file, and is no matter for a wheel', () => {
    const blued = new Log().add('measured', {
      readings: [{ cutter: 5, lengthUm: 7000, damage: [{ kind: 'blued', depthUm: 300 }] }],
    })
    expect(plan(blued).doubts).toContain('fileSkates')
    expect(plan(blued, { action: 'regrind' }).doubts).not.toContain('fileSkates')
  })
})

describe('steps', () => {
  test('they come in one order, whatever the tool; a wheel is rung before anything is ground', () => {
    for (const tool of SHARPENING_TOOLS) {
      const { steps } = plan(new Log(tool === 'squareFile' ? of('squareGround') : SPEC), { tool })
      const places = steps.map(({ id }) => STEP_IDS.indexOf(id))
      expect(places, tool).toEqual([...places].sort((a, b) => a - b))
      const ids = steps.map(({ id }) => id)
      expect(ids[0]).toBe('makeSafe')
      expect(ids.includes('ring'), tool).toBe(tool.endsWith('Grinder'))
      expect(ids).toEqual(expect.arrayContaining(['turn', 'recheck', 'lookOver', 'putBack']))
      // A two-in-one has the gauges done with every stroke: no pass of their own.
      expect(ids.includes('gauges'), tool).toBe(tool !== 'twoInOne')
      expect(ids.includes('stop'), tool).toBe(['jig', 'benchGrinder', 'smallGrinder'].includes(tool))
    }
  })

  // Common practice: both sides of a 16-inch bar with a two-in-one take about four minutes.
  test('a two-in-one does both sides of a 16-inch bar in about four minutes', () => {
    const sixteen = specFromProfile({ ...SPEC, driveLinks: 60 })
    const { steps } = plan(new Log(sixteen), { action: 'touchUp', tool: 'twoInOne' })
    const sides = steps.filter(({ hand }) => hand !== null || false)
    const work = [...sides, ...steps.filter(({ id }) => id === 'turn')]
    const likely = work.reduce((sum, { minutes }) => sum + minutes.likely, 0)
    expect(likely).toBeGreaterThan(3)
    expect(likely).toBeLessThan(5)
  })

  // Common practice: a 10-inch loop takes about two minutes on a small grinder.
  test('a small grinder does a 10-inch loop in about two minutes', () => {
    const ten = specFromProfile({ pitchClass: 'lowProfile', gaugeUm: 1300, driveLinks: 40, cutterType: 'chipper' })
    const { steps } = plan(new Log(ten), { action: 'regrind', tool: 'smallGrinder' })
    const likely = steps.filter(({ hand }) => hand !== null).reduce((sum, { minutes }) => sum + minutes.likely, 0)
    expect(likely).toBeGreaterThan(1.5)
    expect(likely).toBeLessThan(2.6)
  })
})

describe('gauges', () => {
  test('those that stand high get strokes in groups; one that is too low stays', () => {
    const log = new Log().add('measured', {
      readings: Array.from({ length: 36 }, (_, i) => ({
        cutter: i + 1,
        lengthUm: 7000,
        settingUm: i === 4 ? 950 : i % 2 === 0 ? 450 : 560,
      })),
    })
    const { gauges } = plan(log)
    expect(gauges.due).toBe(true)
    expect(gauges.tooLow).toEqual([5])
    expect(gauges.each[0]).toBeDefined()
    expect(gauges.each.find(({ number }) => number === 5)?.strokes).toBe(0)
    expect(gauges.groups.length).toBeGreaterThanOrEqual(2)
    const [least, most] = [gauges.groups[0], gauges.groups.at(-1)]
    expect(least?.cutters.every((cutter) => cutter % 2 === 0)).toBe(true)
    expect(most?.cutters.every((cutter) => cutter % 2 === 1)).toBe(true)
    expect(plan(log, {}, { gaugeHighUm: 1000 }).gauges.due).toBe(false)
  })
})

describe('doubts', () => {
  test('ripping chain jumps by one odd angle', () => {
    const odd = new Log(of('ripping')).add('measured', {
      readings: [{ cutter: 3, lengthUm: 7000, damage: [{ kind: 'wrongAngle', depthUm: null }] }],
    })
    expect(plan(odd).doubts).toContain('ripperJumps')
    expect(plan(new Log(of('ripping')).measureAll(7000)).doubts).not.toContain('ripperJumps')
  })

  test('what ends too near its mark is said before anybody begins', () => {
    expect(plan(new Log().measureAll(350)).doubts).toContain('intoReserve')
    expect(plan(new Log().measureAll(4000)).doubts).not.toContain('intoReserve')
  })

  test('a wheel that reaches the tie strap of cutters that have sunk', () => {
    const small = specFromProfile({ pitchClass: 'p325', gaugeUm: 1500, driveLinks: 72, cutterType: 'semiChisel' })
    const ground = (um: number) => plan(new Log(small).measureAll(um), { action: 'regrind', tool: 'benchGrinder' })
    expect(ground(6000).doubts).not.toContain('intoStrap')
    expect(ground(150).doubts).toContain('intoStrap')
    const setUp = ground(6000).setUp
    if (setUp.with !== 'wheel') throw new Error('a bench grinder has a wheel')
    expect(setUp.depthUm + setUp.clearUm).toBe(topPlateHeight(small, setUp.stopUm))
  })

  test('a stop that rests on an estimate', () => {
    expect(plan(new Log(), { action: 'regrind' }).doubts).toContain('stopOnEstimate')
    expect(plan(new Log().measureAll(6000), { action: 'regrind' }).doubts).not.toContain('stopOnEstimate')
  })

  test('a file that somebody named for the loop and that is not of its size', () => {
    // 5/32" is for low profile.
    const named = (fileUm: number) => new Log(changedSpec(SPEC, { fileUm }, 'crew')).measureAll(7000)
    expect(plan(named(4000)).doubts).toContain('fileMisfits')
    expect(plan(named(4000), { action: 'touchUp' }).doubts).toContain('fileMisfits')
    expect(plan(named(5500)).doubts).not.toContain('fileMisfits')
    expect(plan(named(4000), { action: 'regrind' }).doubts).not.toContain('fileMisfits')
  })
})

test('whatever the loop, nothing comes off that is not there, and every cutter is planned once', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 50, max: 8000 }), { minLength: 36, maxLength: 36 }),
      fc.constantFrom(...SHARPENING_TOOLS),
      fc.constantFrom('touchUp' as const, 'file' as const, 'regrind' as const),
      (lengths, tool, action) => {
        const log = new Log().measureAll((cutter) => lengths[cutter - 1] ?? 5000)
        const { sides, minutes } = plan(log, { tool, action })
        const jobs = sides.flatMap(({ cutters }) => cutters)
        expect(jobs.map(({ number }) => number).sort((a, b) => a - b)).toEqual(
          Array.from({ length: 36 }, (_, i) => i + 1),
        )
        for (const { removeUm, targetUm, lengthUm, count } of jobs) {
          expect(removeUm).toBeGreaterThanOrEqual(0)
          expect(targetUm).toBe(lengthUm - removeUm)
          expect(targetUm).toBeGreaterThanOrEqual(0)
          expect(Number.isInteger(count) && count >= 1).toBe(true)
        }
        expect(minutes.low).toBeLessThanOrEqual(minutes.likely)
        expect(minutes.likely).toBeLessThanOrEqual(minutes.high)
      },
    ),
    { numRuns: 40 },
  )
})

describe('the wheel that is to be used', () => {
  const wheel = { id: 'wheel', name: 'wheel', version: 1, kind: 'wheel', widthUm: 4700 } as const
  const grinder = { id: 'grinder', name: 'grinder', version: 1, kind: 'grinder', tool: 'benchGrinder' } as const
  const refusalOf = (markedRpm: number | null, spindleRpm: number | null, action: 'file' | 'regrind' = 'regrind') =>
    planSharpening(stateOf(new Log().measureAll(6500)), DEFAULT_RULES, {
      action,
      personId: null,
      mounted: {
        wheel: { ...wheel, ...(markedRpm === null ? {} : { markedRpm }) },
        grinder: { ...grinder, ...(spindleRpm === null ? {} : { spindleRpm }) },
      },
    }).refusal

  // Printed on every wheel, and in every grinder's manual.
  test('marked below its spindle, or not read, it is not mounted, and no plan begins', () => {
    expect(refusalOf(2800, 3400)).toBe('wheelTooSlow')
    expect(refusalOf(null, 3400)).toBe('wheelSpeedUnknown')
    expect(refusalOf(4500, null)).toBe('wheelSpeedUnknown')
    expect(refusalOf(4500, 3400)).toBeNull()
    expect(refusalOf(2800, 3400, 'file')).toBeNull()
  })
})

test('a grinder without the angle, and guides that serve other pitches, are none for this loop', () => {
  const state = stateOf(new Log().measureAll(6500))
  const wheel = { id: 'w', name: 'w', version: 1, kind: 'wheel', widthUm: 4700, markedRpm: 4500 } as const
  const grinder = { id: 'g', name: 'g', version: 1, kind: 'grinder', tool: 'benchGrinder', spindleRpm: 3400 } as const
  const ground = (anglesDeg: readonly number[]) =>
    planSharpening(state, DEFAULT_RULES, {
      action: 'regrind',
      personId: null,
      mounted: { wheel, grinder: { ...grinder, anglesDeg } },
    }).refusal
  expect(ground([25])).toBe('oneAngle')
  expect(ground([25, 30])).toBeNull()
  const guide = (serves: readonly ('p325' | 'threeEighths')[]) =>
    planSharpening(state, DEFAULT_RULES, {
      action: 'file',
      tool: 'twoInOne',
      personId: null,
      kit: [{ id: 'two', name: 'two', version: 1, kind: 'guide', tool: 'twoInOne', serves }],
    }).refusal
  expect(guide(['p325'])).toBe('notForPitch')
  expect(guide(['p325', 'threeEighths'])).toBeNull()
  expect(guide([])).toBeNull()
})

test.each([
  [0.3, 6300],
  [0.3, 6900],
  [1, 6300],
  [1.4, 6300],
])(
  'with a file that bites %s of the usual, what was planned is what is believed once it is done',
  (fileBite, worst) => {
    const log = new Log().measureAll((cutter) => (cutter === 1 ? worst : 7000))
    const { sides, fileBite: planned } = plan(log, { tool: 'freehand', fileBite }, { unevenSchool: 'matchShortest' })
    expect(planned).toBe(fileBite)
    const [left = 0, right = 0] = (['left', 'right'] as const).map(
      (hand) => sides.find((one) => one.hand === hand)?.count,
    )
    const job = sides.flatMap(({ cutters }) => cutters).find(({ number }) => number === 9)
    log.add('sharpened', {
      method: 'fileBench',
      tool: 'freehand',
      gaugesLowered: false,
      fileBite,
      strokes: { left, right },
    })
    const { um, sdUm } = stateOf(log).cutters[8]?.length ?? { um: 0, sdUm: 0 }
    expect(Math.abs(um - (job?.targetUm ?? 0))).toBeLessThan(40)
    expect(sdUm).toBeLessThan(250)
  },
)

test('a file that bites less is given more strokes, and the pace of the crew stretches the minutes', () => {
  const state = stateOf(new Log().measureAll(6500))
  const plan = (more: object, rules = DEFAULT_RULES) =>
    planSharpening(state, rules, { action: 'file', personId: null, ...more })
  const [usual, worn] = [plan({}), plan({ fileBite: 0.7 })]
  expect(worn.sides[0]?.count).toBeGreaterThan(usual.sides[0]?.count ?? 0)
  const slow = { ...DEFAULT_RULES, pace: { ...DEFAULT_RULES.pace, routine: 2 * DEFAULT_RULES.pace.routine } }
  const taken = plan({}, slow).minutes.likely
  expect(taken).toBeCloseTo(2 * usual.minutes.likely, 6)
  // The verdict says no other minutes than the work step by step.
  expect(decide(state, slow).options.find(({ action }) => action === 'file')?.minutes.likely).toBeCloseTo(taken, 6)
})
