import { expect, test } from 'vitest'
import { Log, stateOf } from '../fixtures/logs'
import { DEFAULT_RULES } from '../house'
import { planSharpening } from '../sharpening'
import { decide } from '../verdict'

const LOOPS: Readonly<Record<string, () => Log>> = {
  even: () => new Log().measureAll(7000),
  'with sides that differ': () => new Log().measureAll((n) => (n % 2 === 0 ? 6800 : 7000)),
  'with one short cutter': () => new Log().measureAll((n) => (n === 7 ? 6500 : 7000)),
  struck: () =>
    new Log()
      .measureAll(7000)
      .add('measured', { readings: [{ cutter: 5, damage: [{ kind: 'stone', depthUm: 500 }] }] }),
  'with corners gone all round': () =>
    new Log().measureAll(7000).add('measured', {
      readings: Array.from({ length: 36 }, (_, i) => ({
        cutter: i + 1,
        damage: [{ kind: 'cornerGone' as const, depthUm: null }],
      })),
    }),
}

test.each(Object.entries(LOOPS))('the decision and the work step by step are one plan: a loop %s', (_name, log) => {
  const state = stateOf(log())
  const { options } = decide(state, DEFAULT_RULES)
  for (const action of ['touchUp', 'file', 'regrind'] as const) {
    const plan = planSharpening(state, DEFAULT_RULES, { action, personId: null })
    const option = options.find((one) => one.action === action)
    if (option === undefined || option.way === 'sameStrokes') continue
    expect(option.minutes.likely).toBeCloseTo(plan.minutes.likely, 6)
    if (plan.gives === 'touches') continue
    const counts = plan.sides.flatMap(({ cutters }) => cutters.map(({ count }) => count))
    expect(option.strokes?.total).toBe(counts.reduce((sum, count) => sum + count, 0))
  }
})

test('a depth that nobody measured is unknown with every tool, and no count is planned for it', () => {
  const state = stateOf(LOOPS['with corners gone all round']?.() ?? new Log())
  const byFile = planSharpening(state, DEFAULT_RULES, { action: 'file', personId: null })
  for (const { cutters } of byFile.sides)
    for (const job of cutters) expect(job).toMatchObject({ depthUnknown: true, untilClean: true })
  expect(planSharpening(state, DEFAULT_RULES, { action: 'regrind', personId: null }).stopUnknown).toBe(true)
})

test('the angle that is found is kept; one that is wrong costs what geometry says', () => {
  const ripping = (deg: number) =>
    stateOf(
      new Log().measureAll(7000).add('measured', {
        readings: Array.from({ length: 36 }, (_, i) => ({ cutter: i + 1, angleDeg: deg })),
      }),
    )
  const most = (deg: number): number => {
    const { sides } = planSharpening(ripping(deg), DEFAULT_RULES, { action: 'file', personId: null })
    return Math.max(...sides.flatMap(({ cutters }) => cutters.map(({ removeUm }) => removeUm)))
  }
  expect(planSharpening(ripping(32), DEFAULT_RULES, { action: 'file', personId: null }).angleDeg).toBe(32)
  // Ten degrees on a 3/8" plate take more than a millimetre.
  expect(most(40)).toBeGreaterThan(1000)
  expect(most(30)).toBeLessThan(400)
})
