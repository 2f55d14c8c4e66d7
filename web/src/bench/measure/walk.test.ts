import { fold, OVER_ASSUMED_ALLOWED, specFromProfile, type Entry } from '@undercliff/core'
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { DAMAGE_KEYS, WALK_KEYS } from '../../parts/keys'
import * as walking from './walk'

const registered = {
  id: 'registered',
  loopId: 'loop-under-test',
  kind: 'registered',
  tag: 'T1',
  happenedAt: '2026-01-05T08:00:00.000Z',
  writtenAt: '2026-01-05T08:00:00.000Z',
  personId: null,
  spec: specFromProfile({ pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72, cutterType: 'semiChisel' }),
} as Entry
const state = fold([registered])
if (state === null) throw new Error('the loop should be registered')
const loop: walking.WalkLoop = { spec: state.spec, cutters: state.cutters, bare: 'mm' }
const begin = (order: walking.WalkOrder = 'round') => walking.beginWalk(loop.cutters, order)
const type = (walk: walking.Walk, ...texts: string[]) =>
  texts.reduce((now, text) => walking.enter(now, loop, text), walk)

describe('the walk', () => {
  test('numbers and Enter go round the loop', () => {
    const walk = type(begin(), '7.2', '7.15', '7,1 mm')
    expect(walking.cutterInHand(walk)).toBe(4)
    expect(walking.readingsOf(walk)).toEqual([
      { cutter: 1, lengthUm: 7200, damage: [] },
      { cutter: 2, lengthUm: 7150, damage: [] },
      { cutter: 3, lengthUm: 7100, damage: [] },
    ])
  })

  test('one side first, then the other; a change of order stays at the cutter', () => {
    const walk = type(begin('sides'), '7', '7')
    expect(walking.cutterInHand(walk)).toBe(5)
    expect(walking.cutterInHand(walking.reorder(walk, loop.cutters, 'round'))).toBe(5)
    expect(begin('sides').route.slice(17, 20)).toEqual([35, 2, 4])
  })

  test('damage asks how deep, and stays with the cutter when its length is read', () => {
    const asked = walking.markDamage(begin(), loop, 'stone')
    expect(asked.asking).toEqual({ what: 'depth', kind: 'stone' })
    const walk = type(asked, '1.1', '7')
    expect(walking.readingsOf(walk)).toEqual([
      { cutter: 1, lengthUm: 7000, damage: [{ kind: 'stone', depthUm: 1100 }] },
    ])
  })

  test('Enter alone says that nobody measured the depth; dullness has none', () => {
    expect(walking.damageOf(type(walking.markDamage(begin(), loop, 'chipped'), ''), loop, 1)).toEqual([
      { kind: 'chipped', depthUm: null },
    ])
    expect(walking.markDamage(begin(), loop, 'rounded').asking.what).toBe('length')
    expect(walking.damageOf(walking.wipeDamage(walking.markDamage(begin(), loop, 'rounded')), loop, 1)).toEqual([])
  })

  test('a slip is asked about once and then taken as typed', () => {
    const asked = type(begin(), '0.72')
    expect(asked).toMatchObject({ at: 0, asking: { what: 'sure', lengthUm: 720 } })
    expect(asked.wrong).toContain('slipped decimal')
    expect(walking.readingsOf(type(asked, ''))).toEqual([{ cutter: 1, lengthUm: 720, damage: [] }])
    expect(walking.readingsOf(type(asked, '7.2'))).toEqual([{ cutter: 1, lengthUm: 7200, damage: [] }])
  })

  test('what cannot be is refused and nothing moves', () => {
    for (const text of ['72', 'abc', '', '-1']) {
      const walk = type(begin(), text)
      expect(walk.at).toBe(0)
      expect(walk.wrong).not.toBeNull()
      expect(walking.readingsOf(walk)).toEqual([])
    }
    expect(type(walking.markDamage(begin(), loop, 'stone'), '30').wrong).toBe('30.00 mm cannot be. Was it 0.30 mm?')
    // A setting far from any in use is asked about once, and stands when somebody insists.
    const asked = type(walking.askSetting(begin()), '2')
    expect(asked).toMatchObject({ asking: { what: 'setting', sureUm: 2000 } })
    expect(walking.readingsOf(type(asked, ''))).toMatchObject([{ cutter: 1, settingUm: 2000 }])
  })

  test('skip, back, other side, a cutter pointed at, a setting', () => {
    const walk = walking.skip(walking.skip(begin()))
    expect(walking.cutterInHand(walk)).toBe(3)
    expect(walking.cutterInHand(walking.back(walk))).toBe(2)
    expect(walking.cutterInHand(walking.otherSide(walk, loop))).toBe(2)
    expect(walking.cutterInHand(walking.goTo(walk, 30))).toBe(30)
    expect(walking.readingsOf(type(walking.askSetting(walk), '.025"'))).toEqual([{ cutter: 3, settingUm: 635 }])
  })

  test('an angle with its sign goes to the cutter in hand, and so does a bare one where it was asked for', () => {
    const typed = type(begin(), '32°')
    expect(walking.cutterInHand(typed)).toBe(1)
    expect(walking.readingsOf(typed)).toEqual([{ cutter: 1, angleDeg: 32 }])
    expect(walking.readingsOf(type(walking.askAngle(begin()), '27,5'))).toEqual([{ cutter: 1, angleDeg: 27.5 }])
    const steep = type(walking.askAngle(begin()), '75')
    expect([steep.unread, walking.readingsOf(steep)]).toEqual([true, []])
    expect(steep.wrong).toContain('0 to 50°')
    // Its length comes with the same cutter.
    expect(walking.readingsOf(type(typed, '7'))).toMatchObject([{ cutter: 1, lengthUm: 7000, angleDeg: 32 }])
  })

  test('whatever is typed, the walk stays on its route and its readings are within the loop', () => {
    const texts = fc.array(
      fc.oneof(fc.constantFrom('7', '6.9', '9', '', 'x', '99', '0.7'), fc.string({ maxLength: 6 })),
      {
        maxLength: 60,
      },
    )
    fc.assert(
      fc.property(texts, (typed) => {
        const walk = type(begin(), ...typed)
        expect(walk.at).toBeGreaterThanOrEqual(0)
        expect(walk.at).toBeLessThanOrEqual(36)
        for (const { cutter, lengthUm } of walking.readingsOf(walk)) {
          expect(cutter >= 1 && cutter <= 36).toBe(true)
          // A new length that is only assumed gives way to what is read, once that is said to be right.
          expect(lengthUm === undefined || (lengthUm >= 0 && lengthUm <= 8000 * OVER_ASSUMED_ALLOWED)).toBe(true)
        }
        expect(JSON.parse(JSON.stringify(walk))).toEqual(walk)
      }),
    )
  })
})

