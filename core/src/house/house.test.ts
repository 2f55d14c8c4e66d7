import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { fold } from '../fold'
import { Log } from '../fixtures/logs'
import { everySchool } from '../verdict'
import { followsSchool, QUESTIONS, schoolsOf, type SchoolId } from './questions'
import { rulesConflicts } from './conflicts'
import { DEFAULT_RULES, linkPricesFor, loopPriceMinor, startingPrices, withDefaults, type HouseRules } from './rules'

const fieldsOf = (changes: Partial<HouseRules>) =>
  rulesConflicts({ ...DEFAULT_RULES, ...changes }).map(({ fields }) => fields)

describe('house rules', () => {
  test('those that ship hold together', () => {
    expect(rulesConflicts(DEFAULT_RULES)).toEqual([])
  })

  test.each<[string, Partial<HouseRules>, (keyof HouseRules)[]]>([
    ['bench due before the touch-up', { touchUpTanks: 8 }, ['touchUpTanks', 'benchTanks']],
    ['no filing is small enough', { largestFilingUm: 150 }, ['largestFilingUm']],
    ['evenness finer than a caliper tells', { evennessUm: 60, sideDifferenceUm: 50 }, ['evennessUm']],
    ['sides may differ by more than cutters', { sideDifferenceUm: 800 }, ['sideDifferenceUm', 'evennessUm']],
    ['no gauge could be right', { gaugeHighUm: 10, gaugeLowUm: 20 }, ['gaugeHighUm', 'gaugeLowUm']],
    ['all on a wheel that nobody owns', { bench: 'wheelAtBench', grinderOwned: false }, ['bench', 'grinderOwned']],
    ['one setting and a growing one', { guide: 'twoInOne', gaugeSchool: 'progressive' }, ['guide', 'gaugeSchool']],
  ])('%s: named', (_name, changes, fields) => {
    expect(fieldsOf(changes)).toEqual([fields])
  })

  // Each figure is a starting value or common practice; who changes one has to say so here.
  test('those that ship start where they start', () => {
    expect(DEFAULT_RULES).toEqual({
      version: 1,
      unevenSchool: 'matchShortest',
      gaugeSchool: 'constant',
      woodStep: 'standard',
      fileSchool: 'oneSize',
      chiselAngleDeg: 30,
      chiselDownAngleDeg: 0,
      sidePlate: 'neutral',
      guide: 'topPlate',
      when: 'byTanks',
      where: 'field',
      bench: 'fileForRoutine',
      gaugeHighUm: 100,
      gaugeLowUm: 150,
      reserveUm: 200,
      largestFilingUm: 3000,
      evennessUm: 500,
      sideDifferenceUm: 250,
      touchUpTanks: 2,
      benchTanks: 6,
      grinderOwned: true,
      shopUsed: true,
      shopDays: 4,
      dirtyDuty: true,
      currency: 'EUR',
      labourPerHourMinor: 3000,
      linkPriceMinor: { quarter: 30, lowProfile: 32, p325: 36, threeEighths: 42, p404: 50 },
      filePriceMinor: 250,
      wheelPerLoopMinor: 60,
      shopFeeMinor: 1600,
      saidPrices: [],
      learnedVersion: 0,
      pace: { touchUp: 1, routine: 1, grind: 1 },
      signCounts: {},
    } satisfies HouseRules)
  })

  test.each<[string, Partial<HouseRules>, (keyof HouseRules)[][]]>([
    ['touch-up and bench at once', { touchUpTanks: 6 }, [['touchUpTanks', 'benchTanks']]],
    ['a tank between them', { touchUpTanks: 5 }, []],
    ['just a routine filing', { largestFilingUm: 200 }, []],
    ['just what a caliper tells apart', { evennessUm: 100, sideDifferenceUm: 100 }, []],
    ['a little less than it tells apart', { evennessUm: 99, sideDifferenceUm: 99 }, [['evennessUm']]],
    ['sides as far apart as cutters', { sideDifferenceUm: 500 }, []],
    ['just what a plate places', { gaugeHighUm: 30, gaugeLowUm: 30 }, []],
    ['a little less than it places', { gaugeHighUm: 30, gaugeLowUm: 29 }, [['gaugeHighUm', 'gaugeLowUm']]],
    ['the wheel for all, and there is one', { bench: 'wheelAtBench' }, []],
    ['no grinder, and none is asked for', { grinderOwned: false }, []],
    ['a two-in-one with one setting', { guide: 'twoInOne' }, []],
    [
      'a two-in-one where all is done on the wheel',
      { guide: 'twoInOne', where: 'bench', bench: 'wheelAtBench' },
      [['where', 'bench', 'guide']],
    ],
    ['and touch-ups in the field', { guide: 'twoInOne', bench: 'wheelAtBench' }, []],
    ['or on signs', { guide: 'twoInOne', where: 'bench', bench: 'wheelAtBench', when: 'onSigns' }, []],
  ])('at the limits: %s', (_name, changes, fields) => {
    expect(fieldsOf(changes)).toEqual(fields)
  })

  test('on signs, tanks do not contradict each other', () => {
    expect(fieldsOf({ touchUpTanks: 8, when: 'onSigns' })).toEqual([])
  })

  test('what a later version added is filled in, what was kept stays', () => {
    expect(withDefaults({ version: 7, evennessUm: 300 })).toEqual({ ...DEFAULT_RULES, version: 7, evennessUm: 300 })
  })

  // A visit to a shop costs about as much as a new loop for a small saw: common practice.
  test('prices start in the proportions of the trade', () => {
    const small = loopPriceMinor({ pitchClass: 'lowProfile', driveLinks: 50 }, DEFAULT_RULES)
    expect(small).toBe(1600)
    expect(DEFAULT_RULES.shopFeeMinor / small).toBeCloseTo(1, 1)
  })
})

