import { readdirSync, readFileSync } from 'node:fs'
import { seeded } from '@undercliff/demo'
import { specFromProfile } from '@undercliff/core'
import { describe, expect, test } from 'vitest'
import { happens, heavy, normal, weibull } from './chance'
import { Crew, oneCrew } from './crew'
import { figureOver, Share, Sides } from './figures'
import { playSeason } from './play'
import { filesUntilShort, followsVerdict, oracle, type ReadingHabit } from './policies'
import { tableOf } from './report'
import { readScenario, type Scenario } from './scenario'
import { sharpenSome, type Way } from './sharpenings'
import { proveSigns } from './signs'
import { TrueLoop } from './truth'

const FOLDER = new URL('../scenarios/', import.meta.url)
const shipped = readdirSync(FOLDER).map((name) => [name, readFileSync(new URL(name, FOLDER), 'utf8')] as const)
const scenarioOf = (more: Partial<Scenario> = {}): Scenario => ({ ...readScenario(shipped[0]?.[1] ?? ''), ...more })
const SPEC = specFromProfile({ pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72, cutterType: 'semiChisel' })

describe('scenarios', () => {
  test('nine are shipped, and every one can be read', () => {
    expect(shipped).toHaveLength(9)
    for (const [, text] of shipped) expect(readScenario(text).people.length).toBeGreaterThan(0)
    expect(new Set(shipped.map(([, text]) => readScenario(text).name)).size).toBe(9)
  })

  test('what cannot be is named, field by field', () => {
    const [, text = ''] = shipped[0] ?? []
    const broken = { ...readScenario(text), tanks: -5, forgets: 2, grinder: true }
    expect(() => readScenario(JSON.stringify(broken))).toThrow(/tanks[^]*forgets|forgets[^]*tanks/)
    expect(() => readScenario(JSON.stringify(broken))).toThrow(/grinder/)
    expect(() => readScenario('{')).toThrow(/not JSON/)
    expect(() => readScenario('[]')).toThrow(/cannot be/)
  })
})

describe('chance', () => {
  const draws = (of: () => number): number[] => Array.from({ length: 20_000 }, of)
  const sdOf = (values: readonly number[]): number => {
    const { mean } = figureOver(values)
    return Math.sqrt(values.reduce((sum, one) => sum + (one - mean) ** 2, 0) / values.length)
  }

  test('figures have the mean and deviation that was asked for; the heavy ones stray further now and then', () => {
    const random = seeded(3)
    const plain = draws(() => normal(random, 10, 2))
    const tails = draws(() => heavy(random, 10, 2))
    expect(figureOver(plain).mean).toBeCloseTo(10, 1)
    expect(sdOf(plain)).toBeCloseTo(2, 1)
    expect(Math.abs(sdOf(tails) - 2)).toBeLessThan(0.25)
    const far = (values: readonly number[]): number => values.filter((one) => Math.abs(one - 10) > 8).length
    expect(far(tails)).toBeGreaterThan(5 * Math.max(1, far(plain)))
  })

  test('what has lasted is likelier to end', () => {
    const random = seeded(4)
    const lasted = draws(() => weibull(random, 4, 2.5))
    const ends = (from: number): number =>
      lasted.filter((one) => one >= from && one < from + 1).length / lasted.filter((one) => one >= from).length
    expect(ends(4)).toBeGreaterThan(2 * ends(1))
    expect(draws(() => Number(happens(random, 0.3))).reduce((a, b) => a + b) / 20_000).toBeCloseTo(0.3, 1)
  })
})

