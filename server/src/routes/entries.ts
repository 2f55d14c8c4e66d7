import { newEntriesSchema, type EntriesAnswer, type LoopAnswer, type NewEntries } from '@undercliff/contract'
import { Router } from 'express'
import type { Database } from '../database/connect'
import { appendEntries } from '../store/appendEntries'
import { Refusal } from '../store/refusal'
import { readLog } from '../store/snapshot'
import { readBody } from './body'

const LOOP_ID = /^[A-Za-z0-9_-]{8,36}$/

/** Logs of loops: read one whole, add entries to any. */
export function entriesRoutes(db: Database, crewId: string, clock: () => Date): Router {
  const router = Router()

  router.get('/loops/:loopId', async (request, response) => {
    const { loopId } = request.params
    const log = LOOP_ID.test(loopId) ? await readLog(db, crewId, loopId) : []
    if (log.length === 0) throw new Refusal('no-such-loop', 'There is no such loop.')
    const answer: LoopAnswer = { loopId, entries: log }
    response.setHeader('Cache-Control', 'private, no-store')
    response.json(answer)
  })

  router.post('/entries', async (request, response) => {
    const { entries } = readBody<NewEntries>(newEntriesSchema, request.body)
    const answer: EntriesAnswer = { entries: await appendEntries(db, crewId, entries, clock) }
    response.status(201).json(answer)
  })

  return router
}
