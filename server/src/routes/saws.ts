import type { SawAnswer } from '@undercliff/contract'
import type { Route } from '../http/access'
import { Refusal } from '../store/refusal'
import { readSawState } from '../store/saws'
import { pathId } from '../http/body'
import type { RouteParts } from './parts'

/** Saws and their logs: bars, noses, sprockets. Entries go through `POST /api/entries`. */
export const sawsRoutes = ({ db }: RouteParts): Route[] => [
  {
    method: 'get',
    path: '/saws/:sawId',
    access: 'signedIn',
    handle: async (request, response, { crewId }) => {
      const sawId = pathId(request, 'sawId')
      const answer: SawAnswer | null = sawId === null ? null : await readSawState(db, crewId, sawId)
      if (answer === null) throw new Refusal('no-such-route', 'There is no such saw.')
      response.json(answer)
    },
  },
]
