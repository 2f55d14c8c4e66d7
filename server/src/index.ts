import { createServer, type Server } from 'node:http'
import type { NewEntry } from '@undercliff/core'
import { pino } from 'pino'
import { connect } from './database/connect'
import { upgrade } from './database/upgrade'
import { Workers } from './work/workers'
import { startPrivateDatabase } from './database/privateDatabase'
import { LOOPBACK_FRONT } from './front/front'
import { createApp } from './http/app'
import { appendEntries } from './store/appendEntries'
import type { NewSaw } from '@undercliff/contract'
import { accounts, people, saws } from './database/schema'
import { createCrew } from './store/crew'
import { hashSecret } from './store/passwords'
import { openSession } from './store/sessions'
import { SESSION_COOKIE } from './http/access'

export { makeAuthority, certifyServer, type Authority, type ServerCertificate } from './front/authority'

/** A server on a private database of its own, filled with entries, for the bench. */
export async function benchServer(
  dataDir: string,
  batches: readonly NewEntry[][],
  benchSaws: readonly NewSaw[],
  webDist: string | null = null,
): Promise<{ server: Server; cookie: string; stop: () => Promise<void> }> {
  const database = await startPrivateDatabase(dataDir)
  const connected = connect(database.url)
  await upgrade(database.url, { keepCopy: () => Promise.resolve(''), say: () => undefined })
  const crewId = 'bench-crew'
  await createCrew(connected.db, crewId, 'Bench crew')
  const lead = { crewId, personId: 'bench-lead', role: 'lead' } as const
  await connected.db.insert(people).values({ crewId, id: lead.personId, name: 'Bench lead', role: 'lead' })
  await connected.db
    .insert(accounts)
    .values({ crewId, personId: lead.personId, login: 'bench', passwordHash: await hashSecret('only for the bench') })
  const present = { now: new Date(), steadyMs: performance.now() }
  const token = await openSession(connected.db, { ...lead, device: 'the bench' }, present)
  const cookie = `${SESSION_COOKIE}=${token}`
  await connected.db.insert(saws).values(benchSaws.map((saw) => ({ crewId, ...saw })))
  for (const batch of batches) await appendEntries(connected.db, lead, batch, () => new Date())
  const workers = new Workers(database.url)
  const app = createApp({
    connected,
    workers,
    logger: pino({ level: 'warn' }),
    clock: () => new Date(),
    steadyMs: () => performance.now(),
    front: LOOPBACK_FRONT,
    webDist,
  })
  const server = createServer(app)
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  return {
    server,
    cookie,
    stop: async () => {
      server.closeAllConnections()
      server.close()
      await workers.stop()
      await connected.end()
      await database.stop()
    },
  }
}
