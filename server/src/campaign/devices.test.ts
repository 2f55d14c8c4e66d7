import type { NewEntry } from '@undercliff/core'
import fc from 'fast-check'
import { asc, eq } from 'drizzle-orm'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { entries, snapshots } from '../database/schema'
import { CREW, Harness, measured, PERSON, registered } from '../fixtures/harness'
import { report, times } from './long'

const RUNS = times(10, 100)
const LOOPS = ['out-with-one', 'out-with-two', 'out-with-three']
let harness: Harness
beforeAll(async () => {
  harness = await Harness.open()
})
afterAll(() => harness.close())

/** What people log out of range. */
const BODIES = [
  { kind: 'ran', tanks: 1, conditions: 'clean' },
  { kind: 'ran', tanks: 2, conditions: 'gritty' },
  { kind: 'sharpened', method: 'fileField', strokes: { left: 3, right: 4 }, gaugesLowered: false },
  { kind: 'sharpened', method: 'fileBench', strokes: { left: 8, right: 6 }, gaugesLowered: true },
  { kind: 'struck', against: 'stone' },
  { kind: 'noticed', signs: ['dust'], wood: 'dry' },
  { kind: 'moved', to: 'bench' },
  { kind: 'gaugesLowered', gaugesByEye: true },
  { kind: 'measured', readings: [{ cutter: 3, lengthUm: 6100, damage: [] }] },
] as const

/** One tap of somebody's. */
interface Tap {
  readonly loop: string
  readonly body: (typeof BODIES)[number]
  /** After the device's last. */
  readonly minutes: number
}

const tap: fc.Arbitrary<Tap> = fc.record({
  loop: fc.constantFrom(...LOOPS),
  body: fc.constantFrom(...BODIES),
  minutes: fc.integer({ min: 0, max: 300 }),
})
const week = fc.array(fc.array(tap, { maxLength: 25 }), { minLength: 3, maxLength: 3 })

/** What devices gathered, each in its order. */
function gathered(devices: readonly (readonly Tap[])[]): NewEntry[][] {
  return devices.map((taps, device) => {
    let at = Date.UTC(2026, 2, 10, 6)
    return taps.map(({ loop, body, minutes }, n) => {
      at += minutes * 60_000
      const base = { id: `gathered-${device}-${n}`.padEnd(16, '-'), loopId: loop, personId: PERSON }
      return { ...base, happenedAt: new Date(at).toISOString(), ...body }
    })
  })
}

/** Sends what devices gathered, by turns as they say; now and then a device hears no answer, and sends again. */
async function goHome(devices: readonly (readonly NewEntry[])[], turns: readonly number[]): Promise<void> {
  const sent = devices.map(() => 0)
  const sendSome = async (device: number, most: number): Promise<void> => {
    const from = sent[device] ?? 0
    const some = devices[device]?.slice(from, from + most) ?? []
    if (some.length === 0) return
    for (let again = most % 3 === 0 ? 2 : 1; again > 0; again -= 1) {
      const { status, body } = await harness.write(...some)
      expect(status, JSON.stringify(body)).toBe(201)
    }
    sent[device] = from + some.length
  }
  for (const turn of turns) await sendSome(turn % devices.length, 1 + (turn % 9))
  // The rest comes at once, from all of them side by side.
  await Promise.all(
    devices.map(async (all, device) => {
      while ((sent[device] ?? 0) < all.length) await sendSome(device, 50)
    }),
  )
}

/** Every loop's state and card, and what the log holds of each device in the order of writing. */
async function cameTo() {
  const { db } = harness.connected
  const rows = await db.select().from(snapshots).where(eq(snapshots.crewId, CREW)).orderBy(asc(snapshots.loopId))
  const log = await db.select().from(entries).where(eq(entries.crewId, CREW)).orderBy(asc(entries.arrival))
  const ids = log.map(({ id }) => id).filter((id) => id.startsWith('gathered-'))
  return {
    states: rows.map(({ state, card }) => JSON.stringify({ state, card })),
    of: [0, 1, 2].map((device) => ids.filter((id) => id.startsWith(`gathered-${device}-`))),
  }
}

test(`whatever the order in which devices come home: each entry once, in its order, and the same states`, async () => {
  const turns = fc.array(fc.nat({ max: 1000 }), { maxLength: 12 })
  let written = 0
  await fc.assert(
    fc.asyncProperty(week, turns, turns, async (devices, one, other) => {
      const all = gathered(devices)
      const outcomes: Awaited<ReturnType<typeof cameTo>>[] = []
      for (const order of [one, other]) {
        await harness.reset()
        for (const loop of LOOPS) {
          const first = { ...measured(loop, 7000), id: `${loop}-measured` }
          await harness.write({ ...registered(loop), id: `${loop}-registered` }, first)
        }
        await goHome(all, order)
        outcomes.push(await cameTo())
      }
      const [first, second] = outcomes
      expect(first?.of).toEqual(all.map((log) => log.map(({ id }) => id)))
      expect(second?.of).toEqual(first?.of)
      expect(second?.states).toEqual(first?.states)
      written += all.flat().length
    }),
    { numRuns: RUNS },
  )
  report(`devices out of range: ${RUNS} weeks of three, ${written} entries, each once, the same states in two orders`)
}, 3_600_000)
