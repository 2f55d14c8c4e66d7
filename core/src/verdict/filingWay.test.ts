import { expect, test } from 'vitest'
import { Log, SPEC, stateOf } from '../fixtures/logs'
import { DEFAULT_RULES, type HouseRules } from '../house'
import { usableLengthUm } from '../profile'
import { decide } from './decide'
import { filingWay } from './filingWay'
import { everySchool } from './tradeOff'

const MARK_UM = 2000
const spec = { ...SPEC, markLengthUm: MARK_UM, newLengthUm: SPEC.newLengthUm + MARK_UM }
const nicked = (aboveMarkUm: number, depthUm: number, cutters = 1): Log =>
  new Log(spec).add('measured', {
    readings: Array.from({ length: 36 }, (_, i) => ({
      cutter: i + 1,
      lengthUm: MARK_UM + aboveMarkUm,
      damage: i < cutters ? [{ kind: 'chipped' as const, depthUm }] : [],
    })),
  })
const way = (log: Log, rules: Partial<HouseRules> = {}) => filingWay(stateOf(log), { ...DEFAULT_RULES, ...rules })

test('the worst is matched while no more than half of what is left goes with it', () => {
  expect(usableLengthUm(spec)).toBe(8000)
  expect(way(nicked(6000, 2800))).toBe('matchShortest')
  expect(way(nicked(6000, 3000))).toBe('sameStrokes')
  expect(way(nicked(6000, 3000), { unevenSchool: 'worstSetsCount' })).toBe('sameStrokes')
  expect(way(nicked(6000, 3000), { unevenSchool: 'extraOnBad' })).toBe('extraOnBad')
})

test('and on a loop with less than half of its life left always, or where too few would cut', () => {
  expect(way(nicked(3900, 3000))).toBe('matchShortest')
  expect(way(nicked(4200, 3000))).toBe('sameStrokes')
  expect(way(nicked(6000, 3000, 12))).toBe('sameStrokes')
  expect(way(nicked(6000, 3000, 13))).toBe('matchShortest')
})

test('the reserve is kept above the mark, wherever that lies', () => {
  expect(way(nicked(4500, 4100), { reserveUm: 400 })).toBe('sameStrokes')
  expect(way(nicked(4500, 4100), { reserveUm: 4400 })).toBe('matchShortest')
})

test('what was filed at is left to the next ones, where that is how it is done, and calls for nothing', () => {
  const same = { ...DEFAULT_RULES, unevenSchool: 'sameStrokes' } as const
  const filed = (log: Log, rules: HouseRules = same) => decide(stateOf(log.file()), rules)
  expect(filed(nicked(6000, 500)).action).toBe('runOn')
  expect(filed(nicked(6000, 500), DEFAULT_RULES).reasons[0]).toMatchObject({ rule: 'damageToClean', cutter: 1 })
  // Seen again, it is what it was: somebody has to say what is to be done.
  const seen = nicked(6000, 500)
    .file()
    .add('measured', { readings: [{ cutter: 1, damage: [{ kind: 'chipped', depthUm: 300 }] }] })
  expect(decide(stateOf(seen), same).action).not.toBe('runOn')
})

test('every way is worked out beside that of the house, with what it leaves to the next sharpenings', () => {
  const stagesOf = (rules: Partial<HouseRules>) => {
    const { uneven } = everySchool(stateOf(nicked(6000, 500)), { ...DEFAULT_RULES, ...rules })
    return Object.fromEntries(uneven.map(({ id, outcome }) => [id, outcome?.stages]))
  }
  for (const unevenSchool of ['matchShortest', 'sameStrokes'] as const) {
    const stages = stagesOf({ unevenSchool })
    expect(stages['matchShortest']).toBeNull()
    // A nick of 0.5 mm and a tenth behind it, at 0.2 mm a filing.
    expect(stages['sameStrokes']).toMatchObject({ sharpenings: 3 })
    // One cutter of 36 stays blunt for two spells.
    const [{ likely } = { likely: 0 }] = decide(stateOf(nicked(6000, 500)), DEFAULT_RULES)
      .options.filter(({ action }) => action === 'file')
      .map(({ sharpHours }) => sharpHours)
    expect(stages['sameStrokes']?.lostHours).toBeCloseTo((2 / 36) * likely, 9)
  }
})
