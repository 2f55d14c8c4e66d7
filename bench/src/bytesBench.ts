import { mkdtempSync, rmSync } from 'node:fs'
import http from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gunzipSync } from 'node:zlib'
import type { LogsAnswer, ShedNews } from '@undercliff/contract'
import type { NewEntry } from '@undercliff/core'
import { benchServer } from '@undercliff/server'
import { benchSaws, entriesFor } from './benchEntries'
import type { Figure } from './figure'

const DAYS = 5
/** What one phone writes in a day in the wood, and what the others of the crew write meanwhile. */
const [MINE, THEIRS] = [30, 60]

/** A phone as the server sees it; the bytes of bodies are counted as they travel. */
class Phone {
  bytes = 0
  shed: string | null = null
  logs: string | null = null

  constructor(
    private readonly port: number,
    private readonly cookie: string,
    private readonly csrfToken: string,
  ) {}

  private ask<T>(method: 'GET' | 'POST', path: string, sent?: unknown): Promise<T | null> {
    const body = sent === undefined ? '' : JSON.stringify(sent)
    return new Promise((resolve, reject) => {
      const headers = {
        cookie: this.cookie,
        'accept-encoding': 'gzip',
        ...(method === 'POST' ? { 'content-type': 'application/json', 'x-csrf-token': this.csrfToken } : {}),
      }
      const request = http.request({ host: '127.0.0.1', port: this.port, method, path, headers }, (response) => {
        const parts: Buffer[] = []
        response.on('data', (part: Buffer) => parts.push(part))
        response.on('end', () => {
          const raw = Buffer.concat(parts)
          this.bytes += raw.length + body.length
          if ((response.statusCode ?? 500) >= 400) reject(new Error(`${path}: ${response.statusCode}`))
          const text = response.headers['content-encoding'] === 'gzip' ? gunzipSync(raw) : raw
          resolve(text.length === 0 ? null : (JSON.parse(text.toString()) as T))
        })
      })
      request.on('error', reject)
      request.end(body)
    })
  }

  async look(): Promise<void> {
    const news = await this.ask<ShedNews>('GET', `/api/shed${this.shed === null ? '' : `?since=${this.shed}`}`)
    this.shed = news?.place ?? this.shed
  }

  async readLogs(): Promise<void> {
    for (;;) {
      const answer = await this.ask<LogsAnswer>('GET', `/api/logs${this.logs === null ? '' : `?since=${this.logs}`}`)
      if (answer === null) return
      this.logs = answer.place
      if (!answer.more) return
    }
  }

  write(...entries: NewEntry[]): Promise<unknown> {
    return this.ask('POST', '/api/entries', { entries })
  }

  /** The bytes that some work takes. */
  async during(work: () => Promise<unknown>): Promise<number> {
    const before = this.bytes
    await work()
    return this.bytes - before
  }
}

let made = 0
const tank = (loops: number): NewEntry => {
  made += 1
  return {
    id: `counted-tank-${String(made).padStart(5, '0')}`,
    loopId: `bench-loop-${String((made * 7) % loops).padStart(4, '0')}`,
    personId: null,
    happenedAt: new Date(Date.now() - 3_600_000 + made).toISOString(),
    kind: 'ran',
    tanks: 1,
    conditions: 'clean',
  }
}

/** Two phones of a crew with so many loops, one of which knows the whole shed. */
async function withPhones<T>(loops: number, work: (mine: Phone, theirs: Phone) => Promise<T>): Promise<T> {
  const dataDir = mkdtempSync(join(tmpdir(), 'undercliff-bench-'))
  const batches = Array.from({ length: loops / 10 }, (_, i) =>
    Array.from({ length: 10 }, (_unused, j) => entriesFor(i * 10 + j)).flat(),
  )
  const running = await benchServer(dataDir, batches, benchSaws())
  try {
    const { port } = running.server.address() as AddressInfo
    const session = await fetch(`http://127.0.0.1:${port}/api/session`, { headers: { cookie: running.cookie } })
    const { csrfToken } = (await session.json()) as { csrfToken: string }
    const [mine, theirs] = [0, 1].map(() => new Phone(port, running.cookie, csrfToken)) as [Phone, Phone]
    await mine.look()
    await mine.readLogs()
    return await work(mine, theirs)
  } finally {
    await running.stop()
    rmSync(dataDir, { recursive: true, force: true })
  }
}

/** What travels to and from a phone. */
export async function bytesBench(): Promise<Figure[]> {
  const one = await withPhones(2000, async (mine, theirs) => {
    await theirs.write(tank(2000))
    return mine.during(async () => {
      await mine.look()
      await mine.readLogs()
    })
  })
  const week = await withPhones(400, (mine, theirs) =>
    mine.during(async () => {
      for (let day = 0; day < DAYS; day += 1) {
        for (let n = 0; n < MINE; n += 1) {
          await mine.write(tank(400))
          await mine.look()
          for (let other = 0; other < THEIRS / MINE; other += 1) await theirs.write(tank(400))
        }
        await mine.look()
        await mine.readLogs()
      }
    }),
  )
  const away = await withPhones(400, async (mine, theirs) => {
    for (let n = 0; n < DAYS * THEIRS; n += 1) await theirs.write(tank(400))
    return mine.during(async () => {
      await mine.look()
      await mine.readLogs()
    })
  })
  return [
    { name: 'bytes to a phone after one entry, 2,000 loops', value: one, unit: 'bytes', limit: { atMost: 5000 } },
    {
      name: `a week in the wood, 400 loops: ${DAYS * MINE} entries of mine, ${DAYS * THEIRS} of others`,
      value: week / 1000,
      unit: 'kB',
    },
    { name: `home after a week, 400 loops, ${DAYS * THEIRS} entries of others`, value: away / 1000, unit: 'kB' },
  ]
}
