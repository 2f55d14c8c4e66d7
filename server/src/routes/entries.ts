import { newEntriesSchema, type EntriesAnswer, type LoopAnswer, type NewEntries } from '@undercliff/contract'
import type { Route } from '../http/access'
import type { ImportsUnderWay } from '../store/logsSince'
import { overSince } from '../store/underWay'
import { appendEntries } from '../store/appendEntries'
import { Refusal } from '../store/refusal'
import { readLog } from '../store/snapshot'
import { deviceMsOf, pathId, readBody } from '../http/body'
import type { RouteParts } from './parts'

/** Whether an entry says how long a sharpening took or what was behind a sign, or may strike out one that did. */
const teaches = (entry: NewEntries['entries'][number]): boolean =>
  entry.kind === 'corrected' || entry.kind === 'traced' || (entry.kind === 'sharpened' && entry.minutes !== undefined)

/** Nobody asked for it, so that nobody waits for what they did not ask for. */
const LEARNING = 'what logs teach'

/** Logs of loops: read one whole, add entries to any. */
export const entriesRoutes = ({ db, writes, workers, clock }: RouteParts, imports: ImportsUnderWay): Route[] => [
  {
    method: 'get',
    path: '/loops/:loopId',
    access: 'signedIn',
    handle: async (request, response, { crewId }) => {
      const loopId = pathId(request, 'loopId')
      const log = loopId === null ? [] : await readLog(db, crewId, loopId)
      if (loopId === null || log.length === 0) throw new Refusal('no-such-loop', 'There is no such loop.')
      const answer: LoopAnswer = { loopId, entries: log }
      response.json(answer)
    },
  },
  {
    method: 'get',
    path: '/logs',
    access: 'signedIn',
    handle: async (request, response, { crewId, personId }) => {
      const bytes = await workers.run(personId, 'readLogsSince', {
        crewId,
        since: request.query.since,
        sureTo: imports.sureTo(crewId),
      })
      response.type('json').send(Buffer.from(bytes))
    },
  },
  {
    method: 'post',
    path: '/entries',
    access: 'signedIn',
    handle: async (request, response, session) => {
      const { entries } = readBody<NewEntries>(newEntriesSchema, request.body)
      const answer: EntriesAnswer = await appendEntries(writes, session, entries, clock, deviceMsOf(request))
      await overSince(
        writes,
        session.crewId,
        entries.flatMap((entry) => (entry.kind === 'sharpened' ? [entry.loopId] : [])),
      )
      response.status(201).json(answer)
      // It may change what verdicts reckon with; nobody waits for it, and the next one tries again.
      if (entries.some(teaches))
        void workers.run(LEARNING, 'learnFromLogs', { crewId: session.crewId }).catch(() => false)
    },
  },
]
