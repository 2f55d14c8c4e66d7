import { mkdtempSync, rmSync } from 'node:fs'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fork } from 'node:child_process'
import { once } from 'node:events'
import { fileURLToPath } from 'node:url'
import { benchServer } from '@undercliff/server'
import autocannon from 'autocannon'
import { benchSaws, entriesFor } from './benchEntries'
import type { Figure } from './figure'

const LOOPS = 500
const SECONDS = 5
const ROUNDS = 3

const rate = async (url: string, headers: Record<string, string> = {}): Promise<number> => {
  const { requests, errors, non2xx } = await autocannon({ url, headers, connections: 10, duration: SECONDS })
  if (errors + non2xx > 0) throw new Error(`${errors + non2xx} requests to ${url} went wrong`)
  return requests.average
}

/** Requests a second for the shed of 500 loops, against a bare Express handler with the same bytes. */
export async function shedBench(): Promise<Figure[]> {
  const dataDir = mkdtempSync(join(tmpdir(), 'undercliff-bench-'))
  const running = await benchServer(
    dataDir,
    Array.from({ length: LOOPS }, (_, loop) => entriesFor(loop)),
    benchSaws(),
  )
  const address = `http://127.0.0.1:${(running.server.address() as AddressInfo).port}`
  const body = Buffer.from(
    await (await fetch(`${address}/api/shed`, { headers: { cookie: running.cookie } })).arrayBuffer(),
  )
  const bare = fork(fileURLToPath(new URL('./bareServer.ts', import.meta.url)), { execArgv: ['--import', 'tsx'] })
  bare.send(body.toString('base64'))
  const [port] = (await once(bare, 'message')) as [number]
  const ours: number[] = []
  const theirs: number[] = []
  for (let round = 0; round < ROUNDS; round += 1) {
    theirs.push(await rate(`http://127.0.0.1:${port}/`))
    ours.push(await rate(`${address}/api/shed`, { cookie: running.cookie }))
  }
  bare.kill()
  await running.stop()
  rmSync(dataDir, { recursive: true, force: true })
  const best = (rates: number[]): number => Math.max(...rates)
  return [
    { name: `shed of ${LOOPS} loops (${Math.round(body.length / 1000)} kB)`, value: best(ours), unit: 'requests/s' },
    { name: 'bare Express handler with the same bytes', value: best(theirs), unit: 'requests/s' },
    { name: 'shed against bare handler', value: best(ours) / best(theirs), unit: 'of it', limit: { atLeast: 0.333 } },
  ]
}
