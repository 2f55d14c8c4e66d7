import fc from 'fast-check'
import { expect, test } from 'vitest'
import { Log, stateOf } from '../fixtures/logs'
import { ranOn } from '.'

const ran = { tanks: 1, conditions: 'clean' } as const
/** Saws of the runs of a log, in the order in which they were added. */
const sawsOf = (log: Log): (string | null | undefined)[] => {
  const saws = ranOn(log.entries)
  return log.entries.filter(({ kind }) => kind === 'ran').map(({ id }) => saws.get(id))
}

test('a run is of the saw that the loop was on then, whatever became of it later', () => {
  const log = new Log().add('ran', ran).add('fitted', { sawId: 'one' }).add('ran', ran)
  log.add('fitted', { sawId: 'two' }).add('ran', ran).add('takenOff', {}).add('ran', ran)
  expect(sawsOf(log)).toEqual([null, 'one', 'two', null])
})

test('a fitting that was struck out put it on no saw', () => {
  const log = new Log().add('fitted', { sawId: 'one' }).add('ran', ran).add('fitted', { sawId: 'two' })
  log.add('corrected', { strikes: log.entries.at(-1)?.id ?? '' }).add('ran', ran)
  expect(sawsOf(log)).toEqual(['one', 'one'])
})

test('tanks of each saw are those that the loop’s stints count', () => {
  const step = fc.constantFrom('one', 'two', 'off', 'truck', 'ran', 'ran')
  fc.assert(
    fc.property(fc.array(step, { maxLength: 20 }), (steps) => {
      const log = new Log()
      for (const what of steps) {
        if (what === 'ran') log.add('ran', ran)
        else if (what === 'off') log.add('takenOff', {})
        else if (what === 'truck') log.add('moved', { to: 'truck' })
        else log.add('fitted', { sawId: what })
      }
      for (const saw of ['one', 'two']) {
        const counted = stateOf(log).stints.filter(({ sawId }) => sawId === saw)
        expect(sawsOf(log).filter((one) => one === saw)).toHaveLength(
          counted.reduce((sum, { tanks }) => sum + tanks, 0),
        )
      }
    }),
  )
})