describe('the truth', () => {
  const loop = (seed = 1): TrueLoop => new TrueLoop(scenarioOf(), SPEC, seeded(seed))
  const [person] = scenarioOf().people
  if (person === undefined) throw new Error('a crew has somebody')

  test('a filing takes from the sides that were filed, and makes it sharp', () => {
    const truth = loop()
    const before = truth.cutters.map(({ lengthUm }) => lengthUm)
    for (let i = 0; i < 40; i += 1) truth.run(1)
    expect(truth.dull).toBe(true)
    truth.file(person, 1, { each: { left: 10, right: 0 } })
    for (const [i, { hand, lengthUm }] of truth.cutters.entries()) {
      if (hand === 'right') expect(lengthUm).toBe(before[i])
      else expect(lengthUm).toBeLessThan((before[i] ?? 0) - 60)
    }
    truth.file(person, 1, { each: { left: 10, right: 10 } })
    expect(truth.dull).toBe(false)
  })

  test('a grind takes damage away and leaves the sides a turn of the clamp apart', () => {
    const truth = loop()
    truth.strike()
    const deepest = Math.max(...truth.cutters.map(({ damageUm }) => damageUm))
    expect(deepest).toBeGreaterThan(0)
    const worst = truth.worstUm
    truth.grind()
    expect(truth.cutters.every(({ damageUm }) => damageUm === 0)).toBe(true)
    expect(truth.worstUm).toBeLessThan(worst)
    expect(Math.abs(truth.sideDifferenceUm)).toBeLessThan(600)
  })

  test('gauges that stand high and cutters that are hurt do less', () => {
    const sharp = loop().run(0.01)
    const high = loop()
    for (const cutter of high.cutters) cutter.settingUm = 250
    const hurt = loop()
    for (const cutter of hurt.cutters.slice(0, 18)) cutter.damageUm = 200
    expect(high.run(0.01)).toBeLessThan(sharp * 0.8)
    expect(hurt.run(0.01)).toBeCloseTo(sharp / 2, 1)
  })

  test('steel is not put back', () => {
    const truth = loop()
    for (const cutter of truth.cutters) cutter.settingUm = 900
    truth.lowerGauges(650, 20)
    expect(truth.cutters.every(({ settingUm }) => settingUm >= 900)).toBe(true)
  })
})

describe('a season', () => {
  test('is the same for the same seed, and another for another', () => {
    const play = (seed: number) => playSeason(scenarioOf({ tanks: 25 }), followsVerdict('worstOnly'), seed).tally
    expect(play(5)).toEqual(play(5))
    expect(play(6)).not.toEqual(play(5))
  })

  test('habits of the trade run past limits that the verdict keeps', () => {
    const scenario = scenarioOf({ tanks: 120 })
    const unsafe = (policy: Parameters<typeof playSeason>[1]) =>
      [1, 2, 3].reduce((sum, seed) => sum + playSeason(scenario, policy, seed).tally.unsafe, 0)
    expect(unsafe(filesUntilShort)).toBeGreaterThan(0)
    expect(unsafe(followsVerdict('all'))).toBe(0)
    expect(unsafe(oracle)).toBe(0)
  })
})

describe('what is known of lengths', () => {
  /** How far the truth lies off, in deviations of what is known: each squared, over crews of every scenario. */
  function squares(habit: ReadingHabit): number[] {
    const found: number[] = []
    for (const [seed, [, text]] of shipped.entries()) {
      const random = seeded(900 + seed)
      const crew = new Crew(oneCrew(readScenario(text), random), random)
      const { before } = followsVerdict(habit)
      const sides = new Sides()
      for (let tank = 1; tank <= 84; tank += 1) {
        crew.work(before(crew, sides))
        if (tank % 14 !== 0) continue
        const { cutters } = crew.state()
        for (const [i, { lengthUm }] of crew.truth.cutters.entries()) {
          const { um = 0, sdUm = 1 } = cutters[i]?.length ?? {}
          found.push(((lengthUm - um) / sdUm) ** 2)
        }
      }
    }
    return found
  }

  test.each(['fourASide', 'none'] as const)('is as sure as it says, and no less: %s', (habit) => {
    const all = squares(habit)
    const within = all.filter((one) => one <= 1.96 ** 2).length / all.length
    expect(within).toBeGreaterThan(0.9)
    // Ranges that are too wide would hold the truth as well: it lies about as far off as is said.
    const middle = [...all].sort((a, b) => a - b)[Math.floor(all.length / 2)] ?? 0
    // Half of normal figures lie within 0.6745 deviations.
    const typical = Math.sqrt(middle) / 0.6745
    expect(typical).toBeGreaterThan(0.5)
    expect(typical).toBeLessThan(1.3)
  })
})

