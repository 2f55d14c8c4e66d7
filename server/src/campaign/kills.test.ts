import type { LoopAnswer, ShedAnswer } from '@undercliff/contract'
import { cpSync, existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { connect } from '../database/connect'
import { startPrivateDatabase } from '../database/privateDatabase'
import { Client } from '../fixtures/client'
import { EARLIER, readData, takeBack } from './earlierSchema'
import { ran, registered } from '../fixtures/harness'
import { killDatabases, Started } from './started'
import { renewOutdated, verifySnapshots } from '../store/refold'
import { LONG, report, times } from './long'

const FIRST_STARTS = times(2, 40)
const UPGRADES = times(3, 21)
const UNDER_WRITERS = times(3, 100)
const LIMIT_MS = LONG ? 7_200_000 : 180_000

const dirs: string[] = []
const folder = (): string => {
  const dir = mkdtempSync(join(tmpdir(), 'undercliff-kills-'))
  dirs.push(dir)
  return dir
}
const forget = (dir: string): void => {
  killDatabases(dir)
  rmSync(dir, { recursive: true, force: true })
}
afterAll(() => {
  dirs.forEach(forget)
})

/** A data folder that was started once and stopped, with its loops, and how long a first start takes here, in ms. */
let whole: string
let loops: number
let tookMs: number
beforeAll(async () => {
  whole = folder()
  const began = Date.now()
  const started = await Started.on(whole)
  await started.ready()
  tookMs = Date.now() - began
  loops = await expectWhole(whole)
  await started.stop()
})

/** Every log agrees with its snapshot, and the demo is whole. */
async function expectWhole(dir: string): Promise<number> {
  const database = await startPrivateDatabase(dir)
  const { db, end } = connect(database.url)
  try {
    await renewOutdated(db)
    const { disagreements, loops } = await verifySnapshots(db)
    expect(disagreements).toEqual([])
    return loops
  } finally {
    await end()
    database.release()
  }
}
const sign = (address: string) => Client.enter(address, '/api/session', { login: 'maren', password: 'gale-after-gale' })

test(
  `a first start killed ${FIRST_STARTS} times somewhere: the next one finishes the work`,
  async () => {
    const repaired: string[] = []
    for (let i = 0; i < FIRST_STARTS; i += 1) {
      const dir = folder()
      const killed = await Started.on(dir)
      await sleep(((i + Math.random()) / FIRST_STARTS) * tookMs)
      await killed.kill(i % 2 === 1)
      const next = await Started.on(dir)
      await next.ready()
      expect(await expectWhole(dir), `kill ${i}`).toBe(loops)
      const client = await sign(next.address)
      const shed = (await (await client.fetch('/api/shed')).json()) as ShedAnswer
      expect(shed.loops).toHaveLength(loops)
      if (/good order|made anew|could not be read/.test(next.output)) repaired.push(next.output.split('\n')[0] ?? '')
      await next.stop()
      forget(dir)
    }
    report(
      `kills in a first start (${tookMs} ms): ${FIRST_STARTS}, all started again by themselves with the whole demo; ` +
        `${repaired.length} of them put something right and said so`,
    )
  },
  LIMIT_MS,
)

test(
  `an upgrade killed ${UPGRADES} times, from earlier schemas: the next start finishes it, data equal`,
  async () => {
    const templates = new Map<number, string>()
    /** The folder as an earlier version left it, made where it is first asked for. */
    const leftBy = async (steps: number): Promise<string> => {
      const known = templates.get(steps)
      if (known !== undefined) return known
      const dir = folder()
      cpSync(whole, dir, { recursive: true })
      await takeBack(dir, steps)
      templates.set(steps, dir)
      return dir
    }
    let inside = 0
    for (let i = 0; i < UPGRADES; i += 1) {
      // Where there are fewer kills than schemas they are spread over them.
      const steps = EARLIER[Math.floor((i * EARLIER.length) / Math.min(UPGRADES, EARLIER.length)) % EARLIER.length] ?? 1
      const dir = folder()
      cpSync(await leftBy(steps), dir, { recursive: true })
      const database = await startPrivateDatabase(dir)
      const before = await readData(dir)
      await database.stop()
      const killed = await Started.on(dir)
      // The start of the database takes most of it; where the steps begin, they are all there is.
      for (let waited = 0; waited < tookMs && !killed.output.includes('Bringing the data up'); waited += 2)
        await sleep(2)
      await sleep(Math.random() * 400)
      await killed.kill(i % 2 === 1)
      if (killed.output.includes('Bringing the data up') && !killed.output.includes('is up to this version'))
        inside += 1
      const next = await Started.on(dir)
      await next.ready()
      expect(await readData(dir), `kill ${i} from ${steps}`).toBe(before)
      await expectWhole(dir)
      expect(readdirSync(join(dir, 'before-upgrades')).filter((name) => name.endsWith('.sql')).length).toBeGreaterThan(
        0,
      )
      await next.stop()
      forget(dir)
    }
    report(
      `kills in an upgrade: ${UPGRADES} from ${EARLIER.length} earlier schemas, ${inside} of them between the first ` +
        `and the last statement; all started again by themselves, data equal`,
    )
    expect(existsSync(whole)).toBe(true)
  },
  LIMIT_MS,
)

test(
  `${UNDER_WRITERS} kills of server or database under writers: nothing acknowledged is lost, nothing is there twice`,
  async () => {
    const dir = folder()
    cpSync(whole, dir, { recursive: true })
    let started = await Started.on(dir)
    await started.ready()
    const written = Array.from({ length: 6 }, (_, i) => `written-under-kills-${i}`)
    const token = await sign(started.address)
    for (const loopId of written) {
      const sent = { method: 'POST', body: { entries: [registered(loopId, loopId.slice(-9))] } }
      expect((await token.fetch('/api/entries', sent)).status).toBe(201)
    }
    const acknowledged = new Set<string>()
    const sentIds = new Set<string>()
    for (let i = 0; i < UNDER_WRITERS; i += 1) {
      const client = await sign(started.address)
      let over = false
      const writer = async (loopId: string): Promise<void> => {
        while (!over) {
          const entry = ran(loopId)
          sentIds.add(entry.id)
          // As a device does: the same entry again, until the server has said that it is written.
          for (let tries = 0; tries < 3 && !acknowledged.has(entry.id); tries += 1) {
            const status = await client
              .fetch('/api/entries', { method: 'POST', body: { entries: [entry] } })
              .then((answer) => answer.status)
              .catch(() => 0)
            expect([0, 201, 503]).toContain(status)
            if (status === 201) acknowledged.add(entry.id)
            if (status === 0) break
          }
        }
      }
      const before = acknowledged.size
      const writing = written.map(writer)
      await sleep(100 + Math.random() * 300)
      // On a slow machine nothing may be there yet that could be lost.
      for (let waited = 0; waited < 10_000 && acknowledged.size === before; waited += 5) await sleep(5)
      if (i % 3 === 0) {
        // The database alone: the server goes on by itself.
        killDatabases(dir)
        await sleep(200)
        over = true
        await Promise.all(writing)
        for (let waited = 0; waited < 20_000; waited += 100) {
          if ((await fetch(`${started.address}/healthz`)).status === 200) break
          await sleep(100)
        }
      } else {
        over = true
        await started.kill(i % 3 === 1)
        await Promise.all(writing)
        started = await Started.on(dir)
        await started.ready()
      }
    }
    const client = await sign(started.address)
    const kept: string[] = []
    for (const loopId of written) {
      const log = (await (await client.fetch(`/api/loops/${loopId}`)).json()) as LoopAnswer
      kept.push(...log.entries.filter(({ kind }) => kind === 'ran').map(({ id }) => id))
    }
    const keptIds = new Set(kept)
    expect([...acknowledged].filter((id) => !keptIds.has(id))).toEqual([])
    expect(kept).toHaveLength(keptIds.size)
    expect(kept.filter((id) => !sentIds.has(id))).toEqual([])
    await expectWhole(dir)
    report(
      `kills under writers: ${UNDER_WRITERS}; ${acknowledged.size} entries acknowledged, 0 lost, 0 twice, ` +
        'every snapshot agrees',
    )
    expect(acknowledged.size).toBeGreaterThanOrEqual(UNDER_WRITERS)
    await started.stop()
  },
  LIMIT_MS,
)
