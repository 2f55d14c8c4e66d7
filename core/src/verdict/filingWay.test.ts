import { expect, test } from 'vitest'
import { Log, SPEC, stateOf } from '../fixtures/logs'
import { DEFAULT_RULES, type HouseRules } from '../house'
import { usableLengthUm } from '../profile'
import { decide } from './decide'
import { filingWay } from './filingWay'

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
