import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { Log, SPEC, stateOf } from '../fixtures/logs'
import { DEFAULT_RULES } from '../house'
import { decide } from './decide'
import {
  bill,
  filesMinor,
  goodsMinor,
  labourMinor,
  metalPriceMinor,
  newLoopSpells,
  perHour,
  perHourAt,
  routineCost,
} from './money'

const HOURS = { low: 1, likely: 2, high: 4 }
const MINUTES = { low: 10, likely: 20, high: 40 }

describe('what things cost, worked by hand', () => {
  test('an hour’s work, a file’s strokes, a micrometre of cutter', () => {
    expect(labourMinor(20, { labourPerHourMinor: 3000 })).toBe(1000)
    // A file lasts 2000 strokes or so: half of them are half its price.
    expect(filesMinor(0, DEFAULT_RULES)).toBe(0)
    expect(filesMinor(400, DEFAULT_RULES) * 2).toBeCloseTo(filesMinor(800, DEFAULT_RULES))
    // 72 links at 42 over 8 mm less 0.2 mm in reserve.
    expect(metalPriceMinor(SPEC, DEFAULT_RULES)).toBeCloseTo(3024 / 7800)
    expect(metalPriceMinor({ ...SPEC, newLengthUm: 100, markLengthUm: 0 }, DEFAULT_RULES)).toBe(3024)
  })

  test('a bill is the sum of its whole parts', () => {
    const goods = { consumablesMinor: 10.4, shopMinor: 5, newLoopMinor: 7, upkeepMinor: 2, upkeepLabourMinor: 1.6 }
    expect(bill(goods, 100.6, 3.5)).toEqual({
      labourMinor: 101,
      consumablesMinor: 10,
      shopMinor: 5,
      metalMinor: 4,
      newLoopMinor: 7,
      upkeepMinor: 2,
      upkeepLabourMinor: 2,
      totalMinor: 129,
    })
  })

  test('a new loop has a spell as it comes and one for each sharpening', () => {
    expect(newLoopSpells(SPEC, DEFAULT_RULES, 200)).toBe(40)
    expect(newLoopSpells({ ...SPEC, newLengthUm: 100 }, DEFAULT_RULES, 200)).toBe(1)
  })

  test('a house sharpens the way it does, and with a choice the cheaper way', () => {
    const at = (rules: Partial<typeof DEFAULT_RULES>): number => {
      const { labourMinor, toolsMinor } = routineCost(SPEC, 36, { ...DEFAULT_RULES, ...rules })
      return labourMinor + toolsMinor
    }
    const byFile = at({ bench: 'fileForRoutine' })
    const byWheel = at({ bench: 'wheelAtBench' })
    expect(byFile).not.toBe(byWheel)
    expect(at({ bench: 'wheelAtBench', grinderOwned: false })).toBe(byFile)
    expect(at({ bench: 'cheapest' })).toBe(Math.min(byFile, byWheel))
  })
})

describe('an hour of sharp running', () => {
  const money = bill({ consumablesMinor: 100 }, 1000, 600)
  const SPENT = {
    goodsMinor: goodsMinor({ consumablesMinor: 60, shopMinor: 10, newLoopMinor: 20, upkeepMinor: 10 }),
    metalMinor: 600,
  }

  test('is what was spent over what it gives, work and sharpness from least to most', () => {
    expect(perHour(SPENT, MINUTES, HOURS, 1e9, DEFAULT_RULES)).toEqual({
      low: (500 + 100) / 4 + 600 / 4,
      likely: (1000 + 100) / 2 + 600 / 2,
      high: (2000 + 100) / 1 + 600 / 1,
    })
    expect(perHour(SPENT, MINUTES, { low: 0, likely: 0, high: 0 }, 1e9, DEFAULT_RULES)).toBeNull()
  })

  test('metal costs at most what forfeiting the rest of the loop costs', () => {
    expect(perHour(SPENT, MINUTES, HOURS, 50, DEFAULT_RULES)?.likely).toBe((1000 + 100) / 2 + 50)
    expect(perHourAt({ money, sharpHours: HOURS }, 50, {})).toBe((1000 + 100) / 2 + 50)
    expect(perHourAt({ money, sharpHours: HOURS }, 1e9, { loop: 3, labour: 2 })).toBe((2000 + 100) / 2 + 900)
    // Of a new loop's later sharpenings the work moves with the price of work, files and wheel do not.
    const replaced = bill({ newLoopMinor: 300, upkeepMinor: 800, upkeepLabourMinor: 500 }, 200, 0)
    expect(perHourAt({ money: replaced, sharpHours: HOURS }, 0, { labour: 3 })).toBe((3 * 700 + 300 + 300) / 2)
    expect(perHourAt({ money: replaced, sharpHours: HOURS }, 0, { loop: 2 })).toBe((700 + 300 + 600) / 2)
    expect(perHourAt({ money, sharpHours: { low: 0, likely: 0, high: 0 } }, 50, {})).toBe(Infinity)
  })

  // Little length, and a touch-up that gives few hours for it: without the cap its metal would come
  // to more an hour than throwing the whole loop away.
  test('no way of going on pays more for metal in an hour than replacing does', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 250, max: 1500 }),
        fc.integer({ min: 2, max: 9 }),
        fc.integer({ min: 10, max: 100_000 }),
        (lengthUm, tanks, link) => {
          const state = stateOf(new Log().measureAll(lengthUm).add('ran', { tanks, conditions: 'clean' }))
          const linkPriceMinor = { ...DEFAULT_RULES.linkPriceMinor, threeEighths: link }
          const { options } = decide(state, { ...DEFAULT_RULES, linkPriceMinor, labourPerHourMinor: 0 })
          const metal = ({ perHourMinor, money, sharpHours }: (typeof options)[number]): number =>
            (perHourMinor?.likely ?? 0) - (money.totalMinor - money.metalMinor) / sharpHours.likely
          const retire = options.find(({ action }) => action === 'retire')
          if (retire === undefined) throw new Error('a loop can always be retired')
          for (const option of options)
            if (option.sharpHours.likely > 0) expect(metal(option)).toBeLessThanOrEqual(metal(retire) * 1.001 + 1)
        },
      ),
    )
  })
})
