import { createServer, type Server } from 'node:http'
import type { NewEntry } from '@undercliff/core'
import { pino } from 'pino'
import { connect, migrateUp } from './database/connect'
import { startPrivateDatabase } from './database/privateDatabase'
import { createApp } from './http/app'
import { appendEntries } from './store/appendEntries'
import { createCrew } from './store/crew'

/** A server on a private database of its own, filled with entries, for the bench. */
export async function benchServer(dataDir: string, batches: readonly NewEntry[][]): Promise<{ server: Server; stop: () => Promise<void> }> {
  const database = await startPrivateDatabase(dataDir)
  const connected = connect(database.url)
  await migrateUp(connected)
  const crewId = 'bench-crew'
  await createCrew(connected.db, crewId, 'Bench crew')
  for (const batch of batches) await appendEntries(connected.db, crewId, batch, () => new Date())
  const app = createApp({ db: connected.db, crewId, logger: pino({ level: 'warn' }), clock: () => new Date(), hostNames: new Set(['127.0.0.1']), webDist: null })
  const server = createServer(app)
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  return {
    server,
    stop: async () => {
      server.closeAllConnections()
      server.close()
      await connected.pool.end()
      await database.stop()
    },
  }
}
