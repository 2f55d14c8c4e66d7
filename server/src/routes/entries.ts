import { newEntriesSchema, type EntriesAnswer, type LoopAnswer, type NewEntries } from '@undercliff/contract'
import type { Route } from '../http/access'
import { appendEntries } from '../store/appendEntries'
import { Refusal } from '../store/refusal'
import { readLog } from '../store/snapshot'
import { readBody } from './body'
import type { RouteParts } from './parts'

const LOOP_ID = /^[A-Za-z0-9_-]{8,36}$/

/** Logs of loops: read one whole, add entries to any. */
export const entriesRoutes = ({ db, clock }: RouteParts): Route[] => [
  {
    method: 'get',
    path: '/loops/:loopId',
    access: 'signedIn',
    handle: async (request, response, { crewId }) => {
      const loopId = String(request.params.loopId)
      const log = LOOP_ID.test(loopId) ? await readLog(db, crewId, loopId) : []
      if (log.length === 0) throw new Refusal('no-such-loop', 'There is no such loop.')
      const answer: LoopAnswer = { loopId, entries: log }
      response.setHeader('Cache-Control', 'private, no-store')
      response.json(answer)
    },
  },
  {
    method: 'post',
    path: '/entries',
    access: 'signedIn',
    handle: async (request, response, session) => {
      const { entries } = readBody<NewEntries>(newEntriesSchema, request.body)
      const answer: EntriesAnswer = await appendEntries(db, session, entries, clock)
      response.status(201).json(answer)
    },
  },
]
