import fc from 'fast-check'
import { expect, test, vi } from 'vitest'
import { anyLog } from '../fixtures/anyLog'
import { Log } from '../fixtures/logs'
import * as folding from '../fold'
import { asWritten, type Entry } from '../log'
import { admitAll } from './admitAll'
import { RunningStanding, standingOf } from './standing'

test('a loop stands as its log folds, whatever is in it and in whatever order it came', () => {
  fc.assert(
    fc.property(anyLog, fc.integer({ min: 0, max: 1000 }), ({ entries: log }, cut) => {
      const upTo = log.slice(0, Math.max(1, cut % (log.length + 1)))
      const state = folding.fold(upTo)
      const standing = standingOf(upTo)
      expect(standing === null).toBe(state === null)
      if (state === null || standing === null) return
      expect(standing.tag).toBe(state.tag)
      expect(standing.spec).toEqual(state.spec)
      expect(standing.registeredAt).toBe(state.registeredAt)
      expect(standing.retiredAt).toBe(state.retired?.at ?? null)
      expect(standing.shop).toBe(state.place.at === 'shop' ? state.place.shop : null)
      expect(standing.cutters).toBe(state.cutters.length)
    }),
    { numRuns: 60 },
  )
})

test('kept up entry by entry it is the same as worked out anew', () => {
  fc.assert(
    fc.property(anyLog, fc.integer({ min: 0, max: 1000 }), ({ entries: log }, turn) => {
      const order = [...log.slice(turn % log.length), ...log.slice(0, turn % log.length)]
      const entries: Entry[] = []
      const running = new RunningStanding(entries)
      for (const entry of order) {
        running.now()
        entries.push(entry)
        running.joined(entry)
        expect(running.now()).toEqual(standingOf(entries))
      }
    }),
    { numRuns: 40 },
  )
})

test('no log is folded to admit what joins it', () => {
  const log = new Log().measureAll(6000)
  for (let i = 0; i < 300; i += 1) log.add('ran', { tanks: 1, conditions: 'clean' })
  const sent = log.entries.map((entry) => asWritten(entry, entry.happenedAt, null))
  const fold = vi.spyOn(folding, 'fold')
  expect(admitAll(sent, Infinity).problems).toEqual([])
  expect(fold).not.toHaveBeenCalled()
  // What was meant instead of a length that cannot be is worth one.
  const wrong = new Log().add('measured', { readings: [{ cutter: 1, lengthUm: 60_000 }] }).entries
  expect(admitAll(wrong, Infinity).problems).toHaveLength(1)
  expect(fold).toHaveBeenCalledTimes(1)
  fold.mockRestore()
})
