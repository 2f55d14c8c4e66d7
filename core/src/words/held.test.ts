import { expect, test } from 'vitest'
import { Log, stateOf } from '../fixtures/logs'
import { sayHeld } from './held'

const said = (log: Log) => sayHeld(stateOf(log), { lengths: 'mm' })
const readFifth = (log: Log): Log => log.add('measured', { readings: [{ cutter: 5, lengthUm: 6200, damage: [] }] })

test('what is held out is named, with what nobody knows until it is read again', () => {
  const log = new Log().measureAll(7000)
  expect(said(log)).toBeNull()
  expect(said(readFifth(log))).toMatch(
    /^Held out: 5 L read 6\.20 mm\. Nothing that is known explains it\. Read it again: /,
  )
  expect(said(log)).toContain('nobody knows the worst cutter, the stop')
  // Read a second time it stands.
  expect(said(readFifth(log))).toBeNull()
})
