import type { AddressInfo } from 'node:net'
import { specFromProfile, type Entry, type LoopSpec, type NewEntry } from '@undercliff/core'
import type { EntriesAnswer, LoopAnswer, ProblemDetails, ShedAnswer } from '@undercliff/contract'
import { pino } from 'pino'
import { inject } from 'vitest'
import { connect, type Connected } from '../database/connect'
import { people, saws } from '../database/schema'
import { createApp } from '../http/app'
import { clearAll, createCrew } from '../store/crew'

export const CREW = 'crew-number-one'
export const OTHER_CREW = 'crew-number-two'
export const PERSON = 'person-of-ours'
export const SAW = 'saw-of-our-crew'
export const SECOND_SAW = 'second-saw-here'
export const SPEC: LoopSpec = specFromProfile({ pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72, cutterType: 'semiChisel' })
export const NOW = new Date('2026-03-20T12:00:00.000Z')

export interface Answer<T = unknown> {
  readonly status: number
  readonly body: T
  readonly headers: Headers
}

/** The HTTP side for two crews on the run's database, empty but for a person and two saws. */
export class Harness {
  readonly connected: Connected
  /** What the server logged. */
  readonly logged: string[] = []
  private readonly servers: { close: () => void }[] = []
  private readonly bases = new Map<string, string>()

  private constructor(url: string) {
    this.connected = connect(url)
  }

  static async open(url = inject('databaseUrl')): Promise<Harness> {
    const harness = new Harness(url)
    await clearAll(harness.connected.db)
    for (const crewId of [CREW, OTHER_CREW]) {
      await createCrew(harness.connected.db, crewId, crewId)
      await harness.listen(crewId)
    }
    const { db } = harness.connected
    await db.insert(people).values({ crewId: CREW, id: PERSON, name: 'Ottoline Vane' })
    for (const id of [SAW, SECOND_SAW]) {
      await db.insert(saws).values({ crewId: CREW, id, nickname: id, pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72 })
    }
    return harness
  }

  private async listen(crewId: string): Promise<void> {
    const logger = pino({ level: 'info' }, { write: (line: string) => void this.logged.push(line) })
    const app = createApp({ db: this.connected.db, crewId, logger, clock: () => NOW, hostNames: new Set(['127.0.0.1']), webDist: null })
    await new Promise<void>((resolve) => {
      const server = app.listen(0, '127.0.0.1', () => {
        this.bases.set(crewId, `http://127.0.0.1:${(server.address() as AddressInfo).port}`)
        resolve()
      })
      this.servers.push(server)
    })
  }

  async close(): Promise<void> {
    for (const server of this.servers) server.close()
    await this.connected.pool.end()
  }

  async request<T = unknown>(path: string, init: RequestInit = {}, crewId = CREW): Promise<Answer<T>> {
    const response = await fetch((this.bases.get(crewId) ?? '') + path, init)
    const text = await response.text()
    return { status: response.status, headers: response.headers, body: (text === '' ? null : JSON.parse(text)) as T }
  }

  post<T = ProblemDetails>(path: string, body: unknown, crewId = CREW): Promise<Answer<T>> {
    const init = { method: 'POST', headers: { 'content-type': 'application/json' }, body: typeof body === 'string' ? body : JSON.stringify(body) }
    return this.request<T>(path, init, crewId)
  }

  write(...entries: NewEntry[]): Promise<Answer<EntriesAnswer & ProblemDetails>> {
    return this.post('/api/entries', { entries })
  }

  async log(loopId: string): Promise<readonly Entry[]> {
    return (await this.request<LoopAnswer>(`/api/loops/${loopId}`)).body.entries
  }

  async shed(crewId = CREW): Promise<ShedAnswer> {
    return (await this.request<ShedAnswer>('/api/shed', {}, crewId)).body
  }
}

let counter = 0
const base = (loopId: string) => {
  counter += 1
  return { id: `made-by-test-${String(counter).padStart(6, '0')}`, loopId, happenedAt: '2026-03-10T09:00:00.000Z', personId: null }
}

export const registered = (loopId: string, tag = loopId.slice(-12), spec: LoopSpec = SPEC): NewEntry => ({
  ...base(loopId),
  happenedAt: '2026-03-01T09:00:00.000Z',
  kind: 'registered',
  tag,
  spec,
})
export const ran = (loopId: string, tanks = 1): NewEntry => ({ ...base(loopId), kind: 'ran', tanks, conditions: 'clean' })
export const fitted = (loopId: string, sawId = SAW): NewEntry => ({ ...base(loopId), kind: 'fitted', sawId })
export const takenOff = (loopId: string): NewEntry => ({ ...base(loopId), happenedAt: '2026-03-11T09:00:00.000Z', kind: 'takenOff' })
export const measured = (loopId: string, lengthUm = 6000): NewEntry => ({ ...base(loopId), kind: 'measured', readings: [{ cutter: 1, lengthUm, damage: [] }] })
export const corrected = (loopId: string, strikes: string): NewEntry => ({ ...base(loopId), happenedAt: '2026-03-12T09:00:00.000Z', kind: 'corrected', strikes })
