import { describe, expect, test } from 'vitest'
import { sideDifference } from '../belief'
import { Log, stateOf } from '../fixtures/logs'
import type { EntryBodies } from '../log'
import type { LoopState } from '../state'

const done = (log: Log, body: Partial<EntryBodies['sharpened']>): Log => log.file(body)
const sideMean = ({ cutters }: LoopState, side: 'left' | 'right'): number => {
  const ours = cutters.filter(({ hand }) => hand === side)
  return ours.reduce((sum, { length }) => sum + length.um, 0) / ours.length
}
const sound = (): Log => new Log().measureAll(7000)

describe('a sharpening that ended after one side', () => {
  const WAYS: Record<string, Partial<EntryBodies['sharpened']>> = {
    'by file, counted': { strokes: { left: 10, right: 0 } },
    'by file, nobody counted': {},
    'by file, all to one length': { evened: true },
    'by wheel': { method: 'grinder' },
  }

  test.each(Object.entries(WAYS))('%s: takes off that side alone, and the other one waits', (_name, way) => {
    const before = stateOf(sound())
    const half = stateOf(done(sound(), { ...way, onlySide: 'left' }))
    expect(half.waitingSide).toBe('right')
    expect(sideMean(half, 'left')).toBeLessThan(6950)
    for (const { number, hand, length } of half.cutters)
      if (hand === 'right') expect(length).toEqual(before.cutters[number - 1]?.length)
      else expect(length.known).toBe('estimated')
  })

  test.each(Object.entries(WAYS))(
    '%s: the second half makes it one sharpening, as long as both in one go',
    (_n, way) => {
      const { strokes, ...rest } = way
      const right = strokes === undefined ? {} : { strokes: { left: 0, right: strokes.left } }
      const halves = stateOf(
        done(done(sound(), { ...way, onlySide: 'left' }), { ...rest, ...right, onlySide: 'right' }),
      )
      const both = strokes === undefined ? {} : { strokes: { left: strokes.left, right: strokes.left } }
      const whole = stateOf(done(sound(), { ...rest, ...both }))
      expect(halves).toMatchObject({ waitingSide: null, sharpenings: 1, sharpeningsSinceGauges: 1 })
      expect(Math.abs(sideMean(halves, 'left') - sideMean(whole, 'left'))).toBeLessThan(40)
      expect(Math.abs(sideMean(halves, 'right') - sideMean(halves, 'left'))).toBeLessThan(30)
      // How the sides differ is no better known than in one go.
      const known = (state: LoopState): number => Math.sqrt(sideDifference(state.lengths)?.variance ?? 0)
      expect(known(halves)).toBeGreaterThan(0.6 * known(whole))
    },
  )

  test('the wheel on the second side follows the stop of the first, but no cutter grows', () => {
    const short = new Log().measureAll((n) => (n === 2 ? 6300 : 7000))
    const halves = stateOf(
      done(done(short, { method: 'grinder', onlySide: 'left' }), { method: 'grinder', onlySide: 'right' }),
    )
    expect(halves.cutters[1]?.length.um).toBeLessThanOrEqual(6310)
    expect(Math.abs(sideMean(halves, 'right') - sideMean(halves, 'left'))).toBeLessThan(250)
  })

  test('damage goes from the side that was done, and stays on the other', () => {
    const hurt = new Log().add('measured', {
      readings: [1, 2].map((cutter) => ({ cutter, damage: [{ kind: 'chipped' as const, depthUm: 300 }] })),
    })
    const { cutters } = stateOf(done(hurt, { method: 'grinder', damageCleared: true, onlySide: 'left' }))
    expect(cutters[0]?.damage).toEqual([])
    expect(cutters[1]?.damage).toHaveLength(1)
  })

  test('the same side again is another sharpening, and both in one go end the waiting', () => {
    const twice = stateOf(done(done(sound(), { onlySide: 'left' }), { onlySide: 'left' }))
    expect(twice).toMatchObject({ waitingSide: 'right', sharpenings: 2 })
    expect(stateOf(done(done(sound(), { onlySide: 'left' }), {})).waitingSide).toBeNull()
  })
})

test('a cutter that was passed over stays as it was, and one that got more is shorter', () => {
  const { cutters } = stateOf(
    sound().file({
      strokes: { left: 5, right: 5 },
      apart: [
        { cutter: 3, strokes: 0 },
        { cutter: 5, strokes: 30 },
      ],
    }),
  )
  expect(cutters[2]?.length).toMatchObject({ um: 7000, known: 'measured' })
  expect(cutters[6]?.length.um).toBe(6900)
  expect(cutters[4]?.length.um).toBeLessThan(6600)
})

test('how long a sharpening took is kept against what the starting times say', () => {
  const timed = (minutes: number) =>
    stateOf(sound().file({ tool: 'plateGuide', strokes: { left: 5, right: 5 }, minutes })).timed
  expect(timed(0)).toEqual([])
  const [one] = timed(20)
  expect(one).toMatchObject({ tool: 'plateGuide', cutters: 36, minutes: 20, population: 'touchUp' })
  // 36 × (5 strokes of 1.2 s and 2.5 s to move on), about six minutes with the set-up.
  expect(one?.startingMinutes).toBeGreaterThan(5)
  expect(one?.startingMinutes).toBeLessThan(9)
  const [half] = stateOf(
    sound().file({ tool: 'plateGuide', strokes: { left: 5, right: 0 }, minutes: 9, onlySide: 'left' }),
  ).timed
  expect(half?.cutters).toBe(18)
})
