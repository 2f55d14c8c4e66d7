import fc from 'fast-check'
import { expect, test } from 'vitest'
import { Log, stateOf } from '../fixtures/logs'
import { DEFAULT_RULES, UNEVEN_SCHOOLS, type HouseRules } from '../house'
import { advise } from './decide'
import type { Option } from './verdict'

const CUTTERS = 36

/** A loop with a figure of its own for every cutter, struck, dull, and a house of some habits. */
const anyCase = fc.record({
  lengthsUm: fc.array(fc.integer({ min: 1500, max: 7500 }), { minLength: 1, maxLength: CUTTERS }),
  baseUm: fc.integer({ min: 1500, max: 7500 }),
  depthUm: fc.integer({ min: 0, max: 1500 }),
  tanks: fc.integer({ min: 0, max: 9 }),
  unevenSchool: fc.constantFrom(...UNEVEN_SCHOOLS),
  cutter: fc.integer({ min: 0, max: CUTTERS - 1 }),
})

/** Lengths within half a millimetre of one another: one that is far off is a limit, not a hair. */
function stateFor(
  { lengthsUm, baseUm, depthUm, tanks, cutter }: typeof anyCase extends fc.Arbitrary<infer C> ? C : never,
  moreUm: number,
) {
  const lengths = Array.from(
    { length: CUTTERS },
    (_, i) => baseUm - 500 + ((lengthsUm[i % lengthsUm.length] ?? 0) % 500),
  )
  lengths[cutter] = (lengths[cutter] ?? 0) + moreUm
  const readings = lengths.map((lengthUm, i) => ({
    cutter: i + 1,
    lengthUm,
    settingUm: 500,
    damage: depthUm > 0 && i % 12 === 5 ? [{ kind: 'stone' as const, depthUm }] : [],
  }))
  return stateOf(new Log().add('measured', { readings }).add('ran', { tanks, conditions: 'clean' }))
}

/** Work that a stroke on every cutter and a touch of the wheel may add at most. */
const MINUTES_STEP = 1.2
/** Part of an hour's price that a hair more length, or a cent more, may add at most. */
const PRICE_STEP = 0.06

function expectNear(before: readonly Option[], after: readonly Option[]): void {
  for (const [i, option] of before.entries()) {
    const other = after[i]
    if (other === undefined) throw new Error('the options are always the same')
    // Past what may be thrown away to match the worst it is another way of filing: a limit, not a hair.
    if (option.way !== other.way) continue
    expect(Math.abs(option.minutes.likely - other.minutes.likely), option.action).toBeLessThan(MINUTES_STEP)
    expect(Math.abs(option.sharpHours.likely - other.sharpHours.likely), option.action).toBeLessThan(0.2)
    const [a, b] = [option.perHourMinor?.likely ?? null, other.perHourMinor?.likely ?? null]
    if (a !== null && b !== null) expect(Math.abs(a - b), option.action).toBeLessThan(5 + PRICE_STEP * a)
  }
}

const feasible = (options: readonly Option[]): string =>
  options
    .filter((option) => option.feasible)
    .map(({ action, way }) => `${action} ${way ?? ''}`)
    .join(' ')

/** What an action costs, where another was advised a hair away. */
const rateOf = (options: readonly Option[], action: string): number =>
  options.find((option) => option.action === action)?.perHourMinor?.likely ?? Infinity

function expectSameOrAlike(before: ReturnType<typeof advise>, after: ReturnType<typeof advise>): void {
  if (before.advised === after.advised || feasible(before.options) !== feasible(after.options)) return
  const [a, b] = [rateOf(before.options, before.advised), rateOf(before.options, after.advised)]
  // A limit of the house, or what is asked for before anything is decided, is no matter of cost.
  if (a === Infinity || b === Infinity) return
  expect(Math.abs(a - b)).toBeLessThan(5 + 2 * PRICE_STEP * a)
}

/** Cutter 15, a micrometre longer, moves the middle of its side past where cutter 7 counted as one of its own. */
const ONE_OF_ITS_OWN = {
  lengthsUm: [7263, 2777, 6308, 2327, 4397, 4389, 7500, 5715, 4969, 1500, 2275],
  baseUm: 4278,
  depthUm: 279,
  tanks: 2,
  unevenSchool: 'matchShortest' as const,
  cutter: 14,
}

test('a micrometre more of a cutter moves minutes, money and sharp hours by no more than a step', () => {
  fc.assert(
    fc.property(anyCase, (given) => {
      const rules: HouseRules = { ...DEFAULT_RULES, unevenSchool: given.unevenSchool }
      const [before, after] = [advise(stateFor(given, 0), rules), advise(stateFor(given, 1), rules)]
      expectNear(before.options, after.options)
      expectSameOrAlike(before, after)
    }),
    { numRuns: 150, examples: [[ONE_OF_ITS_OWN]] },
  )
})

test('so does a cent more for a link, for an hour of work, or for a visit to the shop', () => {
  fc.assert(
    fc.property(anyCase, fc.constantFrom('link', 'labour', 'shop'), (given, what) => {
      const rules: HouseRules = { ...DEFAULT_RULES, unevenSchool: given.unevenSchool, bench: 'cheapest' }
      const dearer: HouseRules = {
        ...rules,
        labourPerHourMinor: rules.labourPerHourMinor + (what === 'labour' ? 1 : 0),
        shopFeeMinor: rules.shopFeeMinor + (what === 'shop' ? 1 : 0),
        linkPriceMinor: {
          ...rules.linkPriceMinor,
          threeEighths: rules.linkPriceMinor.threeEighths + (what === 'link' ? 1 : 0),
        },
      }
      const state = stateFor(given, 0)
      const [before, after] = [advise(state, rules), advise(state, dearer)]
      expectNear(before.options, after.options)
      expectSameOrAlike(before, after)
    }),
    { numRuns: 150 },
  )
})