test('no key means two things', () => {
  const keys = [...DAMAGE_KEYS.map(({ key }) => key), ...WALK_KEYS.slice(1).map(({ key }) => key)]
  expect(new Set(keys).size).toBe(keys.length)
})

describe('what is asked while the caliper is on the cutter', () => {
  const read = type(begin(), '7.2')

  test('a length that nothing explains stays at its cutter; read so again, or Enter, it stands', () => {
    const after = type(read, '6.6')
    expect(walking.justRead(read, after)).toBe(6600)
    const asked = walking.askAgain(read, 6600, { why: 'shorter', byUm: 600 })
    expect(asked.wrong).toContain('0.60 mm shorter than anything explains')
    expect(walking.cutterInHand(asked)).toBe(2)
    expect(walking.readingsOf(asked)).toHaveLength(1)
    for (const answer of ['', '6.62']) {
      const stands = type(asked, answer)
      expect(walking.cutterInHand(stands)).toBe(3)
      expect(walking.readingsOf(stands)[1]).toMatchObject({ cutter: 2, confirmed: true })
      // It has been said: nobody asks once more.
      expect(walking.justRead(asked, stands)).toBeNull()
    }
  })

  test('another figure then is a reading of its own, and leaving the cutter takes nothing', () => {
    const asked = walking.askAgain(read, 6600, { why: 'shorter', byUm: 600 })
    const other = type(asked, '7.15')
    expect(walking.readingsOf(other)[1]).toEqual({ cutter: 2, lengthUm: 7150, damage: [] })
    expect(walking.readingsOf(walking.skip(asked))).toHaveLength(1)
  })

  test('the same figure twice at once is asked about, and is no confirmation', () => {
    const asked = walking.askAgain(read, 7200, { why: 'twice' })
    expect(walking.readingsOf(type(asked, ''))[1]).toEqual({ cutter: 2, lengthUm: 7200, damage: [] })
  })

  test('a caliper that types its own lines is understood', () => {
    expect(walking.readingsOf(type(begin(), '+0007.24 mm'))).toMatchObject([{ cutter: 1, lengthUm: 7240 }])
    expect(walking.readingsOf(type(begin(), '+00.2850 in'))).toMatchObject([{ cutter: 1, lengthUm: 7239 }])
  })
})

test('they are all like this: marked on every cutter; a depth that was read on one is an estimate there', () => {
  const one = type(walking.markDamage(walking.skip(begin()), loop, 'cornerGone'), '0.4')
  const all = walking.readingsOf(walking.allLikeThis(one, loop))
  expect(all).toHaveLength(36)
  expect(all[1]?.damage).toEqual([{ kind: 'cornerGone', depthUm: 400 }])
  expect(all[20]?.damage).toEqual([{ kind: 'cornerGone', depthUm: 400, estimated: true }])
  expect(walking.allLikeThis(begin(), loop).wrong).toContain('first')
})
