import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { damageAfterRemoval, damageDepth, shapeUm, spreadStrike } from './damage'
import {
  CUTTER_DAMAGE,
  CUTTER_DAMAGE_KINDS,
  PART_DAMAGE,
  PART_DAMAGE_KINDS,
  type DamageEffect,
  type DamageKind,
} from './kinds'

const anyDamage = fc.array(
  fc.record({ kind: fc.constantFrom(...CUTTER_DAMAGE_KINDS), depthUm: fc.option(fc.integer({ min: 1, max: 5000 })) }),
  { maxLength: 6 },
)

describe('damage', () => {
  // Any crack, broken strap or drive link, loose rivet or overstretch ends a loop: common practice.
  test('what ends a loop is what the trade says ends it', () => {
    const ends = [
      ...CUTTER_DAMAGE_KINDS.filter((kind) => CUTTER_DAMAGE[kind].effect === 'ends'),
      ...PART_DAMAGE_KINDS.filter((kind) => PART_DAMAGE[kind].effect === 'ends'),
    ]
    expect(ends.sort()).toEqual(['cracked', 'driveLinkCracked', 'rivetLoose', 'strapCracked', 'stretched'])
  })

  test('a file skates on blued steel and on nothing else', () => {
    expect(CUTTER_DAMAGE_KINDS.filter((kind) => !CUTTER_DAMAGE[kind].fileBites)).toEqual(['blued'])
  })

  test('names are told apart', () => {
    const names = [...Object.values(CUTTER_DAMAGE), ...Object.values(PART_DAMAGE)].map(({ name }) => name)
    expect(new Set(names).size).toBe(names.length)
  })

  test('the deepest known depth counts, and an unknown one is told', () => {
    expect(damageDepth([])).toEqual({ knownUm: 0, unknown: false })
    expect(
      damageDepth([
        { kind: 'stone', depthUm: 900 },
        { kind: 'chipped', depthUm: 300 },
        { kind: 'metal', depthUm: null },
      ]),
    ).toEqual({ knownUm: 900, unknown: true })
    expect(damageDepth([{ kind: 'rounded', depthUm: 400 }])).toEqual({ knownUm: 0, unknown: false })
  })

  test('filing more never leaves more damage, and none leaves it as it was', () => {
    fc.assert(
      fc.property(
        anyDamage,
        fc.integer({ min: 0, max: 3000 }),
        fc.integer({ min: 0, max: 3000 }),
        (damage, um, more) => {
          const after = damageAfterRemoval(damage, um)
          const afterMore = damageAfterRemoval(damage, um + more)
          expect(damageDepth(afterMore).knownUm).toBeLessThanOrEqual(damageDepth(after).knownUm)
          expect(afterMore.length).toBeLessThanOrEqual(after.length)
          expect(damageAfterRemoval(damage, 0)).toEqual(damage)
        },
      ),
    )
  })

  test('filed in two goes or in one, the same is left', () => {
    fc.assert(
      fc.property(
        anyDamage,
        fc.integer({ min: 1, max: 2000 }),
        fc.integer({ min: 1, max: 2000 }),
        (damage, one, other) => {
          expect(damageAfterRemoval(damageAfterRemoval(damage, one), other)).toEqual(
            damageAfterRemoval(damage, one + other),
          )
        },
      ),
    )
  })
})

// What each kind of damage means for a loop: common practice. A new kind does not compile until it stands here.
const EFFECTS: Record<DamageKind, readonly [DamageEffect, fileBites?: false]> = {
  rounded: ['dullness'],
  dirtDulled: ['dullness'],
  chipped: ['depth'],
  folded: ['depth'],
  cornerGone: ['depth'],
  stone: ['depth'],
  metal: ['depth'],
  blued: ['depth', false],
  cracked: ['ends'],
  missing: ['unfit'],
  hook: ['shape'],
  backSlope: ['shape'],
  wrongAngle: ['shape'],
  gulletRidge: ['shape'],
  gaugeHigh: ['gauge'],
  gaugeLow: ['unfit'],
  gaugeFlat: ['gauge'],
  bumperFiled: ['unfit'],
  strapCut: ['attention'],
  strapCracked: ['ends'],
  driveLinkBent: ['attention'],
  driveLinkCracked: ['ends'],
  rivetLoose: ['ends'],
  rivetSeized: ['attention'],
  stretched: ['ends'],
  anglesDiffer: ['shape'],
}
const ALL = Object.values({ ...CUTTER_DAMAGE, ...PART_DAMAGE })

