import { newSawEntryBodySchema, type NewSawEntryBody, type SawAnswer } from '@undercliff/contract'
import type { Route } from '../http/access'
import { Refusal } from '../store/refusal'
import { appendSawEntry, readSawState } from '../store/saws'
import { readBody } from './body'
import type { RouteParts } from './parts'

/** Logs of saws: bars, noses, sprockets. */
export const sawsRoutes = ({ db, clock }: RouteParts): Route[] => [
  {
    method: 'get',
    path: '/saws/:sawId',
    access: 'signedIn',
    handle: async (request, response, { crewId }) => {
      const answer: SawAnswer | null = await readSawState(db, crewId, String(request.params.sawId))
      if (answer === null) throw new Refusal('no-such-route', 'There is no such saw.')
      response.setHeader('Cache-Control', 'private, no-store')
      response.json(answer)
    },
  },
  {
    method: 'post',
    path: '/saw-entries',
    access: 'signedIn',
    handle: async (request, response, session) => {
      const { entry } = readBody<NewSawEntryBody>(newSawEntryBodySchema, request.body)
      response.status(201).json({ entry: await appendSawEntry(db, session, entry, clock) })
    },
  },
]
