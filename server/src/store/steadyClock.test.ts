import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest'
import { Harness } from '../fixtures/harness'
import { clock } from '../database/schema'
import { openSteadyClock } from './steadyClock'

const DAY = 86_400_000
let harness: Harness
/** The machine: what its calendar shows, and how long it has run. */
let wall: number
let running: number
beforeAll(async () => {
  harness = await Harness.open()
})
beforeEach(async () => {
  await harness.connected.db.delete(clock)
  wall = Date.parse('2026-03-20T12:00:00.000Z')
  running = 5000
})
afterAll(async () => {
  await harness.connected.db.delete(clock)
  await harness.close()
})
const open = () =>
  openSteadyClock(
    harness.connected.db,
    () => wall,
    () => running,
  )

test('it begins with the calendar and goes by the running time, whatever the calendar does', async () => {
  const steady = await open()
  const began = steady.nowMs()
  expect(began).toBe(wall)
  running += 60_000
  wall += 400 * DAY
  expect(steady.nowMs() - began).toBe(60_000)
  wall -= 900 * DAY
  expect(steady.nowMs() - began).toBe(60_000)
  await steady.stop()
})

test.each([
  ['what the calendar says has passed', 3 * DAY, 3 * DAY],
  ['a week at most', 400 * DAY, 7 * DAY],
  ['and never back', -400 * DAY, 0],
])('over a stop it goes on by %s', async (_name, away, counted) => {
  const first = await open()
  running += 1000
  const ended = first.nowMs()
  await first.stop()
  wall += away
  running = 0
  const second = await open()
  expect(second.nowMs() - ended).toBe(counted)
  await second.stop()
})