describe('every kind', () => {
  test.each(ALL)('$kind is what the trade says it is', ({ kind, effect, fileBites }) => {
    const [wanted, bites = true] = EFFECTS[kind]
    expect({ effect, fileBites }).toEqual({ effect: wanted, fileBites: bites })
  })

  test('no sharpening takes away what only a look or a repair takes away', () => {
    for (const { kind, effect } of Object.values(CUTTER_DAMAGE)) {
      const left = damageAfterRemoval([{ kind, depthUm: 300 }], 5000)
      expect(left.length, kind).toBe(effect === 'dullness' || effect === 'depth' ? 0 : 1)
    }
  })

  test('what has a depth shrinks by what came off, and stays while it is not known', () => {
    expect(damageAfterRemoval([{ kind: 'stone', depthUm: 900 }], 300)).toEqual([
      { kind: 'stone', depthUm: 600, catchingUp: true },
    ])
    expect(damageAfterRemoval([{ kind: 'stone', depthUm: 300 }], 300)).toEqual([])
    expect(damageAfterRemoval([{ kind: 'stone', depthUm: null }], 5000)).toHaveLength(1)
  })

  test('what reaches back has bounds for while nobody has measured it; nothing else has', () => {
    for (const { kind, effect, boundsUm } of Object.values(CUTTER_DAMAGE)) {
      expect(boundsUm !== null, kind).toBe(effect === 'depth')
      if (boundsUm !== null) expect(boundsUm[0]).toBeLessThan(boundsUm[1])
    }
  })

  test('what ends a loop or makes it unfit waits for nothing; dullness waits until it is due', () => {
    for (const { effect, urgency } of [...Object.values(CUTTER_DAMAGE), ...Object.values(PART_DAMAGE)]) {
      const wanted = {
        ends: 'beforeUse',
        unfit: 'beforeUse',
        attention: 'beforeUse',
        depth: 'soon',
        shape: 'soon',
        gauge: 'whenDue',
        dullness: 'whenDue',
      }
      expect(urgency).toBe(wanted[effect])
    }
  })

  test('of several shapes the one that takes most counts', () => {
    expect(shapeUm([])).toBe(0)
    expect(
      shapeUm([
        { kind: 'hook', depthUm: null },
        { kind: 'wrongAngle', depthUm: null },
      ]),
    ).toBe(400)
  })
})

describe('a strike over a run', () => {
  test('is deepest where it was seen and falls away to a quarter at the ends', () => {
    expect([...spreadStrike([35, 36, 1, 2, 3], { cutter: 1, depthUm: 1200 }).entries()]).toEqual([
      [35, 300],
      [36, 750],
      [1, 1200],
      [2, 750],
      [3, 300],
    ])
    expect([...spreadStrike([9], { cutter: 9, depthUm: 700 }).values()]).toEqual([700])
    expect(() => spreadStrike([1, 2], { cutter: 3, depthUm: 1 })).toThrow(RangeError)
  })

  test('is nowhere deeper than where it was seen', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 30 }),
        fc.nat(29),
        fc.integer({ min: 0, max: 4000 }),
        (count, pick, depthUm) => {
          const run = Array.from({ length: count }, (_, i) => i + 1)
          const cutter = run[pick % count] ?? 1
          for (const um of spreadStrike(run, { cutter, depthUm }).values()) expect(um).toBeLessThanOrEqual(depthUm)
        },
      ),
    )
  })
})

// Starting values: who changes one has to say so here.
test('how far each kind reaches while nobody has measured it, and what a shape takes', () => {
  const bounds = Object.values(CUTTER_DAMAGE).filter(({ boundsUm }) => boundsUm !== null)
  expect(Object.fromEntries(bounds.map(({ kind, boundsUm }) => [kind, boundsUm]))).toEqual({
    chipped: [100, 1000],
    folded: [200, 2000],
    cornerGone: [500, 2500],
    stone: [200, 3000],
    metal: [200, 3000],
    blued: [100, 1500],
  })
  const takes = Object.values(CUTTER_DAMAGE).filter(({ takesUm }) => takesUm > 0)
  expect(Object.fromEntries(takes.map(({ kind, takesUm }) => [kind, takesUm]))).toEqual({
    hook: 200,
    backSlope: 300,
    wrongAngle: 400,
  })
})
