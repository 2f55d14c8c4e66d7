import type { Backup } from '@undercliff/contract'
import type { NewEntry } from '@undercliff/core'
import { ne } from 'drizzle-orm'
import { setTimeout as sleep } from 'node:timers/promises'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { crews } from '../database/schema'
import { clearCrew } from './clearCrew'
import { corrected, fitted, Harness, measured, ran, registered, SAW, SECOND_SAW, takenOff } from '../fixtures/harness'
import { report, times } from './long'

const BACKUPS = times(8, 200)
const NAMES = ['Zoë', 'Ørjan Ås', 'Ngũgĩ', '木村', 'Šárka-Lil', 'Αλέξης', "D'Arcy", 'İnci', 'Straße', 'Æsa']
let harness: Harness
beforeAll(async () => {
  harness = await Harness.open()
})
afterAll(() => harness.close())

test(`${BACKUPS} backups taken while others write: all can be read back, and come to the same`, async () => {
  const pace = { over: false, rounds: 0 }
  let made = 0
  const statuses = new Map<number, number>()
  const note = (status: number): void => void statuses.set(status, (statuses.get(status) ?? 0) + 1)
  /** Everything that a crew does, over and over, with clocks that are wrong now and then. */
  const writer = async (lane: number): Promise<void> => {
    for (let turn = 0; !pace.over; turn += 1) {
      // A round for each backup and one ahead: the shed stays small, and something is always being written.
      while (turn > pace.rounds) await sleep(5)
      made += 1
      const loopId = `backed-up-${lane}-${String(turn).padStart(5, '0')}`
      const sawId = lane === 0 ? SAW : SECOND_SAW
      const off = turn % 5 === 0 ? 86_400_000 : turn % 7 === 0 ? -86_400_000 : 0
      const entries: NewEntry[] = [registered(loopId, `B${lane}${turn}`), measured(loopId, 7000), fitted(loopId, sawId)]
      const wrong = ran(loopId)
      entries.push(wrong, { ...ran(loopId), note: NAMES[turn % NAMES.length] ?? '' }, corrected(loopId, wrong.id))
      const first = await harness.request('/api/entries', {
        method: 'POST',
        headers: { 'content-type': 'application/json', 'x-device-time': String(harness.now.getTime() + off) },
        body: JSON.stringify({ entries }),
      })
      note(first.status)
      note((await harness.write(takenOff(loopId))).status)
      if (turn < NAMES.length && lane === 0) {
        const name = NAMES[turn] ?? ''
        note((await harness.post('/api/people', { id: `named-${turn}-person`, name })).status)
        const saw = { id: `named-${turn}-saw`, nickname: name, pitchClass: 'p325', gaugeUm: 1300, driveLinks: 66 }
        note((await harness.post('/api/saws', saw)).status)
      }
    }
  }
  const writing = [0, 1].map(writer)
  const { db } = harness.connected
  const [other] = await db.select().from(crews).where(ne(crews.name, 'crew-number-one'))
  for (let i = 0; i < BACKUPS; i += 1) {
    pace.rounds += 1
    const backup = (await harness.request<Backup>('/api/backup')).body
    await db.transaction((tx) => clearCrew(tx, other?.id ?? ''))
    const restored = await harness.post('/api/backup', backup, 'otherLead')
    expect(restored.status, `backup ${i}: ${JSON.stringify(restored.body)}`).toBe(204)
    const again = (await harness.request<Backup>('/api/backup', {}, 'otherLead')).body
    expect(again.content.entries, `backup ${i}`).toEqual(backup.content.entries)
    expect(again.content.saws).toEqual(backup.content.saws)
    expect(again.content.crew).toEqual(backup.content.crew)
    const known = new Set(again.content.people.map((person) => JSON.stringify(person)))
    expect(backup.content.people.filter((person) => !known.has(JSON.stringify(person)))).toEqual([])
  }
  pace.over = true
  pace.rounds = Infinity
  await Promise.all(writing)
  expect([...statuses.keys()].filter((status) => status !== 201)).toEqual([])
  report(`backups under load: ${BACKUPS} while ${made} rounds of entries were written; all read back equal`)
}, 3_600_000)