describe('schools', () => {
  const state = fold(
    new Log()
      .measureAll(5000)
      .add('measured', { readings: [{ cutter: 9, damage: [{ kind: 'chipped', depthUm: 500 }], lengthUm: 5000 }] })
      .entries,
  )
  if (state === null) throw new Error('the loop should be registered')
  const all = everySchool(state, DEFAULT_RULES)

  test('the house follows one school of each question', () => {
    for (const question of QUESTIONS) {
      expect(
        schoolsOf(question).filter((school) => followsSchool(DEFAULT_RULES, school)),
        question,
      ).toHaveLength(1)
      expect(all[question].filter(({ follows }) => follows)).toHaveLength(1)
    }
  })

  test('uneven cutters: the same strokes cost least metal and leave some damaged, matching leaves all even', () => {
    const of = (wanted: SchoolId) => all.uneven.find((one) => one.id === wanted)?.outcome
    expect(of('sameStrokes')?.metalUm).toBeLessThan(of('matchShortest')?.metalUm ?? 0)
    expect(of('sameStrokes')?.damagedLeft).toBe(1)
    expect(of('matchShortest')?.spreadUm).toBe(0)
  })

  // Under one setting for life a worn chain is said to cut at about 60 %: common practice.
  test('gauges: one setting cuts at less as it wears, a growing one does not', () => {
    const [constant, progressive] = all.gauges
    expect(constant?.outcome?.cutsAt).toBeCloseTo(1 - 0.4 * (3 / 8), 2)
    expect(progressive?.outcome?.cutsAt).toBe(1)
    expect(progressive?.outcome?.targetUm).toBeGreaterThan(constant?.outcome?.targetUm ?? 0)
  })

  test('guides: on the chassis the file comes to stand higher, a jig takes longest and strays least', () => {
    const of = (wanted: SchoolId) => all.guide.find((one) => one.id === wanted)?.outcome
    expect(of('chassis')?.partAbove).toBeGreaterThan(of('topPlate')?.partAbove ?? 1)
    expect(of('jig')?.minutes.likely).toBeGreaterThan(of('freehand')?.minutes.likely ?? 999)
    expect(of('jig')?.strayUm).toBeLessThan(of('freehand')?.strayUm ?? 0)
  })

  test('when: oftener in the field takes more metal a tank, and the loop lasts fewer tanks', () => {
    const of = (wanted: SchoolId) => all.when.find((one) => one.id === wanted)?.outcome?.cycle
    const every = of('everyTank')
    const second = of('everySecondTank')
    // 0.1 mm a touch-up, by hand: every tank, or half of it a tank.
    expect(every).toMatchObject({ tanks: 1, metalPerTankUm: 100 })
    expect(second).toMatchObject({ tanks: 2, metalPerTankUm: 50 })
    expect(every?.tanksLeft).toBeCloseTo((second?.tanksLeft ?? 0) / 2, 8)
    expect(of('onSigns')?.tanks).toBeGreaterThan(2)
  })

  test('file or wheel is shown on the loop as the routine brings it: dull, not struck', () => {
    const of = (wanted: SchoolId) => all.bench.find((one) => one.id === wanted)?.outcome
    expect(of('fileForRoutine')).toMatchObject({ action: 'file', metalUm: 200, damagedLeft: 0 })
    expect(of('wheelAtBench')).toMatchObject({ action: 'regrind', metalUm: 250 })
    expect(of('wheelAtBench')?.minutes.likely).toBeLessThan(of('fileForRoutine')?.minutes.likely ?? 0)
  })

  test('choosing a school makes the house follow it', () => {
    fc.assert(
      fc.property(fc.constantFrom(...QUESTIONS), fc.nat(4), (question, pick) => {
        const schools = schoolsOf(question)
        const school = schools[pick % schools.length]
        if (school === undefined) return
        expect(followsSchool({ ...DEFAULT_RULES, ...school.sets }, school)).toBe(true)
      }),
    )
  })
})

test('three prices are asked for until somebody said them; a shop’s only where one is used', () => {
  expect(startingPrices(DEFAULT_RULES)).toEqual(['loop', 'hour', 'shop'])
  expect(startingPrices({ ...DEFAULT_RULES, shopUsed: false, saidPrices: ['loop'] })).toEqual(['hour'])
})

test('the price of one loop sets those of the others in proportion', () => {
  const spec = { pitchClass: 'threeEighths', driveLinks: 72 } as const
  const linkPriceMinor = linkPricesFor(spec, 6048, DEFAULT_RULES)
  // Twice the starting 0.42 for each of 72 links.
  expect(loopPriceMinor(spec, { linkPriceMinor })).toBe(6048)
  expect(linkPriceMinor).toEqual({ quarter: 60, lowProfile: 64, p325: 72, threeEighths: 84, p404: 100 })
})
