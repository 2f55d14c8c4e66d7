import type { SawAnswer } from '@undercliff/contract'
import type { Route } from '../http/access'
import { Refusal } from '../store/refusal'
import { readSawState } from '../store/saws'
import type { RouteParts } from './parts'

/** Saws and their logs: bars, noses, sprockets. Entries go through `POST /api/entries`. */
export const sawsRoutes = ({ db }: RouteParts): Route[] => [
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
]