describe('crews that do it differently', () => {
  const SEASONS = [31, 32, 33]
  const named = (file: string): Scenario => ({
    ...readScenario(shipped.find(([name]) => name === file)?.[1] ?? ''),
    tanks: 120,
  })

  test.each(['past-the-stop.json', 'two-in-one.json', 'reads-strikes.json'])(
    '%s: ranges hold the truth, and no loop is run past a limit',
    (file) => {
      const seasons = SEASONS.map((seed) => playSeason(named(file), followsVerdict('fourASide'), seed))
      const lengths = new Share()
      for (const { coverage, tally } of seasons) {
        lengths.add(coverage.lengths)
        expect([tally.unsafe, tally.unsafeThoughFit]).toEqual([0, 0])
      }
      expect(lengths.of).toBeGreaterThan(1000)
      expect(lengths.part).toBeGreaterThan(0.9)
    },
  )

  test('a two-in-one asks for no pass over the gauges of its own, and they stay where its plate has them', () => {
    const random = seeded(41)
    const crew = new Crew(oneCrew(named('two-in-one.json'), random), random)
    const { before } = followsVerdict('fourASide')
    const sides = new Sides()
    for (let tank = 1; tank <= 120; tank += 1) crew.work(before(crew, sides))
    expect(crew.log.filter(({ kind }) => kind === 'gaugesLowered')).toEqual([])
    expect(crew.log.some((entry) => entry.kind === 'sharpened' && entry.gaugesLowered)).toBe(false)
    expect(crew.tally.sharpenings).toBeGreaterThan(5)
  })

  test('a stop that is read keeps what is known of a loop that was ground past it', () => {
    const scenario = named('past-the-stop.json')
    const offOf = (stopRead: number): number => {
      const habits = { overshootUm: 300, stopRead, twoInOne: false, readsStrikes: false }
      const offs = SEASONS.flatMap((seed) => {
        const random = seeded(seed)
        const crew = new Crew({ ...scenario, habits }, random)
        crew.measure(crew.all)
        crew.grind('grinder', false)
        const { cutters } = crew.state()
        return crew.truth.cutters.map(({ lengthUm }, i) => Math.abs(lengthUm - (cutters[i]?.length.um ?? 0)))
      })
      return offs.reduce((sum, one) => sum + one, 0) / offs.length
    }
    expect(offOf(1)).toBeLessThan(offOf(0) / 2)
  })
})

test('figures come with their interval, and a table says them all', () => {
  const { mean, low, high } = figureOver([1, 2, 3, 4, 5])
  expect(mean).toBe(3)
  // By hand: 1.96 × √(2.5 ÷ 5).
  expect(high - mean).toBeCloseTo(1.386, 3)
  expect(mean - low).toBeCloseTo(1.386, 3)
  const share = new Share()
  expect(share.part).toBeNull()
  share.note(true)
  share.note(false)
  expect(share.part).toBe(0.5)
  expect(tableOf([]).split('\n')).toHaveLength(2)
})

describe('a sharpening step by step against the same strokes all round', () => {
  const TIMES = 12
  const CREWS = 40
  /** By what a sharpening with a file hangs on: scenarios that differ in other things have it alike. */
  const done = new Map<string, { apartUm: number; takenUm: number }>()

  test.each(shipped)('%s: the sides stay half as far apart at most, for no more metal', (_name, text) => {
    const scenario = readScenario(text)
    const meanOf = (way: Way) => {
      const { loop, people, crews, file, reading } = scenario
      const key = JSON.stringify({ way, loop, people, crews, file, reading })
      const known = done.get(key)
      if (known !== undefined) return known
      const outcomes = Array.from({ length: CREWS }, (_, i) => {
        const random = seeded(i + 1)
        const crew = oneCrew(scenario, random)
        const person = crew.people[(i + 1) % crew.people.length]
        if (person === undefined) throw new Error('a scenario has people')
        return sharpenSome(crew, person, random, way, TIMES)
      })
      const mean = (of: (one: (typeof outcomes)[number]) => number): number =>
        outcomes.reduce((sum, one) => sum + of(one), 0) / CREWS
      const means = {
        apartUm: mean(({ sideDifferenceUm }) => Math.abs(sideDifferenceUm)),
        takenUm: mean((one) => one.takenUm),
      }
      done.set(key, means)
      return means
    }
    const [short, stepped] = [meanOf('shortForm'), meanOf('stepByStep')]
    expect(stepped.apartUm).toBeLessThan(short.apartUm / 2)
    // What a day's hand and file stray by, over so many crews, is about a hundredth.
    expect(stepped.takenUm).toBeLessThan(short.takenUm * 1.03)
  })
})

test('what is behind a sign is found at least as often as by a sheet, with fewer looks', () => {
  const crews = [11, 12, 13, 14, 15, 16, 17, 18].map((seed) => proveSigns(seeded(seed), 300))
  const sum = (of: (one: (typeof crews)[number]) => number): number => crews.reduce((all, one) => all + of(one), 0)
  expect(sum(({ model }) => model.hits)).toBeGreaterThanOrEqual(sum(({ sheet }) => sheet.hits))
  // The sheet takes dry wood for the reason without a look; the model has one look first.
  expect(sum(({ model }) => model.looks)).toBeLessThan(0.95 * sum(({ sheet }) => sheet.looks))
})
